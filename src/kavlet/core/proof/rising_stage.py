"""A stage of a funnel that is larger than the one before it."""

import math
from itertools import pairwise

from kavlet.core.figures.cells import text_of
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs


def check(recipe: str, inputs: Inputs) -> list[Finding]:
    """Funnels are read as losing from stage to stage, so a gain deserves a word."""
    if recipe != "funnel":
        return []
    figures, names = inputs.figures("value"), inputs.entries("name")
    return [
        Finding(
            "rising-stage",
            "note",
            now / before if before else math.inf,
            f"“{text_of(names[row])}” is larger than the stage before it, which a funnel’s reader does not expect.",
        )
        for row, (before, now) in enumerate(pairwise(figures), 1)
        if now > before
    ]
