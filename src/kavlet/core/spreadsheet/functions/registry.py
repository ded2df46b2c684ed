"""How functions are declared, and how their arguments are read.

A function takes evaluated arguments: values, or blocks of values. Errors among plain arguments never reach it, unless
it is lazy: then it gets calls that evaluate one argument each.
"""

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Literal

from msgspec import Struct

from kavlet.core.messages import named
from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.ranges import Block
from kavlet.core.values.sums import exact_sum

if TYPE_CHECKING:
    from kavlet.core.spreadsheet.ranges import Numbers

Argument = Value | Block
Evaluation = Callable[..., Argument]
Takes = Literal["values", "ranges", "ranges and errors", "formulas"]
Later = Callable[[], Argument]
MAX_ARGUMENTS = 255


class Function(Struct, frozen=True):
    """A function's name, its arguments as shown, one line of help, and its body.

    `lazy` bodies get calls instead of values. `blocks` bodies get references to single cells as blocks too, so that
    they can tell a cell from a typed value. Bodies with `errors` are given errors as values among others.
    """

    name: str
    arguments: str
    help: str
    body: Evaluation
    least: int
    most: int
    lazy: bool = False
    blocks: bool = False
    errors: bool = False

    @property
    def shown(self) -> str:
        """The function with its arguments, in the reader's language: `ROUND(number; [decimals])`."""
        parts = [part.strip() for part in self.arguments.split(";") if part.strip()]
        said = [f"[{named(part[1:-1])}]" if part.startswith("[") else str(named(part)) for part in parts]
        return f"{self.name}({'; '.join(said)})"

    @property
    def single(self) -> bool:
        """Whether every argument is one value, so that a block of values is worked on value by value."""
        words = ("…", "block", "range", "cell", "table", "values", "test")
        return not self.lazy and not self.blocks and not any(word in self.arguments for word in words)


FUNCTIONS: dict[str, Function] = {}


class Failure(Exception):  # noqa: N818 - it carries an error value, it is none of the program's
    """Ends an evaluation with an error value."""

    def __init__(self, error: ErrorValue) -> None:
        super().__init__(error.value)
        self.error = error


def function(
    name: str,
    arguments: str,
    text: str,
    least: int,
    most: int = MAX_ARGUMENTS,
    takes: Takes = "values",
) -> Callable[[Evaluation], Evaluation]:
    """Declare a function by its name, arguments, help, the number of arguments it takes, and as what:
    single values, ranges as well (with errors, which end an evaluation otherwise), or what has yet to be evaluated."""

    def register(body: Evaluation) -> Evaluation:
        FUNCTIONS[name] = Function(
            name,
            arguments,
            text,
            body,
            least,
            most,
            takes == "formulas",
            takes.startswith("ranges"),
            takes.endswith("errors"),
        )
        return body

    return register


MAX_TEXT = 32_767  # characters of a cell's text (ISO/IEC 29500-1, 18.3.1.4; as spreadsheets have it)


def short_enough(made: str) -> str:
    """A text that a formula made. Fails for one that is longer than a cell holds."""
    if len(made) > MAX_TEXT:
        raise Failure(ErrorValue.VALUE)
    return made


def single(argument: Argument) -> Value:
    """An argument as one value; a block of one cell gives that cell. Fails for larger blocks."""
    if isinstance(argument, Block):
        if argument.height != 1 or argument.width != 1:
            raise Failure(ErrorValue.VALUE)
        return argument.at(0, 0)
    return argument


def plain(argument: Argument) -> Value:
    """An argument as one value that is no error."""
    value = single(argument)
    if isinstance(value, ErrorValue):
        raise Failure(value)
    return value


def number(argument: Argument) -> float:
    """An argument as a number: empty is 0, a logical value 0 or 1, text only where it reads as a number."""
    value = single(argument)
    if type(value) is float:
        return value
    if value is None:
        return 0.0
    if isinstance(value, bool):
        return float(value)
    if isinstance(value, ErrorValue):
        raise Failure(value)
    text = str(value)
    result = math.nan if "_" in text else _float(text)  # Python alone takes 1_000 for a number
    if not math.isfinite(result):
        raise Failure(ErrorValue.VALUE)
    return result


def _float(text: str) -> float:
    try:
        return float(text)
    except ValueError:
        return math.nan


def whole(argument: Argument) -> int:
    """An argument as a whole number, rounded down."""
    value = number(argument)
    if abs(value) > 1e15:
        raise Failure(ErrorValue.NUMBER)
    return math.floor(value)


def truth(argument: Argument) -> bool:
    """An argument as a condition: a number is true unless it is 0."""
    value = single(argument)
    if isinstance(value, str):
        if value.upper() in ("TRUE", "FALSE"):
            return value.upper() == "TRUE"
        raise Failure(ErrorValue.VALUE)
    return bool(number(value))


def block(argument: Argument) -> Block:
    """An argument as a block; a single value is a block of one."""
    from kavlet.core.spreadsheet.ranges import ValueBlock

    return argument if isinstance(argument, Block) else ValueBlock([[argument]])


def numbers(arguments: tuple[Argument, ...]) -> "Numbers":
    """All numbers of the arguments: in blocks only numbers count, typed values are converted."""
    if len(arguments) == 1 and isinstance(arguments[0], Block):
        return _sound(arguments[0]).numbers
    found: list[float] = []
    for argument in arguments:
        if isinstance(argument, Block):
            found.extend(_sound(argument).numbers)
        elif argument is not None:
            found.append(number(argument))
    return found


def ordered(argument: Argument) -> list[float]:
    """All numbers of an argument, from the smallest on; not to be changed."""
    return _sound(argument).ordered if isinstance(argument, Block) else sorted(numbers((argument,)))


def total(arguments: tuple[Argument, ...]) -> float:
    """The sum of all numbers of the arguments."""
    return exact_sum(
        _sound(argument).total if isinstance(argument, Block) else number(argument) for argument in arguments
    )


def _sound(of: Block) -> Block:
    """The block, when it holds no error; an error in it ends the evaluation."""
    error = of.error
    if error is not None:
        raise Failure(error)
    return of


def everything(arguments: tuple[Argument, ...]) -> Iterator[Value]:
    """All values of the arguments, empty cells among them."""
    for argument in arguments:
        if isinstance(argument, Block):
            yield from argument.values()
        else:
            yield argument
