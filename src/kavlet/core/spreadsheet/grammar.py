"""The grammar of formulas (`formula.lark`) as a parser that builds trees. Loaded when the first formula is read."""

import os
import stat
from functools import lru_cache
from importlib.resources import files
from pathlib import Path

from lark import Lark, Token, Transformer, v_args
from lark.exceptions import LarkError
from platformdirs import user_cache_path

from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import ERRORS
from kavlet.core.spreadsheet.nodes import Call, FormulaError, Literal, Name, Node, Operation, Refer, deeper
from kavlet.core.spreadsheet.references import reference


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
        return Operation(str(sign), (left, right), deeper(left, right))

    def signed(self, sign: Token, node: Node) -> Node:
        return Operation(str(sign), (node,), deeper(node))

    def percent(self, node: Node) -> Node:
        return Operation("%", (node,), deeper(node))

    def argument(self, node: Node | None = None) -> Node:
        return Literal(None) if node is None else node

    def arguments(self, *parts: Node | Token) -> tuple[Node, ...]:
        nodes = tuple(part for part in parts if not isinstance(part, Token))
        only_nothing = len(nodes) == 1 and nodes[0] == Literal(None)
        return () if only_nothing else nodes

    def call(self, function: Token, arguments: tuple[Node, ...]) -> Node:
        return Call(function.upper(), arguments, deeper(*arguments))


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


def tree_of(formula: str) -> Node:
    """The tree of a formula. Raises FormulaError when it is none."""
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
