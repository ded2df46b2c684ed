"""Texts of the chart typed where they stand, with the fields and cells they may name offered while typing."""

from collections.abc import Sequence

from msgspec import Struct
from PySide6.QtCore import QModelIndex, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QShowEvent, QStandardItem, QStandardItemModel
from PySide6.QtWidgets import QCompleter, QLineEdit, QListView, QWidget

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import below, of_layer
from kavlet.core.charts.overrides import held
from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import input_parsing
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say, words
from kavlet.core.pipeline.stages import Picture
from kavlet.core.spreadsheet.cell_input import shown_for_editing, typed
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.text.numbers import decimal_sign, group_sign
from kavlet.desktop.pending_text import TextEditor

FIELDS = (
    ("{value}", say("the figure")), ("{name}", say("the row’s name")), ("{share}", say("its share of the whole")),
    ("{step}", say("its share of the row before")), ("{series}", say("the layer’s name")),
)  # fmt: skip
OFFERED = 400


class TextEdit(TextEditor, QLineEdit):
    """`committed` tells the text once Return is pressed or the field is left, and whether it is to be that of all
    labels of its layer; Esc gives it up. `closed` tells that it is done.
    """

    committed = Signal(str, bool)
    closed = Signal()

    def __init__(self, text: str, offers: Sequence[tuple[str, str]], parent: QWidget) -> None:
        super().__init__(text, parent)
        self._held, self._for_all, self._given_up = text, False, False
        model = QStandardItemModel(self)
        for insert, meaning in offers:
            item = QStandardItem(f"{insert}   {meaning}")
            item.setData(insert, Qt.ItemDataRole.UserRole)
            model.appendRow(item)
        self.popup = QListView()
        self.completion = QCompleter(model, self)
        self.completion.setWidget(self)
        self.completion.setPopup(self.popup)
        self.completion.setCompletionRole(Qt.ItemDataRole.UserRole)
        self.completion.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.completion.activated[QModelIndex].connect(self._take)  # type: ignore[index]
        self.textEdited.connect(lambda _: self._offer())
        self.textEdited.connect(lambda _: self.note_typing())
        self.selectAll()

    def offered(self) -> list[str]:
        """What is offered for what has been typed before the cursor."""
        model = self.completion.completionModel()
        role = Qt.ItemDataRole.UserRole
        return [str(model.index(i, 0).data(role)) for i in range(self.completion.completionCount())]

    def _begun(self) -> tuple[int, str]:
        """Where the field or reference before the cursor begins, and what of it is typed."""
        before = self.text()[: self.cursorPosition()]
        brace = before.rfind("{")
        if brace > before.rfind("}"):
            return brace, before[brace:]
        return (0, before) if before.startswith("=") else (-1, "")

    def _offer(self) -> None:
        start, begun = self._begun()
        if start < 0:
            self.popup.hide()
            return
        self.completion.setCompletionPrefix(begun)
        if self.offered() in ([], [begun]):
            self.popup.hide()
            return
        self.completion.complete(QRect(0, 0, max(260, self.width() // 2), self.height()))
        self.popup.setCurrentIndex(self.completion.completionModel().index(0, 0))

    def _take(self, index: QModelIndex) -> None:
        insert = str(index.data(Qt.ItemDataRole.UserRole))
        start, begun = self._begun()
        if start >= 0:
            self.setSelection(start, len(begun))
            self.insert(insert)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.note_typing()

    def typed_text(self) -> str:
        return self.text()

    def is_changed(self) -> bool:
        return not self._given_up and (self._for_all or self.text() != self._held)

    def hand_over(self) -> None:
        self.committed.emit(self.text(), self._for_all)

    def finish_typing(self) -> None:
        self._given_up = True
        had_focus = self.hasFocus()
        self.hide()
        if had_focus:
            self.closed.emit()

    def focusNextPrevChild(self, forward: bool) -> bool:
        return False if self.popup.isVisible() else super().focusNextPrevChild(forward)  # Tab takes what is offered

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.popup.isVisible() and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Tab):
            self._take(self.popup.currentIndex())
            self.popup.hide()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._for_all = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            self.commit()
            self._for_all = False
        elif event.key() == Qt.Key.Key_Escape:
            self.end_typing()
            self.finish_typing()
        else:
            super().keyPressEvent(event)


def text_of(document: Document, chart: ChartEntry, picture: Picture, part: Part) -> str | None:
    """What is typed at a part: a text of the chart, a row's name, what a series or an axis is called, or what a layer's
    labels say; None where nothing is."""
    spec = picture.build.chart
    if part.kind == "text":
        return input_parsing.shown(getattr(chart, part.key), document.locale)
    if part.kind == "name":
        place = _name_place(document, chart, spec, part.row)
        cell = document.table(chart.table).columns[place[0]].cells[place[1]] if place is not None else None
        return shown_for_editing(cell, decimal_sign(document.locale)) if place is not None else None
    if part.kind in ("entry", "axis"):
        path = _called(part)
        return input_parsing.shown(chart.dress.overrides.get(path, held(spec, path)), document.locale)
    layer = picture.build.chart.layer(part.key) if part.kind == "label" else None
    if layer is None or layer.label is None:
        return None
    own = layer.rows[part.row].text if part.row in layer.rows else None
    return (own if own is not None else layer.label.template).replace("\n", "\\n")


def _name_place(document: Document, chart: ChartEntry, spec: Chart, row: int) -> tuple[int, int] | None:
    """The column and row of the cell that holds a row's name; None where rows have none."""
    table = document.table(chart.table)
    at = next((i for i, column in enumerate(table.columns) if column.id == spec.names), None)
    return (at, row + HEADER) if at is not None and 0 <= row < table.rows else None


def _called(part: Part) -> str:
    """The path of what a series, or an axis, is called."""
    return of_layer(part.key, "name") if part.kind == "entry" else below(part.path, "title")


class TypedText(Struct, frozen=True):
    """Where a text is typed, in what a chart is now. A label's is its own, or, `to_all`, that of its whole layer."""

    part: Part
    spec: Chart
    values: Values
    to_all: bool = False


def with_text(document: Document, chart: ChartEntry, where: TypedText, text: str) -> Document:
    """The document with the text taken; the same one when nothing changed. Raises KavletError where it gives none."""
    part, values = where.part, where.values
    if part.kind == "label":
        said = input_parsing.template(document, values, chart.table, text.replace("\\n", "\n"))
        own = of_layer(part.key, "text", row=part.row) if part.row >= 0 else ""
        if own and not where.to_all:
            return look_edits.set_looks(document, chart.id, {own: said})
        looks = {below(part.path, "template"): said} | ({own: None} if own else {})
        return look_edits.set_looks(document, chart.id, looks)
    if part.kind == "name":
        place = _name_place(document, chart, where.spec, part.row)
        cell = typed(text, decimal_sign(document.locale), group_sign(document.locale))
        return edits.set_cells(document, chart.table, {place: cell}) if place is not None else document
    said = input_parsing.words_or_formula(document, values, chart.table, text)
    if part.kind in ("entry", "axis"):
        return look_edits.set_looks(document, chart.id, {_called(part): said.strip() or None})
    if said == getattr(chart, part.key):
        return document
    return edits.change_chart(document, chart.id, **{part.key: said})


def offers(part: Part, values: Sequence[Sequence[object]]) -> list[tuple[str, str]]:
    """What may be named, each with its meaning: cells; in a label also its figure, name and share, and columns."""
    cells: list[tuple[str, str]] = []
    for column, found in enumerate(values):
        for row, value in enumerate(found):
            if value not in (None, "") and len(cells) < OFFERED:
                text = f"{value:g}" if isinstance(value, float) else str(value)
                cells.append((f"={column_letters(column)}{row + 1}", text))
    if part.kind != "label":
        return cells
    heads = [column[0] for column in values if isinstance(column[0], str) and column[0]]
    columns = [(f"{{{head}}}", words("a column")) for head in heads]
    return [
        *((field, str(meaning)) for field, meaning in FIELDS),
        *columns,
        *((f"{{{reference}}}", meaning) for reference, meaning in cells),
    ]
