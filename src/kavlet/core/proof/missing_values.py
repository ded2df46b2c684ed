"""Rows that hold no value and so are not drawn."""

import math

from kavlet.core.messages import counted
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs


def check(inputs: Inputs) -> list[Finding]:
    """An empty cell is no value, never zero: the row has a name in the chart but no mark."""
    if not inputs.has("value"):
        return []
    held = zip(inputs.figures("value"), inputs.entries("value"), strict=True)
    missing = sum(math.isnan(number) and value != "" for number, value in held)  # a formula that gives "" means it
    if not missing:
        return []
    message = counted("{count} row has no value and no mark.", "{count} rows have no value and no mark.", missing)
    return [Finding("missing-value", "note", float(missing), message)]
