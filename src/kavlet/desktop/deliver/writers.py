"""Writes what the Deliver sheet was asked for."""

from pathlib import Path

from kavlet.core.build import Picture
from kavlet.core.files import atomic
from kavlet.paint.writers import Wish, content

__all__ = ["Wish", "content", "write"]


def write(made: Picture, wish: Wish, path: Path) -> None:
    """Write the chart atomically. Raises KavletError when it can't be written."""
    atomic.write(path, content(made, wish))
