"""What a table's figures are like, as far as recipes ask when they say how well they suit it."""

import math
from typing import Literal

from msgspec import Struct

from kavlet.core.values.sums import exact_sum


class Features(Struct, frozen=True, kw_only=True):
    """What a table is like, without total rows at its end; figures are its columns of numbers to be charted.

    `values` are those of the first. `timed` rows are named by times, `repeated` is a second column of texts whose
    entries come again (`stepped` where it, or a column of times, parts rows of the same names). `pair` says what two
    columns of figures are to each other. `units` counts the units or magnitudes among them. `goal` and `budget` say
    that a column holds one, the same beside each row (`once`) or its own. `shares` add up to a whole down the column,
    `row_shares` along each row; `percent` figures are shares each. `symbol` is one of the shelf that a word of the
    table names; empty for none.
    """

    rows: int
    numbers: int
    values: tuple[float, ...]
    negative: bool = False
    falling: bool = False
    timed: bool = False
    shares: bool = False
    row_shares: bool = False
    percent: bool = False
    outlier: bool = False
    counts: bool = False
    repeated: bool = False
    stepped: bool = False
    stages: bool = False
    changes: bool = False
    pair: Literal["", "periods", "sides"] = ""
    across: bool = False
    units: int = 1
    goal: Literal["", "once", "each"] = ""
    budget: Literal["", "once", "each"] = ""
    long_names: bool = False
    symbol: str = ""

    @property
    def total(self) -> float:
        """What the first figures add up to."""
        return exact_sum(self.values)

    @property
    def most(self) -> float:
        """The largest of the first figures; 0 for none."""
        return max(self.values, default=0.0)

    @property
    def plain(self) -> bool:
        """One figure of each of several rows, and nothing below zero."""
        return self.numbers == 1 and self.rows > 1 and not self.negative


class Suitability(Struct, frozen=True):
    """How well a recipe suits a table, from 0 to 1, and why in a few words."""

    score: float
    reason: str


Rule = tuple[bool, float, str]  # whether it holds, the score then, and the reason


def when(*rules: Rule, otherwise: tuple[float, str] = (0.3, "")) -> Suitability:
    """The first rule that holds decides."""
    return Suitability(*next(((score, reason) for holds, score, reason in rules if holds), otherwise))


LARGEST = 1e300  # beyond, the next round number is none that can be held


def round_above(figure: float) -> float:
    """The next round number clearly above a figure: 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6 or 8 times a power of ten."""
    if not 0 < figure < LARGEST:
        return 100.0
    power = 10.0 ** math.floor(math.log10(figure))
    steps = (1.0, 1.2, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0)
    return next(step * power for step in steps if step * power >= 1.05 * figure)


def as_its_own(of: Features) -> Suitability:
    """For recipes of an author's own, which suit as well as any."""
    del of
    return Suitability(0.5, "your own recipe")
