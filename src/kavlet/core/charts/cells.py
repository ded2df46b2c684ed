"""Cells: counted units, as squares, discs or symbols: a waffle on a grid, a pictogram along the rows."""

from typing import Literal

from kavlet.core.charts.layer import Layer

CellForm = Literal["square", "disc"]


class Cells(Layer, frozen=True, tag_field="type", tag="cells", omit_defaults=True, forbid_unknown_fields=True):
    """As many cells per row as the column says, the last one cut to the fraction.

    On a grid frame the rows fill one field after another, and what stays is drawn pale. On a Cartesian frame each row
    has its own line, wrapped after `wrap` cells (0: never). `symbol` names a symbol for all, `symbols` a column that
    names one per row. `cut` cuts the last one by its width, or so that its ink area is the fraction.
    """

    cell: CellForm = "square"
    symbol: str = ""
    symbols: str = ""
    wrap: int = 0
    gap: float = 0.14
    cut: Literal["width", "area"] = "width"
    empty: bool = True
