"""Bars: the lying columns."""

import msgspec

from kavlet.core.recipes.columns import COLUMNS, build, parameters
from kavlet.core.recipes.features import Features, Suitability, when


def suits(of: Features) -> Suitability:
    return when(
        ((of.rows > 7 or of.long_names) and of.numbers == 1 and not of.timed, 0.88, "many rows with names"),
        (of.rows > 5 and not of.timed, 0.72, "many rows with names"),
        otherwise=(0.55, "plain and clear"),
    )


BARS = msgspec.structs.replace(
    COLUMNS,
    name="bars",
    title="Bars",
    known_as="bar chart, horizontal bars, ranking, list, compare, cylinder, 3D",
    parameters=parameters(),
    chart=lambda inputs: build(inputs, lying=True),
    suits=suits,
)
