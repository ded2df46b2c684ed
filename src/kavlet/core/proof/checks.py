"""All checks: those of the figures a chart reads, what its recipe noticed, and those of the chart as drawn."""

from collections.abc import Sequence

from kavlet.core.compose.figure import Figure
from kavlet.core.messages import say
from kavlet.core.proof import beyond_scale, dropped_labels, missing_values, solid_view, stated_total
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs, Recipe

OF_INPUTS = (missing_values.check, stated_total.check)
OF_FIGURE = (beyond_scale.check, dropped_labels.check, solid_view.check)


def findings(
    recipe: Recipe | None, inputs: Inputs, figure: Figure, panels: Sequence[tuple[str, Inputs]] = ()
) -> tuple[Finding, ...]:
    """Everything the checks notice, in their order; `recipe` is None for a chart of layers of its own.

    `panels` holds each panel's title and what was read for it, where a chart is repeated.
    """
    found: list[Finding] = []
    for title, read in panels or [("", inputs)]:
        for one in recipe.notices(read) if recipe is not None else ():
            message = say("{name}: {message}", name=title, message=one.message) if title else one.message
            found.append(Finding(one.check, one.severity, one.figure, message))
    found += [finding for check in OF_INPUTS for finding in check(inputs)]
    return (*found, *(finding for check in OF_FIGURE for finding in check(figure)))
