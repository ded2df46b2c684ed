"""Charts that go through periods: which there are, where a chart stands among them, and standing at another."""

from collections.abc import Iterable

from msgspec import Struct

from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import Page
from kavlet.core.recipes.recipe import Steps
from kavlet.core.spreadsheet.cells import text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER


class PeriodSteps(Struct, frozen=True):
    """Charts that are driven together: their ids, the names of the periods, and where they stand, counted from 1;
    between two whole numbers they are on their way."""

    charts: tuple[str, ...]
    periods: tuple[str, ...]
    at: float

    @property
    def name(self) -> str:
        """The period that is shown."""
        return self.periods[min(len(self.periods), max(1, int(self.at + 1e-9))) - 1] if self.periods else ""


def steps_of(document: Document, chart: ChartEntry) -> Steps | None:
    """How a chart's recipe goes through periods; None where it does not."""
    recipe = recipes_of(document).get(chart.recipe)
    return recipe.steps if recipe is not None else None


def periods(document: Document, values: Values, chart: ChartEntry) -> tuple[str, ...]:
    """The names of the periods a chart goes through, in the order in which they first stand in its table."""
    steps = steps_of(document, chart)
    held = chart.roles.get(steps.role, ()) if steps is not None else ()
    place = document.table(chart.table).place(held[0]) if held else -1
    if place < 0:
        return ()
    return tuple(dict.fromkeys(text_of(one) for one in values.of(chart.table)[place].values[HEADER:]))


def position(document: Document, chart: ChartEntry) -> float:
    """Where a chart stands among its periods, counted from 1."""
    steps = steps_of(document, chart)
    held = chart.settings.get(steps.parameter, 1.0) if steps is not None else 1.0
    return float(held) if isinstance(held, int | float) else 1.0


def stepping(document: Document, values: Values, page: Page, only: Iterable[str] = ()) -> PeriodSteps | None:
    """What of a page goes through periods, or some of its charts by their ids; None where nothing does.

    A frame that shows one period of its own stays at it.
    """
    wanted = set(only)
    found: list[ChartEntry] = []
    for item in page.items:
        if isinstance(item, ChartFrame) and item.row is None and (not wanted or item.chart in wanted):
            found += [chart for chart in document.charts if chart.id == item.chart and chart not in found]
    found = [chart for chart in found if len(periods(document, values, chart)) > 1]
    if not found:
        return None
    longest = max((periods(document, values, chart) for chart in found), key=len)
    return PeriodSteps(tuple(chart.id for chart in found), longest, max(position(document, chart) for chart in found))


def stepped(document: Document, values: Values, charts: Iterable[str], to: float) -> Document:
    """Charts at a place among their periods, counted from 1; each stays within its own."""
    for name in charts:
        chart = document.chart(name)
        steps, count = steps_of(document, chart), len(periods(document, values, chart))
        if steps is not None and count:
            document = look_edits.set_setting(document, name, steps.parameter, float(min(max(1.0, to), count)))
    return document
