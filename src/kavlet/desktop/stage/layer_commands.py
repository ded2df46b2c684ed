"""What is done to layers: hidden, ordered, drawn as another type, put on the second axis, added and removed."""

from collections.abc import Callable, Mapping
from functools import partial

from PySide6.QtCore import QObject, QPoint
from PySide6.QtWidgets import QInputDialog, QMenu, QWidget

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.reference import Reference
from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document, fresh_id
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables.input_parsing import words_or_formula
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import PlacedAxis
from kavlet.core.layout.kinds import addable, kind_of, plain_types, type_name
from kavlet.core.messages import Message, named, say, words
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.references import filled
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.errors import refusal
from kavlet.desktop.stage.layer_strip import LayerStrip
from kavlet.desktop.store import Store

HELPER = "helper"  # what a helper column of an author's own is called at first


class LayerCommands(QObject):
    """What the layer strip and its menus ask for; what the core refuses is said in one sentence."""

    def __init__(self, parent: QWidget, store: Store, strip: LayerStrip) -> None:
        super().__init__(parent)
        self._parent, self._store, self._strip = parent, store, strip
        self.more: Callable[[QMenu], object] = lambda _menu: None  # what others add to the menu of additions

    def look(self, name: Message, looks: Mapping[str, object]) -> None:
        """Set values by hand, as one edit."""
        self._store.edit_chart(name, lambda document, chart: look_edits.set_looks(document, chart.id, looks))

    def hide(self, key: str) -> None:
        """Leave a layer out, or show it again."""
        layer = self._store.spec.layer(key)
        if layer is not None:
            name = say("show layer") if layer.hidden else say("hide layer")
            self.look(name, {of_layer(key, "hidden"): not layer.hidden})

    def draw_as(self, key: str, kind: str) -> None:
        self.look(say("draw layer otherwise"), {of_layer(key, "type"): kind})

    def to_second_axis(self, key: str, on: bool) -> None:
        """Move a layer to the second axis, which appears with it."""
        looks: dict[str, object] = {of_layer(key, "second"): on}
        if on and getattr(self._store.spec.frame, "second", None) is None:
            looks["frame.second.visible"] = True
        self.look(say("change axis"), looks)

    # Menus

    def add_menu(self, place: QPoint) -> None:
        """A menu of what can be added: a plain layer on a column, a helper column of one's own, a line at a value."""
        table, frame = self._store.document.table(self._store.here.table), self._store.spec.frame
        menu = QMenu(self._parent)
        for kind in (name for name, one in addable().items() if one.stands_on(frame)):
            inner = menu.addMenu(words("Add {what}", what=named(kind)))
            for i, column in enumerate(table.columns):
                action = inner.addAction(str(table.called(i)))
                action.triggered.connect(lambda _c=False, kind=kind, key=column.id: self.add(kind, key))
            inner.addSeparator()
            inner.addAction(words("From a new helper column…")).triggered.connect(
                lambda _c=False, kind=kind: self._ask_helper(kind)
            )
        if self._axis() is not None:
            line = menu.addAction(words("Add a reference line"))
            line.triggered.connect(lambda: self._store.guard(self.add_reference))
        self.more(menu)
        menu.popup(place)

    def menu(self, key: str, place: QPoint) -> None:
        """What can be done with a card, and nothing that can't."""
        layer = self._store.spec.layer(key)
        if layer is None:
            return
        self._store.select(Part("layer", key))
        menu = QMenu(self._parent)

        def offer(text: str, do: Callable[[], object]) -> None:
            menu.addAction(text).triggered.connect(lambda _checked=False: do())

        on_axes = isinstance(self._store.spec.frame, Cartesian)
        if not layer.helper:
            offer(words("Show layer") if layer.hidden else words("Hide layer"), lambda: self.hide(key))
            kind = kind_of(layer)
            for other in plain_types() if kind.plain and on_axes and layer.values else ():
                if other != type_name(kind):
                    offer(words("Draw as {what}", what=named(other)), partial(self.draw_as, key, other))
            if on_axes and not layer.joins:
                second = words("To the first axis") if layer.second else words("To the second axis")
                offer(second, lambda: self.to_second_axis(key, not layer.second))
            if any(one.key == key for one in self._store.here.layers):
                offer(words("Remove layer"), lambda: self.remove(key))
        strip = self._strip
        at = [card.layer.key for card in strip.cards].index(key)
        if at > 0:
            offer(words("Further back"), lambda: strip.put(key, at - 1))
        if at < len(strip.cards) - 1:
            offer(words("Further front"), lambda: strip.put(key, at + 1))
        if menu.actions():
            menu.popup(place)

    # Adding and removing

    def add(self, kind: str, column: str) -> None:
        """Add a plain layer bound to a column, in front."""
        spec = self._store.spec
        table = self._store.document.table(self._store.here.table)
        self._add(addable()[kind].new(self._key(), str(table.called(table.place(column))), column, spec))

    def add_reference(self) -> None:
        """Add a line in the middle of the scale, to be dragged."""
        axis = self._axis()
        if axis is not None:
            at = (axis.minimum + axis.maximum) / 2
            self._add(Reference(self._key(), words("line"), at=at, label=Label(), listed=False))

    def _axis(self) -> PlacedAxis | None:
        """The value axis of the chart in view; None where it has none."""
        axes = self._store.drawn.figure.axes
        return next((one for one in axes if one.name in ("x", "y", "angle")), None)

    def _key(self) -> str:
        return fresh_id("added ", (layer.key for layer in self._store.spec.layers))

    def _add(self, layer: AnyLayer) -> None:
        self._store.edit_chart(
            say("add layer"),
            lambda document, chart: edits.change_chart(document, chart.id, layers=(*chart.layers, layer)),
        )

    def _ask_helper(self, kind: str) -> None:
        asks = words("Formula of the first row, such as =B2/SUM(B$2:B$6)")
        why, text = "", ""
        while True:  # what is refused is said where it was typed, and can be mended there
            says = f"{why}\n\n{asks}" if why else asks
            text, given = QInputDialog.getText(self._parent, words("New helper column"), says, text=text)
            if not given or not text.strip():
                return
            why = refusal(partial(self.add_on_helper, kind, text))
            if not why:
                return

    def add_on_helper(self, kind: str, formula: str) -> None:
        """A new column with a formula filled down, and a layer on it, as one edit. Raises KavletError for a formula
        that gives an error in its first row."""
        document, here = self._store.document, self._store.here
        text = words_or_formula(document, self._store.values, here.table, f"={formula.strip().removeprefix('=')}")
        key, spec = self._key(), self._store.spec

        def add(document: Document, chart: ChartEntry) -> Document:
            table = document.table(chart.table)
            at = sum(column.helper is None for column in table.columns)
            document = edits.insert_columns(document, table.id, at)
            cells = {(at, row): Formula(filled(text, 0, row - HEADER)) for row in range(HEADER, table.height)}
            document = edits.set_cells(document, table.id, {(at, 0): words(HELPER), **cells})
            column = document.table(table.id).columns[at].id
            layer = addable()[kind].new(key, words(HELPER), column, spec)
            return edits.change_chart(document, chart.id, layers=(*document.chart(chart.id).layers, layer))

        self._store.edit_chart(say("add layer"), add)

    def remove(self, key: str) -> None:
        """Remove a layer that was added; one of the recipe's is hidden."""
        self._store.select()
        if not any(layer.key == key for layer in self._store.here.layers):
            self.look(say("hide layer"), {of_layer(key, "hidden"): True})
            return

        def left(document: Document, chart: ChartEntry) -> Document:
            layers = tuple(layer for layer in chart.layers if layer.key != key)
            return edits.change_chart(document, chart.id, layers=layers)

        self._store.edit_chart(say("remove layer"), left)
