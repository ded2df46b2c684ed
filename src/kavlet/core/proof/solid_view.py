"""A solid whose view makes one of its parts take more, or less, of the area than it does in the flat chart."""

from kavlet.core.compose.figure import Figure
from kavlet.core.compose.solid.seen import seen
from kavlet.core.messages import say
from kavlet.core.proof.finding import Finding

COARSE = 1.0  # places to a point; enough to tell shares apart by a percent
LEAST, RATIO = 0.03, 1.15  # by how much of the whole, and by which factor, an area may be off


def check(figure: Figure) -> list[Finding]:
    """Depth and slant give and take area; the part whose share of it changes most is named."""
    found = seen(figure, COARSE)
    if len(found) < 2:
        return []
    worst = max(found, key=lambda one: abs(one.area_share - one.flat_share))
    larger = max(worst.area_share, worst.flat_share) / max(1e-9, min(worst.area_share, worst.flat_share))
    if abs(worst.area_share - worst.flat_share) < LEAST or larger < RATIO:
        return []
    says = worst.mark.says or worst.mark.layer
    return [
        Finding(
            "solid-view",
            "note",
            worst.area_share,
            say(
                "Seen this way, “{name}” takes {seen}\u00a0% of what is seen of all bodies, "
                "in the flat chart {flat}\u00a0%.",
                name=says,
                seen=round(100 * worst.area_share, 1),
                flat=round(100 * worst.flat_share, 1),
            ),
        )
    ]
