"""More parts of a whole than can be told apart, or parts too small to be seen.

Source: common practice (seven parts, two percent); W. S. Cleveland and R. McGill 1984 (J. American Statistical
Association 79(387)): angles are judged less exactly than positions.
"""

import math
from collections import Counter
from collections.abc import Iterator

from kavlet.core.charts.layer import LEFT_OVER
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import counted, say
from kavlet.core.proof.chart_changes import to_sorted_bars
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject

MAX_SLICES, MIN_SHARE = 7, 0.02  # parts of one ring, and the share of the whole that a part should have
MAX_GATHERED = 50.0  # percent, up to which small parts can be drawn as one


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Rings that have too many parts, and the smallest part of those that are too small; symbols too many to count."""
    yield from subject.notices(CHECK.name)
    for layer in subject.layers:
        if not kind_of(layer).mark.has_slices:
            continue
        marks = [mark for mark in subject.marks if mark.key == layer.key and mark.panel == 0]
        values = [abs(mark.value) for mark in marks if math.isfinite(mark.value)]
        whole = sum(values)
        small = [value for value in values if whole and 0 < value / whole < MIN_SHARE]
        groups = Counter(getattr(layer, "groups", {}).get(mark.row, (-1, 0))[0] for mark in marks)
        together = max(groups.values(), default=0)  # parts of a group are read within it
        if together <= MAX_SLICES and not small:
            continue
        if together > MAX_SLICES:
            message = say("{count} parts are more than a reader can tell apart.", count=together)
            figure = float(together)
        else:
            message = counted(
                "{count} part is under 2\u00a0% of the whole, too small to be seen.",
                "{count} parts are under 2\u00a0% of the whole, too small to be seen.",
                len(small),
            )
            figure = min(small) / whole
        yield Finding(
            CHECK.name,
            "note",
            figure,
            message,
            subject.place(layer=layer.key),
            (*_gather(subject, values), *to_sorted_bars(subject)),
        )


def _gather(subject: ChartSubject, values: list[float]) -> Iterator[Remedy]:
    """Gather the small ones: the least share from which on few enough stay, and their sum is large enough."""
    if not subject.has_setting("gather") or not (whole := sum(values)):
        return
    shares = sorted(
        float(figure) / whole for figure in subject.inputs.figures("value") if math.isfinite(figure) and figure > 0
    )
    spare = sum(mark.row == LEFT_OVER for mark in subject.marks)  # what is left over of a stated whole
    for place in range(2, len(shares)):
        threshold = math.ceil(1000 * (shares[place - 1] + 1e-12)) / 10
        lump = [share for share in shares if 100 * share < threshold]
        kept_shares = [share for share in shares if 100 * share >= threshold]
        fits = (
            len(kept_shares) + 1 + spare <= MAX_SLICES
            and kept_shares
            and min(kept_shares) >= MIN_SHARE
            and sum(lump) >= MIN_SHARE
        )
        if fits and threshold <= MAX_GATHERED:
            yield subject.setting("gather", say("Gather the small ones"), {"gather": threshold}, restates=True)
            return


CHECK = Check("many-slices", "Too many parts, or parts too small to be seen", "common practice", of_chart=check)
