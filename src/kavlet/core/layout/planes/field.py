"""A grid frame in its place: equal cells in the order they are filled."""

from msgspec import Struct

from kavlet.core.charts.frame import Grid
from kavlet.core.layout.context import Context
from kavlet.core.layout.furniture import Furniture
from kavlet.core.values.geometry import Rect


class GridField(Struct, frozen=True):
    """The field and its cells, all squares of one side."""

    plot: Rect
    frame: Grid

    @property
    def count(self) -> int:
        """How many cells there are."""
        return max(1, self.frame.rows) * max(1, self.frame.columns)

    def cell(self, number: int) -> Rect:
        """The box of the cell that is filled as the `number`-th (from 0)."""
        rows, columns = max(1, self.frame.rows), max(1, self.frame.columns)
        if self.frame.by == "rows":
            row, column = divmod(number, columns)
        else:
            column, row = divmod(number, rows)
        if "bottom" in self.frame.corner:
            row = rows - 1 - row
        if "right" in self.frame.corner:
            column = columns - 1 - column
        wide, tall = self.plot.width / columns, self.plot.height / rows
        return Rect(self.plot.x + column * wide, self.plot.y + row * tall, wide, tall)


def lay_out(context: Context, frame: Grid, room: Rect) -> tuple[GridField, Furniture]:
    """The field at the left of the room, or of where its author put the plot, centred in its height."""
    room = context.plot_by_hand or room
    rows, columns = max(1, frame.rows), max(1, frame.columns)
    side = min(room.width / columns, room.height / rows)
    wide, tall = side * columns, side * rows
    return GridField(Rect(room.x, room.y + (room.height - tall) / 2, wide, tall), frame), Furniture()
