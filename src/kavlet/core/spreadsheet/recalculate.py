"""From tables to values: each formula evaluated once, after all it reads; after an edit only what depends on it."""

import math
from array import array
from collections.abc import Iterator

from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Formula, Value, number_of, plain_value
from kavlet.core.spreadsheet.compiling import Evaluate, Template, resolved, template
from kavlet.core.spreadsheet.functions.registry import Argument, Failure, single
from kavlet.core.spreadsheet.graph import CellPlace, Graph
from kavlet.core.spreadsheet.ranges import ColumnSource, Floats, Key, Range
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.spreadsheet.table import HEADER, Column, Table
from kavlet.core.values.cancellation import check_cancelled, time_limit

MAX_SECONDS = 60.0  # what one recalculation may take


class ColumnValues:
    """A column's values from the header down, and their numbers (NaN for all else). Never changed once handed out."""

    __slots__ = ("asked", "errors", "found", "numbers", "ordered", "totals", "values")

    def __init__(self, values: list[Value], numbers: "array[float]", errors: dict[int, ErrorValue]) -> None:
        self.values = values
        self.numbers = numbers
        self.errors = errors
        self.totals: dict[tuple[int, int], float] = {}
        self.ordered: dict[tuple[int, int], list[float]] = {}
        self.asked = False
        self.found: dict[Key, list[int]] | None = None

    @staticmethod
    def of(values: list[Value]) -> "ColumnValues":
        """From the values of a column."""
        numbers = array("d", map(number_of, values))
        return ColumnValues(
            values, numbers, {row: value for row, value in enumerate(values) if isinstance(value, ErrorValue)}
        )

    def copy(self) -> "ColumnValues":
        """A copy that may be changed by itself."""
        return ColumnValues(list(self.values), self.numbers[:], dict(self.errors))

    def put(self, row: int, value: Value) -> None:
        """Put a value into a row."""
        self.values[row] = value
        self.totals.clear()
        self.ordered.clear()
        self.asked, self.found = False, None
        self.numbers[row] = number_of(value)
        if isinstance(value, ErrorValue):
            self.errors[row] = value
        else:
            self.errors.pop(row, None)


class Values:
    """What all tables evaluate to. Compare `columns` by identity to see what an edit has touched."""

    def __init__(self, tables: tuple[Table, ...], columns: list[list[ColumnValues]], graph: Graph) -> None:
        self.tables = tables
        self.columns = columns
        self.graph = graph
        self._places = {table.id: i for i, table in enumerate(tables)}
        self._names = {table.name: i for i, table in enumerate(tables)}

    def of(self, table: str) -> list[ColumnValues]:
        """The columns of the table with that id; none where there is no table, and so no id."""
        return self.columns[self._places[table]] if table else []

    def numbers(self, table: str, column: int) -> Floats:
        """The rows of figures of a column as numbers, without the header; NaN is no value."""
        return self.of(table)[column].numbers[HEADER:]

    def texts(self, table: str, column: int) -> list[Value]:
        """The rows of figures of a column as values, without the header."""
        return self.of(table)[column].values[HEADER:]

    def evaluate(self, formula: str, table: str) -> Value:
        """A formula outside any cell, such as a title's, read as if it stood in the table's first cell."""
        return _evaluated(template(formula, 0, 0), _Reader(self.columns, self._names, self._places[table]), 0, 0)

    def beyond(self, formula: str, table: str) -> str:
        """The first single cell that such a formula reads where the table has none; empty when all are there."""
        for one in template(formula, 0, 0).references:
            home = self._places[table] if not one.table else self._names.get(one.table)
            column, row = resolved(one.one, 0, 0)
            if home is None or one.other is not None:
                continue
            columns = self.columns[home]
            if column >= len(columns) or row >= len(columns[column].values):
                return f"{column_letters(column)}{row + 1}"
        return ""


class RecordedValues(Values):
    """The same values, noting whether a formula outside any cell was evaluated: what asks so may read any cell."""

    def __init__(self, values: Values) -> None:
        super().__init__(values.tables, values.columns, values.graph)
        self.evaluates = False

    def evaluate(self, formula: str, table: str) -> Value:
        """As `Values` does."""
        self.evaluates = True
        return super().evaluate(formula, table)


class _Reader:
    """Reads cells of one set of columns for formulas of one table."""

    def __init__(self, columns: list[list[ColumnValues]], names: dict[str, int], home: int) -> None:
        self._columns, self._names, self._home = columns, names, home
        self._shared: dict[tuple[Evaluate, int], Argument] = {}

    def _table(self, name: str) -> list[ColumnValues]:
        if not name:
            return self._columns[self._home]
        if name not in self._names:
            raise Failure(ErrorValue.NAME)
        return self._columns[self._names[name]]

    def cell(self, table: str, column: int, row: int) -> Value:
        if column < 0 or row < 0:
            return ErrorValue.REFERENCE
        columns = self._table(table)
        if column >= len(columns) or row >= len(columns[column].values):
            return None
        return columns[column].values[row]

    def range(self, table: str, column: int, row: int, last_column: int, last_row: int) -> Range:
        if column < 0 or row < 0:
            raise Failure(ErrorValue.REFERENCE)
        columns = self._table(table)
        taken: list[ColumnSource] = list(columns[column : last_column + 1])
        height = len(columns[0].values) if columns else 0
        size = (last_row - row + 1, last_column - column + 1)
        return Range(taken, (column, row), min(height, last_row + 1), size)

    def shared(self, of: Evaluate, column: int, row: int) -> Argument:
        # All that it reads is evaluated before any formula that it is part of, and stays so for this reader's run.
        if (of, column) not in self._shared:
            self._shared[of, column] = of(self, column, row)
        return self._shared[of, column]


def recalculate(tables: tuple[Table, ...], before: Values | None = None) -> Values:
    """Evaluate all formulas; with the values of earlier tables, only those that depend on what has changed.

    Raises KavletError where that takes longer than a minute, and Cancelled where nobody waits for it any more.
    """
    with time_limit(MAX_SECONDS, say("The formulas take longer than {seconds} seconds.", seconds=int(MAX_SECONDS))):
        return _recalculated(tables, before)


def _recalculated(tables: tuple[Table, ...], before: Values | None) -> Values:
    if before is None or not _same_shape(tables, before.tables):
        return _afresh(tables)
    columns = [list(of_table) for of_table in before.columns]
    changed: list[CellPlace] = []
    formulas_changed = False
    for place, old, new in _differences(before.tables, tables):
        changed.append(place)
        formulas_changed |= isinstance(old, Formula) or isinstance(new, Formula)
    if not changed:
        return Values(tables, before.columns, before.graph)
    graph = _graph(tables) if formulas_changed else before.graph
    order, loops = graph.order(changed)
    # All columns to be written are made own before any formula reads them; the others stay the same objects.
    for table, column in {place[:2] for place in (*changed, *order, *loops)}:
        columns[table][column] = columns[table][column].copy()
    for table, column, row in changed:
        cell = tables[table].columns[column].cells[row]
        if not isinstance(cell, Formula):
            columns[table][column].put(row, plain_value(cell))
    for table, column, row in loops:
        columns[table][column].put(row, ErrorValue.LOOP)
    _run(graph, order, tables, columns)
    return Values(tables, columns, graph)


def _afresh(tables: tuple[Table, ...]) -> Values:
    graph = _graph(tables)
    columns = [[_plain(column) for column in table.columns] for table in tables]
    order, loops = graph.order(graph.formulas)
    for table, column, row in loops:
        columns[table][column].put(row, ErrorValue.LOOP)
    _run(graph, order, tables, columns)
    return Values(tables, columns, graph)


def _plain(column: Column) -> ColumnValues:
    return ColumnValues.of([plain_value(cell) for cell in column.cells])


def _graph(tables: tuple[Table, ...]) -> Graph:
    formulas = {
        (t, c, r): template(cell.text, c, r)
        for t, table in enumerate(tables)
        for c, column in enumerate(table.columns)
        for r, cell in enumerate(column.cells)
        if isinstance(cell, Formula)
    }
    return Graph(formulas, {table.name: i for i, table in enumerate(tables)})


def _run(graph: Graph, order: list[CellPlace], tables: tuple[Table, ...], columns: list[list[ColumnValues]]) -> None:
    names = {table.name: i for i, table in enumerate(tables)}
    readers = [_Reader(columns, names, i) for i in range(len(tables))]
    for table, column, row in order:
        check_cancelled()
        value = _evaluated(graph.formulas[table, column, row], readers[table], column, row)
        columns[table][column].put(row, value)


def _evaluated(formula: Template, reader: _Reader, column: int, row: int) -> Value:
    try:
        value: Argument = formula.evaluate(reader, column, row)
        found = single(value)
    except Failure as failure:
        return failure.error
    except (OverflowError, ZeroDivisionError):
        return ErrorValue.NUMBER
    if isinstance(found, float) and not math.isfinite(found):
        return ErrorValue.NUMBER
    return found


def _same_shape(tables: tuple[Table, ...], others: tuple[Table, ...]) -> bool:
    return len(tables) == len(others) and all(
        table is other
        or (
            table.id == other.id
            and table.name == other.name
            and table.height == other.height
            and [c.id for c in table.columns] == [c.id for c in other.columns]
        )
        for table, other in zip(tables, others, strict=True)
    )


def _differences(old: tuple[Table, ...], new: tuple[Table, ...]) -> Iterator[tuple[CellPlace, Cell, Cell]]:
    for t, (table, other) in enumerate(zip(old, new, strict=True)):
        if table is other:
            continue
        for c, (was, now) in enumerate(zip(table.columns, other.columns, strict=True)):
            if was.cells is now.cells:
                continue
            for r, (before, after) in enumerate(zip(was.cells, now.cells, strict=True)):
                if before is not after and (type(before) is not type(after) or before != after):
                    yield (t, c, r), before, after
