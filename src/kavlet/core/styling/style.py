"""Dress resolved to one concrete style: what is set by hand wins over the kit, the kit over the theme."""

from typing import Any

import msgspec

from kavlet.core.messages import say
from kavlet.core.styling import colours
from kavlet.core.styling.fills import Fill, GradientFill, HatchFill, PictureFill
from kavlet.core.styling.measures import Spaces, Strokes
from kavlet.core.styling.palettes import Palette, palettes
from kavlet.core.styling.theme import DEFAULT_THEME, Theme, Tones, theme
from kavlet.core.text.faces import Family, face
from kavlet.core.values.colour import Colour, colour, contrast, mix, readable
from kavlet.core.values.errors import KavletError


class Dress(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """The look an author chose: a theme on a light or dark ground, and values set by hand that survive its change.

    `palette` is the name of a shipped palette or of one of the document's, or hex codes; `overrides` holds values by
    their path in the chart's specification, such as ``layers.value.fill`` or ``title.size``.
    """

    theme: str = DEFAULT_THEME
    dark: bool = False
    family: Family | None = None
    palette: str | tuple[str, ...] | None = None
    overrides: dict[str, Any] = {}


class House(msgspec.Struct, frozen=True):
    """What a document's charts share: a theme of its own, the palette of charts without one, and named palettes."""

    theme: Theme | None = None
    palette: str | tuple[str, ...] | None = None
    palettes: tuple[Palette, ...] = ()

    def colours_of(self, palette: str | tuple[str, ...] | None) -> tuple[str, ...]:
        """The colours of a palette of its own or a shipped one, none where nothing is chosen. Raises KavletError."""
        if not isinstance(palette, str):
            return palette or ()
        named = {**palettes(), **{one.name: one for one in self.palettes}}
        if palette and palette not in named:
            raise KavletError(
                say("There is no palette “{name}”.", name=palette), remedy=say("There are {names}.", names=list(named))
            )
        return named[palette].colours if palette else ()


ALONE = House()  # of a chart outside any document


class Style(msgspec.Struct, frozen=True):
    """Concrete colours, faces, sizes, weights of lines and spaces of one chart."""

    dark: bool
    named: dict[str, Colour]
    palette: tuple[Colour, ...]
    family: Family
    title_size: float
    subtitle_size: float
    text_size: float
    small_size: float
    corner: float
    strokes: Strokes = Strokes()
    spaces: Spaces = Spaces()

    @property
    def ground(self) -> Colour:
        """The colour behind everything."""
        return self.named["ground"]

    @property
    def ink(self) -> Colour:
        """The colour of texts."""
        return self.named["ink"]

    @property
    def quiet(self) -> Colour:
        """The colour of texts that stand back."""
        return self.named["quiet"]

    @property
    def line(self) -> Colour:
        """The colour of axes and gridlines."""
        return self.named["line"]

    @property
    def face(self) -> str:
        """The key of the regular face."""
        return face(self.family)

    @property
    def bold(self) -> str:
        """The key of the bold face."""
        return face(self.family, bold=True)

    def colour(self, text: str) -> Colour:
        """The colour of a colour text. Raises KavletError when it is none."""
        return colours.resolved(text, self.named, self.palette)

    def tone(self, tone: int) -> Colour:
        """The palette's colour; past its end the colours come again, each time lighter, so that neighbours differ."""
        round_, place = divmod(tone, len(self.palette))
        base = self.palette[place]
        return base if not round_ else mix(base, self.ground, min(0.7, 0.3 * round_))

    def solid(self, fill: Fill | None, tone: int) -> Colour:
        """One colour that stands for a fill: the colour itself, a gradient's first, a symbol's."""
        if fill is None:
            return self.tone(tone)
        if isinstance(fill, str):
            return self.colour(fill)
        if isinstance(fill, GradientFill):
            return self.colour(fill.colours[0]) if fill.colours else self.tone(tone)
        if isinstance(fill, PictureFill):
            return self.colour(fill.colour) if fill.colour else self.tone(tone)
        return self.colour(fill.colour)

    def behind(self, fill: Fill | None, tone: int) -> Colour:
        """The colour a text would stand on inside a part with that fill."""
        if isinstance(fill, HatchFill):
            return self.colour(fill.ground) if fill.ground else mix(self.colour(fill.colour), self.ground, 0.6)
        if isinstance(fill, GradientFill) and fill.colours:
            return mix(self.colour(fill.colours[0]), self.colour(fill.colours[-1]), 0.5)
        if isinstance(fill, PictureFill):
            return self.colour(fill.ground) if fill.ground else self.ground
        return self.solid(fill, tone)

    def tint(self, of: Colour, share: float = 0.78) -> Colour:
        """A quiet tone of a colour: `share` of the way to the ground, in OKLab."""
        return mix(of, self.ground, share)

    def on(self, behind: Colour) -> Colour:
        """White, else the darker of ink and ground, else black: the first that reads well on what is behind."""
        dark = min(self.ink, self.ground, key=lambda colour: sum(colour.rgb))
        return readable(behind, Colour(1, 1, 1), dark, Colour(0, 0, 0))


def resolve(dress: Dress, house: House = ALONE) -> Style:
    """The concrete style in a document's house. Raises KavletError for an unknown theme or palette, or no colour."""
    own = house.theme
    base = own if own is not None and dress.theme == own.name else theme(dress.theme)
    chosen = house.colours_of(dress.palette if dress.palette is not None else house.palette)
    by_hand = str(dress.overrides.get("ground") or "")
    ground = _ground(by_hand, base.tones(dress.dark), chosen) if by_hand else None
    dark = dress.dark if ground is None else contrast(ground, Colour(1, 1, 1)) > contrast(ground, Colour(0, 0, 0))
    tones = base.tones(dark)
    ground = ground or colour(tones.ground)
    return Style(
        dark=dark,
        named={
            "ground": ground,
            "ink": colour(tones.ink),
            "quiet": colour(tones.quiet),
            "line": colour(tones.line),
            "track": mix(ground, colour(tones.ink), 0.09) if by_hand else colour(tones.track),
            "rise": colour(tones.rise),
            "fall": colour(tones.fall),
            "total": colour(tones.total),
            "alarm": colour(tones.alarm),
            "white": Colour(1, 1, 1),
            "black": Colour(0, 0, 0),
        },
        palette=tuple(colour(text) for text in chosen or tones.palette),
        family=dress.family or base.family,
        title_size=base.title_size,
        subtitle_size=base.subtitle_size,
        text_size=base.text_size,
        small_size=base.small_size,
        corner=base.corner,
        strokes=base.strokes,
        spaces=base.spaces,
    )


def _ground(text: str, tones: Tones, palette: tuple[str, ...]) -> Colour:
    """A ground set by hand: a colour, or one of the theme's and the palette's."""
    tone_names = {
        "ground": colour(tones.ground),
        "ink": colour(tones.ink),
        "white": Colour(1, 1, 1),
        "black": Colour(0, 0, 0),
    }
    return colours.resolved(text, tone_names, tuple(colour(code) for code in palette or tones.palette))
