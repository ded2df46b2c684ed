"""What one check noticed."""

from typing import Any, Literal

from msgspec import Struct

from kavlet.core.messages import Message

Severity = Literal["note", "warning"]


class Remedy(Struct, frozen=True):
    """What makes a finding go away, by its name: looks set by their paths, as one step."""

    name: Message
    looks: dict[str, Any]


class Finding(Struct, frozen=True):
    """A finding: which check, how grave, the figure it rests on, one sentence that says what and why,
    and what would mend it."""

    check: str
    severity: Severity
    figure: float
    message: Message
    remedies: tuple[Remedy, ...] = ()
