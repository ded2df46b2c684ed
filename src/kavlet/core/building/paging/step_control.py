"""A slider for the period that a page's charts show, drawn as it stands."""

from kavlet.core.building.paging.chart_frame import framed
from kavlet.core.building.paging.sheet import Composed, Sheet
from kavlet.core.document.document import ChartEntry
from kavlet.core.document.lookup import recipes_of
from kavlet.core.figures.cells import text_of
from kavlet.core.figures.table import HEADER
from kavlet.core.messages import words_in
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.shapes.arc import disc
from kavlet.core.text.faces import metrics
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect

KNOB = 6.0  # points


def compose(item: StepControl, box: Rect, sheet: Sheet) -> Composed:
    """The period's name, and a line with a knob where it stands among the others."""
    style = sheet.style
    found = stepping(item, sheet)
    if not found:
        return Composed(refused=words_in(sheet.document.locale, "No chart on this page goes through periods."))
    entry, _ = found[0]
    names = periods(entry, sheet)
    at = position(entry, sheet)
    text = names[min(len(names) - 1, max(0, round(at) - 1))] if names else ""
    size = style.text_size
    base = box.y + metrics(style.bold).cap_height * size
    made: list[Primitive] = [Writing(text, box.x, base, width(text, style.bold, size), style.bold, size, style.ink)]
    y = min(box.bottom - KNOB, base + 1.2 * size)
    start, end = box.x + KNOB, box.right - KNOB
    share = (at - 1) / max(1, len(names) - 1)

    def line(pen: Pen) -> None:
        pen.move_to(start, y)
        pen.line_to(end, y)

    if item.slider:
        made.append(Shape(recorded(line), None, style.line, 3.0))
        made.append(Shape(recorded(disc, (start + share * (end - start), y), KNOB), style.tone(0), style.ground, 1.5))
    return Composed(tuple(made), says=text)


def stepping(item: StepControl, sheet: Sheet) -> list[tuple[ChartEntry, ChartFrame]]:
    """The charts of the page that the control drives, with their frames."""
    recipes = recipes_of(sheet.document)
    entries = {chart.id: chart for chart in sheet.document.charts}
    return [
        (framed(frame, Rect(0, 0, 100, 100), sheet.document, sheet.page), frame)
        for frame in sheet.page.items
        if isinstance(frame, ChartFrame) and frame.chart in entries and (not item.charts or frame.chart in item.charts)
        and (recipe := recipes.get(entries[frame.chart].recipe)) is not None and recipe.steps is not None
    ]  # fmt: skip


def periods(entry: ChartEntry, sheet: Sheet) -> list[str]:
    """The names of the periods a chart goes through, in their order."""
    recipe = recipes_of(sheet.document).get(entry.recipe)
    if recipe is None or recipe.steps is None:
        return []
    table = sheet.document.table(entry.table)
    places = [i for i, column in enumerate(table.columns) if column.id in entry.roles.get(recipe.steps.role, ())]
    if not places:
        return []
    return list(dict.fromkeys(text_of(one) for one in sheet.values.of(entry.table)[places[0]].values[HEADER:]))


def position(entry: ChartEntry, sheet: Sheet) -> float:
    """Where a chart stands among its periods, counted from 1."""
    recipe = recipes_of(sheet.document).get(entry.recipe)
    if recipe is None or recipe.steps is None:
        return 1.0
    parameter = recipe.parameter(recipe.steps.parameter)
    held = entry.settings.get(recipe.steps.parameter, parameter.default if parameter is not None else 1.0)
    return float(held) if isinstance(held, int | float) else 1.0
