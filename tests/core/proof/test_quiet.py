"""Proof does not nag: nothing grave is said of good charts."""

from pathlib import Path

import pytest

import kavlet
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.proof.proofreading import proofread
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber
from kavlet.core.values.number_text import WHOLE_PERCENT
from tests.core.proof.proofed import grave, of_first_chart
from tests.making import document, table

DEMO = Path(kavlet.__file__).parent / "assets" / "demo" / "mirefen.kavlet"
QUARTERS, HALVES = ["Q1", "Q2", "Q3", "Q4"], ["2022", "2023", "2024", "2025"]
MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"]
GATES = ["Mill gate", "Station path", "North dyke", "Old ferry", "Reed bridge"]


def _shares(*shares: float) -> list[list[Cell]]:
    return [["part", "share"], *([GATES[i], FormattedNumber(share, WHOLE_PERCENT)] for i, share in enumerate(shares))]


SORTED = table(["gate", "visitors"], GATES, [610, 480, 350, 290, 120])
SERIES = table(["quarter", "2024", "2025"], QUARTERS, [24, 41, 35, 18], [31, 46, 38, 20])
YEARS = table(["year", "trees"], HALVES, [140, 190, 260, 390])
YEAR = table(["month", "level"], MONTHS, [61, 63, 66, 64, 60, 57, 54, 52, 55, 58, 61, 65])
TWO = table(["month", "guests", "rain"], MONTHS, [310, 320, 410, 520, 640, 720, 820, 790, 560, 430, 340, 300],
            [14, 11, 12, 10, 11, 9, 8, 9, 12, 16, 15, 14])  # fmt: skip
POINTS = table(["pond", "depth", "species"], GATES, [1.2, 2.4, 3.1, 4.0, 5.2], [12, 19, 24, 33, 41])
DISCS = table(["hide", "distance", "sightings", "visits"], GATES, [2, 5, 9, 14, 20], [20, 34, 52, 70, 95],
              [30, 60, 90, 40, 75])  # fmt: skip
GROUPS = table(["habitat", "family", "species"], ["Reed", "Reed", "Water", "Water"],
               ["Birds", "Insects", "Fish", "Plants"], [40, 55, 22, 38])  # fmt: skip
STAGES = table(["stage", "people"], ["Visits", "Walks", "Letters", "Members"], [1840, 690, 276, 103])
MOVES = table(["step", "value"], ["Start", "Fees", "Gifts", "Wages", "End"], [212, 64, 38, -94, 220])
CHANGES = table(["kind", "2024", "2025"], GATES, [40, 55, 60, 38, 20], [52, 61, 58, 30, 26])
SIDES = table(
    ["age", "women", "men"], ["under 18", "18 to 49", "50 to 64", "over 64"], [40, 66, 73, 58], [38, 60, 61, 52]
)
GIVEN = table(["from", "given", "goal"], ["Members", "Fair"], [2200, 900], [4800, 4800])
AIMS = table(["bank", "planted", "target"], GATES, [420, 330, 260, 240, 180], [400, 300, 280, 250, 200])
STEPS = table(
    ["kind", "count", "month"], ["Ducks", "Terns", "Ducks", "Terns"], [29, 14, 33, 19], ["Apr", "Apr", "May", "May"]
)
SOUND: tuple[tuple[str, list[list[Cell]], dict[str, object]], ...] = (
    *(("columns", rows, {}) for rows in (SORTED, SERIES, YEARS, CHANGES)),
    *(("columns", rows, {"labels": "values"}) for rows in (SORTED, SERIES, YEARS)),
    *(("columns", SERIES, {"stack": stack, "labels": "values"}) for stack in ("stacked", "100 %")),
    *(("columns", YEARS, {"form": form}) for form in ("rounded", "capsule", "cylinder")),
    *(("bars", rows, {"labels": "values"}) for rows in (SORTED, SERIES, CHANGES)),
    *(("stacked-bars", rows, {}) for rows in (SERIES, CHANGES)),
    *(("lines", rows, {}) for rows in (SERIES, YEARS, YEAR)),
    ("lines", YEAR, {"zero": False}), ("lines", TWO, {"labels": "ends"}), ("lines", YEAR, {"course": "smooth"}),
    *(("areas", rows, {}) for rows in (YEAR, YEARS, SERIES)),
    ("areas", SERIES, {"stack": "behind each other"}), ("areas", YEAR, {"course": "smooth"}),
    ("combined", TWO, {}), ("combined", TWO, {"second": True}), ("combined", TWO, {"front": "points", "second": True}),
    ("points", POINTS, {}), ("points", POINTS, {"spot": "diamond"}),
    ("bubbles", DISCS, {}), ("bubbles", DISCS, {"vary": True}),
    ("mirrored-bars", SIDES, {}), ("growth-bars", CHANGES, {}), ("growth-bars", CHANGES, {"direction": "standing"}),
    ("funnel", STAGES, {}), ("funnel", STAGES, {"shape": "tapered"}), ("funnel", STAGES, {"rates": "beside"}),
    ("bridge", MOVES, {}), ("bridge", MOVES, {"direction": "lying"}),
    ("pie", _shares(0.42, 0.27, 0.2, 0.11), {}), ("pie", SORTED, {"hole": 55.0}),
    ("pie", SORTED, {"order": "largest first"}),
    ("pie", SORTED, {"whole": 2400.0}), ("pie", SORTED, {"labels": "share"}),
    ("waffle", _shares(0.42, 0.27, 0.2, 0.11), {}), ("waffle", SORTED, {"cell": "disc"}),
    ("two-level-ring", GROUPS, {}), ("radial-bars", SORTED, {}), ("radial-bars", SORTED, {"maximum": 700.0}),
    ("pictogram", table(["bird", "pairs"], GATES, [88, 34, 21, 12, 5]), {}), ("picture-bars", YEARS, {}),
    ("highlight-bars", SORTED, {}), ("highlight-bars", SORTED, {"rule": "smallest"}), ("target-columns", AIMS, {}),
    ("capsule", _shares(0.82, 0.61, 0.44, 0.17), {}), ("gauge", table(["pond", "cm"], ["Mere"], [63]), {}),
    ("gauge", table(["pond", "cm"], ["Mere"], [63]), {"style": "arc"}), ("thermometer", GIVEN, {"goal": 4800.0}),
    ("battery", table(["task", "hours"], ["Pumps", "Repairs"], [310, 134]), {"budget": 1200.0}),
    ("stepping", STEPS, {}),
)  # fmt: skip


@pytest.fixture(scope="module")
def demo() -> Document:
    return kavlet_file.load(DEMO)


def test_the_demo_document_holds_nothing_grave(demo: Document) -> None:
    proof = proofread(demo)
    assert not grave(list(proof.open))
    assert len(proof.open) <= 3
    assert proof.checks == 31


def test_there_are_sixty_sound_charts() -> None:
    assert len(SOUND) >= 60


@pytest.mark.parametrize(("recipe", "rows", "settings"), SOUND, ids=[f"{i}-{one[0]}" for i, one in enumerate(SOUND)])
def test_a_sound_chart_is_left_in_peace(recipe: str, rows: list[list[Cell]], settings: dict[str, object]) -> None:
    of = edits.change_chart(document(recipe, rows, **settings), "k1", title="What it says")
    found = of_first_chart(of)
    assert not grave(found), [str(one.message) for one in found if one.severity != "note"]
    assert len(found) <= 1, [str(one.message) for one in found]
