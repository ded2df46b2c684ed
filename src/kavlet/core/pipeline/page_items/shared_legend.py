"""Sets the legend of a page's charts: each entry once, in a line where the box is wide, below each other where not."""

import msgspec

from kavlet.core.layout.figure import Key
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pipeline.page_items.chart_frame import framed
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.scene.primitives import Group, Primitive, Writing
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.affine import moved, scaled
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

NARROW = 2.2  # of its height; a box that is not wider sets entries below each other


def compose(item: SharedLegend, box: Rect, context: PageContext) -> ComposedItem:
    """What the charts list, with their marks; entries that find no room are told."""
    style = context.style
    size = item.size or style.small_size + 1.0
    keys = _keys(item, context)
    chip, air, gap = 0.95 * size, 0.5 * size, 1.5 * size
    names = disambiguated(list(keys), style.face, size, max(size, box.width - chip - air))
    made: list[Primitive] = []
    x, y = box.x, box.y + 0.75 * size
    pitch = style.spaces.line * size
    if item.title:
        made.append(_line(item.title, x, y, size, context, quiet=True))
        x += width(item.title, style.face, size) + gap
    below = box.width < NARROW * box.height
    if below and item.title:
        x, y = box.x, y + pitch
    over = False
    for (_, key), lines in zip(keys.items(), names, strict=True):
        text = " ".join(lines)
        long = chip + air + width(text, style.face, size)
        if not below and x > box.x and x + long > box.right + 0.5:
            x, y = box.x, y + pitch
        if y > box.bottom:
            over = True
            break
        by = chip / max(1e-6, key.bounds.height)
        made.append(
            Group(
                key.items,
                moved(x, y - chip / 2).after(scaled(by)).after(moved(-key.bounds.x, -key.bounds.y)),
            )
        )
        made.append(_line(text, x + chip + air, y, size, context))
        x, y = (box.x, y + pitch) if below else (x + long + gap, y)
    return ComposedItem(tuple(made), over, says=", ".join(keys))


def _line(text: str, x: float, middle: float, size: float, context: PageContext, quiet: bool = False) -> Writing:
    style = context.style
    base = middle + metrics(style.face).cap_height * size / 2
    return Writing(text, x, base, width(text, style.face, size), style.face, size, style.quiet if quiet else style.ink)


def _keys(item: SharedLegend, context: PageContext) -> dict[str, Key]:
    """The entries of the charts by their names; charts that can't be drawn list nothing."""
    found: dict[str, Key] = {}
    listed: set[str] = set()
    for frame in context.page.items:
        if not isinstance(frame, ChartFrame) or (item.charts and frame.chart not in item.charts):
            continue
        if frame.chart in listed:
            continue
        listed.add(frame.chart)
        try:
            entry = framed(
                msgspec.structs.replace(frame, legend=True, row=None),
                Rect(0, 0, 640, 360),
                context.document,
                context.page,
            )
            overrides = {**entry.dress.overrides, "legend.side": "right"}
            entry = msgspec.structs.replace(entry, dress=msgspec.structs.replace(entry.dress, overrides=overrides))
            picture = context.draws(entry, f"{context.page.id}/{item.id}/{frame.chart}")
        except KavletError:
            continue
        for key in picture.figure.keys:
            if key.name:
                found.setdefault(key.name, key)
    return found
