"""How a number is written; the writing itself is done in `kavlet.core.text.numbers`."""

from typing import Literal

from msgspec import Struct

MAX_DECIMALS = 20
NumberStyle = Literal["number", "percent", "date", "short", "long", "currency", "exponent"]


class NumberText(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Decimals, grouping, unit and sign of a number.

    `most_decimals` are shown at most and trailing zeros dropped, down to `least_decimals`; where they are None, two, or
    more for what would be written 0. With `significant`, that many significant digits instead. A percent's value is a
    share (0.375 is written 37.5%); a date's counts days from 30 December 1899 (ODF 1.3 part 4, 4.3.3); "short" and
    "long" abbreviate (1.2K, 1.2 thousand); an "exponent" is a power of ten (1.2E16); a `currency` is an ISO 4217 code.
    `sign` "always" writes a plus too, "never" none; `minus` "()" puts negatives in parentheses.
    `zero` and `missing` stand for 0 and for no value.
    """

    style: NumberStyle = "number"
    least_decimals: int = 0
    most_decimals: int | None = None
    grouping: bool = True
    prefix: str = ""
    suffix: str = ""
    significant: int = 0
    currency: str = ""
    sign: Literal["auto", "always", "never"] = "auto"
    minus: Literal["−", "-", "()"] = "−"
    zero: str | None = None
    missing: str = ""

    @property
    def decimals(self) -> int:
        """The most decimals there usually are."""
        return 2 if self.most_decimals is None else min(MAX_DECIMALS, max(0, self.most_decimals))


PLAIN = NumberText()
DATE = NumberText(style="date")
PERCENT = NumberText(style="percent", most_decimals=1)
WHOLE_PERCENT = NumberText(style="percent", most_decimals=0)
