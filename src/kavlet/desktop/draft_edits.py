"""Edits that are looked for and not made: what is being typed, or changed before an audience, for the journal."""

from collections.abc import Callable

from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.messages import Message


class DraftEdit(Struct, frozen=True, eq=False):
    """An edit that is not made: its name, and what makes the document it would lead to, which may raise KavletError."""

    name: Message
    edit: Callable[[], Document]
