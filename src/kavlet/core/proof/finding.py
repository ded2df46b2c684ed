"""What one check noticed."""

from typing import Literal

from msgspec import Struct

from kavlet.core.messages import Message

Severity = Literal["note", "warning"]


class Finding(Struct, frozen=True):
    """A finding: which check, how grave, the figure it rests on, and one sentence that says what and why."""

    check: str
    severity: Severity
    figure: float
    message: Message
