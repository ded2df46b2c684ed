"""Dress resolved to one concrete style: what is set by hand wins over the theme."""

import msgspec

from kavlet.core.dress.theme import DEFAULT_THEME, Theme, theme
from kavlet.core.text.faces import Family, face
from kavlet.core.values.colour import Colour, colour, mix


class Dress(msgspec.Struct, frozen=True, omit_defaults=True):
    """The look an author chose: a theme, and values set by hand that survive a change of theme.

    `fills` holds hex colours by layer key; `family` a shipped family of faces, empty for the theme's.
    """

    theme: str = DEFAULT_THEME
    fills: dict[str, str] = {}
    family: Family | None = None


class Style(msgspec.Struct, frozen=True):
    """Concrete colours, faces and sizes of one chart."""

    ground: Colour
    ink: Colour
    quiet: Colour
    line: Colour
    palette: tuple[Colour, ...]
    fills: dict[str, Colour]
    face: str
    bold: str
    title_size: float
    subtitle_size: float
    text_size: float
    small_size: float

    def fill(self, layer: str, tone: int) -> Colour:
        """The colour of a layer: set by hand, else the palette's at `tone` (0 the first, wrapping)."""
        return self.fills.get(layer) or self.palette[tone % len(self.palette)]

    def tint(self, of: Colour, share: float = 0.78) -> Colour:
        """A quiet tone of a colour: `share` of the way to the ground, in OKLab."""
        return mix(of, self.ground, share)

    @property
    def white(self) -> Colour:
        return Colour(1, 1, 1)

    @property
    def dark_ink(self) -> Colour:
        """The darker of ink and ground, for texts on light fills in either kind of theme."""
        return min(self.ink, self.ground, key=lambda one: sum(one.rgb))


def resolve(dress: Dress) -> Style:
    """The concrete style. Raises KavletError for an unknown theme or a colour that is none."""
    base: Theme = theme(dress.theme)
    family = dress.family or base.family
    return Style(
        ground=colour(base.ground),
        ink=colour(base.ink),
        quiet=colour(base.quiet),
        line=colour(base.line),
        palette=tuple(colour(text) for text in base.palette),
        fills={layer: colour(text) for layer, text in dress.fills.items()},
        face=face(family),
        bold=face(family, bold=True),
        title_size=base.title_size,
        subtitle_size=base.subtitle_size,
        text_size=base.text_size,
        small_size=base.small_size,
    )
