"""The nodes of a formula's syntax tree, and the error of a text that is none."""

from msgspec import Struct

from kavlet.core.messages import Message, say
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.references import RangeReference

DEEPEST = 120


class FormulaError(Exception):
    """The text is no formula; `what` says why."""

    def __init__(self, what: Message) -> None:
        super().__init__(what)
        self.what = what


class Literal(Struct, frozen=True):
    """A value written in a formula."""

    value: float | str | bool | ErrorValue | None
    depth: int = 1


class Refer(Struct, frozen=True):
    """A cell or a range of cells."""

    to: RangeReference
    depth: int = 1


class Name(Struct, frozen=True):
    """A name without parentheses: TRUE and its like."""

    text: str
    depth: int = 1


class Operation(Struct, frozen=True):
    """A binary operator, a prefix sign (one operand) or ``%``."""

    sign: str
    operands: tuple["Node", ...]
    depth: int


class Call(Struct, frozen=True):
    """A function with its arguments."""

    function: str
    arguments: tuple["Node", ...]
    depth: int


Node = Literal | Refer | Name | Operation | Call


def deeper(*nodes: Node) -> int:
    """How deep a node over these is. Raises FormulaError where that is too deep."""
    depth = 1 + max((node.depth for node in nodes), default=0)
    if depth > DEEPEST:
        raise FormulaError(say("The formula is nested more than {most} deep.", most=DEEPEST))
    return depth
