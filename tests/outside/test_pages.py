"""Pages against published sizes, and movement against the definition of linear interpolation."""

import itertools
import json
from pathlib import Path

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.interpolation import between
from kavlet.core.pages.page import SIZES, named_size

DATA = Path(__file__).parent / "data"
CASES = json.loads((DATA / "page_sizes.json").read_text())  # ISO 216:2007, ISO 269, ANSI/ASME Y14.1
PUBLISHED = {case["name"]: case["pt"] for held in CASES.values() if isinstance(held, list)
             for case in held if isinstance(case, dict) and "pt" in case}  # fmt: skip


@pytest.mark.parametrize("name", [one for one in SIZES if one.removesuffix(" lying") in PUBLISHED])
def test_page_sizes_are_those_of_the_standards(name: str) -> None:
    """ISO 216:2007 (A series), ANSI/ASME Y14.1 (Letter is its size A)."""
    size = named_size(name)
    short, long = PUBLISHED[name.removesuffix(" lying")]
    sides = (size.height, size.width) if name.endswith("lying") else (size.width, size.height)
    assert sides == pytest.approx((short, long), abs=0.001)


def test_tweening_is_monotone_and_stays_between_its_ends() -> None:
    """The definition of linear interpolation (Press et al., Numerical Recipes, 3.1): no value leaves its span."""
    rows = [["Gate", "Guests"], ["North", 40.0], ["South", 25.0], ["East", 10.0]]
    old, _ = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    new = edits.set_cells(old, old.tables[0].id, {(1, 1): 90.0, (1, 2): -3.0})
    path = [between(old, new, share / 20) for share in range(21)]
    for row, (start, end) in enumerate(((40.0, 90.0), (25.0, -3.0), (10.0, 10.0)), 1):
        values = [document.tables[0].columns[1].cells[row] for document in path]
        way = 1.0 if end >= start else -1.0
        assert all((b - a) * way >= 0 for a, b in itertools.pairwise(values))  # type: ignore[operator]
        assert (values[0], values[-1]) == (start, end)
        assert values[10] == pytest.approx((start + end) / 2)
