"""What has become of the files that tables follow."""

from collections.abc import Callable
from pathlib import Path

from kavlet.core.document.document import Document
from kavlet.core.files.tables import stamp
from kavlet.core.values.errors import KavletError


def source_states(document: Document, may: Callable[[str], bool]) -> dict[str, str]:
    """Of each table that follows a file that may be opened, by its id: whether the file has `changed` since it was
    taken over, or is `lost`; nothing of those that are as they were."""
    found: dict[str, str] = {}
    for table in document.tables:
        if table.source is None or not may(table.source.path):
            continue
        try:
            if stamp(Path(table.source.path)) != table.source.seen:
                found[table.id] = "changed"
        except (KavletError, OSError):
            found[table.id] = "lost"
    return found
