"""Chart models for the tests of what writes them: a small table, a series of it, a chart of groups."""

from typing import Any

import msgspec

from kavlet.core.office_model.chart_model import (
    Axes,
    AxisModel,
    CellRange,
    ChartModel,
    Series,
    SeriesGroup,
)
from kavlet.core.spreadsheet.table import Column, Table
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

BLACK, WHITE = Colour(0.0, 0.0, 0.0), Colour(1.0, 1.0, 1.0)
RED = Colour(1.0, 0.0, 0.0)
TABLE = Table("t1", "Gates", (
    Column("c1", ("gate", "North", "South", "East")),
    Column("c2", ("guests", 40.0, 25.0, None)),
    Column("c3", ("offset", 5.0, 6.0, 7.0)),
))  # fmt: skip


def cells(column: int) -> CellRange:
    return CellRange("t1", column, 1, 3)


def series(column: int = 1, **changes: Any) -> Series:
    base = Series(name=CellRange("t1", column, 0, 1), values=cells(column), names=cells(0), fill=RED)
    return msgspec.structs.replace(base, **changes)


def model(*groups: SeriesGroup, **changes: Any) -> ChartModel:
    axes = Axes(AxisModel(category=True), AxisModel(minimum=0.0, maximum=50.0, step=10.0))
    base = ChartModel(
        name="chart", size=Size(400.0, 300.0), groups=groups, lying=False, first=axes, second=None, title=None,
        texts=(), legend=None, legend_look=None, plot=Rect(0.1, 0.1, 0.8, 0.8), ground=WHITE, plot_ground=None,
        family="Kavlet Sans", view=None, workings=Table("w", "Workings", ()), blanks="gap", alt_text="", differs=(),
    )  # fmt: skip
    return msgspec.structs.replace(base, **changes)


def bars(*of: Series, **changes: Any) -> SeriesGroup:
    return msgspec.structs.replace(SeriesGroup(kind="bars", series=of or (series(),)), **changes)
