"""All recipes, by name. A new recipe is one file and one line here."""

from kavlet.core.recipes.funnel import FUNNEL
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.values.errors import KavletError

RECIPES: dict[str, Recipe] = {recipe.name: recipe for recipe in (FUNNEL,)}


def recipe(name: str) -> Recipe:
    """The recipe of that name. Raises KavletError when there is none."""
    if name not in RECIPES:
        raise KavletError(f"There is no recipe “{name}”.", remedy=f"There are: {', '.join(RECIPES)}.")
    return RECIPES[name]
