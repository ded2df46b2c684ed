"""Bars and areas on a logarithmic scale, which has no zero that lengths could begin at.

Source: W. S. Cleveland, The Elements of Graphing Data (1985): logarithmic scales go with position, as dots do, not
with length.
"""

from collections.abc import Iterator

from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.chart_changes import to_points
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The first such layer is named."""
    for layer in subject.layers:
        scale = subject.scale(layer)
        if not kind_of(layer).is_length or scale is None or scale.kind != "log":
            continue
        message = say("A logarithmic scale has no zero, so the lengths of these marks mean nothing.")
        path = subject.scale_path(layer)
        by_hand = f"{path}.kind" in subject.entry.dress.overrides
        linear = {f"{path}.kind": None if by_hand else "linear", f"{path}.minimum": None, f"{path}.maximum": None}
        remedies: list[Remedy] = [subject.looks("linear scale", say("Make the scale linear"), linear)]
        remedies += to_points(subject)
        yield Finding(CHECK.name, "warning", 0.0, message, subject.place(layer=layer.key), tuple(remedies))
        return


CHECK = Check("log-bars", "Bars or areas on a logarithmic scale", "Cleveland 1985", of_chart=check)
