"""A solid whose view makes one of its parts take more, or less, of what is seen than its value's share.

Source: E. R. Tufte 1983, chapter 2, on depth; a fifth as the limit is common practice.
"""

from collections.abc import Iterator

from kavlet.core.layout.solid.visible_areas import seen
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject

COARSE = 1.0  # places to a point; enough to tell shares apart by a percent
MIN_DEVIATION, MAX_DEVIATION = 0.03, 0.2  # by how much of the whole, and by which part of its share, an area may be off


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Depth and slant give and take area; the part whose share of it is off most, in proportion, is named."""
    distorted = [area for area in seen(subject.figure, COARSE) if area.flat_share > 0]
    if len(distorted) < 2:
        return
    worst = max(distorted, key=lambda area: abs(area.area_share - area.flat_share))
    off = abs(worst.area_share - worst.flat_share)
    if off < MIN_DEVIATION or off <= MAX_DEVIATION * worst.flat_share:
        return
    message = say(
        "Seen this way, “{name}” takes {seen}\u00a0% of what is seen of all bodies, in the flat chart {flat}\u00a0%.",
        name=worst.mark.says or worst.mark.layer,
        seen=round(100 * worst.area_share, 1),
        flat=round(100 * worst.flat_share, 1),
    )
    front = {"solid.turn": 0.0, "solid.tilt": 0.0, "solid.perspective": 0.0}
    remedies = (
        subject.looks("front view", say("See it from the front"), front),
        subject.looks("flat", say("Make it flat"), {"solid.on": False}),
    )  # fmt: skip
    yield Finding(CHECK.name, "note", worst.area_share, message, subject.mark_place(worst.mark), remedies)


CHECK = Check(
    "solid-share", "A view that gives parts more or less than their share", "common practice: a fifth", of_chart=check
)
