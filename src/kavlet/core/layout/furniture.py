"""What a frame brings along besides marks: rules, texts, axes."""

from msgspec import Struct

from kavlet.core.layout.figure import PlacedAxis, PlacedRule, PlacedText
from kavlet.core.layout.texts.text_lines import TextStyle
from kavlet.core.styling.style import Style
from kavlet.core.values.geometry import Size

MIN_FONT_SIZES = (9.0, 7.5, 7.5, 7.0)  # points: title, subtitle, text and small text are never smaller
FULL_SIZE = Size(520, 290)  # from this size on, texts have the theme's size; smaller charts shrink them


class Sizes(Struct, frozen=True):
    """Font sizes of this chart in points."""

    title: float
    subtitle: float
    text: float
    small: float


def shrink(size: Size) -> float:
    """The size of type of a chart as a share of the theme's, where nothing else is set."""
    return min(1.0, max(0.5, min(size.width / FULL_SIZE.width, size.height / FULL_SIZE.height)))


def sizes(style: Style, size: Size, scale: float | None = None) -> Sizes:
    """The theme's sizes at a scale, which may be above 1; else shrunk on charts smaller than `FULL_SIZE`. None below
    what can be read in print."""
    share = scale if scale is not None else shrink(size)
    full = (style.title_size, style.subtitle_size, style.text_size, style.small_size)
    return Sizes(*(max(min(one, least), one * share) for one, least in zip(full, MIN_FONT_SIZES, strict=True)))


class Furniture(Struct, frozen=True):
    """Rules under and over the marks, texts, and the axes for the record; `unnamed` counts rows whose names found no
    room."""

    under: tuple[PlacedRule, ...] = ()
    over: tuple[PlacedRule, ...] = ()
    texts: tuple[PlacedText, ...] = ()
    axes: tuple[PlacedAxis, ...] = ()
    unnamed: int = 0


def small_ink(style: Style, sizes: Sizes) -> TextStyle:
    """The ink of small texts: ticks, names, legends."""
    return TextStyle(style.face, sizes.small, style.quiet)
