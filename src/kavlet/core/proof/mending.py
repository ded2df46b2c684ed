"""Mending several findings at once: all of a kind, wherever they are, as one edit."""

from kavlet.core.building.reuse import Pictures
from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.proofreading import Proofreader
from kavlet.core.values.errors import KavletError
from kavlet.core.values.work import go_on

MOST = 200  # findings that are mended at once


def remedy_of(finding: Finding, key: str = "") -> Remedy | None:
    """The finding's remedy of a key, or its first, that is an edit."""
    return next((one for one in finding.remedies if one.edit is not None and key in ("", one.key)), None)


def mended(document: Document, check: str, key: str = "") -> tuple[Document, int]:
    """The document with a check's findings mended by the remedy of a key, or by the first of each; and how many were.

    After each, what is left is looked for anew, since a remedy may mend several or move what the next stands on.
    Silenced findings stay. Raises KavletError where none could be mended.
    """
    reader, pictures = Proofreader(), Pictures()
    tried: set[object] = set()
    count = 0
    while count < MOST:
        go_on()
        found = [
            (one, remedy)
            for one in reader.whole(document, pictures).open
            if one.check == check and (one.place, str(one.message)) not in tried
            and (remedy := remedy_of(one, key)) is not None
        ]  # fmt: skip
        if not found:
            break
        finding, remedy = found[0]
        tried.add((finding.place, str(finding.message)))
        assert remedy.edit is not None  # `remedy_of` gives edits only
        try:
            document = remedy.edit(document)
        except KavletError:
            continue
        count += 1
    if not count:
        raise KavletError(say("None of these can be mended so."))
    return document, count
