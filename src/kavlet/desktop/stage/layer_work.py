"""What is done to layers: hidden, ordered, drawn as another type, put on the second axis, added and removed."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import QObject, QPoint
from PySide6.QtWidgets import QInputDialog, QMenu, QWidget

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.labels import Label
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.reference import Reference
from kavlet.core.compose.kinds import ADDABLE, PLAIN_TYPES
from kavlet.core.document import dressing, edits
from kavlet.core.document.document import ChartEntry, Document, fresh_id
from kavlet.core.figures.cells import Formula
from kavlet.core.figures.references import filled
from kavlet.core.figures.table import HEADER
from kavlet.core.messages import Message, named, say, words
from kavlet.core.touch.parts import Part
from kavlet.desktop.stage.strip import LayerStrip
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
        self._store.edit_chart(name, lambda document, chart: dressing.set_looks(document, chart.id, looks))

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
        table = self._store.document.table(self._store.here.table)
        menu = QMenu(self._parent)
        for kind in ADDABLE:
            inner = menu.addMenu(words("Add {what}", what=named(kind)))
            for i, column in enumerate(table.columns):
                action = inner.addAction(str(table.called(i)))
                action.triggered.connect(lambda _c=False, kind=kind, key=column.id: self.add(kind, key))
            inner.addSeparator()
            inner.addAction(words("From a new helper column…")).triggered.connect(
                lambda _c=False, kind=kind: self._ask_helper(kind)
            )
        menu.addAction(words("Add a reference line")).triggered.connect(lambda: self._store.guard(self.add_reference))
        self.more(menu)
        menu.popup(place)

    def menu(self, key: str, place: QPoint) -> None:
        """What can be done with a card."""
        layer = self._store.spec.layer(key)
        if layer is None:
            return
        self._store.select(Part("layer", key))
        menu = QMenu(self._parent)
        if not layer.helper:
            hide = words("Show layer") if layer.hidden else words("Hide layer")
            menu.addAction(hide).triggered.connect(lambda: self.hide(key))
            for kind in PLAIN_TYPES:
                action = menu.addAction(words("Draw as {what}", what=named(kind)))
                action.triggered.connect(lambda _c=False, kind=kind: self.draw_as(key, kind))
            second = words("To the first axis") if layer.second else words("To the second axis")
            menu.addAction(second).triggered.connect(lambda: self.to_second_axis(key, not layer.second))
            menu.addAction(words("Remove layer")).triggered.connect(lambda: self.remove(key))
        strip = self._strip
        at = [card.layer.key for card in strip.cards].index(key)
        menu.addAction(words("Further back")).triggered.connect(lambda: strip.put(key, max(0, at - 1)))
        menu.addAction(words("Further front")).triggered.connect(lambda: strip.put(key, at + 1))
        menu.popup(place)

    # Adding and removing

    def add(self, kind: str, column: str) -> None:
        """Add a plain layer bound to a column, in front."""
        spec = self._store.spec
        table = self._store.document.table(self._store.here.table)
        self._add(ADDABLE[kind].new(self._key(), str(table.called(table.place(column))), column, spec))

    def add_reference(self) -> None:
        """Add a line in the middle of the scale, to be dragged."""
        axes = self._store.drawn.figure.axes
        axis = next((one for one in axes if one.name in ("x", "y", "angle")), None)
        if axis is not None:
            at = (axis.minimum + axis.maximum) / 2
            self._add(Reference(self._key(), words("line"), at=at, label=Label(), listed=False))

    def _key(self) -> str:
        return fresh_id("added ", (layer.key for layer in self._store.spec.layers))

    def _add(self, layer: AnyLayer) -> None:
        self._store.edit_chart(
            say("add layer"),
            lambda document, chart: edits.change_chart(document, chart.id, layers=(*chart.layers, layer)),
        )

    def _ask_helper(self, kind: str) -> None:
        text, given = QInputDialog.getText(
            self._parent, words("New helper column"), words("Formula of the first row, such as =B2/SUM(B$2:B$6)")
        )
        if given and text.strip():
            self._store.guard(lambda: self.add_on_helper(kind, text))

    def add_on_helper(self, kind: str, formula: str) -> None:
        """A new column with a formula filled down, and a layer on it, as one edit."""
        text = formula if formula.startswith("=") else f"={formula}"
        key, spec = self._key(), self._store.spec

        def add(document: Document, chart: ChartEntry) -> Document:
            table = document.table(chart.table)
            at = sum(column.helper is None for column in table.columns)
            document = edits.insert_columns(document, table.id, at)
            cells = {(at, row): Formula(filled(text, 0, row - HEADER)) for row in range(HEADER, table.height)}
            document = edits.set_cells(document, table.id, {(at, 0): words(HELPER), **cells})
            column = document.table(table.id).columns[at].id
            layer = ADDABLE[kind].new(key, words(HELPER), column, spec)
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
