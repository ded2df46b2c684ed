"""A chart in its frame: composed anew at the frame's size, in the page's look."""

import msgspec

from kavlet.core.document.charts.chart_edits import of_each
from kavlet.core.document.charts.recipe_lookup import recipes_of, series_role
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks.look_updates import with_roles
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext, chart_box, dress_of, style_of
from kavlet.core.pipeline.page_items.text_fields import filled
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Group, Primitive, Shape, Writing
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.affine import moved
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size

ON_SLIDES = 14.0  # points of the smallest type
FULL_PAGE = 960.0  # points; pages of this length and longer have charts with the theme's sizes of type
SMALL = Size(180.0, 120.0)  # a frame that is smaller has smaller type
MIN_CHART_SIDE = 24.0  # points; a chart in a smaller frame is composed at this size and cut


def compose(item: ChartFrame, box: Rect, context: PageContext) -> ComposedItem:
    """The chart's scene at its place, and its caption above it; a sentence where it can't be drawn."""
    style = context.style
    caption, failed = filled(item.caption, context)
    area = chart_box(box, bool(caption), style)
    try:
        picture = context.draws(framed(item, area, context.document, context.page), f"{context.page.id}/{item.id}")
    except KavletError as error:
        return ComposedItem(refused=str(error))
    scene = picture.scene
    items: list[Primitive] = []
    ground = scene.ground
    if ground is not None and ground == style.ground and not item.pinned:
        ground = None
    inner = scene.items
    if ground is not None:
        inner = (Shape(recorded(box_outline, scene.bounds), ground), *inner)
    clip = recorded(box_outline, area)
    items.append(Group(inner, moved(area.x, area.y), clip, title=scene.title))
    if caption:
        size = style.text_size
        text = shortened(caption, style.bold, size, box.width)
        base = box.y + metrics(style.bold).cap_height * size
        items.append(Writing(text, box.x, base, width(text, style.bold, size), style.bold, size, style.ink))
    return ComposedItem(tuple(items), failed=failed, picture=picture, says=picture.figure.alt_text)


def _type(document: Document, page: Page, area: Rect) -> float:
    """The size of type of a page's charts as a share of the theme's: one for all of them, but for very small ones. On a
    slide, the smallest can be read from the last row."""
    whole = min(1.0, max(0.55, max(page.width, page.height) / FULL_PAGE))
    if page.is_slide:
        whole = max(whole, ON_SLIDES / style_of(document, page).small_size)
    return min(whole, max(0.4, whole * min(area.width / SMALL.width, area.height / SMALL.height)))


def _one_series(chart: ChartEntry, role: str, number: int) -> ChartEntry:
    """A chart of several series with one of them alone, counted from 1, which keeps the looks set on it by hand."""
    columns = chart.roles.get(role, ())
    if not 1 <= number <= len(columns):
        return chart
    return with_roles(chart, {**chart.roles, role: (columns[number - 1],)}, role)


def framed(item: ChartFrame, area: Rect, document: Document, page: Page) -> ChartEntry:
    """The chart as the frame shows it. Raises KavletError where the document has no such chart."""
    entry = document.chart(item.chart)
    recipe = recipes_of(document).get(entry.recipe)
    role = series_role(document, entry)
    if item.row is not None and len(entry.roles.get(role, ())) > 1:
        entry = _one_series(entry, role, item.row)
    settings, overrides = dict(entry.settings), dict(entry.dress.overrides)
    if item.row is not None and recipe is not None and recipe.repeats is not None:
        settings[recipe.repeats.row] = float(item.row)
        if recipe.repeats.of:
            settings[recipe.repeats.of] = of_each(entry, document.table(entry.table), recipe.repeats.of)
    if item.row is not None and recipe is not None and recipe.steps is not None:
        settings[recipe.steps.parameter] = float(item.row)
    if item.low is not None:
        overrides["frame.along.minimum"] = item.low
    if item.high is not None:
        overrides["frame.along.maximum"] = item.high
    if not item.legend:
        overrides["legend.side"] = "none"
    dress = msgspec.structs.replace(entry.dress, overrides=overrides)
    overrides.setdefault("type_scale", _type(document, page, area))
    if not (item.pinned or overrides.get("ground") or overrides.get("border")):
        overrides.setdefault("margin", 0.0)  # it stands at the page's own margins
    if not item.pinned:
        mine = dress_of(document, page)
        ground = {**({"ground": page.ground} if page.ground else {}), **overrides}
        dress = msgspec.structs.replace(dress, theme=mine.theme, dark=mine.dark, overrides=ground)
    texts = {} if item.title else {"title": "", "subtitle": " ", "source": ""}
    return msgspec.structs.replace(
        entry, settings=settings, dress=dress, repeat=entry.repeat and item.row is None,
        width=max(MIN_CHART_SIDE, area.width), height=max(MIN_CHART_SIDE, area.height), **texts,
    )  # fmt: skip
