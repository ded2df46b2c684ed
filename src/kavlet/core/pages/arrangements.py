"""Arrangements: named ways to divide a page into bays, with seams that can be moved.

A division is a tree: a bay, or parts beside or above each other with their shares. The place of a division is the path
of numbers that leads to it: "" is the whole, "1" its second part, "1.0" the first part of that.
"""

from collections.abc import Iterator
from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.messages import Message, named, say
from kavlet.core.pages.page import Page
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

Way = Literal["beside", "above"]
MIN_SHARE = 0.08  # of a division, that each of its parts keeps


class Division(Struct, frozen=True):
    """Parts beside or above each other, None a bay, and the share that each takes."""

    way: Way
    parts: tuple["Division | None", ...]
    shares: tuple[float, ...]


def _even(way: Way, *parts: "Division | None") -> Division:
    return Division(way, parts, tuple(1 / len(parts) for _ in parts))


_FIGURES = _even("beside", None, None, None)
_ARRANGEMENTS: dict[str, Division | None] = {
    "whole": None,
    "words beside chart": Division("beside", (None, None), (0.34, 0.66)),
    "chart with side note": Division("beside", (None, None), (0.72, 0.28)),
    "two beside": _even("beside", None, None),
    "two above": _even("above", None, None),
    "three beside": _FIGURES,
    "key figures over a chart": Division("above", (_FIGURES, None), (0.24, 0.76)),
    "title over a chart": Division("above", (None, None), (0.16, 0.84)),
    "title over two": Division("above", (None, _even("beside", None, None)), (0.16, 0.84)),
    "cover": Division("above", (None, None, None), (0.28, 0.52, 0.2)),
    "four": _even("above", _even("beside", None, None), _even("beside", None, None)),
}
FREE, MULTIPLES = "free", "small multiples"
ARRANGEMENTS: tuple[str, ...] = (FREE, *_ARRANGEMENTS, MULTIPLES)


def title(arrangement: str) -> Message:
    """An arrangement's name in words for people."""
    return named(arrangement)


class Seam(Struct, frozen=True):
    """The line between two parts of a division: the division's place, which of its lines it is, its way, and where."""

    place: str
    number: int
    way: Way
    box: Rect


def division(page: Page) -> Division | None:
    """How a page is divided; None for one bay. Raises KavletError for an arrangement that there is not."""
    if page.arrangement == MULTIPLES:
        rows, columns = max(1, page.grid[0]), max(1, page.grid[1])
        return _even("above", *(_even("beside", *(None for _ in range(columns))) for _ in range(rows)))
    if page.arrangement not in _ARRANGEMENTS:
        raise KavletError(
            say("There is no arrangement “{name}”.", name=page.arrangement),
            remedy=say("There are {names}.", names=list(ARRANGEMENTS)),
        )
    return _ARRANGEMENTS[page.arrangement]


def bays(page: Page) -> tuple[Rect, ...]:
    """The bays of a page in their rank; none where all is placed freely."""
    if page.arrangement == FREE:
        return ()
    return tuple(_bays(page, division(page), page.inner, ""))


def _bays(page: Page, division: Division | None, area: Rect, place: str) -> Iterator[Rect]:
    if division is None:
        yield area
        return
    for number, (part, mine) in enumerate(zip(division.parts, _parts(page, division, area, place), strict=True)):
        yield from _bays(page, part, mine, f"{place}.{number}" if place else str(number))


def _parts(page: Page, division: Division, area: Rect, place: str) -> list[Rect]:
    held = page.shares.get(place, division.shares)
    shares = held if len(held) == len(division.shares) else division.shares
    count, whole = len(division.parts), sum(shares) or 1.0
    free = (area.width if division.way == "beside" else area.height) - page.gutter * (count - 1)
    rects: list[Rect] = []
    position = area.x if division.way == "beside" else area.y
    for share in shares:
        long = max(0.0, free) * share / whole
        rects.append(
            Rect(position, area.y, long, area.height)
            if division.way == "beside"
            else Rect(area.x, position, area.width, long)
        )
        position += long + page.gutter
    return rects


def seams(page: Page) -> tuple[Seam, ...]:
    """The lines between the bays of a page."""
    return () if page.arrangement == FREE else tuple(_seams(page, division(page), page.inner, ""))


def _seams(page: Page, division: Division | None, area: Rect, place: str) -> Iterator[Seam]:
    if division is None:
        return
    parts = _parts(page, division, area, place)
    for number, box in enumerate(parts[:-1]):
        yield Seam(
            place, number, division.way,
            Rect(box.right, box.y, page.gutter, box.height) if division.way == "beside"
            else Rect(box.x, box.bottom, box.width, page.gutter),
        )  # fmt: skip
    for number, (part, area_) in enumerate(zip(division.parts, parts, strict=True)):
        yield from _seams(page, part, area_, f"{place}.{number}" if place else str(number))


def seam_beside(page: Page, rank: int, way: Way) -> Seam | None:
    """The seam at a bay's right or lower side, else at the other one; None where the bay reaches from margin to
    margin."""
    found = bays(page)
    if rank >= len(found):
        return None
    box = found[rank]
    end, start = (box.right, box.x) if way == "beside" else (box.bottom, box.y)

    def sides(seam: Seam) -> tuple[float, float]:
        return (seam.box.x, seam.box.right) if way == "beside" else (seam.box.y, seam.box.bottom)

    def along(seam: Seam) -> bool:
        low, high, mine, other = (
            (seam.box.y, seam.box.bottom, box.y, box.bottom) if way == "beside"
            else (seam.box.x, seam.box.right, box.x, box.right)
        )  # fmt: skip
        return low < other and mine < high

    near = [seam for seam in seams(page) if seam.way == way and along(seam)]
    after = next((seam for seam in near if abs(sides(seam)[0] - end) < 0.01), None)
    return after or next((seam for seam in near if abs(sides(seam)[1] - start) < 0.01), None)


def with_seam_moved(page: Page, seam: Seam, by: float) -> Page:
    """The page with a seam moved by points; the parts at its two sides change, none of them below its least."""
    found = _at(division(page), seam.place)
    area = _area(page, seam.place)
    if found is None or area is None:
        return page
    parts = _parts(page, found, area, seam.place)
    long = [one.width if found.way == "beside" else one.height for one in parts]
    both = long[seam.number] + long[seam.number + 1]
    least = MIN_SHARE * sum(long)
    first = min(max(long[seam.number] + by, least), both - least) if both > 2 * least else both / 2
    long[seam.number], long[seam.number + 1] = first, both - first
    whole = sum(long) or 1.0
    return msgspec.structs.replace(page, shares={**page.shares, seam.place: tuple(one / whole for one in long)})


def _at(division: Division | None, place: str) -> Division | None:
    for step in place.split(".") if place else ():
        if division is None:
            return None
        division = division.parts[int(step)]
    return division


def _area(page: Page, place: str) -> Rect | None:
    of, area, way = division(page), page.inner, ""
    for step in place.split(".") if place else ():
        if of is None:
            return None
        area, of = _parts(page, of, area, way)[int(step)], of.parts[int(step)]
        way = f"{way}.{step}" if way else step
    return area


def places(page: Page) -> dict[str, Rect]:
    """Where each item stands: its bay, where it fills one that there is, else its own place."""
    found = bays(page)
    return {
        item.id: found[item.bay] if item.bay is not None and item.bay < len(found) else item.box for item in page.items
    }


def next_bay(page: Page) -> int | None:
    """The first bay that no item fills; None where there is none."""
    taken = {item.bay for item in page.items}
    return next((rank for rank in range(len(bays(page))) if rank not in taken), None)
