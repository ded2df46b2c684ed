"""Looks follow what they mean: rows that come, go or move; series whose columns do; both where a table is turned."""

from collections.abc import Callable, Iterable
from typing import Any

import msgspec

from kavlet.core.charts.layer import GATHERED, Row
from kavlet.core.charts.looks import Look, parse
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.recipes.building_blocks import series_key, series_place

Follow = Callable[[Look], Iterable[Look]]


def following(chart: ChartEntry, follow: Follow) -> ChartEntry:
    """A chart whose looks stand where they have gone to: nowhere, somewhere else, or at several places."""
    overrides: dict[str, Any] = {}
    for path, value in chart.dress.overrides.items():
        look = parse(path)
        gone_to = list(follow(look))
        overrides |= {path: value} if gone_to == [look] else {one.text: value for one in gone_to}
    if overrides == chart.dress.overrides:
        return chart
    return msgspec.structs.replace(chart, dress=msgspec.structs.replace(chart.dress, overrides=overrides))


def following_rows(document: Document, table_id: str, follow: Callable[[int], int | None]) -> Document:
    """The charts of a table with every row's own looks at the row it has become; those of lost rows are lost. Charts
    that read across a row of it go with that row.

    `follow` gives a row's new number (both counted from the first row of figures), None when it is gone.
    """

    def of_row(look: Look) -> list[Look]:
        if look.row is None or look.row >= GATHERED:
            return [look]
        new = follow(look.row)
        return [look.at(new)] if new is not None else []

    def of_table(chart: ChartEntry) -> ChartEntry:
        if chart.table == table_id:
            return _columns_following(following(chart, of_row), follow)
        if chart.reading is None or chart.reading.table != table_id:
            return chart
        row = follow(chart.reading.row)
        direction = msgspec.structs.replace(chart.reading, row=row if row is not None else chart.reading.row)
        return msgspec.structs.replace(chart, reading=direction)

    charts = tuple(of_table(chart) for chart in document.charts)
    return msgspec.structs.replace(document, charts=charts)


def _columns_following(chart: ChartEntry, follow: Callable[[int], int | None]) -> ChartEntry:
    """A chart that reads across, whose rows are columns, with these in the order their rows have got."""
    if chart.reading is None:
        return chart
    places = {column: follow(row) for row, column in enumerate(chart.reading.columns)}
    kept = sorted((place, column) for column, place in places.items() if place is not None)
    direction = msgspec.structs.replace(chart.reading, columns=tuple(column for _, column in kept))
    return msgspec.structs.replace(chart, reading=direction)


def without_read(document: Document, table_id: str, gone: set[str], only: str = "") -> Document:
    """The charts that read across a table, or `only` one, without columns of it that are gone."""
    for chart in document.charts:
        direction = chart.reading
        concerned = direction is not None and direction.table == table_id and chart.id == (only or chart.id)
        if direction is not None and concerned and gone & set(direction.columns):
            left = [row for row, column in enumerate(direction.columns) if column not in gone]
            place = {row: new for new, row in enumerate(left)}
            document = following_rows(document, chart.table, place.get)
    return document


def with_roles(chart: ChartEntry, roles: dict[str, tuple[str, ...]], series: str) -> ChartEntry:
    """A chart with other columns in its roles; the looks of each series go with its column.

    `series` is the role whose columns are the layers `series 1`, `series 2` …; empty where the recipe has none.
    """
    before, after = chart.roles.get(series, ()), roles.get(series, ())

    def of_series(look: Look) -> list[Look]:
        place = series_place(look.layer)
        if place is None or place >= len(before):
            return [look]
        return [look.on(series_key(after.index(before[place])))] if before[place] in after else []

    moved = following(chart, of_series) if series and before != after else chart
    return msgspec.structs.replace(moved, roles=roles)


def turned(chart: ChartEntry, series: tuple[tuple[int, ...], tuple[int, ...]]) -> ChartEntry:
    """A chart whose table was turned: a row's looks on one series go to that series' row on the row's series.

    `series` holds the columns of the series before, by their place in the table, and those after. What was set for a
    whole series is set for its row on all of them; what all rows of a series have, for the series.
    """
    before, after = series

    def of_mark(look: Look) -> list[Look]:
        place = series_place(look.layer)
        if place is None or place >= len(before):
            return [look]
        row = before[place] - 1
        if look.row is not None:
            return [look.on(series_key(after.index(look.row + 1))).at(row)] if look.row + 1 in after else []
        if look.field[0] not in Row.__struct_fields__ or look.field[0] == "label":
            return [look]
        return [look.on(series_key(i)).at(row) for i in range(len(after))]

    return _gathered(following(chart, of_mark), rows=len(before))


def _gathered(chart: ChartEntry, rows: int) -> ChartEntry:
    """Looks that all rows of a series have alike, as the series' own."""
    overrides = dict(chart.dress.overrides)
    looks = [parse(path) for path in overrides]
    for look in {one.at(0) for one in looks if one.row is not None and series_place(one.layer) is not None}:
        paths = [look.at(row).text for row in range(rows)]
        values = [overrides.get(path) for path in paths]
        if rows > 0 and values[0] is not None and all(value == values[0] for value in values):
            overrides = {path: value for path, value in overrides.items() if path not in paths}
            overrides[Look(look.layer, None, look.field).text] = values[0]
    return msgspec.structs.replace(chart, dress=msgspec.structs.replace(chart.dress, overrides=overrides))
