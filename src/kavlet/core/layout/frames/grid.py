"""Lays out a grid frame: the largest field of square cells that fits, with the rows' names and figures beside it."""

from kavlet.core.charts.frame import Grid
from kavlet.core.layout.context import Context
from kavlet.core.layout.frames.field import GridField
from kavlet.core.layout.furniture import Furniture
from kavlet.core.values.geometry import Rect


def lay_out(context: Context, frame: Grid, room: Rect) -> tuple[GridField, Furniture]:
    """The field at the left of the room, or of where its author put the plot, centred in its height."""
    room = context.plot_by_hand or room
    rows, columns = max(1, frame.rows), max(1, frame.columns)
    side = min(room.width / columns, room.height / rows)
    wide, tall = side * columns, side * rows
    return GridField(Rect(room.x, room.y + (room.height - tall) / 2, wide, tall), frame), Furniture()
