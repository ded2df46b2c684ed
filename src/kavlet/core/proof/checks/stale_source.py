"""A file that a table follows has changed, or is lost.

Source: the file's stamp when it was last taken over.
"""

from collections.abc import Iterator
from pathlib import PurePath

from kavlet.core.document.document import Document
from kavlet.core.document.tables.source_updates import link
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Edit, Finding, Location, Remedy
from kavlet.core.proof.subjects import DocumentSubject


def check(subject: DocumentSubject) -> Iterator[Finding]:
    """Each table whose file is known to have changed or gone."""
    for table in subject.document.tables:
        state = subject.sources.get(table.id)
        if table.source is None or state not in ("changed", "lost"):
            continue
        name = PurePath(table.source.path).name
        message = (
            say(
                "The file {name} has changed since its figures were taken over into “{table}”.",
                name=name,
                table=table.name,
            )
            if state == "changed"
            else say("The file {name}, which “{table}” follows, is not there any more.", name=name, table=table.name)
        )
        update = Remedy("update", say("Compare and update …"))
        stop = Remedy("stop following", say("Stop following"), _stop(table.id))
        remedies = (update, stop) if state == "changed" else (stop,)
        yield Finding(CHECK.name, "warning", 1.0, message, Location(table=table.id), remedies)


def _stop(table: str) -> Edit:
    def edit(document: Document) -> Document:
        return link(document, table, None)

    return edit


CHECK = Check("stale-source", "A followed file that changed or is lost", "the file’s stamp", of_papers=check)
