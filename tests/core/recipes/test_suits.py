"""How well recipes suit a table, at the edges of their rules (common practice; the scores are ours)."""

from typing import Any

import msgspec
import pytest

from kavlet.core.recipes.features import Features
from kavlet.core.recipes.registry import RECIPES

PLAIN = Features(
    rows=12, numbers=1, texts=1, values=(1.0,), negative=False, falling=False, timed=False, shares=False, outlier=False,
    whole=False, repeated=False, percent=False, planned=False,
)  # fmt: skip

EDGES: list[tuple[str, dict[str, Any], dict[str, Any]]] = [  # where the reason holds, and where it just does not
    ("areas", {"timed": True, "rows": 4}, {"timed": True, "rows": 3}),
    ("areas", {"timed": True, "rows": 4}, {"rows": 4}),
    ("bars", {"rows": 6}, {"rows": 5}),
    ("battery", {"rows": 8}, {"rows": 9}),
    ("battery", {"rows": 8}, {"rows": 8, "negative": True}),
    ("bridge", {"negative": True}, {}),
    ("bubbles", {"numbers": 3}, {"numbers": 2}),
    ("capped-bars", {"outlier": True}, {}),
    ("capsule", {"percent": True, "rows": 8}, {"percent": True, "rows": 9}),
    ("capsule", {"percent": True, "rows": 8}, {"rows": 8}),
    ("columns", {"numbers": 2}, {}),
    ("columns", {"timed": True}, {}),
    ("combined", {"timed": True, "numbers": 2}, {"timed": True}),
    ("combined", {"timed": True, "numbers": 2}, {"numbers": 2}),
    ("funnel", {"falling": True, "rows": 3}, {"falling": True, "rows": 2}),
    ("funnel", {"falling": True, "rows": 9}, {"falling": True, "rows": 10}),
    ("funnel", {"falling": True, "rows": 9}, {"rows": 9}),
    ("gauge", {"rows": 1}, {"rows": 2}),
    ("gauge", {"rows": 6}, {"rows": 7}),
    ("growth-bars", {"numbers": 2}, {"numbers": 3}),
    ("highlight-bars", {"rows": 3}, {"rows": 2}),
    ("highlight-bars", {"rows": 20}, {"rows": 21}),
    ("lines", {"timed": True, "rows": 4}, {"timed": True, "rows": 3}),
    ("lines", {"timed": True}, {}),
    ("mirrored-bars", {"numbers": 2}, {"numbers": 2, "negative": True}),
    ("mirrored-bars", {"numbers": 2}, {"numbers": 1}),
    ("pictogram", {"whole": True, "rows": 10}, {"whole": True, "rows": 11}),
    ("pictogram", {"whole": True, "rows": 10}, {"rows": 10}),
    ("picture-bars", {"whole": True, "rows": 10}, {"whole": True, "rows": 11}),
    ("picture-bars", {"whole": True, "rows": 10}, {"rows": 10}),
    ("pie", {"shares": True, "rows": 7}, {"shares": True, "rows": 8}),
    ("pie", {"rows": 2}, {"rows": 1}),
    ("pie", {"rows": 6}, {"rows": 7}),
    ("pie", {"rows": 6}, {"rows": 6, "negative": True}),
    ("points", {"numbers": 2, "rows": 6}, {"numbers": 2, "rows": 5}),
    ("points", {"numbers": 2}, {"numbers": 3}),
    ("radial-bars", {"rows": 3}, {"rows": 2}),
    ("radial-bars", {"rows": 8}, {"rows": 9}),
    ("radial-bars", {"rows": 8}, {"rows": 8, "negative": True}),
    ("stacked-bars", {"numbers": 2}, {"numbers": 1}),
    ("stepping", {"texts": 2, "repeated": True}, {"texts": 1, "repeated": True}),
    ("stepping", {"texts": 2, "repeated": True}, {"texts": 2}),
    ("target-columns", {"planned": True, "numbers": 2}, {"planned": True}),
    ("target-columns", {"planned": True, "numbers": 2}, {"numbers": 2}),
    ("thermometer", {"rows": 8}, {"rows": 9}),
    ("thermometer", {"rows": 8}, {"rows": 8, "negative": True}),
    ("two-level-ring", {"texts": 2, "repeated": True}, {"texts": 1, "repeated": True}),
    ("two-level-ring", {"texts": 2, "repeated": True}, {"texts": 2}),
    ("waffle", {"shares": True, "rows": 7}, {"shares": True, "rows": 8}),
    ("waffle", {"rows": 6}, {"rows": 7}),
    ("waffle", {"rows": 6}, {"rows": 6, "negative": True}),
]


@pytest.mark.parametrize(("recipe", "fits", "misses"), EDGES)
def test_a_recipe_suits_where_its_reason_holds_and_less_beside_it(
    recipe: str, fits: dict[str, Any], misses: dict[str, Any]
) -> None:
    good = RECIPES[recipe].suits(msgspec.structs.replace(PLAIN, **fits))
    less = RECIPES[recipe].suits(msgspec.structs.replace(PLAIN, **misses))
    assert good.reason
    assert good.score > less.score
    assert good.reason != less.reason
    assert 0 < less.score < good.score <= 1


def test_every_recipe_with_a_reason_of_its_own_has_its_edges_here() -> None:
    assert {recipe for recipe, _, _ in EDGES} == set(RECIPES)
