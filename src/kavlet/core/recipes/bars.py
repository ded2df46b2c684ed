"""Bars: the lying columns."""

import msgspec

from kavlet.core.recipes.columns import COLUMNS, build, parameters

BARS = msgspec.structs.replace(
    COLUMNS, name="bars", title="Bars", parameters=parameters(), chart=lambda inputs: build(inputs, lying=True)
)
