"""Mending several findings at once: all of a kind, wherever they are, as one edit."""

from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.proofreading import Proofreader
from kavlet.core.values.cancellation import check_cancelled
from kavlet.core.values.errors import KavletError

MAX_FINDINGS = 200  # findings that are mended at once


def remedy_of(finding: Finding, key: str = "") -> Remedy | None:
    """The finding's remedy of a key, or its first, that is an edit."""
    return next((remedy for remedy in finding.remedies if remedy.edit is not None and key in ("", remedy.key)), None)


def mended(document: Document, check: str, key: str = "") -> tuple[Document, int]:
    """The document with a check's findings mended by the remedy of a key, or by the first of each; and how many were.

    After each, what is left is looked for anew, since a remedy may mend several or move what the next stands on.
    Silenced findings stay. Raises KavletError where none could be mended.
    """
    reader, pictures = Proofreader(), Pictures()
    tried: set[object] = set()
    before, has_changed = document, False
    for _ in range(MAX_FINDINGS):
        check_cancelled()
        open_remedies = [
            (one, remedy)
            for one in _open(document, check, reader, pictures)
            if (one.place, str(one.message)) not in tried and (remedy := remedy_of(one, key)) is not None
        ]
        if not open_remedies:
            break
        finding, remedy = open_remedies[0]
        tried.add((finding.place, str(finding.message)))
        assert remedy.edit is not None  # `remedy_of` gives edits only
        try:
            document = remedy.edit(document)
        except KavletError:
            continue
        has_changed = True
    if not has_changed:
        raise KavletError(say("None of these can be mended so."))
    left_open = len(_open(document, check, reader, pictures))
    return document, max(1, len(_open(before, check, reader, pictures)) - left_open)


def _open(document: Document, check: str, reader: Proofreader, pictures: Pictures) -> list[Finding]:
    """The open findings of a check."""
    return [finding for finding in reader.whole(document, pictures).open if finding.check == check]
