"""What an author can set of a specification by hand, declared: where it stands, its words, its kind and range."""

from collections.abc import Iterable
from typing import Any, Literal, get_args

import msgspec
from msgspec import Struct

from kavlet.core.messages import Message, named, say

FieldKind = Literal["fill", "colour", "number", "choice", "flag", "text", "symbol", "column", "says", "switch", "rules",
                    "prose"]  # fmt: skip
Choices = tuple[tuple[Any, Message], ...]


class Field(Struct, frozen=True):
    """One field: the group it stands in, its words, the path it sets, and how it is shown.

    A `switch` only opens its group, where the panel has a widget of its own; `rules` are those of `colouring.py`.
    `times` is what a stored number is multiplied with to be shown (100 for percents); `optional` numbers may be empty;
    `span` is what may be typed.
    `named` is what setting it changes, where group and label do not say it; `does` what it does, in a sentence, where
    its path does not say it (`touch/meanings.py`).
    """

    group: str
    label: str
    path: str
    kind: FieldKind
    choices: Choices = ()
    unit: str = ""
    times: float = 1.0
    optional: bool = False
    span: tuple[float, float] | None = None
    named: str = ""
    does: str = ""

    @property
    def called(self) -> Message:
        """What is changed by it, in words for people: label position, edge colour."""
        if self.named:
            return say(self.named)
        if self.label.casefold().startswith(self.group.casefold()):
            return say("{field}", field=say(self.label))
        return say("{group}: {field}", group=say(self.group), field=say(self.label))

    def stored(self, number: float) -> float:
        """What the document holds for a number as it is shown."""
        return number if self.times == 1 else float(f"{number / self.times:.12g}")

    def under(self, path: str) -> "Field":
        """The same field of a part that stands at a path."""
        return msgspec.structs.replace(self, path=f"{path}.{self.path}")


def choices(literal: Any, words: dict[str, str] | None = None, only: Iterable[str] | None = None) -> Choices:
    """The values of a Literal to choose among, each by its own word or another; all, or `only` some."""
    choices_ = tuple(only) if only is not None else get_args(literal)
    return tuple((choice, named((words or {}).get(choice, choice))) for choice in choices_)
