"""The first offers for small tables are those a careful author would take; what only looks like figures is none."""

from collections.abc import Iterator
from pathlib import Path

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.columns import kinds, unit
from kavlet.core.document.tables.table_advice import features_of, suggestions, with_proposals
from kavlet.core.files import csv
from kavlet.core.recipes.features import round_above
from tests.making import draw

TABLES = Path(__file__).parent / "data" / "small_tables.txt"


def opened(rows: list[str], locale: str = "en") -> tuple[Document, str]:
    """A document of one table, read as from a file in that locale."""
    content = "\n".join(rows).encode()
    manner = csv.guess(content, "t.csv", "," if locale == "de" else ".")
    return edits.add_table(Document(locale=locale), "T", csv.with_names(csv.grid(content, "t.csv", manner)))


def small_tables() -> Iterator[tuple[list[str], list[str], str]]:
    """Recipes that are right, rows, and locale of each small table."""
    for line in TABLES.read_text(encoding="utf-8").splitlines():
        if not line.startswith("#"):
            wanted, *rows = (part.strip() for part in line.removeprefix("de ").split("|"))
            yield wanted.split(","), rows, "de" if line.startswith("de ") else "en"


def test_the_first_offer_is_right_for_nearly_all_small_tables() -> None:
    orders = [(wanted, [one.recipe for one in suggestions(*opened(rows, to))]) for wanted, rows, to in small_tables()]
    assert len(orders) >= 120
    first = sum(order[0] in wanted for wanted, order in orders)
    among = sum(not set(order[:3]).isdisjoint(wanted) for wanted, order in orders)
    assert first >= 0.85 * len(orders)
    assert among >= 0.97 * len(orders)


def roles(rows: list[str], recipe: str, locale: str = "en") -> dict[str, list[str]]:
    document, table = opened(rows, locale)
    heads = {column.id: column.name for column in document.table(table).columns}
    found = next(one for one in suggestions(document, table) if one.recipe == recipe)
    return {role: [heads[column] for column in held] for role, held in found.roles.items()}


@pytest.mark.parametrize(
    ("rows", "recipe", "wanted"),
    [
        (["id;site;visitors", "1;Mill;23", "2;Tower;18", "3;Dyke;29"], "columns",
         {"name": ["site"], "value": ["visitors"]}),
        (["year;visitors", "2021;410", "2022;120", "2023;260"], "lines", {"name": ["year"], "value": ["visitors"]}),
        (["postcode;town;members", "10115;Carrow;31", "20095;Mere;48"], "bars",
         {"name": ["town"], "value": ["members"]}),
        (["class;boys;girls", "5;14;12", "6;11;15", "7;13;13"], "mirrored-bars",
         {"name": ["class"], "left": ["boys"], "right": ["girls"]}),
        (["site;note;visits", "Mill;new gate;23", "Tower;closed for most of the summer;18"], "columns",
         {"name": ["site"], "value": ["visits"]}),
        (["fund;Target (l);given", "A;50;30", "B;60;20"], "target-columns",
         {"name": ["fund"], "value": ["given"], "target": ["Target (l)"]}),
        (["site;year;visits", "Mill;2023;23", "Mill;2024;29"], "stepping",
         {"name": ["site"], "value": ["visits"], "period": ["year"]}),
        (["cost;region;euro", "Rent;North;9", "Staff;South;20", "Print;South;2"], "two-level-ring",
         {"name": ["cost"], "group": ["region"], "value": ["euro"]}),
        (["item;spent;budget", "Paint;12;120", "Wood;24;120"], "battery",
         {"name": ["item"], "value": ["spent"], "budget": ["budget"]}),
    ],
)  # fmt: skip
def test_columns_find_their_roles_by_what_they_are(rows: list[str], recipe: str, wanted: dict[str, list[str]]) -> None:
    assert roles(rows, recipe) == wanted


def test_german_headers_are_understood() -> None:
    assert roles(["Aktion;gesammelt;Ziel", "Dach;8.200;15.000"], "thermometer", "de") == {
        "name": ["Aktion"], "value": ["gesammelt"], "goal": ["Ziel"],
    }  # fmt: skip


def test_what_only_looks_like_figures_is_none() -> None:
    rows = [
        "no;site;phone;year;rank;visits;comment",
        "1;Mill;301234567;2021;2;2300;",
        "2;Tower;407654321;2021;1;1800;x",
    ]
    document, table = opened(rows)
    found = kinds(document.table(table))
    assert list(found.values()) == ["identities", "names", "identities", "periods", "identities", "figures", "notes"]
    alone, table = opened(["id;year", "7;2021", "9;2022"])
    assert list(kinds(alone.table(table)).values())[-1] == "figures"  # something must be charted


@pytest.mark.parametrize(
    ("head", "cell", "said"),
    [
        ("height (cm)", "12", "cm"), ("hours", "3", "hours"), ("share", "12 %", "percent"), ("n", "4", ""),
        ("price", "4 €", "€"),
    ],
)  # fmt: skip
def test_units_are_read_from_headers_and_from_how_numbers_are_written(head: str, cell: str, said: str) -> None:
    document, table = opened([f"a;{head}", f"x;{cell}", f"y;{cell}"])
    assert unit(document.table(table).columns[1]) == said


def test_a_total_row_is_no_part_of_what_a_table_is_like() -> None:
    of = features_of(*opened(["part;share", "A;42", "B;30", "C;28", "Total;100"]))
    assert of.rows == 3
    assert of.shares


@pytest.mark.parametrize(
    ("figure", "above"), [(0, 100), (1320, 1500), (95, 100), (96, 120), (1.0, 1.2), (0.3, 0.4), (780, 1000)]
)
def test_round_figures_above(figure: float, above: float) -> None:
    assert round_above(figure) == pytest.approx(above)


@pytest.mark.parametrize(
    ("recipe", "settings"),
    [("thermometer", {"goal": 1500.0}), ("battery", {"budget": 1500.0}), ("target-columns", {"target": 1000.0})],
)
def test_what_a_recipe_can_t_do_without_is_proposed(recipe: str, settings: dict[str, float]) -> None:
    document, table = opened(["fund;given", "House;300", "Pond;120", "Garden;900"])
    document, chart = edits.add_chart(document, table, recipe)
    made = with_proposals(document, chart)
    assert made.chart(chart).settings == settings
    assert draw(made).figure.marks
    assert with_proposals(made, chart) is made  # what is set stays
    own = edits.change_chart(document, chart, settings={next(iter(settings)): 5000.0})
    assert with_proposals(own, chart).chart(chart).settings == {next(iter(settings)): 5000.0}


def test_nothing_is_proposed_where_a_column_holds_it() -> None:
    document, table = opened(["fund;given;goal", "House;300;1000", "Pond;120;400"])
    document, chart = edits.add_chart(document, table, "thermometer")
    assert with_proposals(document, chart).chart(chart).settings == {}


@pytest.mark.parametrize(
    ("head", "symbol"),
    [("tree;planted", "tree"), ("site;persons", "person"), ("animal;birds", "bird"), ("a;b", "")],
)
def test_a_symbol_is_proposed_only_where_a_word_of_the_table_names_it(head: str, symbol: str) -> None:
    document, table = opened([head, "Mill;12", "Tower;7"])
    found = features_of(document, table).symbol
    assert found == symbol
    for recipe in ("pictogram", "capsule"):
        made, chart = edits.add_chart(document, table, recipe)
        assert with_proposals(made, chart).chart(chart).settings == {"symbol": found}
        assert draw(with_proposals(made, chart)).figure.marks
