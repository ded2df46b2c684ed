"""What a layer's labels say and where they stand."""

from typing import Literal

from msgspec import Struct

from kavlet.core.values.number_text import PLAIN, NumberText

Position = Literal["inside", "centre"]
Voice = Literal["strong", "plain", "quiet"]


class Label(Struct, frozen=True, omit_defaults=True):
    """A layer's labels: its own values, each row's written as `number` says.

    `inside` stands in the middle of the mark, or just beyond its end where it does not fit; `centre` on the mark's
    centre. `prefix` comes before the number (an arrow, say).
    """

    number: NumberText = PLAIN
    position: Position = "inside"
    voice: Voice = "plain"
    prefix: str = ""
