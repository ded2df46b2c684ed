"""What lines and areas share: their points, and the runs that missing values leave."""

import math

from kavlet.core.charts.layer import Missing
from kavlet.core.layout.placing import Placing
from kavlet.core.layout.planes.plane import Plane
from kavlet.core.spreadsheet.ranges import Floats

RowPoint = tuple[int, float, float]  # row, across, along


def runs(numbers: Floats, x: str, missing: Missing, second: bool, on: Plane, placing: Placing) -> list[list[RowPoint]]:
    """Unbroken runs of points in the order they are drawn: by rows, or by the figures of a numeric across axis."""
    across = placing.data.column(x) if x else None
    found: list[list[RowPoint]] = [[]]
    order = list(range(len(numbers)))
    if across is not None:
        order = sorted((row for row in order if not math.isnan(across[row])), key=lambda row: float(across[row]))
    for row in order:
        number = float(numbers[row])
        if math.isnan(number):
            if missing == "bridge":
                continue
            if missing == "break":
                found.append([])
                continue
            number = 0.0
        place = on.across_value(float(across[row])) if across is not None else on.row_middle(row)
        along = on.along(number, second)
        if not math.isnan(along) and not math.isnan(place):
            found[-1].append((row, place, along))
    return [run for run in found if run]
