"""Checks against published values. Each data file names its source, and how its numbers were verified."""

import json
import math
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import csv
from kavlet.core.pipeline.stages import picture
from kavlet.core.spreadsheet.cells import ERRORS, ErrorValue, Formula
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.spreadsheet.references import cell_reference
from kavlet.core.spreadsheet.table import Column, Table
from kavlet.core.values.colour import Colour, colour, contrast, linear, oklab

DATA = Path(__file__).parent / "data"


def cases(file: str, name: str) -> list[Any]:
    return json.loads((DATA / file).read_text(encoding="utf-8"))[name]  # type: ignore[no-any-return]


# RFC 4180 (Shafranovich 2005), section 2: rows of each example, agreed on by three readers.
@pytest.mark.parametrize("case", cases("csv_rfc4180.json", "cases"), ids=lambda case: case["id"])
def test_csv_by_rfc_4180(case: dict[str, Any]) -> None:
    rows = csv.rows(case["text"], ",", case["id"])
    assert rows == case["rows"]
    assert csv.rows(csv.dumps(rows), ",", case["id"]) == case["rows"]


# OASIS OpenDocument 1.3 part 4 (OpenFormula): values from memory, recomputed by a separate evaluator.
@pytest.fixture(scope="module")
def sheet() -> Values:
    grid = json.loads((DATA / "openformula.json").read_text(encoding="utf-8"))["grid"]
    places = {name: cell_reference(name) for name in grid}
    columns = []
    for index in range(max(place.column for place in places.values()) + 1):
        cells = [None] * (max(place.row for place in places.values()) + 1)
        for name, place in places.items():
            if place.column == index:
                held = grid[name]
                is_formula = isinstance(held, str) and held.startswith("=")
                plain = float(held) if isinstance(held, int | float) and not isinstance(held, bool) else held
                cells[place.row] = Formula(held) if is_formula else plain
        columns.append(Column(f"c{index}", tuple(cells)))
    return recalculate((Table("t", "Sheet", tuple(columns)),))


def known(formula: str) -> bool:
    import re

    return all(name in FUNCTIONS or name == "NOSUCHFUNCTION" for name in re.findall(r"([A-Z][A-Z0-9]*)\(", formula))


@pytest.mark.parametrize(
    "case",
    [
        case
        for group in ("operator_cases", "function_cases")
        for case in cases("openformula.json", group)
        if known(case["formula"])
    ],
    ids=lambda case: case["formula"],
)
def test_formulas_by_openformula(case: dict[str, Any], sheet: Values) -> None:
    found, wanted = sheet.evaluate(case["formula"], "t"), case["result"]
    if isinstance(wanted, str) and wanted in ERRORS:
        assert found is ErrorValue(wanted)
    elif isinstance(wanted, bool | str):
        assert found == wanted
    else:
        assert isinstance(found, float)
        assert any(math.isclose(found, one, rel_tol=1e-12) for one in [wanted, *case.get("accept_also", [])])


# Funnel: the definition is common practice; values by exact rational arithmetic.
# Those of fewer than two stages, or of empty ones, are no funnels.
FUNNELS = [
    case for case in cases("helper_series.json", "funnel_cases") if len(case["values"]) > 1 and max(case["values"]) > 0
]


@pytest.mark.parametrize("case", FUNNELS, ids=lambda case: str(case["values"]))
def test_funnel_helpers(case: dict[str, Any]) -> None:
    values = case["values"]
    rows: list[list[Any]] = [["stage", "count"], *([f"s{i}", float(value)] for i, value in enumerate(values))]
    document, table = edits.add_table(Document(), "T", rows)
    document, chart = edits.add_chart(document, table, "funnel")
    made = picture(document, recalculate(document.tables), chart)
    held = {one.name: one.values for one in made.build.helpers}
    assert held["offset"] == pytest.approx(case["hidden_offset"])
    for name, wanted in (("step", case["share_of_previous"]), ("overall", case["share_of_first"])):
        for found, number in zip(held[name], wanted, strict=True):
            if number is None:
                assert not isinstance(found, float)
            else:
                assert found == pytest.approx(number)
    plot, scale = made.figure.plot, made.figure.plot.width / max(values)
    ends = [(mark.bounds.right - plot.x) / scale for mark in made.figure.marks if mark.key == "value"]
    assert ends == pytest.approx(case["bar_end"])


# W3C WCAG 2.2, definitions "contrast ratio" and "relative luminance".
def test_contrast_by_wcag() -> None:
    data = json.loads((DATA / "wcag_contrast.json").read_text(encoding="utf-8"))
    checked = 0
    for case in data["cases"]:
        one, other, ratio = case["foreground"], case["background"], case["ratio"]
        assert contrast(colour(one), colour(other)) == pytest.approx(ratio, rel=1e-6)
        checked += 1
    assert checked >= 10


# IEC 61966-2-1 (sRGB transfer) and Ottosson 2020 (OKLab).
def test_srgb_and_oklab() -> None:
    data = json.loads((DATA / "srgb_transfer.json").read_text(encoding="utf-8"))
    lists = {name: held for name, held in data.items() if name.endswith("cases")}
    decoded = 0
    for held in lists.values():
        for case in held:
            if "encoded" in case and "linear" in case and isinstance(case["encoded"], float | int):
                assert linear(case["encoded"]) == pytest.approx(case["linear"], abs=1e-9)
                decoded += 1
            if "oklab" in case:
                of = colour(case["hex"]) if "hex" in case else Colour(*(part / 255 for part in case["rgb8"]))
                assert np.allclose(oklab(of), case["oklab"], atol=3e-4)
                decoded += 1
    assert decoded >= 10


# NumPy and SciPy, general-purpose reference libraries: the same numbers by other code.
def test_numeric_functions_against_numpy_and_scipy() -> None:
    from scipy import stats

    random = np.random.default_rng(7)
    for _ in range(20):
        numbers = random.normal(100, 40, 25).round(3)
        table = Table(
            "t", "T", (Column("a", tuple(map(float, numbers))), Column("b", tuple(map(float, numbers[::-1]))))
        )
        values = recalculate((table,))
        share = float(random.random())
        expected = {
            "=SUM(A1:A25)": numbers.sum(),
            "=AVERAGE(A1:A25)": numbers.mean(),
            "=MEDIAN(A1:A25)": np.median(numbers),
            "=STDEV(A1:A25)": numbers.std(ddof=1),
            f"=PERCENTILE(A1:A25;{share!r})": np.percentile(numbers, 100 * share),
            "=SUMPRODUCT(A1:A25;B1:B25)": numbers @ numbers[::-1],
            "=PRODUCT(A1:A9)": numbers[:9].prod(),
            "=LARGE(A1:A25;3)": np.sort(numbers)[-3],
            "=SMALL(A1:A25;3)": np.sort(numbers)[2],
            "=RANK(A5;A1:A25;1)": stats.rankdata(numbers, "min")[4],
            "=SIN(A1)+COS(A2)*TAN(A3)": np.sin(numbers[0]) + np.cos(numbers[1]) * np.tan(numbers[2]),
            "=EXP(A1/100)+LN(ABS(A2)+1)": np.exp(numbers[0] / 100) + np.log(abs(numbers[1]) + 1),
            "=ATAN2(A1;A2)": np.arctan2(numbers[1], numbers[0]),
            "=DEGREES(RADIANS(A1))": numbers[0],
            "=MOD(A1;7.5)": np.mod(numbers[0], 7.5),
        }
        for formula, wanted in expected.items():
            assert values.evaluate(formula, "t") == pytest.approx(float(wanted), rel=1e-9), formula


# Open data sets; totals as published beside them (datasets/checks.json names source and licence).
def test_calc_adds_an_open_data_set(tmp_path: Path) -> None:
    from kavlet.core.files.table_texts import calculated
    from kavlet.core.files.tables import read

    lines = (DATA / "titanic_class_survival.csv").read_text(encoding="utf-8").splitlines()
    rows = len(lines)
    width = lines[0].count(",") + 1
    letters = "ABCDEFG"[1:width]
    path = tmp_path / "sum.csv"
    path.write_text("\n".join([*lines, "Total," + ",".join(f"=SUM({x}2:{x}{rows})" for x in letters)]), "utf-8")
    totals = calculated(read(path).cells, "T")[-1][1:]
    wanted = [sum(float(line.split(",")[i]) for line in lines[1:]) for i in range(1, width)]
    assert [float(total) for total in totals] == wanted
