"""What a recipe declares and what it yields. Recipes compute specifications; they draw nothing."""

import math
import re
from collections.abc import Callable, Sequence
from typing import Any, Literal

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.messages import Message, named, say, words_in
from kavlet.core.recipes.facts import ChartFacts
from kavlet.core.recipes.features import Features, Suitability, as_its_own
from kavlet.core.spreadsheet.cells import Value, text_of
from kavlet.core.spreadsheet.ranges import Floats
from kavlet.core.spreadsheet.references import RangeReference, column_letters, rewritten
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.text.numbers import DEFAULT_LOCALE, written
from kavlet.core.values.number_text import PLAIN, NumberText

Setting = bool | float | str
Question = Literal["goal", "parts", "stages", "moved", "count", "stands out", "time"]
QUESTIONS: dict[Question, str] = {
    "goal": "How far to a goal?",
    "parts": "Parts of a whole?",
    "stages": "What gets through each stage?",
    "moved": "What moved the total?",
    "count": "How many?",
    "stands out": "Who stands out?",
    "time": "Over time, side by side?",
}


class Role(Struct, frozen=True, forbid_unknown_fields=True):
    """What a column is needed for: text that names rows, or numbers; `many` columns may share it.

    A column called like it, or like one of `also`, is taken for it first.
    """

    name: str
    kind: Literal["text", "number"]
    meaning: str
    required: bool = True
    many: bool = False
    also: tuple[str, ...] = ()


class Parameter(Struct, frozen=True, forbid_unknown_fields=True):
    """One setting of a recipe. A `number` may also be a formula such as ``=B7``; `numbers` is a list like ``60; 80``.
    A `colour` is a text as looks have it; its default, none, is the theme's.

    `optional` numbers may be left out: the default is then empty text.

    A setting that only says what stands at one place of the specification names it: `look` is its path (`looks.py`),
    `times` what the number there is multiplied with here (100 for percents), `stands_for` what each choice is there.
    Setting either then sets this one. `moves` are looks that the setting decides among others, as fields of its layers
    (`label.position`) or places of its own: setting it gives back what was set there by hand, so that it always
    has its effect.
    """

    name: str
    type: Literal["number", "choice", "flag", "text", "numbers", "symbol", "colour"]
    default: Setting
    meaning: str
    choices: tuple[str, ...] = ()
    minimum: float | None = None
    maximum: float | None = None
    unit: str = ""
    optional: bool = False
    look: str = ""
    times: float = 1.0
    stands_for: tuple[bool | str, ...] = ()
    moves: tuple[str, ...] = ()

    def at(self, look: str, times: float = 1.0) -> "Parameter":
        """The same parameter, as the one owner of a look."""
        return msgspec.structs.replace(self, look=look, times=times)

    def moving(self, *looks: str) -> "Parameter":
        """The same parameter, deciding these looks of its layers among others."""
        return msgspec.structs.replace(self, moves=looks)

    def from_look(self, value: Any) -> Setting:
        """The setting that puts a value at the look."""
        if value in self.stands_for:
            return self.choices[self.stands_for.index(value)]
        if isinstance(value, float | int) and not isinstance(value, bool):
            return round(float(value) * self.times, 9)
        return "" if value is None else value

    def as_look(self, setting: Setting) -> Any:
        """What a setting puts at the look; None where only a cell can tell."""
        if setting in self.choices and self.stands_for:
            return self.stands_for[self.choices.index(str(setting))]
        if isinstance(setting, float | int) and not isinstance(setting, bool):
            return setting / self.times
        return None if isinstance(setting, str) and self.type == "number" else setting


class HelperColumn(Struct, frozen=True):
    """A helper column that the recipe creates. `many` stands for several, numbered, as many as the settings ask for.

    `shows` is the role whose figure in the same row its marks stand for, however they are drawn; where it is empty, the
    formula tells.
    """

    name: str
    meaning: str
    number: NumberText = PLAIN
    many: bool = False
    shows: str = ""


GUARD = HelperColumn("figures", "The figures without those that say that there is none.", many=True)


def helper_title(name: str) -> Message:
    """What a helper column is called: its name, with its number where it is one of several."""
    base, _, number = name.rpartition(" ")
    return say("{name} {number}", name=named(base), number=number) if base and number.isdigit() else named(name)


class HelperBuild(Struct, frozen=True):
    """A helper column as built: its formulas ("" where there is none) and what they evaluate to, one per row."""

    name: str
    role: str
    column: str
    formulas: tuple[str, ...]
    values: tuple[Value, ...]


class SettingRemedy(Struct, frozen=True):
    """What of a recipe's settings makes a notice go away: a key, its name in words, and the settings (None gives one
    back); whether the chart says something else then."""

    key: str
    name: Message
    settings: dict[str, Setting | None]
    restates: bool = False


class Notice(Struct, frozen=True):
    """Something about the figures a recipe drew that a reader should know: which check, the figure, one sentence, and
    what mends it."""

    check: str
    figure: float
    message: Message
    severity: Literal["note", "warning"] = "warning"
    mends: tuple[SettingRemedy, ...] = ()


class CellAddresses(Struct, frozen=True):
    """Where things stand in the table, for writing formulas: columns by role and by helper, rows, and settings.

    `percents` names the roles whose column writes its numbers as percents.
    """

    roles: dict[str, tuple[int, ...]]
    helpers: dict[str, int]
    rows: int
    settings: dict[str, Setting] = {}
    percents: frozenset[str] = frozenset()

    @property
    def first(self) -> int:
        """The first row of figures as formulas count it, from 1."""
        return HEADER + 1

    @property
    def last(self) -> int:
        """The last row of figures as formulas count it."""
        return HEADER + self.rows

    @property
    def span(self) -> range:
        """All rows of figures, as formulas count them."""
        return range(self.first, self.last + 1)

    def role(self, name: str, number: int = 0) -> str:
        """The letters of a role's column."""
        return column_letters(self.roles[name][number])

    def has(self, name: str) -> bool:
        """Whether a role has a column."""
        return bool(self.roles.get(name))

    def helper(self, name: str) -> str:
        """The letters of a helper column."""
        return column_letters(self.helpers[name])

    def whole(self, letters: str) -> str:
        """The range of all rows of a column, kept when filled: B$2:B$6."""
        return f"{letters}${self.first}:{letters}${self.last}"

    def total(self, letters: str) -> str:
        """The sum of a column's numbers; rows that say they have no value (#N/A) are left out of it."""
        return f'SUMIF({self.whole(letters)};"<1E300")'

    def number(self, name: str) -> str:
        """A setting as part of a formula: its number, or its cell kept when filled; empty when it is left out."""
        held = self.settings[name]
        if isinstance(held, str):
            return _absolute(held) if held.startswith("=") else held
        return plain_number(float(held))

    def numbers(self, name: str) -> list[str]:
        """Each number of a list, as part of a formula."""
        return [_absolute(part) if part.startswith("=") else part for part in split_list(str(self.settings[name]))]


def plain_number(value: float) -> str:
    """A number as a formula holds it; negative ones in parentheses."""
    text = f"{value:.15g}"
    return f"({text})" if value < 0 else text


_INSIDE = r'"[^"]*"|\((?:[^()"]|"[^"]*"|\([^()]*\))*\)'  # quotes and brackets, whose semicolons part nothing
_AT_SEMICOLONS = re.compile(rf'(?:[^;"(]|{_INSIDE})+')


def split_list(text: str) -> list[str]:
    """The parts of a list: separated by semicolons, or by spaces with or without a comma where there is none."""
    if ";" not in text and not text.lstrip().startswith("="):
        return [part.removesuffix(",") for part in text.split() if part != ","]
    return [part.strip() for part in _AT_SEMICOLONS.findall(text) if part.strip()]


def _absolute(formula: str) -> str:
    """A setting's formula as part of another one, its references kept when filled."""

    def kept(old: RangeReference) -> RangeReference:
        one = msgspec.structs.replace(old.one, keep_column=True, keep_row=True)
        other = old.other and msgspec.structs.replace(old.other, keep_column=True, keep_row=True)
        return msgspec.structs.replace(old, one=one, other=other)

    text = rewritten(formula, kept).removeprefix("=")
    return text if text.replace("$", "").isalnum() else f"({text})"


class Inputs(Struct, frozen=True):
    """What a recipe reads to make its chart: columns by role and helper, their values, and its settings.

    `totals` names the total rows at the table's end, which are among its rows where it `counts_totals`.
    """

    table_name: str
    roles: dict[str, tuple[str, ...]]
    places: dict[str, int]
    titles: dict[str, str]
    helpers: dict[str, str]
    values: dict[str, list[Value]]
    numbers: dict[str, Floats]
    settings: dict[str, Setting]
    rows: int
    number_texts: dict[str, NumberText] = {}
    locale: str = DEFAULT_LOCALE
    totals: tuple[str, ...] = ()
    counts_totals: bool = False

    def has(self, role: str) -> bool:
        """Whether a role has a column."""
        return bool(self.roles.get(role))

    def id(self, role: str) -> str:
        """The id of a role's (first) column; empty when no column has it."""
        return next(iter(self.roles.get(role, ())), "")

    def ids(self, role: str) -> tuple[str, ...]:
        """The ids of a role's columns."""
        return self.roles.get(role, ())

    def title(self, role: str) -> str:
        """What a role's (first) column is called."""
        return self.titles.get(self.id(role), "")

    def figures(self, role: str) -> Floats:
        """The numbers of a role's column, shape (rows,); NaN is no value."""
        return self.numbers.get(self.id(role), [math.nan] * self.rows)

    def helper(self, name: str) -> Floats:
        """The numbers of a helper column, shape (rows,)."""
        return self.numbers.get(self.helpers.get(name, ""), [math.nan] * self.rows)

    def entries(self, role: str) -> list[Value]:
        """The values of a role's column, one per row."""
        return self.values.get(self.id(role), [None] * self.rows)

    @property
    def names(self) -> list[str]:
        """What the rows are called; empty texts without a column of names."""
        how = self.number_texts.get(self.id("name"))
        return [
            written(value, how, self.locale) if isinstance(value, float) and how is not None else text_of(value)
            for value in self.entries("name")
        ]

    def called(self, row: int, name: str) -> str:
        """A row's name, or its number where it has none."""
        return name or self.drawn("row {row}", row=row + 1)

    def number_text(self, role: str) -> NumberText:
        """How the role's column writes its numbers."""
        return self.number_texts.get(self.id(role), PLAIN)

    def setting(self, name: str) -> float:
        """A number among the settings; NaN when it is left out."""
        held = self.settings[name]
        return float(held) if isinstance(held, float | int) and not isinstance(held, bool) else math.nan

    def is_set(self, name: str) -> bool:
        """Whether a number among the settings is not left out."""
        return not math.isnan(self.setting(name))

    def listed(self, name: str) -> tuple[float, ...]:
        """The numbers of a list."""
        return tuple(float(part) for part in split_list(str(self.settings[name])))

    def drawn(self, text: str, /, **fields: Any) -> str:
        """Words of the recipe's that stand in the picture or describe it, in the document's language."""
        return words_in(self.locale, text, **fields)

    @property
    def row(self) -> int:
        """The row (from 0) that a recipe of one figure shows."""
        return max(0, min(self.rows - 1, int(self.setting("row")) - 1)) if "row" in self.settings else 0


def no_proposals(of: Features) -> dict[str, Setting]:
    """For recipes that need nothing but columns."""
    del of
    return {}


def no_notices(inputs: Inputs) -> tuple[Notice, ...]:
    """For recipes whose figures need no word."""
    del inputs
    return ()


class Repeats(Struct, frozen=True):
    """How a recipe that shows one figure is shown for each row: its parameter that counts rows from 1, and the one that
    says whether a row, the sum or the group of rows with its name counts ("" where there is none)."""

    row: str
    of: str = ""


class Steps(Struct, frozen=True):
    """How a recipe goes through periods: its parameter that counts them from 1, and the role of the column they stand
    in. Between two whole numbers, the chart is on its way from one period to the next."""

    parameter: str
    role: str


class Recipe(Struct, frozen=True):
    """The construction of one special chart.

    `formulas` gives each helper's formulas, one per row ("" for no value); `check` raises KavletError with one
    sentence when the table does not fit; `chart` gives the specification; `columns` the helper columns where they
    depend on roles and settings; `notices` what a reader should know; `suits` how well it suits a table; `proposes`
    settings it can't do without, each named like the role of a column that could hold it. `repeats`
    tells how it is shown once for each row, where it shows one; `steps` how it goes through periods, where it does.
    `known_as` are words by which people look for it. `series` is the role whose columns become layers of their own,
    `series 1`, `series 2` … `tells` says how its chart is told in words. Rows that are `ordered` are read in their own
    order; `sorted_by` is the setting, and what it is, that shows them by their values.
    """

    name: str
    title: str
    question: Question
    needs: str
    roles: tuple[Role, ...]
    parameters: tuple[Parameter, ...]
    helpers: tuple[HelperColumn, ...]
    formulas: Callable[[CellAddresses], dict[str, list[str]]]
    check: Callable[[Inputs], None]
    chart: Callable[[Inputs], Chart]
    columns: Callable[[CellAddresses], tuple[HelperColumn, ...]] | None = None
    notices: Callable[[Inputs], tuple[Notice, ...]] = no_notices
    suits: Callable[[Features], Suitability] = as_its_own
    proposes: Callable[[Features], dict[str, Setting]] = no_proposals
    repeats: Repeats | None = None
    adds: bool = False
    steps: Steps | None = None
    series: str = ""
    known_as: str = ""
    tells: ChartFacts = ChartFacts()
    ordered: bool = False
    sorted_by: tuple[str, Setting] | None = None
    size: tuple[float, float] = (640.0, 360.0)

    def parameter(self, name: str) -> Parameter | None:
        """The parameter of a name; None where there is none."""
        return next((parameter for parameter in self.parameters if parameter.name == name), None)

    def role(self, name: str) -> Role | None:
        """The role of a name; None where there is none."""
        return next((role for role in self.roles if role.name == name), None)

    @property
    def defaults(self) -> dict[str, Setting]:
        """All settings as they are when nothing is set."""
        return {parameter.name: parameter.default for parameter in self.parameters}

    def helper_columns(self, cells: CellAddresses) -> tuple[HelperColumn, ...]:
        """The helper columns for a table's roles and settings."""
        return self.columns(cells) if self.columns is not None else self.helpers


def finite(numbers: Sequence[float]) -> list[float]:
    """The numbers that are values."""
    return [float(number) for number in numbers if not math.isnan(number)]
