"""Rows that hold no value and so are not drawn."""

import math

from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs


def check(inputs: Inputs) -> list[Finding]:
    """An empty cell is no value, never zero: the row has a name in the chart but no mark."""
    if not inputs.has("value"):
        return []
    missing = sum(map(math.isnan, inputs.figures("value")))
    if not missing:
        return []
    rows = "1 row has" if missing == 1 else f"{missing} rows have"
    return [Finding("missing-value", "note", float(missing), f"{rows} no value and no mark.")]
