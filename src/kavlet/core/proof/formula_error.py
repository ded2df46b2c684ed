"""Formulas of a chart's texts, looks and labels that give an error."""

from collections.abc import Iterable

from kavlet.core.figures.cells import ErrorValue
from kavlet.core.messages import say
from kavlet.core.proof.finding import Finding


def check(failed: Iterable[tuple[str, ErrorValue]]) -> list[Finding]:
    """What they would say is left empty: no code of an error stands in a picture."""
    found = []
    for text, error in failed:
        message = say(
            "{text} gives {found}, so nothing stands there. {meaning}",
            text=text, found=error.value, meaning=say(error.meaning),
        )  # fmt: skip
        found.append(Finding("formula-error", "warning", 1.0, message))
    return found
