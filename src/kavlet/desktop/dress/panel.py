"""The Dress place: the chart's texts, its recipe's settings, and its look; live, with no dialog."""

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QCheckBox, QFrame, QLabel, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.build import checked_setting
from kavlet.core.charts.points import Points
from kavlet.core.document import edits
from kavlet.core.dress.style import Dress
from kavlet.core.dress.theme import theme, themes
from kavlet.core.recipes.recipe import Parameter, Setting
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.text.faces import Family
from kavlet.core.values.errors import KavletError
from kavlet.desktop.dress.fields import ChoiceField, PickField, TextField
from kavlet.desktop.dress.swatches import ColourField
from kavlet.desktop.look import UNIT
from kavlet.desktop.store import Store

FAMILIES: tuple[Family, ...] = ("text", "narrow", "serif", "easy")


class DressPanel(QFrame):
    """Fields for the chart in view. Each change is one undoable edit."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self._recipe = ""
        self.texts: dict[str, TextField] = {}
        self.settings: dict[str, QWidget] = {}
        self.head = QLabel(self.tr("Dress"))
        self.head.setObjectName("head")
        self._inside = QWidget()
        self._form = QVBoxLayout(self._inside)
        self._form.setContentsMargins(0, 0, 2 * UNIT, 0)
        self._form.setSpacing(UNIT)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFrameShape(QFrame.Shape.NoFrame)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setWidget(self._inside)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, UNIT, 2 * UNIT)
        layout.setSpacing(2 * UNIT)
        layout.addWidget(self.head)
        layout.addWidget(scroll, 1)
        self.theme = PickField(self.tr("Theme"), [(one.name, one.title) for one in themes().values()])
        self.theme.chosen.connect(lambda name: self._dress(self.tr("choose theme"), theme=name))
        self.family = ChoiceField(self.tr("Face"), [(name, name) for name in FAMILIES])
        self.family.chosen.connect(self._choose_family)
        self.dark = QCheckBox(self.tr("Dark ground"))
        self.dark.clicked.connect(lambda on: self._dress(self.tr("choose ground"), dark=on))
        self.fill = ColourField(self.tr("Bars"))
        self.fill.chosen.connect(self._choose_fill)
        self.fill.given_back.connect(self._give_back_fill)
        store.changed.connect(self.refresh)
        self._build()
        self.refresh()

    def _build(self) -> None:
        """Make the fields; those of the recipe come from what it declares."""
        self._group(self.tr("Texts"))
        for name, label, hint in (
            ("title", self.tr("Title"), self.tr("text, or a cell: =B1")),
            ("subtitle", self.tr("Subtitle"), ""),
            ("source", self.tr("Source line"), ""),
        ):
            field = TextField(label, hint)
            field.committed.connect(lambda text, name=name: self._set_text(name, text))
            self.texts[name] = field
            self._labelled(label, field)
        self._place = self._form.count()
        self._settings_end = self._place
        self._group(self.tr("Look"))
        self._labelled(self.tr("Theme"), self.theme)
        self._form.addWidget(self.dark)
        self._labelled(self.tr("Face"), self.family)
        self._labelled(self.tr("Bars"), self.fill)
        self._form.addStretch(1)

    def _group(self, text: str, at: int = -1) -> None:
        label = QLabel(text)
        label.setObjectName("head")
        label.setContentsMargins(0, 2 * UNIT if self._form.count() else 0, 0, 0)
        self._form.insertWidget(at if at >= 0 else self._form.count(), label)

    def _labelled(self, text: str, field: QWidget, at: int = -1) -> None:
        label = QLabel(text)
        label.setObjectName("quiet")
        label.setBuddy(field)
        place = at if at >= 0 else self._form.count()
        self._form.insertWidget(place, label)
        self._form.insertWidget(place + 1, field)

    def _build_settings(self, recipe: str) -> None:
        """Fields for the recipe's settings, under its own words."""
        while self._settings_end > self._place:
            item = self._form.takeAt(self._place)
            widget = item.widget() if item is not None else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
            self._settings_end -= 1
        self.settings = {}
        before = self._form.count()
        at = self._place
        self._group(RECIPES[recipe].title, at)
        at += 1
        for parameter in RECIPES[recipe].parameters:
            field = self._setting_field(parameter)
            field.setToolTip(parameter.meaning)
            self.settings[parameter.name] = field
            if parameter.type == "flag":
                self._form.insertWidget(at, field)
                at += 1
            else:
                unit = f" ({parameter.unit})" if parameter.unit else ""
                self._labelled(parameter.name.capitalize() + unit, field, at)
                at += 2
        self._settings_end = self._place + self._form.count() - before

    def _setting_field(self, parameter: Parameter) -> QWidget:
        name = parameter.name
        if parameter.type == "flag":
            box = QCheckBox(name.capitalize())
            box.clicked.connect(lambda on: self._set_setting(name, on))
            return box
        if parameter.type == "choice" and sum(map(len, parameter.choices)) > 26:
            pick = PickField(name, [(one, one) for one in parameter.choices])
            pick.chosen.connect(lambda value: self._set_setting(name, value))
            return pick
        if parameter.type == "choice":
            choice = ChoiceField(name, [(one, one) for one in parameter.choices])
            choice.chosen.connect(lambda value: self._set_setting(name, value))
            return choice
        hints = {"number": self.tr("number, or a cell: =B7"), "numbers": self.tr("numbers: 40; 70")}
        field = TextField(name, hints.get(parameter.type, self.tr("text, or a cell: =B7")))
        field.committed.connect(lambda text: self._typed_setting(parameter, text))
        return field

    def refresh(self) -> None:
        """Show what the document holds."""
        chart = self._store.chart
        self._inside.setVisible(chart is not None)
        if chart is None:
            return
        if chart.recipe != self._recipe and chart.recipe:
            self._recipe = chart.recipe
            self._build_settings(chart.recipe)
        for name, field in self.texts.items():
            field.show_text(getattr(chart, name))
        held = RECIPES[chart.recipe].defaults | chart.settings if chart.recipe else {}
        for name, widget in self.settings.items():
            _show_setting(widget, held[name])
        look = theme(chart.dress.theme)
        self.theme.show_choice(chart.dress.theme)
        self.family.show_choice(chart.dress.family or look.family)
        tones = look.tones(chart.dress.dark)
        self.dark.setChecked(chart.dress.dark)
        by_hand = chart.dress.overrides.get(self._fill_path())
        shown = by_hand if isinstance(by_hand, str) else tones.palette[0]
        self.fill.show_colour(tones.palette, shown, by_hand is not None)

    def _fill_path(self) -> str:
        """The path of the fill of the layer the chart is about: the first one drawn that is no helper."""
        try:
            picture = self._store.picture()
        except KavletError:
            picture = None
        layers = picture.build.chart.layers if picture is not None else ()
        keys = [layer.key for layer in layers if not layer.helper and layer.listed and not isinstance(layer, Points)]
        return f"layers.{keys[0] if keys else 'value'}.fill"

    def _set_text(self, name: str, text: str) -> None:
        chart = self._store.chart
        if chart is not None:
            document = edits.change_chart(self._store.document, chart.id, **{name: text})
            self._store.apply(self.tr("change {}").format(name), document)

    def _set_setting(self, name: str, value: Setting) -> None:
        chart = self._store.chart
        if chart is not None:
            document = edits.set_setting(self._store.document, chart.id, name, value)
            self._store.apply(self.tr("set {}").format(name), document)

    def _typed_setting(self, parameter: Parameter, text: str) -> None:
        """A typed number, a formula, or nothing, which gives the setting back to the recipe."""
        field = self.settings[parameter.name]
        value: Setting = text.strip()
        if value == "":
            value = parameter.default
        elif not text.strip().startswith("="):
            cell: str | float = text.strip()
            try:
                if parameter.type == "number":
                    cell = float(text.strip().removesuffix(parameter.unit or "%").strip().replace(",", "."))
                value = checked_setting(parameter, cell)
            except (ValueError, KavletError) as error:
                if isinstance(field, TextField):
                    field.mark_wrong(True)
                reason = error if isinstance(error, KavletError) else KavletError(f"“{text}” is not a number.")
                self._store.refuse(reason)
                return
        self._set_setting(parameter.name, value)

    def _dress(self, name: str, **changes: object) -> None:
        chart = self._store.chart
        if chart is not None:
            dress: Dress = msgspec.structs.replace(chart.dress, **changes)
            self._store.apply(name, edits.change_chart(self._store.document, chart.id, dress=dress))

    def _choose_family(self, family: str) -> None:
        chart = self._store.chart
        if chart is not None:
            own = theme(chart.dress.theme).family
            self._dress(self.tr("choose face"), family=None if family == own else family)

    def _choose_fill(self, text: str) -> None:
        chart = self._store.chart
        if chart is not None:
            self._dress(self.tr("colour bars"), overrides=chart.dress.overrides | {self._fill_path(): text})

    def _give_back_fill(self) -> None:
        chart = self._store.chart
        if chart is not None:
            path = self._fill_path()
            left = {key: value for key, value in chart.dress.overrides.items() if key != path}
            self._dress(self.tr("give back to theme"), overrides=left)


def _show_setting(widget: QWidget, value: Setting) -> None:
    if isinstance(widget, QCheckBox):
        widget.setChecked(bool(value))
    elif isinstance(widget, ChoiceField | PickField):
        widget.show_choice(str(value))
    elif isinstance(widget, TextField):
        widget.show_text(f"{value:g}" if isinstance(value, float) else str(value))
