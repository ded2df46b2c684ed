"""A recipe of an author's own as an open JSON file, to be taken to other documents and people."""

from pathlib import Path

from kavlet.core.files import atomic
from kavlet.core.files.untrusted_input import untrusted
from kavlet.core.messages import say
from kavlet.core.recipes.own_recipe import OwnRecipe, dumps, loads

SUFFIX = ".kavlet-recipe"
MAX_BYTES = 4_000_000


def load(path: Path) -> OwnRecipe:
    """The recipe of a file. Raises KavletError when it is none, is damaged or newer, or can't be read."""
    with untrusted(path.name, say("{file} is no recipe, or it is damaged.", file=path.name)):
        return loads(atomic.read(path, MAX_BYTES), path.name)


def save(own_recipe: OwnRecipe, path: Path) -> None:
    """Write a recipe atomically."""
    atomic.write(path, dumps(own_recipe))
