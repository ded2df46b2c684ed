"""Arrangements divide what lies between a page's margins."""

import msgspec
import pytest

from kavlet.core.pages.arrangements import ARRANGEMENTS, FREE, bays, places, seam_beside, seams, with_seam_moved
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import SIZES, Page, named_size, sized
from kavlet.core.values.errors import KavletError

PAGE = Page("p", "Page", 600.0, 400.0, margins=(50.0, 40.0, 50.0, 40.0), gutter=20.0)
DIVIDED = [one for one in ARRANGEMENTS if one != FREE]


def of(arrangement: str) -> Page:
    return msgspec.structs.replace(PAGE, arrangement=arrangement)


@pytest.mark.parametrize("arrangement", DIVIDED)
def test_bays_fill_the_page_without_overlapping(arrangement: str) -> None:
    page = of(arrangement)
    found = bays(page)
    assert all(page.inner.holds(box) for box in found)
    assert not any(one.overlaps(other) for i, one in enumerate(found) for other in found[i + 1 :])
    covered = sum(box.width * box.height for box in found)
    gaps = sum(seam.box.width * seam.box.height for seam in seams(page))
    assert covered + gaps == pytest.approx(page.inner.width * page.inner.height)


@pytest.mark.parametrize("arrangement", DIVIDED)
def test_a_seam_moves_both_its_sides_and_nothing_else(arrangement: str) -> None:
    page = of(arrangement)
    for seam in seams(page):
        moved = with_seam_moved(page, seam, 7.0)
        covered = sum(box.width * box.height for box in bays(moved))
        gaps = sum(one.box.width * one.box.height for one in seams(moved))
        assert covered + gaps == pytest.approx(page.inner.width * page.inner.height)
        new = next(one for one in seams(moved) if (one.place, one.number) == (seam.place, seam.number))
        shift = new.box.x - seam.box.x if seam.way == "beside" else new.box.y - seam.box.y
        assert shift == pytest.approx(7.0)


def test_a_seam_stops_before_a_bay_is_gone() -> None:
    page = of("two beside")
    moved = with_seam_moved(page, seams(page)[0], 9_999.0)
    assert min(box.width for box in bays(moved)) > 0.05 * page.inner.width


def test_small_multiples_have_rows_and_columns() -> None:
    page = msgspec.structs.replace(of("small multiples"), grid=(3, 4))
    found = bays(page)
    assert len(found) == 12
    assert len({round(box.y, 6) for box in found}) == 3
    assert len({(round(box.width, 6), round(box.height, 6)) for box in found}) == 1


def test_an_item_in_a_bay_that_is_gone_stands_at_its_own_place() -> None:
    page = msgspec.structs.replace(of("two beside"), items=(Words("a", x=5.0, y=6.0, bay=7), Words("b", bay=1)))
    assert places(page)["a"] == page.items[0].box
    assert places(page)["b"] == bays(page)[1]


def test_an_unknown_arrangement_is_said() -> None:
    with pytest.raises(KavletError, match="arrangement"):
        bays(of("herringbone"))


@pytest.mark.parametrize("side", [0.0, 20.0, 14_174.0, float("nan")])
def test_a_page_of_no_size_or_ten_metres_is_refused(side: float) -> None:
    with pytest.raises(KavletError, match="10 mm"):
        sized(PAGE, side, 400.0)


@pytest.mark.parametrize("name", [one for one in SIZES if not one.endswith("lying")])
def test_lying_is_the_same_sheet_turned(name: str) -> None:
    size = named_size(name)
    if f"{name} lying" in SIZES:
        turned = named_size(f"{name} lying")
        assert (turned.width, turned.height) == (size.height, size.width)


def test_an_unknown_size_names_those_there_are() -> None:
    with pytest.raises(KavletError) as refused:
        named_size("Folio 9")
    assert "A4" in str(refused.value)


@pytest.mark.parametrize(
    ("rank", "way", "number"),
    [(0, "beside", 0), (1, "beside", 1), (2, "beside", 1), (3, "beside", None), (0, "above", 0), (3, "above", 0)],
)
def test_the_seam_at_a_bay_s_side(rank: int, way: str, number: int | None) -> None:
    seam = seam_beside(of("key figures over a chart"), rank, way)  # type: ignore[arg-type]
    assert (seam.number if seam is not None else None) == number
