"""4,000 formulas loaded, recalculated and edited, against the PyPI package `formulas`; and a large table imported."""

import tempfile
from pathlib import Path
from typing import Any

import msgspec

from bench.ratio import Ratio, median, milliseconds
from kavlet.core.files import tables
from kavlet.core.spreadsheet import compiling
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Column, Table

ROWS = 1_000
FORMULAS = (
    lambda row: f"=A{row}*B{row}",
    lambda row: f"=SUM(C$2:C{row})",
    lambda row: f"=C{row}/SUM(C$2:C${ROWS + 1})",
    lambda row: f"=IF(A{row}>500;ROUND(C{row}/3;1);0)",
)


def table() -> Table:
    """Two columns of numbers, and products, running sums, shares of the whole, and conditions."""
    numbers: list[list[Cell]] = [[float(row) for row in range(ROWS)], [float(row % 7) for row in range(ROWS)]]
    written: list[list[Cell]] = [[Formula(make(row)) for row in range(2, ROWS + 2)] for make in FORMULAS]
    return Table("t", "S", tuple(Column(f"c{i}", ("head", *cells)) for i, cells in enumerate(numbers + written)))


def _others() -> tuple[float, float]:
    """Loading and full calculation by `formulas`, in milliseconds. It has no edit of one cell."""
    import xlsxwriter

    import formulas

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "table.xlsx"
        book = xlsxwriter.Workbook(str(path))
        page = book.add_worksheet("S")
        for c, column in enumerate(table().columns):
            for r, cell in enumerate(column.cells):
                text = cell.text.replace(";", ",") if isinstance(cell, Formula) else cell
                page.write(r, c, text)
        book.close()
        model: list[Any] = []
        load = milliseconds(lambda: model.append(formulas.ExcelModel().loads(str(path)).finish()), 1)[0]
        return load, milliseconds(model[0].calculate, 1)[0]


def _edited(made: Table, number: float) -> Table:
    """The table with another number near the end of its second column."""
    first, second, *others = made.columns
    cells = (*second.cells[:990], number, *second.cells[991:])
    return msgspec.structs.replace(made, columns=(first, msgspec.structs.replace(second, cells=cells), *others))


def measure() -> list[Ratio]:
    """Loading compiles every formula anew; a full calculation does not."""
    made = table()
    recalculate((made,))

    def load() -> None:
        compiling.template.cache_clear()
        compiling._compiled.cache_clear()
        recalculate((made,))

    values = recalculate((made,))
    edited = [_edited(made, float(number)) for number in range(100, 120)]
    turns = iter(edited)
    one = median(milliseconds(lambda: recalculate((next(turns),), values), len(edited)))
    other_load, other_full = _others()
    ours_load, ours_full = median(milliseconds(load, 5)), median(milliseconds(lambda: recalculate((made,)), 9))
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.csv"
        lines = [
            ",".join(f"column {c}" for c in range(10)),
            *(",".join(str(r * c) for c in range(10)) for r in range(10_000)),
        ]
        path.write_text("\n".join(lines), encoding="utf-8")
        imported = median(milliseconds(lambda: tables.named(tables.read(path)), 3))
    return [
        Ratio("4,000 formulas loaded, against formulas", ours_load, other_load, "ms", "< 400 ms"),
        Ratio("4,000 formulas recalculated, against formulas", ours_full, other_full, "ms", "< 60 ms"),
        Ratio(
            "one edit among them, against a full one", one, ours_full, "ms", "< 10 ms", "1,023 of 4,000 depend on it"
        ),
        Ratio("import of 10,000 × 10 cells, against 1 s", imported, 1000.0, "ms", "< 1"),
    ]
