"""Exact sums that end in infinity where numbers are too large, as adding them one by one does."""

import math
from collections.abc import Iterable


def exact_sum(numbers: Iterable[float]) -> float:
    """The sum rounded once, as `math.fsum` gives it; infinity where it is larger than any float."""
    held = list(numbers)
    try:
        return math.fsum(held)
    except OverflowError:  # a sum on the way was too large; halves are not
        try:
            return 2.0 * math.fsum(0.5 * one for one in held)
        except OverflowError:
            return sum(held)
    except ValueError:  # infinities of both signs
        return math.nan
