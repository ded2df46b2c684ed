"""Tick values by named rules.

`step_125` is 1, 2 or 5 times a power of ten, the one closest to the wish in ratio (the rule of most axes).
`heckbert`: Heckbert 1990, "Nice numbers for graph labels", Graphics Gems. `extended`: Talbot, Lin and Hanrahan 2010,
"An extension of Wilkinson's algorithm for positioning tick labels on axes".
"""

import math
from decimal import Decimal

MAX_TICKS = 200


def step_125(low: float, high: float, count: int) -> float:
    """The step of 1, 2 or 5 times a power of ten whose number of ticks comes closest to `count`."""
    raw = (high - low) / max(1, count)
    if not raw > 0 or math.isinf(raw):
        return 0.0
    power = 10.0 ** math.floor(math.log10(raw))
    error = raw / power
    factor = 10 if error >= math.sqrt(50) else 5 if error >= math.sqrt(10) else 2 if error >= math.sqrt(2) else 1
    return float(f"{factor}e{math.floor(math.log10(raw))}")  # exact where a product of powers would not be


def multiples(low: float, high: float, step: float) -> list[float]:
    """All multiples of a step within the ends, noise in the last digit forgiven; none for a step too small."""
    if not step > 0 or (high - low) / step > MAX_TICKS:
        return []
    first, last = math.ceil(low / step - 1e-9), math.floor(high / step + 1e-9)
    exact = Decimal(repr(step))
    return [float(i * exact) + 0.0 for i in range(first, last + 1)]


def outward(low: float, high: float, step: float) -> tuple[float, float]:
    """The ends moved out to multiples of a step."""
    if not step > 0:
        return low, high
    exact = Decimal(repr(step))
    return float(math.floor(low / step + 1e-9) * exact), float(math.ceil(high / step - 1e-9) * exact)


def heckbert(low: float, high: float, count: int) -> list[float]:
    """Loose labels: the first tick at or below the low end, the last at or above the high one."""
    if not high > low:
        return [low]
    span = _heckbert_number(high - low, rounded=False)
    step = _heckbert_number(span / max(1, count - 1), rounded=True)
    first, last = outward(low, high, step)
    return multiples(first, last, step)


def _heckbert_number(x: float, rounded: bool) -> float:
    power = math.floor(math.log10(x))
    f = x / 10.0**power
    if rounded:
        nice_f = 1 if f < 1.5 else 2 if f < 3 else 5 if f < 7 else 10
    else:
        nice_f = 1 if f <= 1 else 2 if f <= 2 else 5 if f <= 5 else 10
    return nice_f * 10.0**power


_STEPS = (1.0, 5.0, 2.0, 2.5, 4.0, 3.0)
_WEIGHTS = (0.25, 0.2, 0.5, 0.05)  # simplicity, coverage, density, legibility


def extended(low: float, high: float, count: int) -> list[float]:
    """The search of Talbot, Lin and Hanrahan over steps, skips and starts; legibility is taken as 1."""
    if not high > low:
        return [low]
    best_score, best = -2.0, (low, high, high - low)
    w = _WEIGHTS
    j = 1
    while j < 20:
        for place, q in enumerate(_STEPS):
            top = 1 - place / (len(_STEPS) - 1) - j + 1
            if w[0] * top + w[1] + w[2] + w[3] < best_score:
                return _labels(*best)
            k = 2
            while k < 4 * count + 4:
                density_most = 2 - (k - 1) / (count - 1) if k >= count else 1.0
                if w[0] * top + w[1] + w[2] * density_most + w[3] < best_score:
                    break
                best_score, best = _over_powers(low, high, count, (j, q, k, place), best_score, best)
                k += 1
        j += 1
    return _labels(*best)


def _labels(lowest: float, highest: float, step: float) -> list[float]:
    """From the lowest label on by steps; they need not be multiples of the step."""
    return [float(f"{lowest + i * step:.12g}") + 0.0 for i in range(round((highest - lowest) / step) + 1)]


def _over_powers(
    low: float, high: float, count: int, trial: tuple[int, float, int, int], score: float,
    best: tuple[float, float, float],
) -> tuple[float, tuple[float, float, float]]:  # fmt: skip
    """The best of one skip, step and number of labels, over the powers of ten and the starts."""
    j, q, k, place = trial
    w = _WEIGHTS
    delta = (high - low) / (k + 1) / j / q
    power = math.ceil(math.log10(delta))
    while power < 40:
        step = j * q * 10.0**power
        span = step * (k - 1)
        reach = 1.0 if span <= high - low else 1 - ((span - (high - low)) / 2) ** 2 / (0.1 * (high - low)) ** 2
        if w[0] * (1 - place / (len(_STEPS) - 1) - j + 1) + w[1] * reach + w[2] * 1 + w[3] < score:
            break
        first, last = math.floor(high / step) * j - (k - 1) * j, math.ceil(low / step) * j
        for start in range(first, last + 1):
            lowest = start * (step / j)
            highest = lowest + step * (k - 1)
            zero = lowest % step < 1e-10 * step or step - lowest % step < 1e-10 * step
            simple = 1 - place / (len(_STEPS) - 1) - j + (1 if zero and lowest <= 0 <= highest else 0)
            cover = 1 - 0.5 * ((high - highest) ** 2 + (low - lowest) ** 2) / (0.1 * (high - low)) ** 2
            mine = (k - 1) / (highest - lowest)
            wished = (count - 1) / (max(highest, high) - min(lowest, low))
            dense = 2 - max(mine / wished, wished / mine)
            total = w[0] * simple + w[1] * cover + w[2] * dense + w[3]
            if total > score:
                score, best = total, (lowest, highest, step)
        power += 1
    return score, best


def decades(low: float, high: float) -> list[float]:
    """Powers of ten within the ends of a log scale; with fewer than three, their 2- and 5-fold too."""
    first, last = math.floor(math.log10(low)), math.ceil(math.log10(high))
    powers = range(first, last + 1)
    ticks = [10.0**p for p in powers]
    if sum(low <= tick <= high for tick in ticks) < 3:
        ticks = [f * 10.0**p for p in powers for f in (1, 2, 5)]
    kept = [tick for tick in ticks if low * (1 - 1e-9) <= tick <= high * (1 + 1e-9)]
    return kept[:: max(1, len(kept) // 10)]


_DAY_STEPS = (1, 2, 7, 14)
_MONTH_STEPS = (1, 2, 3, 6, 12, 24, 60, 120)


def dates(low: float, high: float, count: int) -> list[float]:
    """Days, Mondays or firsts of months as day numbers (from 30 December 1899), about `count` of them."""
    from datetime import date, timedelta

    from kavlet.core.spreadsheet.cells import EPOCH

    span = high - low
    for days in _DAY_STEPS:
        if span / days <= count + 0.5:
            origin = 2 if days >= 7 else 0  # 1 January 1900 was a Monday: day 2
            first = math.ceil((low - origin) / days) * days + origin
            return [float(day) for day in range(first, math.floor(high) + 1, days)]
    start = EPOCH + timedelta(days=math.floor(low))
    months = next((m for m in _MONTH_STEPS if span / (30.44 * m) <= count + 0.5), _MONTH_STEPS[-1])
    found: list[float] = []
    at = (start.year * 12 + start.month - 1) // months * months
    while len(found) < MAX_TICKS:
        year, month = divmod(at, 12)
        if not 1 <= year <= 9999:
            break
        day = (date(year, month + 1, 1) - EPOCH).days
        if day > high:
            break
        if day >= low:
            found.append(float(day))
        at += months
    return found
