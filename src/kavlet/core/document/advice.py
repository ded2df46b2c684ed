"""What a table is like, for recipes to say how well they suit it."""

import itertools
import math
import re
from collections.abc import Sequence

from kavlet.core.document.guessing import is_numeric
from kavlet.core.figures.cells import Formula, Value, text_of
from kavlet.core.figures.table import HEADER, Table
from kavlet.core.recipes.features import Features

_TIME = re.compile(
    r"(?:19|20)\d\d|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|q[1-4]|mon|tue|wed|thu|fri|sat|sun|week|spring|summer|"
    r"autumn|winter", re.IGNORECASE,
)  # fmt: skip

_PLAN = re.compile(r"\b(?:targets?|goals?|plan(?:ned)?|aims?|due)\b", re.IGNORECASE)


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
