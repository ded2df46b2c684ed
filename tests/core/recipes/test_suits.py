"""How well recipes suit a table, at the edges of their rules (common practice; the scores are ours)."""

from typing import Any

import msgspec
import pytest

from kavlet.core.recipes.features import Features
from kavlet.core.recipes.registry import RECIPES

PLAIN = Features(rows=12, numbers=1, values=(100.0,))

EDGES: list[tuple[str, dict[str, Any], dict[str, Any]]] = [  # where a rule holds, and where it just does not
    ("areas", {"timed": True, "rows": 5, "numbers": 3}, {"timed": True, "rows": 4, "numbers": 3}),
    ("areas", {"timed": True, "rows": 5, "numbers": 3}, {"timed": True, "rows": 5, "numbers": 2}),
    ("areas", {"timed": True, "rows": 4}, {"timed": True, "rows": 3}),
    ("bars", {"rows": 8}, {"rows": 7}),
    ("bars", {"rows": 6}, {"rows": 5}),
    ("bars", {"rows": 4, "long_names": True}, {"rows": 4}),
    ("battery", {"budget": "once"}, {"budget": "once", "negative": True}),
    ("battery", {"rows": 8}, {"rows": 9}),
    ("bridge", {"changes": True, "negative": True}, {"negative": True}),
    ("bridge", {"negative": True}, {"negative": True, "timed": True}),
    ("bridge", {"negative": True}, {}),
    ("bubbles", {"numbers": 3, "units": 2, "rows": 4}, {"numbers": 3, "rows": 4}),
    ("bubbles", {"numbers": 3, "units": 2, "rows": 4}, {"numbers": 3, "units": 2, "rows": 3}),
    ("bubbles", {"numbers": 3}, {"numbers": 2}),
    ("capped-bars", {"outlier": True}, {}),
    ("capped-bars", {"outlier": True}, {"outlier": True, "timed": True}),
    ("capsule", {"percent": True, "rows": 8}, {"percent": True, "rows": 9}),
    ("capsule", {"percent": True, "rows": 8}, {"percent": True, "rows": 8, "shares": True}),
    ("columns", {"timed": True, "rows": 4}, {"timed": True, "rows": 5}),
    ("columns", {"numbers": 2}, {}),
    ("columns", {"rows": 7}, {"rows": 8}),
    ("combined", {"timed": True, "numbers": 2, "units": 2}, {"timed": True, "numbers": 2}),
    ("combined", {"timed": True, "numbers": 2}, {"numbers": 2}),
    ("funnel", {"falling": True, "stages": True}, {"stages": True}),
    ("funnel", {"falling": True, "stages": True, "rows": 5}, {"falling": True, "rows": 5}),
    ("funnel", {"falling": True, "rows": 3}, {"falling": True, "rows": 2}),
    ("gauge", {"rows": 1}, {"rows": 2}),
    ("gauge", {"rows": 6}, {"rows": 7}),
    ("growth-bars", {"numbers": 2, "pair": "periods"}, {"numbers": 2}),
    ("growth-bars", {"numbers": 2}, {"numbers": 3}),
    ("highlight-bars", {"rows": 3}, {"rows": 2}),
    ("highlight-bars", {"rows": 7}, {"rows": 8}),
    ("highlight-bars", {"rows": 20}, {"rows": 21}),
    ("lines", {"timed": True, "rows": 5}, {"timed": True, "rows": 4}),
    ("lines", {"timed": True, "rows": 4}, {"timed": True, "rows": 3}),
    ("mirrored-bars", {"numbers": 2, "pair": "sides"}, {"numbers": 2}),
    ("mirrored-bars", {"numbers": 2}, {"numbers": 2, "timed": True}),
    ("pictogram", {"counts": True, "rows": 8}, {"counts": True, "rows": 9}),
    ("pictogram", {"rows": 8, "values": (60.0,)}, {"rows": 8, "values": (61.0,)}),
    ("picture-bars", {"counts": True, "rows": 10}, {"counts": True, "rows": 11}),
    ("pie", {"shares": True, "rows": 7}, {"shares": True, "rows": 8}),
    ("pie", {"rows": 6}, {"rows": 7}),
    ("pie", {"rows": 6}, {"rows": 6, "negative": True}),
    ("points", {"numbers": 2, "across": True, "rows": 3}, {"numbers": 2, "rows": 3}),
    ("points", {"numbers": 2, "units": 2, "rows": 6}, {"numbers": 2, "units": 2, "rows": 5}),
    ("points", {"numbers": 2, "rows": 6}, {"numbers": 2, "rows": 6, "pair": "periods"}),
    ("radial-bars", {"rows": 3}, {"rows": 2}),
    ("radial-bars", {"rows": 8}, {"rows": 9}),
    ("stacked-bars", {"numbers": 3, "row_shares": True}, {"numbers": 3}),
    ("stacked-bars", {"numbers": 2}, {"numbers": 1}),
    ("stepping", {"stepped": True}, {}),
    ("target-columns", {"goal": "each"}, {"goal": "once"}),
    ("target-columns", {"goal": "once"}, {}),
    ("thermometer", {"goal": "once"}, {"goal": "each"}),
    ("thermometer", {"goal": "each", "rows": 1}, {"goal": "each", "rows": 2}),
    ("thermometer", {"rows": 8}, {"rows": 9}),
    ("two-level-ring", {"repeated": True}, {"repeated": True, "stepped": True}),
    ("waffle", {"shares": True, "rows": 7}, {"shares": True, "rows": 8}),
    ("waffle", {"rows": 6}, {"rows": 7}),
]


@pytest.mark.parametrize(("recipe", "fits", "misses"), EDGES)
def test_a_recipe_suits_where_its_reason_holds_and_less_beside_it(
    recipe: str, fits: dict[str, Any], misses: dict[str, Any]
) -> None:
    good = RECIPES[recipe].suits(msgspec.structs.replace(PLAIN, **fits))
    less = RECIPES[recipe].suits(msgspec.structs.replace(PLAIN, **misses))
    assert good.reason
    assert 0 < less.score < good.score <= 1


def test_every_recipe_with_a_reason_of_its_own_has_its_edges_here() -> None:
    assert {recipe for recipe, _, _ in EDGES} == set(RECIPES)
