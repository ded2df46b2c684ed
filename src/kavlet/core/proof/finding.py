"""What one check noticed: how grave it is, its figure, one sentence, the place, and what would mend it."""

from collections.abc import Callable
from typing import Literal

from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.messages import Message

Severity = Literal["note", "warning", "error"]
Edit = Callable[[Document], Document]


class Location(Struct, frozen=True):
    """Where something was found: a chart, a page and an item on it, a table and one of its cells (column and row, from
    0), the layer and row of a mark, or the kind of text it is."""

    chart: str = ""
    page: str = ""
    item: str = ""
    table: str = ""
    cell: tuple[int, int] | None = None
    layer: str = ""
    row: int | None = None
    text: str = ""


class Remedy(Struct, frozen=True):
    """What makes a finding go away: one edit by its name, one step to undo.

    Its `key` is the same for all findings of a kind, in every language. One that `restates` changes what a chart says,
    not only how it looks, and is shown before it is taken. One without an `edit` leads to where something is to be
    done by hand.
    """

    key: str
    name: Message
    edit: Edit | None = None
    restates: bool = False

    @property
    def label(self) -> str:
        """Its name on a button: with … where something is asked before it is done."""
        return f"{self.name} …" if self.restates else str(self.name)


class Finding(Struct, frozen=True):
    """A finding: which check, how grave, the figure it rests on, one sentence that says what and why, where, and what
    would mend it. `silenced` holds the reason where its author wants it left at that."""

    check: str
    severity: Severity
    figure: float
    message: Message
    place: Location = Location()
    remedies: tuple[Remedy, ...] = ()
    silenced: str | None = None
