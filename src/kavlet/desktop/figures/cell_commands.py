"""What is done to the table in view: filling, copying and pasting, rows and columns. Each is one named edit."""

from collections.abc import Callable
from typing import Any, Protocol

import msgspec
from PySide6.QtCore import QItemSelectionModel, QModelIndex, QObject

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables import cell_edits, row_order, table_edits
from kavlet.core.document.tables.cell_edits import Box
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cell_input import shown_for_editing
from kavlet.core.spreadsheet.cells import Cell, Value
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.number_text import DATE, PERCENT, PLAIN, NumberText
from kavlet.desktop.command import Command, a_table
from kavlet.desktop.figures import clipboard
from kavlet.desktop.figures.table_model import TableModel
from kavlet.desktop.store import Store

GRID = ("grid",)
NOWHERE: Box = (-1, -1, -1, -1)


class CellSelection(Protocol):
    """Where the cells are shown and chosen; boxes take in both their ends."""

    @property
    def cells(self) -> TableModel: ...
    def chosen(self) -> Box | None: ...
    def inside(self) -> Box | None: ...
    def choose(self, box: Box) -> None: ...
    def go_to(self, column: int, row: int) -> None: ...
    def currentIndex(self) -> QModelIndex: ...
    def selectionModel(self) -> QItemSelectionModel: ...


class TableWork(QObject):
    """Edits of the table in view, on what is selected of it; where nothing is, they do nothing."""

    def __init__(self, place: CellSelection, store: Store, parent: QObject) -> None:
        super().__init__(parent)
        self._place = place
        self._store = store
        declared = self._declared()
        self.edit_commands = tuple(command for command in declared if command.menu == "Edit")
        self.commands = tuple(command for command in declared if command.menu == "Figures")

    def _declared(self) -> tuple[Command, ...]:
        """What is declared of them. Keys that the grid and text fields handle themselves only stand in the menu."""

        def of(menu: str, name: str, text: str, do: Callable[[], object], shortcut: str = "", **more: Any) -> Command:
            return Command(name, menu, text, do, shortcut, a_table, **more)

        e, f = "Edit", "Figures"
        return (
            of(e, "cut", "Cut", self.cut, "Ctrl+X", also=GRID, line_before=True, own_keys=True),
            of(e, "copy", "Copy", self.copy, "Ctrl+C", also=GRID, own_keys=True),
            of(e, "paste_values", "Paste values only", self.paste_values, "Ctrl+Shift+V", also=GRID),
            of(e, "clear", "Clear cells", self.clear, "Del", also=GRID, own_keys=True),
            of(f, "insert_rows", "Insert rows above", self.insert_rows, "Ctrl++", also=GRID),
            of(f, "insert_rows_below", "Insert rows below", lambda: self.insert_rows(below=True), "Ctrl+Shift+Return",
               also=GRID),
            of(f, "delete_rows", "Delete rows", self.delete_rows, "Ctrl+-", also=GRID),
            of(f, "rows_up", "Move rows up", lambda: self.move_rows(-1), "Alt+Up", own_keys=True),
            of(f, "rows_down", "Move rows down", lambda: self.move_rows(1), "Alt+Down", own_keys=True),
            of(f, "insert_column", "Insert column after", self.insert_column, also=GRID, line_before=True),
            of(f, "delete_columns", "Delete columns", self.delete_columns, also=GRID),
            of(f, "columns_left", "Move columns left", lambda: self.move_columns(-1), "Alt+Left", own_keys=True),
            of(f, "columns_right", "Move columns right", lambda: self.move_columns(1), "Alt+Right", own_keys=True),
            of(f, "fill_down", "Fill down", self.fill_down, "Ctrl+D", line_before=True),
            of(f, "fill_right", "Fill right", self.fill_right, "Ctrl+Shift+D"),
            of(f, "sort_up", "Sort rows up", lambda: self.sort(descending=False), also=GRID, line_before=True),
            of(f, "sort_down", "Sort rows down", lambda: self.sort(descending=True), also=GRID),
            of(f, "transpose", "Turn rows into columns", self.transpose),
            of(f, "as_number", "Write as number", lambda: self.set_number_text(PLAIN), "Ctrl+Shift+1",
               line_before=True),
            of(f, "as_percent", "Write as percent", lambda: self.set_number_text(PERCENT), "Ctrl+Shift+5"),
            of(f, "as_date", "Write as date", lambda: self.set_number_text(DATE), "Ctrl+Shift+3"),
            of(f, "more_decimals", "More decimals", lambda: self._decimals(1)),
            of(f, "fewer_decimals", "Fewer decimals", lambda: self._decimals(-1)),
            of(f, "give_back", "Give helper cells back to the recipe", self.give_back, also=GRID, line_before=True),
            of(f, "cut_loose", "Cut helper column loose", self.cut_loose, also=GRID),
        )  # fmt: skip

    # What is chosen

    def _box(self, inside: bool = False) -> Box:
        """The box around the selection, without the empty row below the table if wished; NOWHERE without any."""
        box = self._place.inside() if inside else self._place.chosen()
        return box or NOWHERE

    def _current(self) -> int:
        """The current column; -1 without any."""
        index = self._place.currentIndex()
        return index.column() if index.isValid() else -1

    def fill(self, source: Box, target: Box) -> None:
        self._store.edit_table(
            say("fill"), lambda document, table: cell_edits.fill(document, table.id, source, target)
        )  # fmt: skip
        self._place.choose(target)

    def fill_down(self) -> None:
        """Fill the selection from its first row."""
        first, top, last, bottom = self._box()
        if bottom > top:
            self.fill((first, top, last, top), (first, top, last, bottom))

    def fill_right(self) -> None:
        """Fill the selection from its first column."""
        first, top, last, bottom = self._box(inside=True)
        if last > first:
            self.fill((first, top, first, bottom), (first, top, last, bottom))

    # Clipboard

    def copy(self, moves: bool = False) -> None:
        """The selection to the clipboard: as shown for other programs, as it is for this one."""
        box, model = self._box(inside=True), self._place.cells
        if box == NOWHERE:
            return
        first, top, last, bottom = box
        indexes = [[model.index(row, column) for column in range(first, last + 1)] for row in range(top, bottom + 1)]
        shown = [[model.shown(index) for index in row] for row in indexes]
        values: list[list[Value]] = [[model.value(index) for index in row] for row in indexes]
        cells = [[model.cell(index) for index in row] for row in indexes]
        clipboard.put(
            shown, clipboard.CopiedCells(self._store.there.id, box, cells, clipboard.plain_values(values), moves)
        )

    def cut(self) -> None:
        """Copy the selection; pasting it then moves it, with every reference to it."""
        self.copy(moves=True)

    def clear(self) -> None:
        """Empty the selected cells."""
        cells: dict[tuple[int, int], Cell] = {
            (index.column(), index.row()): None
            for index in self._place.selectionModel().selectedIndexes()
            if self._place.cells.cell(index) is not None
        }
        if cells:
            self._place.cells.put(cells, say("clear cells"))

    def paste(self) -> None:
        """Cells from the clipboard at the current cell: own ones with their formulas, others as typed."""
        (column, row, *_), held = self._box(), clipboard.own()
        if held is None:
            self._paste_block(self.clipboard_cells())
        elif held.moves and held.table == self._store.there.id:
            box = held.box
            self._store.edit_table(
                say("move cells"), lambda document, table: cell_edits.move_cells(document, table.id, box, column, row)
            )
            self._copy_is_done(box)
        else:
            self._paste_block(cell_edits.moved_block(held.cells, column - held.box[0], row - held.box[1]))

    def _copy_is_done(self, box: Box) -> None:
        """Cells that were moved can't be moved again: from now on the clipboard holds a copy."""
        column, row, *_ = self._box()
        self._place.choose((column, row, column + box[2] - box[0], row + box[3] - box[1]))
        self.copy()

    def paste_values(self) -> None:
        """What the copied cells showed, without their formulas."""
        held = clipboard.own()
        values: list[list[Cell]] = [list(row) for row in held.values] if held is not None else self.clipboard_cells()
        self._paste_block(values)

    def _paste_block(self, block: list[list[Cell]]) -> None:
        box = self._box()
        if not block or box == NOWHERE:
            return
        column, row, last_column, last_row = box
        height, width = len(block), len(block[0])
        if (last_row - row + 1) % height == 0 and (last_column - column + 1) % width == 0:
            # A larger selection is filled with copies of the block.
            block = self._repeated(block, last_column - column + 1, last_row - row + 1)
        if row < HEADER:
            block = [
                [None if cell is None else shown_for_editing(cell) for cell in line] if i + row < HEADER else line
                for i, line in enumerate(block)
            ]
        self._store.edit_table(
            say("paste cells"), lambda document, table: edits.paste(document, table.id, column, row, block)
        )

    @staticmethod
    def _repeated(block: list[list[Cell]], width: int, height: int) -> list[list[Cell]]:
        rows, columns = len(block), len(block[0])
        return [
            [
                cell_edits.moved_block([[block[r % rows][c % columns]]], c - c % columns, r - r % rows)[0][0]
                for c in range(width)
            ]
            for r in range(height)
        ]

    def clipboard_cells(self) -> list[list[Cell]]:
        """The clipboard's fields as rows of cells, understood by the document's locale. Raises KavletError."""
        sign = decimal_sign(self._store.document.locale)
        return [[self._place.cells.understood(field) for field in row] for row in clipboard.fields(sign)]

    # Rows and columns

    def insert_rows(self, below: bool = False) -> None:
        """As many empty rows as are selected, above or below them."""
        box = self._box()
        if box == NOWHERE:
            return
        column, first, _, last = box
        last = min(last, self._store.there.height - 1)
        count = max(1, last - first + 1)
        at = max(HEADER, last + 1 if below else first)
        self._store.edit_table(
            say("insert rows"), lambda document, table: edits.insert_rows(document, table.id, at, count)
        )
        self._place.go_to(column, at)

    def delete_rows(self) -> None:
        box = self._box(inside=True)
        if box == NOWHERE:
            return
        column, first, _, last = box
        self._store.edit_table(
            say("delete rows"), lambda document, table: edits.delete_rows(document, table.id, first, last - first + 1)
        )
        self._place.go_to(column, min(first, self._place.cells.rowCount() - 1))

    def insert_column(self) -> None:
        """An empty column after the current one."""
        at = self._current() + 1
        if at > 0:
            self._store.edit_table(
                say("insert column"), lambda document, table: edits.insert_columns(document, table.id, at)
            )

    def delete_columns(self) -> None:
        box = self._box()
        if box == NOWHERE:
            return
        first, row, last, _ = box
        self._store.edit_table(
            say("delete columns"),
            lambda document, table: edits.delete_columns(document, table.id, first, last - first + 1),
        )
        self._place.go_to(first, row)

    def move_rows(self, by: int) -> None:
        """Move the selected rows up (-1) or down (1) by one."""
        left, first, right, last = self._box(inside=True)
        to = first - 1 if by < 0 else last + 2
        if to < HEADER or to > self._store.there.height or first < HEADER:
            return
        self._store.edit_table(
            say("move rows"),
            lambda document, table: row_order.move_rows(document, table.id, first, last - first + 1, to),
        )
        self._place.choose((left, first + by, right, last + by))

    def move_columns(self, by: int) -> None:
        """Move the selected columns left (-1) or right (1) by one."""
        first, top, last, bottom = self._box()
        own = sum(column.helper is None for column in self._store.there.columns)
        to = first - 1 if by < 0 else last + 2
        if first < 0 or to < 0 or to > own:
            return
        self._store.edit_table(
            say("move columns"),
            lambda document, table: row_order.move_columns(document, table.id, first, last - first + 1, to),
        )
        self._place.choose((first + by, top, last + by, bottom))

    def sort(self, descending: bool) -> None:
        """Sort the rows by the current column."""
        column = self._current()
        if column < 0:
            return
        values = self._store.values.texts(self._store.there.id, column)
        self._store.edit_table(
            say("sort rows"), lambda document, table: row_order.sort_rows(document, table.id, values, descending)
        )

    def transpose(self) -> None:
        followed = self._store.table.source is not None
        turned = self._store.edit_table(
            say("turn rows into columns"), lambda document, table: row_order.transpose(document, table.id)
        )
        if turned and followed:
            self._store.tell(words("The table is turned, so it follows its file no longer."))

    def set_number_text(self, number: NumberText) -> None:
        """Write the numbers of the selection so; a column selected from top to bottom keeps it for new rows."""
        box = self._box()
        if box != NOWHERE:
            self._store.edit_table(
                say("number text"),
                lambda document, table: cell_edits.set_number_text(document, table.id, box, number),
            )

    def _decimals(self, by: int) -> None:
        """Show one decimal more or less, always that many, beginning from those shown now."""
        index = self._place.currentIndex()
        if not index.isValid():
            return
        how = self._place.cells.number_text(index)
        sign = decimal_sign(self._store.document.locale)
        digits = self._place.cells.shown(index).partition(sign)[2]
        shown = len("".join(c for c in digits if c.isdigit()))
        decimals = max(0, min(10, shown + by))
        self.set_number_text(msgspec.structs.replace(how, least_decimals=decimals, most_decimals=decimals))

    def give_back(self) -> None:
        """Selected helper cells that were changed by hand become the recipe's again."""
        cells: dict[tuple[int, int], Cell] = {
            (index.column(), index.row()): None
            for index in self._place.selectionModel().selectedIndexes()
            if self._place.cells.is_hand_made(index)
        }
        if cells:
            self._place.cells.put(cells, say("give back to recipe"))

    def cut_loose(self) -> None:
        """The current helper column becomes the table's own."""
        at = self._current()

        def loose(document: Document, table: Table) -> Document:
            return table_edits.cut_loose(document, table.id, table.columns[at].id)

        if at >= 0:
            self._store.edit_table(say("cut helper loose"), loose)
