"""A chart of the document on a page, composed anew at the frame's size."""

from kavlet.core.pages.items.item import Item


class ChartFrame(Item, frozen=True, tag_field="item", tag="chart", omit_defaults=True, forbid_unknown_fields=True):
    """A chart. `row` shows one row (counted from 1) of a recipe that shows one figure, one series of one that shows
    several, or the period of one that steps.

    A chart takes the page's theme and ground unless it is `pinned` to its own. Without `title`, its title, subtitle and
    source are left out; without `legend`, its legend. `low` and `high` are ends of its value scale that several frames
    share; None is the chart's own.
    """

    chart: str = ""
    row: int | None = None
    pinned: bool = False
    title: bool = True
    legend: bool = True
    caption: str = ""
    low: float | None = None
    high: float | None = None
