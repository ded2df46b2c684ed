"""Looks of single rows follow their rows when rows come, go or move."""

from collections.abc import Callable
from typing import Any

import msgspec

from kavlet.core.document.document import ChartEntry, Document

ROWS = ".rows."


def following_rows(document: Document, table_id: str, follow: Callable[[int], int | None]) -> Document:
    """The charts of a table with every row's own looks at the row it has become; those of lost rows are lost.

    `follow` gives a row's new number (both counted from the first row of figures), None when it is gone.
    """
    charts = tuple(
        _followed(chart, follow) if chart.table == table_id and _has_rows(chart) else chart for chart in document.charts
    )
    return msgspec.structs.replace(document, charts=charts)


def _has_rows(chart: ChartEntry) -> bool:
    return any(ROWS in path for path in chart.dress.overrides)


def _followed(chart: ChartEntry, follow: Callable[[int], int | None]) -> ChartEntry:
    overrides: dict[str, Any] = {}
    for path, value in chart.dress.overrides.items():
        before, marker, rest = path.partition(ROWS)
        number, dot, after = rest.partition(".")
        if marker and number.isdigit():
            new = follow(int(number))
            if new is None:
                continue
            overrides[f"{before}{ROWS}{new}{dot}{after}"] = value
        else:
            overrides[path] = value
    return msgspec.structs.replace(chart, dress=msgspec.structs.replace(chart.dress, overrides=overrides))
