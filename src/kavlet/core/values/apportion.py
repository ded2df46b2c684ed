"""Whole numbers that add up: the largest-remainder method (Hamilton 1792; Balinski and Young 1982)."""

import math
from collections.abc import Sequence

from kavlet.core.values.sums import exact_sum

HUGE = 1e290
NOISE = 1e-9  # remainders closer than this are a tie; decimal figures have no exact binary form


def apportioned(figures: Sequence[float], total: int, whole: float | None = None) -> list[int]:
    """`total` units shared among the figures in proportion; ties go to the earlier one.

    With a `whole` larger than their sum, the figures get their part of it and the rest stays free. No value (NaN) and
    negative figures get nothing. All zero, or a whole of zero, gives zeros.
    """
    shares = [max(0.0, figure) if not math.isnan(figure) else 0.0 for figure in figures]
    most = max(shares, default=0.0)
    if most > HUGE:  # their sum may be larger than any float; their proportion is the same
        shares = [share / most if math.isfinite(most) else float(share == most) for share in shares]
        whole = None
    summed = exact_sum(shares)
    of = max(whole, summed) if whole is not None and whole > 0 else summed
    if of <= 0 or total <= 0:
        return [0] * len(shares)
    quotas = [share * total / of for share in shares]
    counts = [math.floor(quota + NOISE) for quota in quotas]
    due = math.floor(summed * total / of + 0.5 + NOISE) - sum(counts)
    remainders = [round((quota - count) / NOISE) for quota, count in zip(quotas, counts, strict=True)]
    order = sorted(range(len(shares)), key=lambda i: (-remainders[i], i))
    for i in [i for i in order if shares[i] > 0][:due]:
        counts[i] += 1
    return counts


def rounded_shares(figures: Sequence[float], decimals: int, whole: float | None = None) -> list[float]:
    """Shares (0 to 1) of the figures' sum, or of a whole, rounded to `decimals` of a percent so that they add up."""
    units = 100 * 10**decimals
    counts = apportioned(figures, units, whole)
    return [math.nan if math.isnan(figure) else count / units for figure, count in zip(figures, counts, strict=True)]
