"""A table evaluated cell by cell in place, as rows of text: what `kavlet calc` writes."""

from kavlet.core.files import csv
from kavlet.core.spreadsheet.cells import Cell, Value, text_of
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Column, Table


def calculated(cells: list[list[Cell]], name: str, raw: bool = False) -> list[list[str]]:
    """The values of all cells where they stand: numbers unrounded, TRUE and FALSE, errors as their codes; with `raw`,
    texts as they are, even those that other programs take for formulas."""
    width = max((len(row) for row in cells), default=0)
    columns = tuple(Column(f"c{i}", tuple(row[i] if i < len(row) else None for row in cells)) for i in range(width))
    values = recalculate((Table("t", name, columns),)).of("t")
    return [
        [(unrounded if raw else field)(values[c].values[r]) for c in range(len(row))] for r, row in enumerate(cells)
    ]


def field(value: Value) -> str:
    """A value as a field; a text stays one in any program that reads it."""
    return csv.harmless(value) if isinstance(value, str) else unrounded(value)


def unrounded(value: Value) -> str:
    """A value as text that loses nothing: the shortest digits that give the same float again."""
    return repr(value).removesuffix(".0") if isinstance(value, float) else text_of(value)
