"""Whatever the table: after a remedy its finding is gone, nothing new is grave, and undoing restores exactly."""

import random
from collections import Counter
from typing import Any

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import WHOLE_PERCENT
from tests.core.proof.proofed import after, grave, is_same, of_first_chart

PLACES = ("Reed", "Alder", "Bittern", "Heron", "Otter", "Pond", "Dyke", "Ferry", "Quay", "Mere", "Bank", "Carr")
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
LOOKS: tuple[tuple[str, tuple[Any, ...]], ...] = (
    ("frame.along.minimum", (10.0, 50.0, -5.0)), ("frame.along.maximum", (30.0, 100.0)), ("frame.along.kind", ("log",)),
    ("legend.side", ("right", "top")), ("type_scale", (0.5, 0.7, 1.6)), ("layers.value.gap", (0.0,)),
    ("layers.series 1.label.template", ("{series} {value}",)), ("layers.value.rows.1.dx", (-120.0, 90.0)),
    ("layers.value.rows.1.dy", (-60.0, 40.0)), ("layers.series 1.stack", ("share",)), ("solid.on", (True,)),
    ("solid.tilt", (55.0,)), ("solid.turn", (-30.0,)), ("layers.series 1.fill", ("#2d6a4f", "#b8352f", "tone2")),
    ("layers.series 2.fill", ("#3a7a50", "#a05020", "tone1")), ("layers.series 1.edge", ("",)),
    ("layers.series 2.edge", ("",)),
)  # fmt: skip
TITLES = ("A title that says it", "About 38% of all", "Says 123 and 250.5", "")
FOLLOWS = {"labels-lost", "overlap"}  # a chart that shows something else may have less room: that is said then
OF_FIGURES = {"typed-number", "capped", "two-axes", "colour-blind", "contrast"}  # where other figures are shown


def _value(chance: random.Random, kind: str) -> Cell:
    if chance.random() < 0.04:
        return None
    match kind:
        case "small":
            return float(chance.randint(0, 9))
        case "percent":
            return FormattedNumber(round(chance.random() * 0.6, 3), WHOLE_PERCENT)
        case "large":
            return round(chance.lognormvariate(8, 2), chance.choice([0, 0, 2]))
        case "below":
            return float(chance.randint(-50, 80))
    return float(chance.randint(1, 400))


def _random(chance: random.Random) -> Document:
    """A chart of any recipe on a random table, with some looks, settings and a size at random."""
    recipe = RECIPES[chance.choice(list(RECIPES))]
    count, pool = chance.randint(2, 14), chance.choice([PLACES, MONTHS])
    names = [pool[i % 12] if chance.random() < 0.93 else chance.choice(pool) for i in range(count)]
    if pool is PLACES:
        chance.shuffle(names)
    kind, columns = chance.choice(["small", "percent", "large", "below", "plain", "plain"]), chance.randint(1, 4)
    rows: list[list[Cell]] = [["name", *(f"c{j}" for j in range(columns)), "group"]]
    rows += [[name, *(_value(chance, kind) for _ in range(columns)), chance.choice("abc")] for name in names]
    if chance.random() < 0.15:
        sums = [Formula(f"=SUM({'BCDE'[j]}2:{'BCDE'[j]}{count + 1})") for j in range(columns)]
        rows.append(["Total", *sums, None])
    document, table = edits.add_table(Document(), "Random", rows)
    document, chart = edits.add_chart(document, table, recipe.name)
    document = edits.change_chart(document, chart, title=chance.choice(TITLES))
    looks = {path: chance.choice(values) for path, values in LOOKS if chance.random() < 0.08}
    document = look_edits.set_looks(document, chart, looks)
    for parameter in recipe.parameters:
        if chance.random() < 0.12 and parameter.type in ("number", "choice", "flag"):
            value = chance.choice(parameter.choices or (parameter.minimum or 0.0, 20.0, 5.0))
            setting = chance.random() < 0.5 if parameter.type == "flag" else value
            document = look_edits.set_setting(document, chart, parameter.name, setting)
    if chance.random() < 0.2:
        document = edits.change_chart(document, chart, width=chance.choice([160.0, 240.0]), height=140.0)
    return document


@pytest.mark.parametrize("seed", range(4))
def test_remedies_mend_and_do_no_harm(seed: int) -> None:
    tried: Counter[str] = Counter()
    for number in range(70):
        chance = random.Random(1000 * seed + number)
        try:
            document = _random(chance)
            before = of_first_chart(document)
        except KavletError:
            continue  # a setting that can't be so
        if any(one.check == "formula-error" and one.severity == "error" for one in before):
            continue  # a table that the recipe refuses in a sentence
        for finding in before:
            assert str(finding.message)
            for remedy in (one for one in finding.remedies if one.edit is not None):
                tried[finding.check] += 1
                left = of_first_chart(after(document, remedy))
                told = (seed, number, finding.check, remedy.key)
                assert not any(is_same(one, finding) for one in left), told
                allowed = FOLLOWS | (OF_FIGURES if remedy.restates else set())
                assert not grave(left) - grave(before) - allowed, told
    assert len(tried) >= 10
    assert tried.total() > 60
