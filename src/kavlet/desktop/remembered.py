"""Looks an author wants a recipe to have from now on, in every document: kept with the program's settings."""

import msgspec
from PySide6.QtCore import QSettings

from kavlet.core.dress.style import Dress

_KEY = "remembered looks"


class Remembered(msgspec.Struct, frozen=True):
    """What is remembered: the look, and the layer its values were set on first."""

    layer: str
    dress: Dress


def remembered(recipe: str) -> Remembered | None:
    """The look remembered for a recipe; None when there is none, or it can't be read any more."""
    held = QSettings().value(f"{_KEY}/{recipe}")
    if not isinstance(held, str):
        return None
    try:
        return msgspec.json.decode(held, type=Remembered)
    except msgspec.MsgspecError:
        return None


def remember(recipe: str, look: Remembered) -> None:
    """Keep a look for a recipe."""
    QSettings().setValue(f"{_KEY}/{recipe}", msgspec.json.encode(look).decode())


def forget(recipe: str) -> None:
    """Give the recipe back its own look."""
    QSettings().remove(f"{_KEY}/{recipe}")
