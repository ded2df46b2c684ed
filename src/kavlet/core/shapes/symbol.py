"""The shelf of shipped symbols, and outlines of any symbol from SVG path data."""

from functools import lru_cache
from importlib.resources import files

import msgspec
from msgspec import Struct

from kavlet.core.messages import say, symbol_named
from kavlet.core.scene.path import Path, PathPen
from kavlet.core.values.affine import Affine, moved, scaled
from kavlet.core.values.colour import Colour, colour
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect


class Symbol(Struct, frozen=True):
    """A filled symbol: a name, the group it stands in, words it is found by, and SVG path data.

    With `parts` it has colours of its own: path data in the outline's units, each with a hex code.
    """

    name: str
    outline: str
    group: str = ""
    words: tuple[str, ...] = ()
    parts: tuple[tuple[str, str], ...] = ()


@lru_cache(maxsize=1)
def shelf() -> dict[str, Symbol]:
    """All shipped symbols by name, in the shelf's order."""
    content = (files("kavlet") / "assets" / "symbols" / "symbols.json").read_bytes()
    return {symbol.name: symbol for symbol in msgspec.json.decode(content, type=tuple[Symbol, ...])}


def search(text: str) -> list[Symbol]:
    """The symbols whose name (in English or the reader's language), group or words begin with each word of the text.

    All for an empty text.
    """
    words_sought = text.casefold().split()

    def fits(symbol: Symbol) -> bool:
        symbol_words = [*symbol.name.split(), *str(symbol_named(symbol.name)).split(), symbol.group, *symbol.words]
        return all(any(word.casefold().startswith(part) for word in symbol_words) for part in words_sought)

    symbols = [symbol for symbol in shelf().values() if fits(symbol)]
    return sorted(symbols, key=lambda symbol: not symbol.name.casefold().startswith(text.casefold()))


def named_as(text: str) -> str:
    """The name of the symbol that the reader's language names so; the text itself where it names none."""
    return next((name for name in shelf() if str(symbol_named(name)).casefold() == text.casefold()), text)


@lru_cache(maxsize=512)
def outline(data: str) -> Path:
    """SVG path data as a path whose bounds are the box (0, 0) to (w, h) with the longer side 1.

    Raises KavletError when the data is none or encloses nothing.
    """
    path = raw_path(data)
    box = path.bounds
    side = max(box.width, box.height)
    if not side > 0:
        raise KavletError(say("The symbol has no outline."))
    return path.mapped(scaled(1 / side).after(moved(-box.x, -box.y)))


@lru_cache(maxsize=256)
def coloured(symbol: Symbol) -> tuple[tuple[Path, Colour], ...]:
    """A symbol's own shapes and colours, in the unit of its outline."""
    box = raw_path(symbol.outline).bounds
    unit = scaled(1 / max(box.width, box.height, 1e-9)).after(moved(-box.x, -box.y))
    return tuple((raw_path(data).mapped(unit), colour(text)) for data, text in symbol.parts)


def raw_path(data: str) -> Path:
    """SVG path data as a path in its own units. Raises KavletError when it can't be read."""
    pen = FontPen()
    try:
        pen.parse(data)
    except (ValueError, IndexError, TypeError, ZeroDivisionError, OverflowError) as error:
        raise KavletError(say("The symbol’s outline can’t be read.")) from error
    return pen.inner.path


@lru_cache(maxsize=512)
def extent(data: str) -> Rect:
    """The box of a symbol's outline: the longer side is 1."""
    return outline(data).bounds


def fitted(data: str, into: Rect, stretch: bool = False) -> Affine:
    """The map that puts a symbol into a box: centred at its own proportions, or stretched to fill it."""
    own = extent(data)
    if stretch:
        return moved(into.x, into.y).after(
            scaled(into.width / max(own.width, 1e-9), into.height / max(own.height, 1e-9))
        )
    factor = min(into.width / max(own.width, 1e-9), into.height / max(own.height, 1e-9))
    x = into.x + (into.width - own.width * factor) / 2
    y = into.y + (into.height - own.height * factor) / 2
    return moved(x, y).after(scaled(factor))


class FontPen:
    """Takes fontTools' pen calls and records them as a path."""

    def __init__(self) -> None:
        self.inner = PathPen()
        self._here = (0.0, 0.0)

    def parse(self, data: str) -> None:
        """Record SVG path data. Raises ValueError and the like when it can't be read."""
        from fontTools.svgLib.path import parse_path

        parse_path(data, self)

    def moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802 - fontTools' pen protocol
        """Start a new part at a point."""
        self._here = point
        self.inner.move_to(*map(float, point))

    def lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        """A straight line to a point."""
        self._here = point
        self.inner.line_to(*map(float, point))

    def curveTo(self, one: tuple[float, float], two: tuple[float, float], end: tuple[float, float]) -> None:  # noqa: N802
        """A cubic curve to a point."""
        self._here = end
        self.inner.curve_to(*map(float, one), *map(float, two), *map(float, end))

    def qCurveTo(self, control: tuple[float, float], end: tuple[float, float]) -> None:  # noqa: N802
        """A quadratic curve to a point, as a cubic one."""
        (x0, y0), (cx, cy), (x, y) = self._here, control, end
        self.curveTo(
            (x0 + 2 / 3 * (cx - x0), y0 + 2 / 3 * (cy - y0)), (x + 2 / 3 * (cx - x), y + 2 / 3 * (cy - y)), end
        )

    def closePath(self) -> None:  # noqa: N802
        """Close the part."""
        self.inner.close()

    def endPath(self) -> None:  # noqa: N802
        """Leave the part open."""
