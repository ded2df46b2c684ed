"""The Dress place: what the chosen part of the chart has, live; the chart's own texts and look when none is."""

from collections.abc import Iterator
from typing import Any

import msgspec
from PySide6.QtCore import QPoint, Qt, QTimer, Signal
from PySide6.QtWidgets import QCheckBox, QFrame, QLabel, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.charts.looks import below, parse
from kavlet.core.charts.overrides import checked, held, is_type
from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.looks.setting_owner import looks_of, owners
from kavlet.core.document.tables import input_parsing
from kavlet.core.document.tables.total_rows import counts_totals, total_rows
from kavlet.core.interaction import parts
from kavlet.core.interaction.offers import SOLID, labelled_alike, of_main, offers
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.kinds import kind_of, type_name
from kavlet.core.messages import Message, named, say, upper_first, words
from kavlet.core.pipeline.alt_text import in_english, own_alt
from kavlet.core.pipeline.stages import NO_PICTURE, Picture
from kavlet.core.pipeline.validation import check_scales
from kavlet.core.styling.fills import PictureFill
from kavlet.core.styling.style import resolve
from kavlet.core.values.number_text import PLAIN
from kavlet.desktop.debounce import Debounce
from kavlet.desktop.dress.direction_choice import ACROSS, DOWN, READINGS
from kavlet.desktop.dress.fields import ChoiceField, TextField, give_up_in
from kavlet.desktop.dress.fill_field import FillField
from kavlet.desktop.dress.look_fields import LookFields, quiet
from kavlet.desktop.dress.parameters import ParameterFields
from kavlet.desktop.dress.row_stock import RowStock
from kavlet.desktop.dress.rows import DressRow, as_fill
from kavlet.desktop.dress.solid_fields import SolidFields, reading
from kavlet.desktop.dress.symbol_shelf import SymbolShelf
from kavlet.desktop.incremental import IncrementalTask
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.tab_order import fields_of, in_tab_order


class DressPanel(QFrame):
    """Fields for the part that is chosen, or for the chart. Each change is one undoable edit.

    `sought` tells that one of them is gone to, which has to be seen.
    """

    picture_wanted = Signal()
    drawing_wanted = Signal()
    reading_wanted = Signal(bool)
    sought = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self._of: tuple[str, Part | None] = ("", None)
        self._shape: tuple[object, ...] = ()
        self._rows: dict[str, DressRow] = {}
        self._stock = RowStock(self._wire)
        self.texts: dict[str, TextField] = {}
        self.parameters = ParameterFields(store, self)
        self.solid = SolidFields()
        self.shelf = SymbolShelf(store, self)
        for shelf in (self.shelf, self.parameters.shelf):
            shelf.add_wanted.connect(self.picture_wanted)
            shelf.draw_wanted.connect(self.drawing_wanted)
        self._symbol_for = ""
        self.shelf.chosen.connect(self._take_symbol)
        self.head = QLabel(words("Dress"))
        self.head.setObjectName("head")
        self.head.setWordWrap(True)
        self.reading = QLabel()
        self.reading.setObjectName("quiet")
        self.reading.setWordWrap(True)
        self.reading.hide()
        self._inside = QWidget()
        self._form = QVBoxLayout(self._inside)
        self._form.setContentsMargins(0, 0, 2 * UNIT, 0)
        self._form.setSpacing(UNIT + 2)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setWidget(self._inside)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, UNIT, 2 * UNIT)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.head, 0, Qt.AlignmentFlag.AlignTop)
        layout.addWidget(self.reading)
        layout.addWidget(self._scroll, 1)
        self._make_look()
        self._staying = (
            self._texts, self.look, self.parameters, self._running, self.repeat, self.totals, self.solid,
            self.solid.reading,
        )  # fmt: skip
        for one in self._staying:
            one.setParent(self._inside)
            one.hide()
        self._bits = IncrementalTask(self._built, self._inside)
        self._rest = Debounce(store, self.refresh, self)
        store.follow(self._rest.wait)
        store.selected.connect(self._rest.wait)
        self._rest.wait()

    def _make_look(self) -> None:
        """The fields that stay: the chart's texts, theme, ground, palette, face, and what gives all back."""
        for name, label, hint in (
            ("title", words("Title"), words("text, or a cell: =B1")),
            ("subtitle", words("Subtitle"), ""),
            ("source", words("Source line"), ""),
        ):
            field = TextField(label, hint)
            field.committed.connect(lambda text, name=name: self._set_text(name, text))
            self.texts[name] = field
        self.alt = TextField(words("Alt text"))
        self.alt.committed.connect(self._set_alt)
        self.run = ChoiceField(words("Figures run"), READINGS)
        self.run.setToolTip(words("Down the columns of its table, or across one of its rows"))
        self.run.chosen.connect(lambda way: self.reading_wanted.emit(way == ACROSS))
        self._running = QWidget()
        running = QVBoxLayout(self._running)
        running.setContentsMargins(0, 0, 0, 0)
        running.setSpacing(UNIT)
        running.addWidget(quiet(words("Figures run"), self.run))
        running.addWidget(self.run)
        self.repeat = QCheckBox(words("Repeat for each row or group"))
        self.repeat.clicked.connect(self._repeat)
        self.totals = QCheckBox(words("Count the total row"))
        self.totals.clicked.connect(self._count_totals)
        self.look = LookFields(self._store)
        self._texts = QWidget()
        form = QVBoxLayout(self._texts)
        form.setContentsMargins(0, 0, 0, 0)
        form.setSpacing(UNIT)
        for name, field in self.texts.items():
            form.addWidget(quiet(upper_first(str(named(name))), field))
            form.addWidget(field)
        form.addWidget(quiet(words("Alt text"), self.alt))
        form.addWidget(self.alt)

    # What is shown

    @property
    def part(self) -> Part | None:
        """The part whose fields are shown: the first of those chosen."""
        return self._store.selection[0] if self._store.selection else None

    @property
    def fill(self) -> FillField | None:
        """The fill that is shown: the chosen part's, or that of the layer the chart is about."""
        row = next((row for path, row in self.rows.items() if parse(path).last == "fill"), None)
        return row.field if row is not None and isinstance(row.field, FillField) else None

    def refresh(self) -> None:
        """Show what the document holds; build the fields anew only when another kind of part is chosen."""
        chart, picture = self._store.chart, self._store.picture
        if self._of != (chart.id, self.part):
            self._of = chart.id, self.part
            give_up_in(self)
        self._scroll.setVisible(self._store.has_chart)
        if not self._store.has_chart:
            self.reading.hide()
            self.head.setText(words("Dress"))
            return
        spec = picture.build.chart if picture is not NO_PICTURE else None
        part = self.part
        wanted = [] if spec is None else offers(spec, part)
        if spec is not None and part is None:
            wanted = of_main(spec) + wanted
            owned = owners(self._store.document, chart)  # they stand among the recipe's own settings
            wanted = [one for one in wanted if one.path not in owned]
            if spec.as_solid is not None:  # who turns a chart wants its light and depth at hand
                wanted.sort(key=lambda one: one.group != SOLID)
        shape = (chart.id, chart.recipe, part, tuple(wanted), tuple(self._columns()))
        if shape != self._shape and (spec is not None or not self._shape):
            self._shape = shape
            self._build(wanted, part)  # which ends with a refresh
            return
        self.head.setText(self._named(picture, part))
        self._show(picture)

    def _named(self, picture: Picture, part: Part | None) -> str:
        if part is None or picture is NO_PICTURE:
            return words("Dress: the chart")
        more = len(self._store.selection) - 1
        what = (
            named(part.key)
            if part.kind == "text"
            else say("{kind}: {name}", kind=named(part.kind), name=parts.says(picture.figure, part))
        )
        return words("Dress: {part}", part=what) + (f"  + {more}" if more else "")

    def _build(self, wanted: list[Any], part: Part | None) -> None:
        """Lay the fields out in their groups."""
        self._stock.clear(self._form, self._staying)
        self._rows = {}
        if part is None:
            self._group(words("Texts"))
            for one in (self._texts, self.parameters, self._running, self.repeat, self.totals):
                self._put(one)
        self._bits.begin(self._laid_out(wanted, part))

    def _laid_out(self, wanted: list[Any], part: Part | None) -> Iterator[None]:
        """Field after field, so that the window need not wait for all of them."""
        columns, group = self._columns(), ""
        for offer in wanted:
            if offer.group != group:
                if group == SOLID:
                    self._put(self.solid.reading)
                group = offer.group
                self._group(words(group))
                if group == SOLID:
                    self._put(self.solid)
            if offer.kind == "switch":
                continue
            row = self._rows[offer.path] = self._stock.take(offer, columns)
            self._form.addWidget(row)
            yield
        if group == SOLID:
            self._put(self.solid.reading)
        if part is None:
            self._group(words("Look"))
            self._put(self.look)
        self._form.addStretch(1)

    def _built(self) -> None:
        """All fields stand."""
        self._stock.let_go()
        self.refresh()
        in_tab_order(fields_of(self._form))

    def _wire(self, row: DressRow) -> None:
        path = row.offer.path
        row.set.connect(lambda value: self.set_value(path, value))
        row.typed.connect(lambda text: self._typed(row, text))
        row.back.connect(lambda: self.give_back(path))
        row.refused.connect(self._store.tell)
        row.own_colours.connect(self._own_colours)
        row.symbol_wanted.connect(lambda place: self._open_shelf(path, place))

    def _put(self, widget: QWidget) -> None:
        self._form.addWidget(widget)
        widget.show()

    def _group(self, text: str) -> None:
        label = QLabel(text)
        label.setObjectName("head")
        label.setContentsMargins(0, 2 * UNIT if self._form.count() else 0, 0, 0)
        self._form.addWidget(label)

    def _columns(self) -> list[tuple[str, str]]:
        table = self._store.document.table(self._store.here.table)
        return [(column.id, str(table.called(i))) for i, column in enumerate(table.columns)]

    def _show(self, picture: Picture) -> None:
        chart, document = self._store.chart, self._store.document
        for name, field in self.texts.items():
            field.show_text(input_parsing.shown(getattr(chart, name), document.locale))
        self.alt.show_text(chart.alt.text if chart.alt is not None else "")
        self.alt.setPlaceholderText(picture.figure.alt_text if chart.alt is None else "")
        self.alt.setToolTip(picture.figure.alt_text)
        self.parameters.refresh()
        recipe = self._store.recipe
        self._running.setVisible(recipe is not None and self.part is None)
        self.run.show_choice(ACROSS if chart.reading is not None else DOWN)
        self.repeat.setVisible(recipe is not None and recipe.repeats is not None and self.part is None)
        self.repeat.setChecked(chart.repeat)
        has_total = total_rows(document.table(chart.table), chart, recipe) > 0
        self.totals.setVisible(has_total and self.part is None)
        self.totals.setChecked(counts_totals(chart, recipe))
        self.look.refresh(picture)
        if picture is NO_PICTURE:
            return
        settled = not self._store.trying
        if self.part is None:
            self.solid.show_picture(picture, settled)
        if settled:
            self.reading.setText(reading(picture.figure, self.part))
        self.reading.setVisible(bool(self.reading.text()))
        spec = picture.build.chart
        style = resolve(chart.dress, document.house)
        pictures = {one.name: one for one in document.pictures}
        set_by_hand = looks_of(document, chart)
        for path, row in self._rows.items():
            value, by_hand = held(spec, path), path in set_by_hand
            if value is None and "number" in parse(path).field:
                value = getattr(PLAIN, parse(path).last)  # what holds where nothing is set
            if isinstance(row.field, FillField):
                fill = as_fill(msgspec.to_builtins(value))
                shown_picture = pictures.get(fill.name) if isinstance(fill, PictureFill) else None
                row.field.show_fill(fill, style, self._drawn(picture, path), by_hand, shown_picture)
            else:
                others = [held(spec, other) for other in self._same_paths(path)]
                formula = chart.dress.overrides.get(path)
                bound = isinstance(formula, str) and formula.startswith("=")
                shown = formula if bound else _shown_type(spec, path, value)
                row.show_value(shown, by_hand, document.locale, any(other != value for other in others))

    def _drawn(self, picture: Picture, path: str) -> str:
        """The hex code of the colour a layer or mark is drawn in now."""
        look = parse(path)
        for mark in picture.figure.marks:
            if mark.key == look.layer and mark.fill is not None and look.row in (None, mark.row):
                return mark.fill.hex
        return picture.figure.ground.hex

    def reveal(self, path: str) -> None:
        """Bring the field of a path into view, once the fields have found their places."""

        def scroll() -> None:
            row = self.rows.get(path)
            if row is not None:
                self._scroll.ensureWidgetVisible(row, 0, self._scroll.height() // 2)

        QTimer.singleShot(0, self, scroll)

    def go_to(self, field: QWidget) -> None:
        """Bring a field into view and type there."""
        self.sought.emit()
        self._scroll.ensureWidgetVisible(field, 0, self._scroll.height() // 2)
        field.setFocus(Qt.FocusReason.ShortcutFocusReason)

    # What is set

    def _same_paths(self, path: str) -> list[str]:
        """The same path on the other parts that are chosen; on all that are labelled alike where nothing is."""
        first, look = self.part, parse(path)
        spec = self._store.picture.build.chart
        if first is None and look.layer == spec.main and look.field[:1] == ("label",):
            return [look.on(key).text for key in labelled_alike(spec, look.layer)]
        if first is None or not first.path or not look.within(parse(first.path)):
            return []
        rest = look.steps[len(parse(first.path).steps) :]
        return [below(one.path, *rest) for one in self._store.selection[1:] if one.kind == first.kind]

    def _typed(self, row: DressRow, text: str) -> None:
        """What was typed into a field, read as a cell of the document is; nothing gives back."""
        store, field, offer = self._store, row.field, row.offer
        if isinstance(field, FillField):
            store.guard(lambda: field.take_colour(text))
            return

        def take() -> None:
            self.set_value(offer.path, input_parsing.look(store.document, store.values, store.here.table, offer, text))

        store.guard(take)

    def set_value(self, path: str, value: Any) -> None:
        """Set a value by hand, on all parts that are chosen; None gives it back."""
        if value is None:
            self.give_back(path)
            return
        picture = self._store.picture
        looks = dict.fromkeys((path, *self._same_paths(path)), value)

        def dressed(document: Document, chart: ChartEntry) -> Document:
            if parse(path).last == "template":
                input_parsing.template(document, self._store.values, chart.table, str(value))
            if picture is not NO_PICTURE and not (isinstance(value, str) and value.startswith("=")):
                for one in looks:
                    checked(picture.build.chart, one, value)
            made = look_edits.set_looks(document, chart.id, looks)
            return check_scales(made, self._store.values, chart.id) if parse(path).field[:1] == ("frame",) else made

        self._store.edit_chart(self._edit_name(path), dressed)

    def _own_colours(self, name: str, on: bool) -> None:
        """Draw a picture of the document in its own colours, or in one, wherever it is used."""
        self._store.edit(
            say("own colours of {name}", name=name), lambda document: look_edits.with_own_colours(document, name, on)
        )

    def _edit_name(self, path: str) -> Message:
        """What setting a value is called: by the words of its field."""
        row = self._rows.get(path)
        return say("change {what}", what=row.offer.called) if row is not None else say("change look")

    def give_back(self, path: str) -> None:
        """Give a value back to recipe and theme."""
        paths = (path, *self._same_paths(path))
        self._store.edit_chart(
            say("give back to theme"), lambda document, chart: look_edits.give_back(document, chart.id, paths)
        )

    def edit(self, name: str) -> None:
        """Go to the field of one of the chart's own texts."""
        self.sought.emit()
        self.texts[name].setFocus(Qt.FocusReason.ShortcutFocusReason)
        self.texts[name].selectAll()

    def _open_shelf(self, path: str, place: QPoint) -> None:
        self._symbol_for = path
        self.shelf.open_at(place - QPoint(self.shelf.width() - 60, 0))

    def _take_symbol(self, name: str) -> None:
        row = self._rows.get(self._symbol_for)
        if row is not None and isinstance(row.field, FillField):
            row.field.take_symbol(name)
        elif self._symbol_for:
            self.set_value(self._symbol_for, name)

    def _set_text(self, name: str, text: str) -> None:
        def edit(document: Document, chart: ChartEntry) -> Document:
            held = input_parsing.words_or_formula(document, self._store.values, chart.table, text)
            return edits.change_chart(document, chart.id, **{name: held})

        self._store.edit_chart(say("change {what}", what=named(name)), edit)

    def _set_alt(self, text: str) -> None:
        build = self._store.picture.build
        said = in_english(self._store.chart, self._store.recipe, build.inputs, build.panels[0].data)
        self._store.edit_chart(
            say("change {what}", what=named("alt text")),
            lambda document, chart: edits.change_chart(document, chart.id, alt=own_alt(text, said)),
        )

    def _repeat(self, on: bool) -> None:
        self._store.edit_chart(
            say("repeat for each row"), lambda document, chart: chart_edits.repeated(document, chart.id, on)
        )

    def _count_totals(self, on: bool) -> None:
        self._store.edit_chart(
            say("count the total row"), lambda document, chart: edits.change_chart(document, chart.id, totals=on)
        )

    @property
    def rows(self) -> dict[str, DressRow]:
        """The fields of what is chosen, by their paths."""
        self._rest.now()
        self._bits.finish()
        return self._rows

    @property
    def settings(self) -> dict[str, QWidget]:
        """The recipe's own fields by name."""
        self._rest.now()
        return self.parameters.fields


def _shown_type(spec: Any, path: str, value: Any) -> Any:
    """A layer's type is no field of it, but its kind."""
    look = parse(path)
    layer = spec.layer(look.layer) if is_type(look) else None
    return type_name(kind_of(layer)) if layer is not None else value
