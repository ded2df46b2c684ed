"""Which recipes suit a table: best first, each with its reason in a few words, or what it needs in one sentence."""

import itertools
import math
import re
from collections.abc import Sequence

from msgspec import Struct

from kavlet.core.document.guessing import is_numeric
from kavlet.core.figures.cells import Formula, Value, text_of
from kavlet.core.figures.table import HEADER, Table
from kavlet.core.recipes.recipe import Recipe

_TIME = re.compile(
    r"(?:19|20)\d\d|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|q[1-4]|mon|tue|wed|thu|fri|sat|sun|week|spring|summer|"
    r"autumn|winter", re.IGNORECASE,
)  # fmt: skip

_PLAN = re.compile(r"\b(?:targets?|goals?|plan(?:ned)?|aims?|due)\b", re.IGNORECASE)


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


def features(table: Table, values: list[list[Value]]) -> Features:
    """Look at a table; `values` holds each column's values from the first row of figures on."""
    own = [i for i, column in enumerate(table.columns) if column.helper is None]
    numeric = [i for i in own if is_numeric(table.columns[i])]
    texts = [i for i in own if i not in numeric]
    first = [float(v) for v in values[numeric[0]] if isinstance(v, float)] if numeric else []
    names = [text_of(v) for v in values[texts[0]]] if texts else []
    last_text = [text_of(v) for v in values[texts[-1]]] if len(texts) > 1 else []
    total, most = math.fsum(first), max(first, default=0.0)
    typed = [cell for i in numeric for cell in table.columns[i].cells[HEADER:] if cell is not None]
    styles = [getattr(getattr(cell, "number", None), "style", "") for cell in typed if not isinstance(cell, Formula)]
    return Features(
        rows=table.rows,
        numbers=len(numeric),
        texts=len(texts),
        values=tuple(first),
        negative=any(value < 0 for value in first),
        falling=len(first) > 2 and all(a >= b for a, b in itertools.pairwise(first)) and first[0] > first[-1],
        timed=bool(names) and sum(bool(_TIME.search(name)) for name in names) > 0.6 * len(names),
        shares=bool(first) and (abs(total - 100) < 1.5 or abs(total - 1) < 0.015),
        outlier=_outlier(first),
        whole=bool(first) and all(value == int(value) and 0 <= value <= 400 for value in first) and most > 0,
        repeated=len(set(last_text)) < len(last_text) if last_text else False,
        percent="percent" in styles or (bool(first) and min(first) >= 0 and most <= 1),
        planned=any(_PLAN.search(str(table.columns[i].cells[0])) for i in numeric),
    )


def _outlier(values: Sequence[float]) -> bool:
    ordered = sorted(values, reverse=True)
    return len(ordered) > 3 and ordered[1] > 0 and ordered[0] > 2.5 * ordered[1]


def suits(recipe: Recipe, of: Features) -> tuple[float, str]:
    """How well a recipe suits (0 to 1), and why in a few words."""
    found = _RULES.get(recipe.name)
    return found(of) if found is not None else (0.5, "your own recipe")


def _when(*rules: tuple[bool, float, str], otherwise: tuple[float, str] = (0.3, "")) -> tuple[float, str]:
    return next(((score, reason) for holds, score, reason in rules if holds), otherwise)


_RULES = {
    "gauge": lambda f: _when((f.rows == 1, 0.95, "one figure"), (f.rows <= 6, 0.45, "one figure of each row")),
    "thermometer": lambda f: _when((f.rows <= 8 and not f.negative, 0.4, "adds up to a goal")),
    "battery": lambda f: _when((f.rows <= 8 and not f.negative, 0.35, "what is left of a budget")),
    "capsule": lambda f: _when((f.percent and f.rows <= 8, 0.92, "shares of a whole each"), otherwise=(0.25, "")),
    "radial-bars": lambda f: _when((3 <= f.rows <= 8 and not f.negative, 0.55, "a few rows to compare")),
    "target-columns": lambda f: _when((f.planned and f.numbers >= 2, 0.9, "what was reached, and planned")),
    "pie": lambda f: _when(
        (f.shares and f.rows <= 7, 0.8, "shares of one whole"),
        (2 <= f.rows <= 6 and not f.negative, 0.55, "a few parts"),
    ),
    "two-level-ring": lambda f: _when((f.texts >= 2 and f.repeated, 0.9, "parts within groups"), otherwise=(0.1, "")),
    "waffle": lambda f: _when(
        (f.shares and f.rows <= 7, 0.9, "shares that add up to 100"),
        (f.rows <= 6 and not f.negative, 0.5, "parts to count"),
    ),
    "stacked-bars": lambda f: _when((f.numbers >= 2, 0.65, "parts of each row"), otherwise=(0.1, "")),
    "funnel": lambda f: _when((f.falling and 3 <= f.rows <= 9, 0.93, "each row smaller than the one before")),
    "bridge": lambda f: _when((f.negative, 0.95, "changes with signs"), otherwise=(0.2, "")),
    "growth-bars": lambda f: _when((f.numbers == 2, 0.78, "two periods to compare"), otherwise=(0.15, "")),
    "pictogram": lambda f: _when((f.whole and f.rows <= 10, 0.72, "counts of things")),
    "picture-bars": lambda f: _when((f.whole and f.rows <= 10, 0.45, "counts as pictures")),
    "highlight-bars": lambda f: _when((3 <= f.rows <= 20, 0.74, "one row stands out")),
    "capped-bars": lambda f: _when((f.outlier, 0.88, "one row far above the others"), otherwise=(0.15, "")),
    "columns": lambda f: _when(
        (f.timed or f.numbers > 1, 0.7, "figures side by side"), otherwise=(0.6, "plain and clear")
    ),
    "bars": lambda f: _when((f.rows > 5, 0.66, "many rows with names"), otherwise=(0.55, "plain and clear")),
    "lines": lambda f: _when((f.timed and f.rows >= 4, 0.86, "figures over time"), otherwise=(0.25, "")),
    "areas": lambda f: _when((f.timed and f.rows >= 4, 0.7, "amounts over time"), otherwise=(0.2, "")),
    "points": lambda f: _when(
        (f.numbers == 2 and f.rows >= 6, 0.6, "two figures against each other"), otherwise=(0.15, "")
    ),
    "bubbles": lambda f: _when((f.numbers >= 3, 0.55, "three figures of each row"), otherwise=(0.1, "")),
    "mirrored-bars": lambda f: _when(
        (f.numbers == 2 and not f.negative, 0.62, "two sides of each row"), otherwise=(0.1, "")
    ),
    "combined": lambda f: _when(
        (f.numbers >= 2 and f.timed, 0.68, "two kinds of figures over time"), otherwise=(0.2, "")
    ),
    "stepping": lambda f: _when(
        (f.texts >= 2 and f.repeated, 0.8, "the same rows in several periods"), otherwise=(0.1, "")
    ),
}
