"""Labels that found no room at a readable size."""

from kavlet.core.compose.figure import Figure
from kavlet.core.compose.words.lettering import FLOOR
from kavlet.core.proof.finding import Finding


def check(figure: Figure) -> list[Finding]:
    """Labels are left out rather than overlapped or shrunk below the floor."""
    if not figure.dropped:
        return []
    labels = "1 label is" if figure.dropped == 1 else f"{figure.dropped} labels are"
    message = f"{labels} left out, because there is no room for it at {FLOOR:g} points. Make the chart larger."
    return [Finding("dropped-label", "warning", float(figure.dropped), message)]
