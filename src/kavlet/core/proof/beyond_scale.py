"""Values that lie beyond the ends an author gave an axis."""

from kavlet.core.compose.figure import Figure
from kavlet.core.messages import counted
from kavlet.core.proof.finding import Finding


def check(figure: Figure) -> list[Finding]:
    """They are drawn with a break or an arrow and their true value; a reader should know, and so should the author."""
    found = [mark for mark in figure.marks if mark.beyond and not mark.helper]
    if not found:
        return []
    worst = max(found, key=lambda mark: abs(mark.value))
    message = counted(
        "{count} value lies beyond the ends of its scale: {name}.",
        "{count} values lie beyond the ends of their scale, the largest: {name}.",
        len(found),
        name=worst.says or worst.layer,
    )
    return [Finding("beyond-scale", "warning", worst.value, message)]
