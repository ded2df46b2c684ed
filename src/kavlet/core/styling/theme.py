"""Themes: named sets of dress defaults, each light and dark, shipped as JSON."""

from functools import lru_cache
from importlib.resources import files

import msgspec

from kavlet.core.messages import say
from kavlet.core.styling.measures import Spaces, Strokes
from kavlet.core.text.faces import Family
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sizes import TypeSize

DEFAULT_THEME = "reedbed"
_ORDER = ("reedbed", "letterpress", "harbour", "orchard", "clay", "heather", "graphite", "beacon")


class Tones(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One ground with all that stands on it, as hex texts."""

    ground: str
    ink: str
    quiet: str
    line: str
    track: str
    palette: tuple[str, ...]
    rise: str
    fall: str
    total: str
    alarm: str


class Theme(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Tones for a light and a dark ground, a family of faces, sizes of type and corners in points; the weights of lines
    and the spaces that all its charts share."""

    name: str
    title: str
    light: Tones
    dark: Tones
    family: Family = "text"
    title_size: TypeSize = 20.0
    subtitle_size: TypeSize = 12.5
    text_size: TypeSize = 12.5
    small_size: TypeSize = 10.5
    corner: float = 3.0
    strokes: Strokes = Strokes()
    spaces: Spaces = Spaces()

    def tones(self, dark: bool) -> Tones:
        """The tones on the light ground, or the dark one."""
        return self.dark if dark else self.light


@lru_cache(maxsize=1)
def themes() -> dict[str, Theme]:
    """All shipped themes by name, the default first."""
    folder = files("kavlet") / "assets" / "themes"
    return {name: msgspec.json.decode((folder / f"{name}.json").read_bytes(), type=Theme) for name in _ORDER}


def theme(name: str) -> Theme:
    """The theme of that name. Raises KavletError when there is none."""
    if name not in themes():
        raise KavletError(
            say("There is no theme “{name}”.", name=name), remedy=say("There are {names}.", names=list(themes()))
        )
    return themes()[name]
