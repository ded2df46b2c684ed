"""A part below zero, where parts of a whole are drawn.

Source: a share lies between 0 and 1 by definition; ISO/IEC 29500 pie charts draw the amount of a negative figure, which
says the contrary of it.
"""

import math
from collections.abc import Iterator

from kavlet.core.charts.layer import Stacking
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import counted
from kavlet.core.proof.chart_changes import to_bars
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The lowest one is named."""
    negatives: list[tuple[float, int, str]] = []
    data = subject.picture.build.panels[0].data
    for layer in subject.chart.layers:
        shares = kind_of(layer).only_shares or (isinstance(layer, Stacking) and layer.stack == "share")
        if layer.hidden or layer.helper or not shares:
            continue
        column = data.column(layer.figure_column)
        rows = zip(data.ids, column, strict=False)
        negatives += [(float(figure), row, layer.key) for row, figure in rows if math.isfinite(figure) and figure < 0]
    if not negatives:
        return
    lowest, row, key = min(negatives)
    message = counted(
        "{count} part is below zero, which no share can be.", "{count} parts are below zero, which no share can be.",
        len(negatives),
    )  # fmt: skip
    yield Finding(
        CHECK.name, "warning", lowest, message, subject.place(layer=key, row=row), to_bars(subject, "side by side")
    )


CHECK = Check("negative-share", "A part below zero in a whole", "a share lies between 0 and 1", of_chart=check)
