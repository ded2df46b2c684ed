"""Scales with their ends fixed: where a figure lies, as a share of the axis."""

import math
from collections.abc import Sequence

from msgspec import Struct

from kavlet.core.charts.scale import Scale
from kavlet.core.compose.frames import ticks as rules

PIXELS_PER_TICK = 44.0  # points along an axis that one tick should have, before labels are measured


class Scaled(Struct, frozen=True):
    """A scale with its ends and ticks; `share` of the low end is 0, of the high end 1 (turned round when reversed)."""

    kind: str
    minimum: float
    maximum: float
    ticks: tuple[float, ...] = ()
    minors: tuple[float, ...] = ()
    reversed: bool = False
    cap: float | None = None

    def share(self, value: float) -> float:
        """Where a value lies; beyond 0 and 1 outside the ends. No value, or one a log scale can't show, is NaN."""
        low, high = self.minimum, self.maximum
        if self.kind == "log":
            if not value > 0:
                return math.nan
            low, high, value = math.log10(low), math.log10(high), math.log10(value)
        at = (value - low) / (high - low) if high != low else 0.0
        return 1 - at if self.reversed else at

    def inside(self, value: float) -> float:
        """The value, moved to the nearer end when it lies outside."""
        return min(max(value, self.minimum), self.maximum)


def extent(figures: Sequence[float]) -> tuple[float, float] | None:
    """The smallest and largest that are values; None without any."""
    held = [float(figure) for figure in figures if math.isfinite(figure)]
    return (min(held), max(held)) if held else None


def scaled(scale: Scale, span: tuple[float, float] | None, length: float) -> Scaled:
    """The scale for figures within `span` on an axis of `length` points: ends first, then ticks."""
    if scale.kind == "log":
        return _log(scale, span)
    count = max(2, round(length / PIXELS_PER_TICK))
    low, high = span if span is not None else (0.0, 1.0)
    if scale.cap is not None:
        high = min(high, scale.cap)
    if scale.zero and scale.kind == "linear":
        low, high = min(low, 0.0), max(high, 0.0)
    if low == high:
        low, high = (min(0.0, 2 * low), max(0.0, 2 * low)) if low else (0.0, 1.0)
    if scale.kind == "date":
        low = scale.minimum if scale.minimum is not None else low
        high = scale.maximum if scale.maximum is not None else high
        return _scaled(scale, low, high if high > low else low + 1, rules.dates(low, high, count))
    step = scale.step or rules.step_125(low, high, count)
    automatic_low, automatic_high = _ends(scale, low, high, count, step)
    low = scale.minimum if scale.minimum is not None else automatic_low
    high = scale.maximum if scale.maximum is not None else automatic_high
    if not high > low:
        high = low + (abs(low) or 1.0)
    return _scaled(scale, low, high, _ticks(scale, low, high, count))


def _ends(scale: Scale, low: float, high: float, count: int, step: float) -> tuple[float, float]:
    if scale.rule == "heckbert":
        found = rules.heckbert(low, high, count)
        return min(low, found[0]), max(high, found[-1])
    if scale.rule == "extended":
        found = rules.extended(low, high, count)
        return min([low, *found]), max([high, *found])
    return rules.outward(low, high, step)


def _ticks(scale: Scale, low: float, high: float, count: int) -> list[float]:
    if scale.ticks is not None:
        return [tick for tick in scale.ticks if low - 1e-9 <= tick <= high + 1e-9]
    if scale.step:
        return rules.multiples(low, high, scale.step)
    rule = {"125": rules.nice, "heckbert": rules.heckbert, "extended": rules.extended}[scale.rule]
    slack = 1e-9 * (high - low)
    return [tick for tick in rule(low, high, count) if low - slack <= tick <= high + slack]


def _log(scale: Scale, span: tuple[float, float] | None) -> Scaled:
    low, high = span if span is not None else (1.0, 10.0)
    low = low if low > 0 else min(1.0, high / 1000 if high > 0 else 1.0)
    high = max(high, low * 10)
    low = scale.minimum if scale.minimum and scale.minimum > 0 else 10.0 ** math.floor(math.log10(low) + 1e-9)
    high = scale.maximum if scale.maximum and scale.maximum > low else 10.0 ** math.ceil(math.log10(high) - 1e-9)
    return _scaled(scale, low, high, rules.decades(low, high))


def _scaled(scale: Scale, low: float, high: float, found: list[float]) -> Scaled:
    minors: list[float] = []
    if scale.minor > 1 and len(found) > 1 and scale.kind == "linear":
        step = (found[1] - found[0]) / scale.minor
        minors = [one for one in rules.multiples(low, high, step) if one not in found]
    return Scaled(scale.kind, low, high, tuple(found), tuple(minors), scale.reversed, scale.cap)
