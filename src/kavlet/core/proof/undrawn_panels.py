"""Panels of a repeated chart that are not drawn, for there are too many."""

from kavlet.core.messages import counted
from kavlet.core.proof.finding import Finding


def check(undrawn: int) -> list[Finding]:
    """Every row is drawn, or it is said how many are not."""
    if not undrawn:
        return []
    message = counted(
        "{count} panel is not drawn: there are too many.", "{count} panels are not drawn: there are too many.", undrawn
    )
    return [Finding("undrawn-panels", "warning", float(undrawn), message)]
