"""What a table's figures are like, as far as recipes ask when they say how well they suit it."""

from msgspec import Struct


class Features(Struct, frozen=True):
    """What a table's own columns are like; `values` is the first column of numbers."""

    rows: int
    numbers: int
    texts: int
    values: tuple[float, ...]
    negative: bool
    falling: bool
    timed: bool
    shares: bool
    outlier: bool
    whole: bool
    repeated: bool
    percent: bool
    planned: bool


class Suited(Struct, frozen=True):
    """How well a recipe suits a table, from 0 to 1, and why in a few words."""

    score: float
    reason: str


Rule = tuple[bool, float, str]  # whether it holds, the score then, and the reason


def when(*rules: Rule, otherwise: tuple[float, str] = (0.3, "")) -> Suited:
    """The first rule that holds decides."""
    return Suited(*next(((score, reason) for holds, score, reason in rules if holds), otherwise))


def as_its_own(of: Features) -> Suited:
    """For recipes of an author's own, which suit as well as any."""
    del of
    return Suited(0.5, "your own recipe")
