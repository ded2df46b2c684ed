"""What is done to the table in view: filling, copying and pasting, rows and columns. Each is one named edit."""

from __future__ import annotations

from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QObject

from kavlet.core.document import arranging, edits
from kavlet.core.document import cells as cell_edits
from kavlet.core.document import tables as table_edits
from kavlet.core.document.cells import Box
from kavlet.core.figures.cells import Cell, Value
from kavlet.core.figures.table import HEADER
from kavlet.core.figures.typed import shown_for_editing
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import DATE, PERCENT, PLAIN, NumberText
from kavlet.desktop.figures import clipboard
from kavlet.desktop.store import Store

if TYPE_CHECKING:
    from kavlet.desktop.figures.grid import FiguresGrid


class Work(QObject):
    """Edits of the grid's table, on its selection."""

    def __init__(self, grid: FiguresGrid, store: Store) -> None:
        super().__init__(grid)
        self._grid = grid
        self._store = store

    def fill(self, source: Box, target: Box) -> None:
        table = self._grid.cells.table
        if table is not None:
            self._store.attempt(
                self.tr("fill"), lambda: cell_edits.fill(self._store.document, table.id, source, target)
            )
            self._grid.choose(target)

    def fill_down(self) -> None:
        """Fill the selection from its first row."""
        box = self._grid.chosen()
        if box is not None and box[3] > box[1]:
            self.fill((box[0], box[1], box[2], box[1]), box)

    def fill_right(self) -> None:
        """Fill the selection from its first column."""
        box = self._grid.inside()
        if box is not None and box[2] > box[0]:
            self.fill((box[0], box[1], box[0], box[3]), box)

    # Clipboard

    def copy(self, moves: bool = False) -> None:
        """The selection to the clipboard: as shown for other programs, as it is for this one."""
        box, table = self._grid.inside(), self._grid.cells.table
        if box is None or table is None:
            return
        first, top, last, bottom = box
        indexes = [
            [self._grid.cells.index(row, column) for column in range(first, last + 1)] for row in range(top, bottom + 1)
        ]
        shown = [[self._grid.cells.shown(index) for index in row] for row in indexes]
        values: list[list[Value]] = [[self._grid.cells.value(index) for index in row] for row in indexes]
        cells = [[self._grid.cells.cell(index) for index in row] for row in indexes]
        clipboard.put(shown, clipboard.Held(table.id, box, cells, clipboard.plain_values(values), moves))

    def cut(self) -> None:
        """Copy the selection; pasting it then moves it, with every reference to it."""
        self.copy(moves=True)

    def clear(self) -> None:
        """Empty the selected cells."""
        cells: dict[tuple[int, int], Cell] = {
            (index.column(), index.row()): None
            for index in self._grid.selectionModel().selectedIndexes()
            if self._grid.cells.cell(index) is not None
        }
        if cells:
            self._grid.cells.put(cells, self.tr("clear cells"))

    def paste(self) -> None:
        """Cells from the clipboard at the current cell: own ones with their formulas, others as typed."""
        table, box, held = self._grid.cells.table, self._grid.chosen(), clipboard.own()
        if table is None or box is None:
            return
        column, row = box[0], box[1]
        if held is None:
            self._paste_block(self.clipboard_cells())
        elif held.moves and held.table == table.id:
            document = self._store.document
            self._store.attempt(
                self.tr("move cells"), lambda: cell_edits.move_cells(document, table.id, held.box, column, row)
            )
            self.copy_is_done()
        else:
            self._paste_block(cell_edits.moved_block(held.cells, column - held.box[0], row - held.box[1]))

    def copy_is_done(self) -> None:
        """Cells that were moved can't be moved again: from now on the clipboard holds a copy."""
        box = self._grid.chosen()
        held = clipboard.own()
        if box is not None and held is not None:
            width, height = held.box[2] - held.box[0], held.box[3] - held.box[1]
            self._grid.choose((box[0], box[1], box[0] + width, box[1] + height))
            self.copy()

    def paste_values(self) -> None:
        """What the copied cells showed, without their formulas."""
        held = clipboard.own()
        values: list[list[Cell]] = [list(row) for row in held.values] if held is not None else self.clipboard_cells()
        self._paste_block(values)

    def _paste_block(self, block: list[list[Cell]]) -> None:
        table, box = self._grid.cells.table, self._grid.chosen()
        if not block or table is None or box is None:
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
        self._store.attempt(
            self.tr("paste cells"), lambda: edits.paste(self._store.document, table.id, column, row, block)
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
        """The clipboard's fields as rows of cells, understood by the document's locale."""
        try:
            rows = clipboard.fields()
        except KavletError as error:
            self._store.refuse(error)
            return []
        return [[self._grid.cells.understood(field) for field in row] for row in rows]

    # Rows and columns

    def insert_rows_below(self) -> None:
        """As many empty rows as are selected, below them."""
        self.insert_rows(below=True)

    def insert_rows(self, below: bool = False) -> None:
        """As many empty rows as are selected, above or below them."""
        table, box = self._grid.cells.table, self._grid.chosen()
        if table is None or box is None:
            return
        column, first, _, last = box
        last = min(last, table.height - 1)
        count = max(1, last - first + 1)
        at = max(HEADER, last + 1 if below else first)
        self._store.attempt(
            self.tr("insert rows"), lambda: edits.insert_rows(self._store.document, table.id, at, count)
        )
        self._grid.go_to(column, at)

    def delete_rows(self) -> None:
        table, box = self._grid.cells.table, self._grid.inside()
        if table is None or box is None:
            return
        column, first, _, last = box
        count = last - first + 1
        self._store.attempt(
            self.tr("delete rows"), lambda: edits.delete_rows(self._store.document, table.id, first, count)
        )
        self._grid.go_to(column, min(first, self._grid.cells.rowCount() - 1))

    def insert_column(self) -> None:
        """An empty column after the current one."""
        table, index = self._grid.cells.table, self._grid.currentIndex()
        if table is None or not index.isValid():
            return
        at = index.column() + 1
        self._store.attempt(self.tr("insert column"), lambda: edits.insert_columns(self._store.document, table.id, at))

    def delete_columns(self) -> None:
        table, box = self._grid.cells.table, self._grid.chosen()
        if table is None or box is None:
            return
        first, row, last, _ = box
        count = last - first + 1
        self._store.attempt(
            self.tr("delete columns"), lambda: edits.delete_columns(self._store.document, table.id, first, count)
        )
        self._grid.go_to(first, row)

    def move_rows(self, by: int) -> None:
        """Move the selected rows up (-1) or down (1) by one."""
        table, box = self._grid.cells.table, self._grid.inside()
        if table is None or box is None:
            return
        first, count = box[1], box[3] - box[1] + 1
        to = first - 1 if by < 0 else box[3] + 2
        if to < HEADER or to > table.height or first < HEADER:
            return
        document = self._store.document
        self._store.attempt(self.tr("move rows"), lambda: arranging.move_rows(document, table.id, first, count, to))
        self._grid.choose((box[0], first + by, box[2], box[3] + by))

    def rows_up(self) -> None:
        self.move_rows(-1)

    def rows_down(self) -> None:
        self.move_rows(1)

    def columns_left(self) -> None:
        self.move_columns(-1)

    def columns_right(self) -> None:
        self.move_columns(1)

    def move_columns(self, by: int) -> None:
        """Move the selected columns left (-1) or right (1) by one."""
        table, box = self._grid.cells.table, self._grid.chosen()
        if table is None or box is None:
            return
        first, count = box[0], box[2] - box[0] + 1
        own = sum(column.helper is None for column in table.columns)
        to = first - 1 if by < 0 else box[2] + 2
        if to < 0 or to > own:
            return
        document = self._store.document
        self._store.attempt(
            self.tr("move columns"), lambda: arranging.move_columns(document, table.id, first, count, to)
        )
        self._grid.choose((first + by, box[1], box[2] + by, box[3]))

    def sort_up(self) -> None:
        self.sort(descending=False)

    def sort_down(self) -> None:
        self.sort(descending=True)

    def sort(self, descending: bool) -> None:
        """Sort the rows by the current column."""
        table, index = self._grid.cells.table, self._grid.currentIndex()
        if table is None or not index.isValid():
            return
        values = self._store.values.texts(table.id, index.column())
        document = self._store.document
        self._store.attempt(self.tr("sort rows"), lambda: arranging.sort_rows(document, table.id, values, descending))

    def transpose(self) -> None:
        table = self._grid.cells.table
        if table is not None:
            self._store.attempt(
                self.tr("turn rows into columns"), lambda: arranging.transpose(self._store.document, table.id)
            )

    def set_number_text(self, number: NumberText) -> None:
        """Write the numbers of the selection so; a column selected from top to bottom keeps it for new rows."""
        table, box = self._grid.cells.table, self._grid.chosen()
        if table is not None and box is not None:
            document = self._store.document
            self._store.attempt(
                self.tr("number text"), lambda: cell_edits.set_number_text(document, table.id, box, number)
            )

    def as_number(self) -> None:
        self.set_number_text(PLAIN)

    def as_percent(self) -> None:
        self.set_number_text(PERCENT)

    def as_date(self) -> None:
        self.set_number_text(DATE)

    def more_decimals(self) -> None:
        self._decimals(1)

    def fewer_decimals(self) -> None:
        self._decimals(-1)

    def _decimals(self, by: int) -> None:
        """Show one decimal more or less, always that many, beginning from those shown now."""
        index = self._grid.currentIndex()
        if not index.isValid():
            return
        how = self._grid.cells.number_text(index)
        sign = decimal_sign(self._store.document.locale)
        digits = self._grid.cells.shown(index).partition(sign)[2]
        shown = len("".join(c for c in digits if c.isdigit()))
        decimals = max(0, min(10, shown + by))
        self.set_number_text(msgspec.structs.replace(how, least_decimals=decimals, most_decimals=decimals))

    def give_back(self) -> None:
        """Selected helper cells that were changed by hand become the recipe's again."""
        table = self._grid.cells.table
        cells: dict[tuple[int, int], Cell] = {
            (index.column(), index.row()): None
            for index in self._grid.selectionModel().selectedIndexes()
            if self._grid.cells.is_hand_made(index)
        }
        if table is not None and cells:
            self._grid.cells.put(cells, self.tr("give back to recipe"))

    def cut_loose(self) -> None:
        """The current helper column becomes the table's own."""
        table, index = self._grid.cells.table, self._grid.currentIndex()
        if table is not None and index.isValid():
            column = table.columns[index.column()].id
            document = self._store.document
            self._store.attempt(self.tr("cut helper loose"), lambda: table_edits.cut_loose(document, table.id, column))
