"""What a recipe declares and what it yields. Recipes compute specifications; they draw nothing."""

from collections.abc import Callable
from typing import Literal

from msgspec import Struct

from kavlet.core.charts.chart import Chart
from kavlet.core.figures.cells import Value
from kavlet.core.figures.ranges import Floats
from kavlet.core.figures.references import column_letters
from kavlet.core.figures.table import HEADER
from kavlet.core.text.numbers import DEFAULT_LOCALE
from kavlet.core.values.number_text import PLAIN, NumberText

Setting = bool | float | str


class Role(Struct, frozen=True):
    """What a column is needed for: text that names rows, or numbers."""

    name: str
    kind: Literal["text", "number"]
    meaning: str
    required: bool = True


class Parameter(Struct, frozen=True):
    """One setting of a recipe. A `number` may also be a formula such as ``=B7``."""

    name: str
    type: Literal["number", "choice", "flag"]
    default: Setting
    meaning: str
    choices: tuple[str, ...] = ()
    minimum: float | None = None
    maximum: float | None = None
    unit: str = ""


class HelperColumn(Struct, frozen=True):
    """A helper column that the recipe creates."""

    name: str
    meaning: str
    number: NumberText


class HelperBuild(Struct, frozen=True):
    """A helper column as built: its formulas ("" where there is none) and what they evaluate to, one per row."""

    name: str
    role: str
    column: str
    formulas: tuple[str, ...]
    values: tuple[Value, ...]


class Places(Struct, frozen=True):
    """Where things stand in the table, for writing formulas: letters by role and by helper, and the number of rows."""

    roles: dict[str, int]
    helpers: dict[str, int]
    rows: int

    @property
    def first(self) -> int:
        """The first row of figures as formulas count it, from 1."""
        return HEADER + 1

    @property
    def last(self) -> int:
        return HEADER + self.rows

    def role(self, name: str) -> str:
        return column_letters(self.roles[name])


class Inputs(Struct, frozen=True):
    """What a recipe reads to make its chart: columns by role and helper, their values, and its settings."""

    table_name: str
    role_ids: dict[str, str]
    role_places: dict[str, int]
    role_names: dict[str, str]
    helper_ids: dict[str, str]
    values: dict[str, list[Value]]
    numbers: dict[str, Floats]
    settings: dict[str, Setting]
    number_texts: dict[str, NumberText] = {}
    locale: str = DEFAULT_LOCALE

    def figures(self, role: str) -> Floats:
        """The numbers of a role's column, shape (rows,); NaN is no value."""
        return self.numbers[self.role_ids[role]]

    def entries(self, role: str) -> list[Value]:
        """The values of a role's column, one per row."""
        return self.values[self.role_ids[role]]

    def number_text(self, role: str) -> NumberText:
        """How the role's column writes its numbers."""
        return self.number_texts.get(self.role_ids[role], PLAIN)


class Recipe(Struct, frozen=True):
    """The construction of one special chart.

    `formulas` gives each helper's formulas, one per row ("" for no value); `check` raises KavletError with one
    sentence when the table does not fit; `chart` gives the specification.
    """

    name: str
    title: str
    question: str
    needs: str
    roles: tuple[Role, ...]
    parameters: tuple[Parameter, ...]
    helpers: tuple[HelperColumn, ...]
    formulas: Callable[[Places], dict[str, list[str]]]
    check: Callable[[Inputs], None]
    chart: Callable[[Inputs], Chart]

    def parameter(self, name: str) -> Parameter | None:
        return next((one for one in self.parameters if one.name == name), None)

    @property
    def defaults(self) -> dict[str, Setting]:
        return {one.name: one.default for one in self.parameters}
