"""The recipe of a chart: one of the shipped ones, or one the document brings along."""

from collections import ChainMap
from collections.abc import Mapping
from functools import lru_cache

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.messages import say
from kavlet.core.recipes.own_recipe import OwnRecipe, as_recipe, dumps, loads
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.values.errors import KavletError


def recipes_of(document: Document) -> Mapping[str, Recipe]:
    """All recipes a document can use, by name: the shipped ones, then its own."""
    own = {own_recipe.name: _made(dumps(own_recipe)) for own_recipe in document.recipes}
    return ChainMap(own, RECIPES) if own else RECIPES  # type: ignore[arg-type]  # which is not written to


def find_recipe(document: Document, name: str) -> Recipe:
    """The recipe of that name. Raises KavletError when there is none."""
    found = recipes_of(document)
    if name not in found:
        raise KavletError(
            say("There is no recipe “{name}”.", name=name), remedy=say("There are: {names}.", names=list(found))
        )
    return found[name]


def series_role(document: Document, chart: ChartEntry) -> str:
    """The role whose columns are a chart's series; empty where its recipe has none."""
    recipe = recipes_of(document).get(chart.recipe)
    return recipe.series if recipe is not None else ""


@lru_cache(maxsize=64)
def _made(content: bytes) -> Recipe:
    own_recipe: OwnRecipe = loads(content, "recipe")
    return as_recipe(own_recipe)
