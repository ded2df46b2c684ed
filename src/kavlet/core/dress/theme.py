"""Themes: named sets of dress defaults, light or dark, shipped as JSON."""

from functools import lru_cache
from importlib.resources import files

import msgspec

from kavlet.core.text.faces import Family
from kavlet.core.values.errors import KavletError

DEFAULT_THEME = "reedbed"


class Theme(msgspec.Struct, frozen=True):
    """Colours as hex text, sizes in points."""

    name: str
    title: str
    dark: bool
    ground: str
    ink: str
    quiet: str
    line: str
    palette: tuple[str, ...]
    family: Family
    title_size: float
    subtitle_size: float
    text_size: float
    small_size: float


@lru_cache(maxsize=1)
def themes() -> dict[str, Theme]:
    """All shipped themes by name, the default first."""
    folder = files("kavlet") / "assets" / "themes"
    found = [msgspec.json.decode(file.read_bytes(), type=Theme) for file in folder.iterdir()]
    found.sort(key=lambda theme: (theme.name != DEFAULT_THEME, theme.dark, theme.name))
    return {theme.name: theme for theme in found}


def theme(name: str) -> Theme:
    """The theme of that name. Raises KavletError when there is none."""
    if name not in themes():
        raise KavletError(f"There is no theme “{name}”.", remedy=f"There are {', '.join(themes())}.")
    return themes()[name]
