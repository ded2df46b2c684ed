"""All checks: those of the figures a chart reads, what its recipe noticed, and those of the chart as drawn."""

from kavlet.core.compose.figure import Figure
from kavlet.core.proof import dropped_labels, missing_values, solid_view
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs, Recipe

OF_INPUTS = (missing_values.check,)
OF_FIGURE = (dropped_labels.check, solid_view.check)


def findings(recipe: Recipe | None, inputs: Inputs, figure: Figure) -> tuple[Finding, ...]:
    """Everything the checks notice, in their order; `recipe` is None for a chart of layers of its own."""
    noticed = recipe.notices(inputs) if recipe is not None else ()
    found = [Finding(one.check, one.severity, one.figure, one.message) for one in noticed]
    found += [finding for check in OF_INPUTS for finding in check(inputs)]
    return (*found, *(finding for check in OF_FIGURE for finding in check(figure)))
