"""How a number is written; the writing itself is done in `kavlet.core.text.numbers`."""

from typing import Literal

from msgspec import Struct

Style = Literal["number", "percent", "date"]


class NumberText(Struct, frozen=True, omit_defaults=True):
    """Decimals, grouping, unit and sign of a number.

    `most_decimals` are shown at most and trailing zeros dropped, down to `least_decimals`. A percent's value is a
    share (0.375 is written 37.5 %); a date's counts days from 30 December 1899 (ODF 1.3 part 4, 4.3.3).
    """

    style: Style = "number"
    least_decimals: int = 0
    most_decimals: int = 2
    grouping: bool = True
    prefix: str = ""
    suffix: str = ""


PLAIN = NumberText()
DATE = NumberText(style="date")
PERCENT = NumberText(style="percent", most_decimals=1)
