"""The table in view as Qt's item model: draws what the store holds, and turns what is typed into edits."""

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QObject, QPersistentModelIndex, Qt

from kavlet.core.document import edits
from kavlet.core.document.tables.helper_tables import NAMES, VALUES
from kavlet.core.document.tables.source_updates import CellDifference
from kavlet.core.messages import Message, say, words
from kavlet.core.spreadsheet.cell_input import shown_for_editing, typed
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, FormattedNumber, Formula, Value, text_of
from kavlet.core.spreadsheet.recalculate import ColumnValues
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.syntax import tidied
from kavlet.core.spreadsheet.table import HEADER, NO_TABLE, Column, Table
from kavlet.core.text.numbers import decimal_sign, group_sign, written
from kavlet.core.values.number_text import DATE, PLAIN, NumberText
from kavlet.desktop.store import Store

Index = QModelIndex | QPersistentModelIndex
_NOWHERE = QModelIndex()
_FIXED = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
_EDITABLE = _FIXED | Qt.ItemFlag.ItemIsEditable


class TableModel(QAbstractTableModel):
    """Rows are those of the table, from the names down, and one empty row to type on in."""

    def __init__(self, store: Store, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._table = NO_TABLE
        self._values: list[ColumnValues] = []
        self._locale = store.document.locale
        self.coming: dict[tuple[int, int], Cell] = {}
        self.differing: dict[tuple[int, int], CellDifference] = {}
        store.follow(self.refresh)
        self.refresh()

    @property
    def table(self) -> Table:
        return self._table

    def refresh(self) -> None:
        """Take the store's table; views keep their place while its shape stays the same."""
        table = self._store.table
        values = self._store.values.of(table.id)
        same = (
            table.id == self._table.id
            and table.height == self._table.height
            and [column.id for column in table.columns] == [column.id for column in self._table.columns]
        )
        if not same:
            self.beginResetModel()
        before = self._values
        self._table, self._values, self._locale = table, values, self._store.document.locale
        if not same:
            self.endResetModel()
        else:
            for place, (old, new) in enumerate(zip(before, values, strict=True)):
                if old is not new:
                    held = zip(old.values, new.values, strict=True)
                    rows = [row for row, (was, now) in enumerate(held) if was is not now]
                    first, last = (rows[0], rows[-1]) if rows else (0, table.height)
                    self.dataChanged.emit(self.index(first, place), self.index(last, place))

    def rowCount(self, parent: Index = _NOWHERE) -> int:
        return 0 if parent.isValid() else self._table.height + 1

    def columnCount(self, parent: Index = _NOWHERE) -> int:
        return 0 if parent.isValid() else len(self._table.columns)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if role == Qt.ItemDataRole.DisplayRole:
            return column_letters(section) if orientation == Qt.Orientation.Horizontal else str(section + 1)
        return None

    def show_coming(self, changes: list[CellDifference]) -> None:
        """Mark the cells that the table's file holds otherwise."""
        self.differing = {(change.column, change.row): change for change in changes}
        file_cells = {place: change.coming for place, change in self.differing.items()}
        if file_cells != self.coming:
            self.coming = file_cells
            self.layoutChanged.emit()

    def column(self, index: Index) -> Column | None:
        """The column at an index."""
        return self._table.column(index.column()) if index.isValid() else None

    def cell(self, index: Index) -> Cell:
        """What the cell holds; the empty row below the table holds nothing."""
        column = self.column(index)
        return column.cells[index.row()] if column is not None and index.row() < len(column.cells) else None

    def value(self, index: Index) -> Value:
        """What the cell evaluates to."""
        if self.column(index) is None or index.row() >= len(self._values[index.column()].values):
            return None
        return self._values[index.column()].values[index.row()]

    def values(self, section: int) -> list[Value]:
        """What a column evaluates to, from its name down."""
        return self._values[section].values

    def is_helper(self, index: Index) -> bool:
        """Whether the cell stands in a helper column, or in what a helper table reads."""
        column, table = self.column(index), self._store.table
        if column is None or index.row() >= len(column.cells):
            return False
        return column.helper is not None or (table.helper is not None and column.id in (NAMES, VALUES))

    def is_hand_made(self, index: Index) -> bool:
        """Whether the author changed a cell that a recipe had made."""
        cell = self.cell(index)
        return (
            self.is_helper(index)
            and index.row() >= HEADER
            and cell is not None
            and not (isinstance(cell, Formula) and cell.made)
        )

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if not index.isValid():
            return None
        if role == Qt.ItemDataRole.DisplayRole:
            return self.shown(index)
        if role == Qt.ItemDataRole.EditRole:
            return shown_for_editing(self.cell(index), decimal_sign(self._locale))
        if role == Qt.ItemDataRole.TextAlignmentRole:
            side = Qt.AlignmentFlag.AlignRight if self.is_right(index) else Qt.AlignmentFlag.AlignLeft
            return side | Qt.AlignmentFlag.AlignVCenter
        if role == Qt.ItemDataRole.ToolTipRole:
            return self._explained(index)
        return None

    def is_right(self, index: Index) -> bool:
        """Whether the cell is set to the right: numbers, errors, and the names over numbers."""
        return isinstance(self.value(index), float | ErrorValue) or self._heads_numbers(index)

    def _heads_numbers(self, index: Index) -> bool:
        """Whether the cell is a name over a column whose first figure is a number."""
        if index.row() >= HEADER:
            return False
        column = self._values[index.column()].values
        return any(isinstance(value, float) for value in column[HEADER : HEADER + 3])

    def shown(self, index: Index) -> str:
        """The cell's value as its column writes it."""
        value, column = self.value(index), self.column(index)
        if isinstance(value, float) and column is not None:
            return written(value, self.number_text(index), self._locale)
        return text_of(value)

    def number_text(self, index: Index) -> NumberText:
        """How a cell's number is written: its own way, its column's, or that of what its formula reads."""
        cell, column = self.cell(index), self.column(index)
        own = cell.number if isinstance(cell, Formula | FormattedNumber) else None
        kept = own or (column.number if column is not None and index.row() >= HEADER else None)
        if kept is not None:
            return kept
        return _by_formula(cell.text) if isinstance(cell, Formula) else PLAIN

    def _explained(self, index: Index) -> str | None:
        value, cell = self.value(index), self.cell(index)
        if (index.column(), index.row()) in self.coming:
            text = shown_for_editing(self.coming[index.column(), index.row()], decimal_sign(self._locale))
            return words("The file holds {text}", text=text or say("nothing here"))
        if isinstance(value, ErrorValue):
            return f"{value.value}: {words(value.meaning)}"
        if self.is_hand_made(index):
            return words("Changed by hand. Empty the cell to give it back to the recipe.")
        return cell.text if isinstance(cell, Formula) else None

    def flags(self, index: Index) -> Qt.ItemFlag:
        column = self.column(index)
        ghost_helper = column is not None and column.helper is not None and index.row() >= len(column.cells)
        return _FIXED if ghost_helper else _EDITABLE

    def setData(self, index: Index, value: object, role: int = Qt.ItemDataRole.EditRole) -> bool:
        if role != Qt.ItemDataRole.EditRole or not index.isValid():
            return False
        cell = self.understood(str(value))
        if index.row() < HEADER and isinstance(cell, float | bool | FormattedNumber):
            cell = str(value).strip()
        if isinstance(cell, Formula):
            cell = Formula(tidied(cell.text))
        held = self.cell(index)
        if cell == held and type(cell) is type(held):
            return True
        if isinstance(cell, Formula) and isinstance(held, Formula) and cell.text == held.text:
            return True
        self.put({(index.column(), index.row()): cell}, say("type in {cell}", cell=self.address(index)))
        return True

    def understood(self, text: str) -> Cell:
        """Typed text as a cell, by the document's locale."""
        return typed(text, decimal_sign(self._locale), group_sign(self._locale))

    def address(self, index: Index) -> str:
        return f"{column_letters(index.column())}{index.row() + 1}"

    def put(self, cells: dict[tuple[int, int], Cell], name: Message) -> None:
        """Put cells as one edit of that name; a refusal is told."""
        self._store.edit_table(name, lambda document, table: edits.set_cells(document, table.id, cells))


def _by_formula(text: str) -> NumberText:
    """How a formula's number is best written when nobody has said: dates as dates."""
    return DATE if text.upper().startswith(("=DATE(", "=TODAY(")) else PLAIN
