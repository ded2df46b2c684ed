"""Bars and areas whose scale does not begin at zero: their lengths are no longer in proportion.

Source: E. R. Tufte, The Visual Display of Quantitative Information (1983), chapter 2; D. Huff, How to Lie with
Statistics (1954), on cut-off bars.
"""

from collections.abc import Iterator

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.chart_changes import to_points
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import PLAIN


def cuts(low: float, high: float) -> bool:
    """Whether a scale from low to high leaves out zero, where lengths begin."""
    return low > 0 or high < 0


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The first layer whose lengths do not begin at zero is named."""
    for layer in subject.layers:
        scale, ends = subject.scale(layer), subject.ends(layer)
        if not kind_of(layer).is_length or scale is None or ends is None or scale.kind == "log":
            continue
        if not cuts(*ends):
            continue
        start = min(ends, key=abs)
        shown = written(start, scale.number or subject.inputs.number_text("value") or PLAIN, subject.document.locale)
        message = say(
            "The scale begins at {start}, not at zero, so lengths are not in proportion to the figures.", start=shown
        )
        yield Finding(
            CHECK.name, "warning", start, message, subject.place(layer=layer.key), tuple(_remedies(subject, layer))
        )
        return


def _remedies(subject: ChartSubject, layer: AnyLayer) -> Iterator[Remedy]:
    path = subject.scale_path(layer)
    back: dict[str, bool | None] = {f"{path}.minimum": None, f"{path}.maximum": None, f"{path}.zero": None}
    spec = subject.scale(layer)
    if spec is not None and not spec.zero and f"{path}.zero" not in subject.entry.dress.overrides:
        back[f"{path}.zero"] = True
    yield Remedy("begin at zero", say("Begin at zero"), subject.without_ends(back))
    yield from to_points(subject)


CHECK = Check(
    "cut-axis", "Bars or areas whose scale does not begin at zero", "Tufte 1983, chapter 2; Huff 1954", of_drawing=check
)
