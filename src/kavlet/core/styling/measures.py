"""Weights of lines and free spaces that every chart of a theme shares; a theme names only those that differ."""

from msgspec import Struct


class Strokes(Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True):
    """Weights of lines in points: `fine` between rows and parts of a scale, `hair` for gridlines, leaders and borders,
    `tick` for marks of a scale, `axis` for the lines charts stand on, `rim` around what lies over its like."""

    fine: float = 0.5
    hair: float = 0.75
    tick: float = 0.8
    axis: float = 0.9
    rim: float = 1.0


class Spaces(Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True):
    """Free spaces. `margin` is a share of the sheet's shorter side, never under `least` nor over `most` points; `head`
    is below the title, in its sizes; `panel` is between panels, in sizes of text; the others are in sizes of small
    text: `foot` above the source line, `beside` and `below` between an axis and its words, `line` from line to line of
    a legend, `entry` between its entries."""

    margin: float = 0.055
    least: float = 6.0
    most: float = 24.0
    head: float = 0.8
    foot: float = 0.8
    beside: float = 0.55
    below: float = 0.5
    line: float = 1.55
    entry: float = 1.5
    panel: float = 1.6

    def around(self, width: float, height: float) -> float:
        """The margin of a sheet of a size, in points."""
        return min(self.most, max(self.least, self.margin * min(width, height)))
