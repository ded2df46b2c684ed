"""Colour by value: rules such as ``above 100: alarm; smallest: tone3``, and shades from light to dark."""

import math
import re
from collections.abc import Sequence
from typing import Literal, get_args

from msgspec import Struct

from kavlet.core.messages import say
from kavlet.core.styling.colours import is_colour
from kavlet.core.values.errors import KavletError

When = Literal["largest", "smallest", "first", "last", "above", "below"]
Shades = Literal["none", "one hue", "both ways", "in order"]
PALEST = 72.0  # percent of the way to the ground, for the smallest value
LISTED = 4  # entries of the legend for shades without steps
_RULE = re.compile(r"\s*([a-z]+)\s*(-?[\d.]+(?:[eE]-?\d+)?)?\s*:\s*(.+?)\s*")
_BARE = re.compile(r"#[0-9a-fA-F]{3,8}|[a-z]+\d*")


class ColourRule(Struct, frozen=True):
    """A colour for the rows a rule picks; `than` is the number of above and below."""

    when: When
    than: float
    colour: str

    def picks(self, number: int, figures: Sequence[float]) -> bool:
        """Whether it picks the row of that number among figures; one without a value is never picked."""
        mine = float(figures[number])
        held = [float(figure) for figure in figures if not math.isnan(figure)]
        if math.isnan(mine):
            return False
        match self.when:
            case "largest":
                return mine == max(held)
            case "smallest":
                return mine == min(held)
            case "first":
                return number == 0
            case "last":
                return number == len(figures) - 1
            case "above":
                return mine > self.than
            case "below":
                return mine < self.than


def parsed(text: str) -> tuple[ColourRule, ...]:
    """The rules of a text, the first that picks a row wins. Raises KavletError for one that can't be read."""
    return tuple(_rule(part) for part in text.split(";") if part.strip())


def _rule(part: str) -> ColourRule:
    found = _RULE.fullmatch(part)
    when = next((one for one in get_args(When) if found is not None and one == found[1]), None)
    if found is None or when is None or (when in ("above", "below")) != (found[2] is not None):
        raise KavletError(
            say("“{text}” is no rule for a colour.", text=part.strip()),
            remedy=say("Write it like above 100: #b3372f; smallest: tone3."),
        )
    if not is_colour(found[3]):
        raise KavletError(say("“{text}” is not a colour.", text=found[3]))
    return ColourRule(when, float(found[2] or 0.0), found[3])


def shade(kind: Shades, steps: int, value: float, figures: Sequence[float], base: str) -> str:
    """The colour text of a value among figures: a tint of a colour, the palest for the smallest; or, both ways, of the
    theme's colours for better and worse about zero."""
    held = [float(figure) for figure in figures if not math.isnan(figure)]
    if kind == "none" or math.isnan(value) or not held:
        return base
    if kind == "both ways":
        most = max(abs(figure) for figure in held) or 1.0
        return _tint("rise" if value >= 0 else "fall", _stepped(abs(value) / most, steps))
    low, high = min(held), max(held)
    return _tint(base, _stepped((value - low) / (high - low) if high > low else 1.0, steps))


def limits(steps: int, figures: Sequence[float]) -> list[tuple[float, float]]:
    """From where to where the shades of the legend go, the smallest first; LISTED of them where there are no steps."""
    held = [float(figure) for figure in figures if not math.isnan(figure)]
    count = steps if steps > 1 else LISTED
    if not held or min(held) == max(held):
        return []
    low, wide = min(held), (max(held) - min(held)) / count
    return [(low + i * wide, low + (i + 1) * wide) for i in range(count)]


def _stepped(share: float, steps: int) -> float:
    if steps < 2:
        return share
    return min(steps - 1, math.floor(share * steps)) / (steps - 1)


def _tint(base: str, share: float) -> str:
    """A colour by its text, paler the smaller the share. A text that is a tint already stays as it is."""
    bare = base.strip()
    pale = round(PALEST * (1.0 - max(0.0, min(1.0, share))))
    return f"{bare} +{pale}" if pale and _BARE.fullmatch(bare) else bare
