"""A total row at the end of a table."""

from kavlet.core.messages import counted
from kavlet.core.proof.finding import Finding
from kavlet.core.recipes.recipe import Inputs


def check(inputs: Inputs) -> list[Finding]:
    """Where rows are added up, it is left out; elsewhere it stands beside the others. Either is said."""
    rows = len(inputs.totals)
    if not rows:
        return []
    names = [name for name in inputs.totals if name]
    if inputs.counts_totals:
        message = counted(
            "{count} row sums up the others and stands beside them: {names}.",
            "{count} rows sum up the others and stand beside them: {names}.",
            rows,
            names=names,
        )
    else:
        message = counted(
            "{count} row sums up the others and is left out: {names}.",
            "{count} rows sum up the others and are left out: {names}.",
            rows,
            names=names,
        )
    return [Finding("stated-total", "note", float(rows), message)]
