"""Formula text to a syntax tree, and back."""

from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.nodes import Call, FormulaError, Literal, Name, Node, Refer

MAX_LETTERS = 32_768
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
    from kavlet.core.spreadsheet.grammar import tree_of

    return tree_of(formula)
