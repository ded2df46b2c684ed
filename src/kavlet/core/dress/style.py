"""Dress resolved to one concrete style: what is set by hand wins over the kit, the kit over the theme."""

from typing import Any

import msgspec

from kavlet.core.dress import colours
from kavlet.core.dress.fills import Fill, GradientFill, HatchFill, PictureFill
from kavlet.core.dress.palettes import palettes
from kavlet.core.dress.theme import DEFAULT_THEME, Theme, theme
from kavlet.core.messages import say
from kavlet.core.text.faces import Family, face
from kavlet.core.values.colour import Colour, colour, contrast, mix, readable
from kavlet.core.values.errors import KavletError


class Dress(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """The look an author chose: a theme on a light or dark ground, and values set by hand that survive its change.

    `palette` is a shipped palette's name or hex codes; `overrides` holds values by their path in the chart's
    specification, such as ``layers.value.fill`` or ``title.size``.
    """

    theme: str = DEFAULT_THEME
    dark: bool = False
    family: Family | None = None
    palette: str | tuple[str, ...] | None = None
    overrides: dict[str, Any] = {}


class Style(msgspec.Struct, frozen=True):
    """Concrete colours, faces and sizes of one chart."""

    dark: bool
    named: dict[str, Colour]
    palette: tuple[Colour, ...]
    family: Family
    title_size: float
    subtitle_size: float
    text_size: float
    small_size: float
    corner: float

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
        dark = min(self.ink, self.ground, key=lambda one: sum(one.rgb))
        return readable(behind, Colour(1, 1, 1), dark, Colour(0, 0, 0))


def resolve(dress: Dress, base: Theme | None = None, palette: str | tuple[str, ...] | None = None) -> Style:
    """The concrete style; `base` is a kit's own theme, `palette` the document's, for charts without one of their own.

    Raises KavletError for an unknown theme or no colour.
    """
    dress = dress if dress.palette is not None else msgspec.structs.replace(dress, palette=palette)
    base = base if base is not None and dress.theme == base.name else theme(dress.theme)
    by_hand = str(dress.overrides.get("ground") or "")
    ground = _ground(by_hand, base, dress) if by_hand else None
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
        palette=tuple(colour(text) for text in _palette(dress.palette) or tones.palette),
        family=dress.family or base.family,
        title_size=base.title_size,
        subtitle_size=base.subtitle_size,
        text_size=base.text_size,
        small_size=base.small_size,
        corner=base.corner,
    )


def _ground(text: str, base: Theme, dress: Dress) -> Colour:
    """A ground set by hand: a colour, or one of the theme's and the palette's."""
    tones = base.tones(dress.dark)
    named = {
        "ground": colour(tones.ground),
        "ink": colour(tones.ink),
        "white": Colour(1, 1, 1),
        "black": Colour(0, 0, 0),
    }
    return colours.resolved(text, named, tuple(colour(one) for one in _palette(dress.palette) or tones.palette))


def _palette(chosen: str | tuple[str, ...] | None) -> tuple[str, ...]:
    if not chosen:
        return ()
    if isinstance(chosen, tuple):
        return chosen
    if chosen not in palettes():
        raise KavletError(
            say("There is no palette “{name}”.", name=chosen),
            remedy=say("There are {names}.", names=list(palettes())),
        )
    return palettes()[chosen].colours
