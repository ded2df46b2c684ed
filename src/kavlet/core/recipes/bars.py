"""Bars: the lying columns."""

import msgspec

from kavlet.core.recipes.columns import COLUMNS, build, parameters
from kavlet.core.recipes.features import Features, Suited, when


def suits(of: Features) -> Suited:
    return when((of.rows > 5, 0.66, "many rows with names"), otherwise=(0.55, "plain and clear"))


BARS = msgspec.structs.replace(
    COLUMNS,
    name="bars",
    title="Bars",
    parameters=parameters(),
    chart=lambda inputs: build(inputs, lying=True),
    suits=suits,
)
