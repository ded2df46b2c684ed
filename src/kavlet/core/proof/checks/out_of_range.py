"""Values beyond the scale they are shown on: a needle at its stop, a tube that is full, bars with a break.

Source: the figures themselves.
"""

from collections.abc import Iterator

from kavlet.core.charts.layer import Stacking
from kavlet.core.messages import counted, say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject

ENDS = ("minimum", "maximum")


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Once for the chart: what its recipe noticed."""
    yield from subject.notices(CHECK.name)


def drawn(subject: ChartSubject) -> Iterator[Finding]:
    """Wherever it is drawn: how many values lie beyond the ends of the scale, and the largest."""
    marks = [mark for mark in subject.figure.marks if mark.beyond and not mark.helper]
    if not marks:
        return
    worst = max(marks, key=lambda mark: abs(mark.value))
    message = counted(
        "{count} value lies beyond the ends of its scale: {name}.",
        "{count} values lie beyond the ends of their scale, the largest: {name}.",
        len(marks),
        name=worst.says or worst.layer,
    )
    back = {f"frame.{scale}.{end}": None for scale in ("along", "across", "second") for end in ENDS}
    logarithmic = [path for path, value in subject.entry.dress.overrides.items() if value == "log" and ".kind" in path]
    back |= dict.fromkeys(logarithmic)  # which has no place for zero, nor for what is near it
    widen = Remedy("widen", say("Widen the scale"), subject.without_ends(back))
    shares = any(
        isinstance(layer, Stacking) and layer.stack == "share" for layer in subject.layers
    )  # which end at 100 %
    yield Finding(CHECK.name, "warning", worst.value, message, subject.mark_place(worst), () if shares else (widen,))


CHECK = Check("out-of-range", "Values beyond their scale", "the figures", of_chart=check, of_drawing=drawn)
