"""Formula text to a syntax tree, by the grammar in formula.lark."""

import os
import stat
from functools import lru_cache
from importlib.resources import files
from pathlib import Path

from lark import Lark, Token, Transformer, v_args
from lark.exceptions import LarkError
from msgspec import Struct
from platformdirs import user_cache_path

from kavlet.core.messages import Message, say
from kavlet.core.spreadsheet.cells import ERRORS, ErrorValue
from kavlet.core.spreadsheet.references import RangeReference, reference

MAX_LETTERS = 32_768
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


def _deeper(*nodes: Node) -> int:
    depth = 1 + max((node.depth for node in nodes), default=0)
    if depth > DEEPEST:
        raise FormulaError(say("The formula is nested more than {most} deep.", most=DEEPEST))
    return depth


@v_args(inline=True)
class _Builder(Transformer[Token, Node]):
    """Builds the tree while the text is read, so that no step of ours recurses into a deep formula."""

    def start(self, node: Node) -> Node:
        return node

    def number(self, token: Token) -> Node:
        return Literal(float(token))

    def string(self, token: Token) -> Node:
        return Literal(token[1:-1].replace('""', '"'))

    def error(self, token: Token) -> Node:
        return Literal(ERRORS[str(token)])

    def reference(self, token: Token) -> Node:
        return Refer(reference(str(token)))

    def name(self, token: Token) -> Node:
        word = token.upper()
        return Literal(word == "TRUE") if word in ("TRUE", "FALSE") else Name(str(token))

    def group(self, node: Node) -> Node:
        return node

    def binary(self, left: Node, sign: Token, right: Node) -> Node:
        return Operation(str(sign), (left, right), _deeper(left, right))

    def signed(self, sign: Token, node: Node) -> Node:
        return Operation(str(sign), (node,), _deeper(node))

    def percent(self, node: Node) -> Node:
        return Operation("%", (node,), _deeper(node))

    def argument(self, node: Node | None = None) -> Node:
        return Literal(None) if node is None else node

    def arguments(self, *parts: Node | Token) -> tuple[Node, ...]:
        nodes = tuple(part for part in parts if not isinstance(part, Token))
        only_nothing = len(nodes) == 1 and nodes[0] == Literal(None)
        return () if only_nothing else nodes

    def call(self, function: Token, arguments: tuple[Node, ...]) -> Node:
        return Call(function.upper(), arguments, _deeper(*arguments))


def _is_private(kept: Path) -> bool:
    """Whether nobody else can have written a file that is run when it is read: its folder is open to its owner alone.
    A folder that was open to others is closed, and what lay there goes."""
    folder = kept.parent
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        state = folder.lstat()
        if stat.S_ISLNK(state.st_mode) or state.st_uid != os.geteuid() or not os.access(folder, os.W_OK):
            return False
        if state.st_mode & 0o077:
            kept.unlink(missing_ok=True)
            folder.chmod(0o700)
    except OSError:
        return False
    return True


@lru_cache(maxsize=1)
def _parser() -> Lark:
    grammar = (files("kavlet.core.spreadsheet") / "formula.lark").read_text(encoding="utf-8")
    # Building the parser's tables takes longer than all else at start, so they are kept between runs; where they
    # can't be written they are built each time.
    kept = user_cache_path("kavlet", appauthor=False, ensure_exists=False) / "formula.parser"
    return Lark(
        grammar, parser="lalr", transformer=_Builder(), maybe_placeholders=False,
        cache=str(kept) if _is_private(kept) else False,
    )  # fmt: skip


# How tightly each kind of node binds: (ODF 1.3 part 4, 5.5), loosest first.
_BINDING = {"=": 1, "<>": 1, "<": 1, "<=": 1, ">": 1, ">=": 1, "&": 2, "+": 3, "-": 3, "*": 4, "/": 4, "^": 5, "%": 6}
_PREFIX = 7


def printed(node: Node) -> str:
    """The formula of a tree, without its equals sign: names in capitals, no more parentheses than it needs."""
    return _printed(node)[0]


def _printed(node: Node) -> tuple[str, int]:
    """The text of a node and how tightly it binds."""
    if isinstance(node, Literal):
        return _literal(node.value), 8
    if isinstance(node, Refer):
        return node.to.text, 8
    if isinstance(node, Name):
        return node.text, 8
    if isinstance(node, Call):
        return f"{node.function}({';'.join(printed(argument) for argument in node.arguments)})", 8
    binds = _PREFIX if len(node.operands) == 1 and node.sign != "%" else _BINDING[node.sign]
    parts = [_printed(operand) for operand in node.operands]
    if node.sign == "%":
        return _held(parts[0], binds) + "%", binds
    if len(parts) == 1:
        return node.sign + _held(parts[0], binds), binds
    # Operators group from the left, so the right operand must bind tighter.
    return _held(parts[0], binds) + node.sign + _held(parts[1], binds + 1), binds


def _held(part: tuple[str, int], binds: int) -> str:
    return part[0] if part[1] >= binds else f"({part[0]})"


def _literal(value: float | str | bool | ErrorValue | None) -> str:
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    if isinstance(value, float):
        return repr(value).removesuffix(".0")
    if isinstance(value, ErrorValue):
        return value.value
    return "" if value is None else '"' + value.replace('"', '""') + '"'


def tidied(formula: str) -> str:
    """A typed formula in its plain form, as `printed` gives it; one that can't be read stays as typed."""
    try:
        return f"={printed(parse(formula))}"
    except FormulaError:
        return formula


def parse(formula: str) -> Node:
    """The tree of a formula, written with or without its equals sign. Raises FormulaError when it is none."""
    if len(formula) > MAX_LETTERS:
        raise FormulaError(say("The formula is longer than {most} characters.", most=MAX_LETTERS))
    try:
        tree: object = _parser().parse(formula)
    except LarkError as error:
        column = getattr(error, "column", None)
        if isinstance(column, int) and column > 0:
            raise FormulaError(say("The formula can’t be read near character {place}.", place=column)) from None
        raise FormulaError(say("The formula can’t be read.")) from None
    if not isinstance(tree, Node):
        raise FormulaError(say("The formula can’t be read."))
    return tree
