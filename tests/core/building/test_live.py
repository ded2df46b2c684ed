"""The cell whose number a mark or a key figure shows, and another number in it."""

import pytest

from kavlet.core.building.live import LiveCell, cell_of_figure, cell_of_mark, with_number
from kavlet.core.building.reuse import Pictures
from kavlet.core.document import edits, reading
from kavlet.core.document.document import Document
from kavlet.core.figures.cells import Formula, Written
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import NumberText

ROWS = [["Gate", "Guests", "Share"], ["North", 40.0, 0.5], ["South", 25.0, 0.3], ["East", 10.0, 0.2]]


def made(
    recipe: str, roles: dict[str, tuple[str, ...]] | None = None, rows: list[list[object]] | None = None
) -> Document:
    document, table = edits.add_table(Document(), "Gates", rows or ROWS)  # type: ignore[arg-type]
    document, _ = edits.add_chart(document, table, recipe, roles or {"name": ("c1",), "value": ("c2",)})
    return document


def places(document: Document) -> dict[int, LiveCell]:
    """The cells of all marks that show one, by row."""
    pictures = Pictures()
    picture = pictures.picture(document, "k1")
    found: dict[int, LiveCell] = {}
    for mark in picture.figure.marks:
        if mark.visible and not mark.helper and mark.row >= 0:
            try:
                found[mark.row] = cell_of_mark(document, document.chart("k1"), picture, mark)
            except KavletError:
                continue
    return found


@pytest.mark.parametrize(
    "recipe",
    ["columns", "bars", "lines", "funnel", "highlight-bars", "radial-bars", "pie", "bridge", "capsule", "pictogram",
     "waffle", "capped-bars"],
)  # fmt: skip
def test_marks_lead_to_their_own_cells(recipe: str) -> None:
    """Also where a mark draws a share of the figure, or stands for it by symbols."""
    assert places(made(recipe)) == {row: LiveCell("t1", 1, row + 1) for row in range(3)}


def test_a_mark_of_a_second_series_leads_to_its_column() -> None:
    document = made("columns", {"name": ("c1",), "value": ("c2", "c3")})
    pictures = Pictures()
    picture = pictures.picture(document, "k1")
    second = [mark for mark in picture.figure.marks if mark.key == "series 2"]
    cells = [cell_of_mark(document, document.chart("k1"), picture, mark) for mark in second]
    assert cells == [LiveCell("t1", 2, row) for row in (1, 2, 3)]


def test_a_figure_that_is_computed_is_refused() -> None:
    document = made("columns")
    document = edits.set_cells(document, "t1", {(1, row): Formula(f"={row}*10") for row in (1, 2, 3)})
    assert places(document) == {}


def test_stepping_marks_lead_to_the_row_of_their_period() -> None:
    rows: list[list[object]] = [["Gate", "Guests", "Year"], ["North", 1.0, "2023"], ["South", 2.0, "2023"],
                                ["North", 3.0, "2024"], ["South", 4.0, "2024"]]  # fmt: skip
    document = made("stepping", {"name": ("c1",), "value": ("c2",), "period": ("c3",)}, rows)
    assert sorted(place.row for place in places(document).values()) == [1, 2]


def test_a_figure_read_across_is_changed_where_it_is_typed() -> None:
    document = reading.across(made("columns", {"name": ("c1",), "value": ("c2", "c3")}), "k1", 1, ("c2", "c3"))
    found = places(document)
    changed = with_number(document, found[0], 77.0)
    assert changed.table("t1").columns[1].cells[2] == 77.0


@pytest.mark.parametrize(
    ("formula", "place"),
    [("=Gates!B2", LiveCell("t1", 1, 1)), ("=B3", LiveCell("t1", 1, 2)), ("='Gates'!$C$4", LiveCell("t1", 2, 3))],
)
def test_key_figures_lead_to_their_cells(formula: str, place: LiveCell) -> None:
    assert cell_of_figure(made("columns"), KeyFigure("", value=formula)) == place


@pytest.mark.parametrize("formula", ["=SUM(B2:B4)", "=B2:B4", "=B2+1", "by hand", "=A2", "=B99"])
def test_key_figures_that_are_computed_are_refused(formula: str) -> None:
    with pytest.raises(KavletError, match="computed"):
        cell_of_figure(made("columns"), KeyFigure("", value=formula))


def test_another_number_is_written_as_the_one_before() -> None:
    percent = NumberText("percent", 0, 0)
    document = edits.set_cells(made("columns"), "t1", {(2, 1): Written(0.5, percent)})
    changed = with_number(document, LiveCell("t1", 2, 1), 0.75)
    assert changed.table("t1").columns[2].cells[1] == Written(0.75, percent)
