"""Scales with their ends fixed: where a figure lies, as a share of the axis."""

import math
from collections.abc import Sequence

import msgspec
from msgspec import Struct

from kavlet.core.charts.scale import Scale
from kavlet.core.layout.planes import ticks as rules
from kavlet.core.text.numbers import HUGE, TINY, decimals_of, written
from kavlet.core.values.number_text import MAX_DECIMALS, PLAIN, NumberText

PIXELS_PER_TICK = 44.0  # points along an axis that one tick should have, before labels are measured


class FixedScale(Struct, frozen=True):
    """A scale with its ends and ticks; `share` of the low end is 0, of the high end 1 (turned round when reversed)."""

    kind: str
    minimum: float
    maximum: float
    ticks: tuple[float, ...] = ()
    minors: tuple[float, ...] = ()
    reversed: bool = False
    cap: float | None = None
    number: NumberText = PLAIN

    def text(self, tick: float, locale: str) -> str:
        """A tick as it is written on the axis."""
        return written(tick, self.number, locale)

    def share(self, value: float) -> float:
        """Where a value lies; beyond 0 and 1 outside the ends. No value, or one a log scale can't show, is NaN."""
        low, high = self.minimum, self.maximum
        if self.kind == "log":
            if not value > 0:
                return math.nan
            low, high, value = math.log10(low), math.log10(high), math.log10(value)
        at = (value - low) / (high - low) if high != low else 0.0
        return 1 - at if self.reversed else at

    def beyond(self, value: float) -> int:
        """1 for a value above the upper end, -1 for one below the lower, 0 within. A cap bars are cut at is no end."""
        slack = 1e-9 * abs(self.maximum - self.minimum)
        if value > self.maximum + slack:
            return 1 if self.cap is None else 0
        return -1 if value < self.minimum - slack and (self.kind != "log" or value > 0) else 0

    def inside(self, value: float) -> float:
        """The value, moved to the nearer end when it lies outside."""
        return min(max(value, self.minimum), self.maximum)


def extent(figures: Sequence[float]) -> tuple[float, float] | None:
    """The smallest and largest that are values; None without any."""
    held = [float(figure) for figure in figures if math.isfinite(figure)]
    return (min(held), max(held)) if held else None


def fixed_scale(
    scale: Scale, span: tuple[float, float] | None, length: float, column: NumberText = PLAIN
) -> FixedScale:
    """The scale for figures within `span` on an axis of `length` points: ends first, then ticks.

    `column` is how their column writes them.
    """
    if scale.kind == "log":
        return _log(scale, span, column)
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
        return _scaled(scale, low, high if high > low else low + 1, rules.dates(low, high, count), column)
    low = scale.minimum if scale.minimum is not None else low
    high = scale.maximum if scale.maximum is not None else high
    if not high > low:
        high = low + (abs(low) or 1.0)
    wished = _wished(scale, low, high, count)
    low = min(low, wished[0]) if scale.minimum is None and wished else low
    high = max(high, wished[-1]) if scale.maximum is None and wished else high
    slack = 1e-9 * (high - low)
    shown = scale.ticks if scale.ticks is not None else wished
    return _scaled(scale, low, high, [tick for tick in shown if low - slack <= tick <= high + slack], column)


def _wished(scale: Scale, low: float, high: float, count: int) -> list[float]:
    """The ticks that a rule wants for what is shown, which may lie beyond its ends."""
    if scale.rule == "heckbert" and not scale.step:
        return rules.heckbert(low, high, count)
    if scale.rule == "extended" and not scale.step:
        return rules.extended(low, high, count)
    step = scale.step or rules.step_125(low, high, count)
    return rules.multiples(*rules.outward(low, high, step), step)


def _log(scale: Scale, span: tuple[float, float] | None, column: NumberText) -> FixedScale:
    low, high = span if span is not None else (1.0, 10.0)
    low = low if low > 0 else min(1.0, high / 1000 if high > 0 else 1.0)
    high = max(high, low * 10)
    low = scale.minimum if scale.minimum and scale.minimum > 0 else 10.0 ** math.floor(math.log10(low) + 1e-9)
    high = scale.maximum if scale.maximum and scale.maximum > low else 10.0 ** math.ceil(math.log10(high) - 1e-9)
    return _scaled(scale, low, high, rules.decades(low, high), column)


def _scaled(scale: Scale, low: float, high: float, found: list[float], column: NumberText) -> FixedScale:
    minors: list[float] = []
    if scale.minor > 1 and len(found) > 1 and scale.kind == "linear":
        step = (found[1] - found[0]) / scale.minor
        minors = [one for one in rules.multiples(low, high, step) if one not in found]
    number = _number(scale, found, column)
    return FixedScale(scale.kind, low, high, tuple(found), tuple(minors), scale.reversed, scale.cap, number)


def _number(scale: Scale, ticks: list[float], column: NumberText) -> NumberText:
    """How ticks are written: as set for the axis, else as their column is, with the decimals their steps need."""
    how = scale.number or column
    if scale.kind == "date":
        return NumberText(style="date") if scale.number is None else how
    if how.style == "date" or (scale.number is not None and how.most_decimals is not None) or how.significant:
        return how
    how = msgspec.structs.replace(how, least_decimals=0, zero=None, missing="")
    largest = max(map(abs, ticks), default=0.0)
    if how.style == "number" and (largest >= HUGE or 0 < largest < TINY):
        return msgspec.structs.replace(how, style="exponent")
    if how.style in ("short", "long"):
        return how
    needed = max((decimals_of(tick) for tick in ticks), default=0) - (2 if how.style == "percent" else 0)
    return msgspec.structs.replace(how, most_decimals=min(MAX_DECIMALS, max(0, needed)))
