"""Places in ordered and unordered lists."""

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.spreadsheet.cells import ErrorValue, Formula, Value
from kavlet.core.spreadsheet.recalculate import recalculate


def match(line: list[float], formula: str) -> Value:
    rows: list[list[object]] = [["list", "found"], *([number, None] for number in line)]
    rows[1][1] = Formula(formula)
    document, table = edits.add_table(Document(), "T", rows)  # type: ignore[arg-type]
    return recalculate(document.tables).of(table)[1].values[1]


@pytest.mark.parametrize(
    ("line", "formula", "place"),
    [
        ([1, 5, 2, 9], "=MATCH(3;A2:A5;1)", 1.0),  # it stops at 5: what comes after is not looked at
        ([9, 2, 5, 1], "=MATCH(3;A2:A5;-1)", 1.0),
        ([1, 3, 3, 9], "=MATCH(3;A2:A5;1)", 3.0),
        ([9, 3, 3, 1], "=MATCH(3;A2:A5;-1)", 3.0),
        ([4, 5, 6, 9], "=MATCH(3;A2:A5;1)", ErrorValue.MISSING),
        ([4, 3, 3, 9], "=MATCH(3;A2:A5;0)", 2.0),
    ],
)
def test_match(line: list[float], formula: str, place: Value) -> None:
    assert match([float(one) for one in line], formula) == place
