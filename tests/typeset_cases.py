"""Charts of many tables and sizes, for looking their type over: recipes by rows, kinds of names, sizes and grounds."""

import random
from collections.abc import Iterator

import msgspec

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables import table_advice
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.core.values.sizes import CHARTS
from tests.making import values_of

ROWS = (1, 2, 5, 12, 40)
SIZES: dict[str, Size | None] = {"own": None, "S": CHARTS["S"], "page": CHARTS["page width"]}
KINDS = ("short", "long", "wide", "german", "alike")
PLACES = ("Reed", "Mill", "North", "Otter", "Heron", "Alder", "Sluice", "Ferry", "Willow", "Crane", "Marsh", "Dyke")
THINGS = ("pond", "hide", "gate", "walk", "bank", "loop", "field", "pool", "lane", "wood")
SEEN = "counted from the boardwalk by the evening watch before dusk"
GERMAN = "Besucherinnen und Besucher am nördlichen Aussichtsturm im"


class Case(msgspec.Struct, frozen=True):
    """One chart: its recipe, its table's rows and kind, its size and ground."""

    recipe: str
    rows: int
    kind: str
    size: str
    dark: bool

    @property
    def name(self) -> str:
        return f"{self.recipe}-{self.rows}-{self.kind}-{self.size}{'-dark' if self.dark else ''}"


def cases(only: str = "") -> Iterator[Case]:
    for i, (recipe, rows, kind, size) in enumerate(
        (recipe, rows, kind, size) for recipe in RECIPES for rows in ROWS for kind in KINDS for size in SIZES
    ):
        if not only or recipe == only:
            yield Case(recipe, rows, kind, size, i % 2 == 1)


def names(case: Case) -> list[str]:
    """Names of rows, each its own."""
    bare = [
        f"{PLACES[i % 12]} {THINGS[i // 12 % 10]}" + (f" {i // 120 + 1}" if i >= 120 else "") for i in range(case.rows)
    ]
    if case.kind == "long":
        return [f"{name}, {SEEN}"[: 45 + 7 * i % 20].strip() for i, name in enumerate(bare)]
    if case.kind == "alike":
        return [f"{SEEN} at {name}" for name in bare]
    if case.kind == "german":
        return [f"{GERMAN} {name}moor" if i % 3 == 0 else f"{name}wiesenbewässerung" for i, name in enumerate(bare)]
    return bare


def table(case: Case, recipe: Recipe) -> list[list[Cell]]:
    """A table with a column for each role that the recipe needs, and two more where many may share one."""
    chance = random.Random(case.name)
    top = 9_999_999 if case.kind == "wide" else 480
    columns: list[list[Cell]] = []
    for role in recipe.roles:
        if not role.required and role.name not in ("name", "target"):
            continue
        if role.kind == "text":
            held = {"group": [f"{PLACES[i // 4 % 12]} group" for i in range(case.rows)],
                    "period": [f"20{10 + i // max(1, -(-case.rows // 3))}" for i in range(case.rows)]}  # fmt: skip
            columns.append([role.name, *(held.get(role.name) or names(case))])
            continue
        many = chance.choice((1, 2, 3)) if role.many else 1
        for number in range(many):
            figures = [float(chance.randint(top // 60, top)) for _ in range(case.rows)]
            if recipe.name == "funnel":
                figures.sort(reverse=True)
            if recipe.name == "bridge":
                figures = [figure * (-1 if i and chance.random() < 0.45 else 1) for i, figure in enumerate(figures)]
            columns.append([f"{role.name} {number + 1}" if many > 1 else role.name, *figures])
    return [list(line) for line in zip(*columns, strict=True)]


def document(case: Case) -> tuple[Document, str]:
    """The chart's document, and its id. Raises KavletError where its table does not fit its recipe."""
    recipe = RECIPES[case.recipe]
    locale = "de_DE" if case.kind == "german" else "en"
    made, table_id = edits.add_table(Document(locale=locale), "Counted by the watch", table(case, recipe))
    made, chart = edits.add_chart(made, table_id, case.recipe)
    made = table_advice.with_proposals(made, chart)
    dress = msgspec.structs.replace(made.chart(chart).dress, dark=case.dark)
    return edits.change_chart(made, chart, dress=dress, source="Source: the reserve’s own counts"), chart


def drawn(case: Case) -> Picture | None:
    """The chart; None where its table does not fit its recipe."""
    try:
        made, chart = document(case)
        return picture(made, values_of(made), chart, SIZES[case.size])
    except KavletError:
        return None
