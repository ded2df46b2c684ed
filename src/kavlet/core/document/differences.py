"""What differs between two documents, in words: what came, what went, what changed."""

from collections.abc import Sequence
from typing import Protocol

from kavlet.core.document.document import Document
from kavlet.core.messages import Message, counted, say
from kavlet.core.spreadsheet.table import Table

MAX_NAMED = 4


class _Named(Protocol):
    @property
    def id(self) -> str: ...
    @property
    def name(self) -> str: ...


def differences(old: Document, new: Document) -> list[Message]:
    """Sentences about tables, charts, pages and pictures; none where they are equal."""
    found: list[Message] = []
    found += _lists(old.tables, new.tables, say("tables"))
    tables = {one.id: one for one in old.tables}
    for table in new.tables:
        if table.id in tables and tables[table.id] != table:
            cells = _cells(tables[table.id], table)
            if cells:
                found.append(counted("{count} cell of “{name}”", "{count} cells of “{name}”", cells, name=table.name))
            else:
                found.append(say("the columns of “{name}”", name=table.name))
    found += [*_lists(old.charts, new.charts, say("charts")), *_changed(old.charts, new.charts, say("charts"))]
    found += [*_lists(old.pages, new.pages, say("pages")), *_changed(old.pages, new.pages, say("pages"))]
    if old.pictures != new.pictures:
        found.append(say("pictures"))
    if not found and old != new:
        found.append(say("settings of the document"))
    return found


def _lists(old: Sequence[_Named], new: Sequence[_Named], what: Message) -> list[Message]:
    before, after = {one.id for one in old}, {one.id for one in new}
    came = [one.name for one in new if one.id not in before]
    went = [one.name for one in old if one.id not in after]
    found = []
    if came:
        found.append(say("{what} added: {names}", what=what, names=_some(came)))
    if went:
        found.append(say("{what} deleted: {names}", what=what, names=_some(went)))
    return found


def _changed(old: Sequence[_Named], new: Sequence[_Named], what: Message) -> list[Message]:
    known = {one.id: one for one in old}
    names = [one.name for one in new if one.id in known and known[one.id] != one]
    return [say("{what} changed: {names}", what=what, names=_some(names))] if names else []


def _some(names: list[str]) -> list[str]:
    return names if len(names) <= MAX_NAMED else [*names[:MAX_NAMED], "…"]


def _cells(old: Table, new: Table) -> int:
    """How many cells differ; those of rows and columns that one of them has not count."""
    before = {column.id: column.cells for column in old.columns}
    count = 0
    for column in new.columns:
        cells = before.pop(column.id, ())
        count += sum(a != b for a, b in zip(cells, column.cells, strict=False)) + abs(len(cells) - len(column.cells))
    return count + sum(len(cells) for cells in before.values())
