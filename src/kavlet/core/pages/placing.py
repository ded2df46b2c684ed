"""Placing by arithmetic: snapping to lines and gaps, aligning, distributing, equal sizes. All in points, y downward."""

import itertools
from collections.abc import Iterable, Sequence
from typing import Literal

from msgspec import Struct

from kavlet.core.pages.arrangements import bays
from kavlet.core.pages.page import Page
from kavlet.core.values.geometry import Rect

Align = Literal["left", "centre", "right", "top", "middle", "bottom"]
NEAR = 5.0  # points within which a thing snaps
Span = tuple[float, float]


class Guide(Struct, frozen=True):
    """A line that something snapped to: upright at x, or level at y, over a span; `gap` where it shows an equal gap."""

    upright: bool
    at: float
    span: Span
    gap: float | None = None


class Snap(Struct, frozen=True):
    """How far to move so that it fits, and the lines to show."""

    dx: float
    dy: float
    guides: tuple[Guide, ...] = ()


def snapped(moving: Rect, page: Page, others: Sequence[Rect], near: float = NEAR) -> Snap:
    """Where a box that is moved snaps to: the page's middle, margins and columns, edges and middles of others, and gaps
    as wide as those between others."""
    dx, across = _along(moving, page, others, near, upright=True)
    dy, down = _along(moving, page, others, near, upright=False)
    return Snap(dx, dy, (*across, *down))


def lines(page: Page, upright: bool) -> list[float]:
    """The page's own lines: its edges, margins, middle, and for upright ones its columns."""
    inner = page.inner
    if not upright:
        return [0.0, inner.y, page.height / 2, inner.bottom, page.height]
    pitch = (inner.width + page.gutter) / max(1, page.columns)
    columns = [
        side for i in range(page.columns) for side in (inner.x + i * pitch, inner.x + (i + 1) * pitch - page.gutter)
    ]
    return [0.0, page.width / 2, page.width, *columns]


def _along(
    moving: Rect, page: Page, others: Sequence[Rect], near: float, upright: bool
) -> tuple[float, tuple[Guide, ...]]:
    start, end = _span(moving, upright)
    mine = (start, (start + end) / 2, end)
    best: tuple[float, float, Span] | None = None
    whole = (0.0, page.height if upright else page.width)
    wishes = [(line, whole) for line in lines(page, upright)]
    for other in others:
        low, high = _span(other, upright)
        reach = _joined(_span(moving, not upright), _span(other, not upright))
        wishes += [(line, reach) for line in (low, (low + high) / 2, high)]
    for line, span in wishes:
        for place in mine:
            by = line - place
            if abs(by) <= near and (best is None or abs(by) < abs(best[0]) - 1e-9):
                best = (by, line, span)
    gap = _gap(moving, others, near, upright)
    if gap is not None and (best is None or abs(gap[0]) < abs(best[0]) - 1e-9):
        return gap
    return (0.0, ()) if best is None else (best[0], (Guide(upright, best[1], best[2]),))


def _gap(moving: Rect, others: Sequence[Rect], near: float, upright: bool) -> tuple[float, tuple[Guide, ...]] | None:
    """A move after which the gap to a neighbour is as wide as one between two others in the same row or column."""
    beside = [box for box in others if _share(_span(box, not upright), _span(moving, not upright))]
    ordered = sorted(beside, key=lambda box: _span(box, upright)[0])
    gaps = {
        round(_span(after, upright)[0] - _span(before, upright)[1], 6) for before, after in itertools.pairwise(ordered)
    }
    start, end = _span(moving, upright)
    best: tuple[float, tuple[Guide, ...]] | None = None
    for wide in (gap for gap in gaps if gap > 0):
        for other in beside:
            low, high = _span(other, upright)
            for by, edge in ((high + wide - start, high + wide), (low - wide - end, low - wide)):
                if abs(by) <= near and (best is None or abs(by) < abs(best[0])):
                    span = _joined(_span(moving, not upright), _span(other, not upright))
                    best = (by, (Guide(upright, edge, span, wide),))
    return best


def _span(box: Rect, upright: bool) -> Span:
    return (box.x, box.right) if upright else (box.y, box.bottom)


def _joined(one: Span, other: Span) -> Span:
    return min(one[0], other[0]), max(one[1], other[1])


def _share(one: Span, other: Span) -> bool:
    return one[0] < other[1] and other[0] < one[1]


def aligned(boxes: Sequence[Rect], how: Align, within: Rect | None = None) -> list[Rect]:
    """Boxes moved to one edge or middle: of all of them, or of a rectangle."""
    around = within or Rect.around_all(list(boxes))
    made: list[Rect] = []
    for box in boxes:
        x = {"left": around.x, "centre": around.center[0] - box.width / 2, "right": around.right - box.width}.get(
            how, box.x
        )
        y = {"top": around.y, "middle": around.center[1] - box.height / 2, "bottom": around.bottom - box.height}.get(
            how, box.y
        )
        made.append(Rect(x, y, box.width, box.height))
    return made


def distributed(boxes: Sequence[Rect], upright: bool) -> list[Rect]:
    """Boxes moved so that gaps between them are equal, the first and last staying; `upright`: from top to bottom."""
    if len(boxes) < 3:
        return list(boxes)
    order = sorted(range(len(boxes)), key=lambda i: _span(boxes[i], not upright)[0])
    ends = _span(boxes[order[0]], not upright)[0], max(_span(box, not upright)[1] for box in boxes)
    total_length = sum(high - low for low, high in (_span(box, not upright) for box in boxes))
    gap, position = (ends[1] - ends[0] - total_length) / (len(boxes) - 1), ends[0]
    rects = list(boxes)
    for i in order:
        box = boxes[i]
        rects[i] = (
            Rect(box.x, position, box.width, box.height) if upright else Rect(position, box.y, box.width, box.height)
        )
        position += (box.height if upright else box.width) + gap
    return rects


def same_size(boxes: Sequence[Rect]) -> list[Rect]:
    """Boxes as large as the first."""
    return [Rect(box.x, box.y, boxes[0].width, boxes[0].height) for box in boxes]


def resized(box: Rect, handle: str, dx: float, dy: float, least: float, proportion: bool = False) -> Rect:
    """A box with a side or corner dragged; `handle` holds of n, e, s, w those that move. With `proportion`, a corner
    keeps the sides' proportion."""
    left, top, right, bottom = box.x, box.y, box.right, box.bottom
    if "w" in handle:
        left = min(left + dx, right - least)
    if "e" in handle:
        right = max(right + dx, left + least)
    if "n" in handle:
        top = min(top + dy, bottom - least)
    if "s" in handle:
        bottom = max(bottom + dy, top + least)
    if proportion and len(handle) == 2 and box.width > 0 and box.height > 0:
        factor = max((right - left) / box.width, (bottom - top) / box.height)
        wide, tall = box.width * factor, box.height * factor
        left, right = (right - wide, right) if "w" in handle else (left, left + wide)
        top, bottom = (bottom - tall, bottom) if "n" in handle else (top, top + tall)
    return Rect(left, top, right - left, bottom - top)


def touched(boxes: Iterable[tuple[str, Rect]], area: Rect) -> list[str]:
    """The names of the boxes that a rubber band touches."""
    return [name for name, box in boxes if box.overlaps(area)]


def bay_at(page: Page, x: float, y: float) -> int | None:
    """The rank of the bay at a point; None where there is none."""
    for rank, box in enumerate(bays(page)):
        if box.x <= x <= box.right and box.y <= y <= box.bottom:
            return rank
    return None


def cut_off(whole: Rect, box: Rect) -> tuple[float, float, float, float]:
    """The shares of a picture that a frame cuts off its left, top, right and bottom side; `whole` is where all of it
    would lie."""
    wide, tall = max(1e-9, whole.width), max(1e-9, whole.height)
    sides = (
        (box.x - whole.x) / wide, (box.y - whole.y) / tall,
        (whole.right - box.right) / wide, (whole.bottom - box.bottom) / tall,
    )  # fmt: skip
    left, top, right, bottom = (min(0.95, max(0.0, one)) for one in sides)
    return left, top, right, bottom
