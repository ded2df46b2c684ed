"""Findings in tests: what Proof finds in a document, and what becomes of it after a remedy."""

from kavlet.core.document.document import Document
from kavlet.core.document.history import History
from kavlet.core.messages import say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.proofreading import Proofreader, proofread


def found(document: Document, check: str = "") -> list[Finding]:
    """All that is found in a document, or by one check."""
    return [one for one in proofread(document).all if check in ("", one.check)]


def of_first_chart(document: Document, check: str = "") -> list[Finding]:
    """What is found in a document's first chart, drawn by itself."""
    all_ = Proofreader().chart(document, Pictures(), document.charts[0].id)
    return [one for one in all_ if check in ("", one.check)]


def grave(findings: list[Finding]) -> set[str]:
    """The checks whose findings are warnings or worse."""
    return {one.check for one in findings if one.severity != "note"}


def remedy(finding: Finding, key: str) -> Remedy:
    """A finding's remedy by its key."""
    return next(one for one in finding.remedies if one.key == key)


def after(document: Document, wanted: Remedy) -> Document:
    """The document after a remedy, which is one step that can be undone exactly."""
    assert wanted.edit is not None
    made = wanted.edit(document)
    assert made != document
    assert wanted.edit(document) == made  # a pure function
    history = History(document)
    history.apply(say("mend"), made)
    history.undo()
    assert history.current == document
    return made


def is_same(one: Finding, other: Finding) -> bool:
    """Whether two findings object to the same."""
    return (one.check, one.message.text, one.place.layer) == (other.check, other.message.text, other.place.layer)
