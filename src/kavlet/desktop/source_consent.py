"""Which files a document may follow: those its author has read here, kept between runs outside the document.

A document from elsewhere names files too; none of them is opened before its author, here, has said so.
"""

from collections.abc import Iterable
from pathlib import Path

from kavlet.core.document.document import Document
from kavlet.desktop.state_files import read_state, write_state

MAX_DOCUMENTS = 200
_NAME = "followed"


def _held() -> dict[str, list[str]]:
    held = read_state(_NAME)
    if not isinstance(held, dict):
        return {}
    return {
        name: [one for one in paths if isinstance(one, str)] for name, paths in held.items() if isinstance(paths, list)
    }


def remembered(document: Path) -> frozenset[str]:
    """The files that a document at this path may follow."""
    return frozenset(_held().get(str(document.resolve()), ()))


def remember(document: Path, paths: Iterable[str]) -> None:
    """Keep what a document at this path may follow. A state folder that can't be written loses it:
    it is asked again."""
    held, name, wanted = _held(), str(document.resolve()), sorted(set(paths))
    if held.get(name, []) == wanted:
        return
    held.pop(name, None)
    if wanted:
        held[name] = wanted
    for old in list(held)[: max(0, len(held) - MAX_DOCUMENTS)]:
        del held[old]
    write_state(_NAME, held)


def sources_of(document: Document) -> frozenset[str]:
    """The files that a document names."""
    return frozenset(table.source.path for table in document.tables if table.source is not None)


class SourceConsent:
    """What the document in the window may follow."""

    def __init__(self) -> None:
        self._paths: frozenset[str] = frozenset()

    def may(self, path: str) -> bool:
        """Whether that file may be opened unasked."""
        return path in self._paths

    def agree(self, path: str, document: Path | None) -> None:
        """The author wants that file read; remembered where the document has a file."""
        if path not in self._paths:
            self._paths |= {path}
            if document is not None:
                remember(document, self._paths)

    def opened(self, document: Document, path: Path | None, made_here: bool) -> None:
        """Another document is there: one just made here of a file, or one that came with what it names."""
        self._paths = sources_of(document) if made_here else remembered(path) if path is not None else frozenset()

    def saved(self, document: Document, path: Path) -> None:
        """The document lies in that file now."""
        remember(path, self._paths & sources_of(document))
