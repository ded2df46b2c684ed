"""All recipes, by name. A new recipe is one file, called as the recipe is, and its name here; it is loaded when it is
first asked for."""

import importlib
from collections.abc import Iterator, Mapping

from kavlet.core.messages import say
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.values.errors import KavletError

NAMES = (
    *("gauge", "thermometer", "battery", "capsule", "radial-bars", "target-columns"),
    *("pie", "two-level-ring", "waffle", "stacked-bars"),
    "funnel",
    *("bridge", "growth-bars"),
    *("pictogram", "picture-bars"),
    *("highlight-bars", "capped-bars"),
    *("columns", "bars", "lines", "areas", "points"),
    *("bubbles", "mirrored-bars", "combined", "stepping"),
)  # in the order of the questions they answer


class _Recipes(Mapping[str, Recipe]):
    """Recipes by name, each made known by the constant of its file."""

    def __getitem__(self, name: str) -> Recipe:
        if name not in NAMES:
            raise KeyError(name)
        stem = name.replace("-", "_")
        found: Recipe = getattr(importlib.import_module(f"kavlet.core.recipes.{stem}"), stem.upper())
        return found

    def __contains__(self, name: object) -> bool:
        return name in NAMES

    def __iter__(self) -> Iterator[str]:
        return iter(NAMES)

    def __len__(self) -> int:
        return len(NAMES)


RECIPES: Mapping[str, Recipe] = _Recipes()


def recipe(name: str) -> Recipe:
    """The recipe of that name. Raises KavletError when there is none."""
    if name not in RECIPES:
        raise KavletError(
            say("There is no recipe “{name}”.", name=name), remedy=say("There are: {names}.", names=list(RECIPES))
        )
    return RECIPES[name]
