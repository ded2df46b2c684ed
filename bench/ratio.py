"""A measured ratio, and how to time a call."""

import statistics
import time
from collections.abc import Callable

from msgspec import Struct


class Ratio(Struct, frozen=True):
    """Ours against a yardstick, in the unit named; the ratio is what counts, the figures are this machine's."""

    what: str
    ours: float
    other: float
    unit: str
    aim: str
    note: str = ""

    @property
    def text(self) -> str:
        ratio = self.ours / self.other
        note = f"  {self.note}" if self.note else ""
        return f"{ratio:6.3f}  ({self.ours:.3g} / {self.other:.3g} {self.unit}; aim {self.aim}){note}"


def milliseconds(call: Callable[[], object], times: int) -> list[float]:
    """How long each of so many calls took."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        call()
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def median(values: list[float]) -> float:
    return statistics.median(values)


def percentile_99(values: list[float]) -> float:
    return statistics.quantiles(values, n=100)[98]
