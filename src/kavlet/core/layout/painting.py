"""From a fill and an outline to primitives: colours, gradients, hatches, symbols and pictures."""

import math
from functools import lru_cache

from msgspec import Struct

from kavlet.core.charts.colouring import ColourRule, parsed, shade
from kavlet.core.charts.layer import Layer, Row, Rule
from kavlet.core.layout.context import Context
from kavlet.core.layout.data import Data, Raster
from kavlet.core.scene import paints
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.primitives import Group, Image, Primitive, Shape, Stamp
from kavlet.core.shapes.body import End
from kavlet.core.shapes.box import box
from kavlet.core.shapes.symbol import Symbol, coloured, extent, fitted, outline
from kavlet.core.styling.colours import lighter
from kavlet.core.styling.fills import Fill, GradientFill, HatchFill, PictureFill
from kavlet.core.styling.style import Style
from kavlet.core.values.affine import Affine, moved, scaled, turned
from kavlet.core.values.colour import Colour
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Point, Rect

UNMOVED = Affine()
MAX_TILES = 2_000


def fill_of(layer: Layer, row: int, number: int, data: Data) -> tuple[Fill | None, int]:
    """The fill of a layer's row (`row` counts the table's rows, `number` those shown) and its tone.

    What is set for the row wins, then a rule that picks it, then a shade, the layer's fill, the palette.
    """
    own = layer.rows.get(row, Row()).fill
    tone = layer.tone + number if layer.vary else layer.tone
    if own is not None:
        return own, tone
    figures = data.column(layer.figure_column)
    for mine in rules_of(layer.colour_rules):
        if mine.picks(number, figures):
            return mine.colour, tone
    for rule in layer.rules:
        if _picks(rule, number, data.column(layer.values)):
            return rule.fill, tone
    if layer.shades != "none" and (layer.fill is None or isinstance(layer.fill, str)):
        base = layer.fill or f"tone{tone + 1}"
        if layer.shades == "in order":  # the first row the strongest
            count = len(figures)
            return shade("one hue", layer.shade_steps, float(count - number), range(1, count + 1), base), tone
        return shade(layer.shades, layer.shade_steps, float(figures[number]), figures, base), tone
    return layer.fill, tone


@lru_cache(maxsize=64)
def rules_of(text: str) -> tuple[ColourRule, ...]:
    """An author's rules; none where the text can't be read any more."""
    try:
        return parsed(text)
    except KavletError:
        return ()


def _picks(rule: Rule, number: int, figures: object) -> bool:
    held = [float(figure) for figure in figures]  # type: ignore[attr-defined]
    values = [figure for figure in held if not math.isnan(figure)]
    mine = held[number]
    if math.isnan(mine):
        return False
    return {
        "largest": lambda: mine == max(values),
        "smallest": lambda: mine == min(values),
        "first": lambda: number == 0,
        "last": lambda: number == len(held) - 1,
        "above": lambda: mine > rule.than,
        "below": lambda: mine < rule.than,
    }[rule.when]()


def paint(fill: Fill | None, tone: int, rect: Rect, style: Style, end: End = "right") -> paints.Paint:
    """A paint for a fill over a box, `end` telling where the value grows to. Pictures give their ground."""
    if isinstance(fill, GradientFill) and fill.colours:
        return _gradient(fill, [style.colour(text) for text in fill.colours], rect, end)
    if isinstance(fill, HatchFill):
        ground = style.colour(fill.ground) if fill.ground else None
        return paints.Hatch(fill.kind, style.colour(fill.colour), ground, fill.angle, fill.step, fill.width)
    if isinstance(fill, PictureFill):
        return style.colour(fill.ground) if fill.ground else style.ground.faded(0.0)
    return style.solid(fill, tone)


def _gradient(fill: GradientFill, colours: list[Colour], rect: Rect, end: End) -> paints.Paint:
    x, y = rect.center
    if fill.run == "radial":
        stops = _even(colours)
        return paints.RadialGradient(x, y, max(rect.width, rect.height) / 2 or 1.0, stops)
    if fill.angle is not None:
        turn = math.radians(fill.angle)
        reach = (abs(math.cos(turn)) * rect.width + abs(math.sin(turn)) * rect.height) / 2
        dx, dy = math.cos(turn) * reach, math.sin(turn) * reach
        return paints.LinearGradient(x - dx, y - dy, x + dx, y + dy, _even(colours))
    lying = end in ("right", "left")
    if fill.run == "along":
        ends = (rect.x, y, rect.right, y) if lying else (x, rect.bottom, x, rect.y)
        if end in ("left", "down"):
            ends = (ends[2], ends[3], ends[0], ends[1])
        return paints.LinearGradient(*ends, _even(colours))
    ends = (x, rect.y, x, rect.bottom) if lying else (rect.x, y, rect.right, y)
    return paints.LinearGradient(
        *ends, tube(colours[0]) if fill.run == "round" and len(colours) == 1 else _even(colours)
    )


def _even(colours: list[Colour]) -> paints.Stops:
    last = max(1, len(colours) - 1)
    return tuple((i / last, colour) for i, colour in enumerate(colours)) if len(colours) > 1 else ((0.0, colours[0]),)


def tube(of: Colour) -> paints.Stops:
    """Light and shade across a round body: a soft light a third in, the far side in shade."""
    return (
        (0.0, lighter(of, -0.05)),
        (0.2, lighter(of, 0.03)),
        (0.36, lighter(of, 0.08)),
        (0.58, of),
        (0.88, lighter(of, -0.06)),
        (1.0, lighter(of, -0.045)),
    )


class Filling(Struct, frozen=True):
    """What a part is filled and edged with, and the value that pictures are counted by."""

    fill: Fill | None
    tone: int
    edge: Colour | None = None
    edge_width: float = 0.0
    value: float = 1.0


def painted(filling: Filling, path: Path, rect: Rect, end: End, context: Context) -> tuple[Primitive, ...]:
    """The primitives of one part: its outline filled, symbols or pictures over it, its edge last."""
    fill, edge, style = filling.fill, filling.edge, context.style
    if not isinstance(fill, PictureFill):
        return (Shape(path, paint(fill, filling.tone, rect, style, end), edge, filling.edge_width),)
    items: list[Primitive] = []
    if fill.ground:
        items.append(Shape(path, style.colour(fill.ground)))
    else:
        # An outline without paint, so that the part can be touched where its picture is open.
        items.append(Shape(path, None))
    held = context.data.picture(fill.name)
    if held is None or rect.width <= 0 or rect.height <= 0:
        items.append(Shape(path, style.solid(None, filling.tone)))
    else:
        items += _pictures(fill, held, style.colour(fill.colour) if fill.colour else style.tone(filling.tone),
                           _Bar(rect, end, filling.value), path)  # fmt: skip
    if edge is not None:
        items.append(Shape(path, None, edge, filling.edge_width))
    return tuple(items)


class _Bar(Struct, frozen=True):
    """What pictures fill: a box, where its value grows to, and the value."""

    rect: Rect
    end: End
    value: float


def _pictures(fill: PictureFill, motif: Symbol | Raster, colour: Colour, bar: _Bar, path: Path) -> list[Primitive]:
    if fill.how == "covering":
        frame = covering(motif, bar.rect, fill.zoom, (fill.x, fill.y))
        return [picture(motif, frame, colour, clip=path)]
    clip = None if fill.how in ("stretched", "fitted") else recorded(box, bar.rect)
    by = UNMOVED
    if fill.turned and bar.end in ("right", "left"):  # drawn as in a standing bar, then laid down with it
        (x, y), wide, tall = bar.rect.center, bar.rect.height, bar.rect.width
        by = turned(90.0 if bar.end == "right" else -90.0, x, y)
        bar = _Bar(Rect(x - wide / 2, y - tall / 2, wide, tall), "up", bar.value)
    boxes = _tiles(fill, motif, bar) if clip is not None else [bar.rect]
    return [picture(motif, tile, colour, stretch=fill.how == "stretched", clip=clip, by=by) for tile in boxes]


def covering(held: Symbol | Raster, rect: Rect, zoom: float = 1.0, at: Point = (0.5, 0.5)) -> Rect:
    """The box of a picture that covers another at its own proportions, moved so that the wished part of it is seen."""
    wide, tall = proportions(held)
    factor = max(rect.width / wide, rect.height / tall) * max(1.0, zoom)
    wide, tall = wide * factor, tall * factor
    return Rect(rect.x - at[0] * (wide - rect.width), rect.y - at[1] * (tall - rect.height), wide, tall)


def _tiles(fill: PictureFill, held: Symbol | Raster, bar: _Bar) -> list[Rect]:
    """Boxes from the base to the end of a bar, the last one reaching past it."""
    rect, end = bar.rect, bar.end
    lying = end in ("right", "left")
    long, across = (rect.width, rect.height) if lying else (rect.height, rect.width)
    wide, tall = proportions(held)
    own = wide / tall if lying else tall / wide
    step = across * own
    if fill.how == "per unit":
        units = abs(bar.value) / fill.unit if fill.unit > 0 else 1.0
        step = long / units if units > 0 else long
    if not step > 0 or long / step > MAX_TILES:
        step = max(long / MAX_TILES, 1e-6)
    tiles: list[Rect] = []
    for i in range(math.ceil(long / step - 1e-9)):
        start = i * step
        if end == "right":
            tiles.append(Rect(rect.x + start, rect.y, step, across))
        elif end == "left":
            tiles.append(Rect(rect.right - start - step, rect.y, step, across))
        elif end == "up":
            tiles.append(Rect(rect.x, rect.bottom - start - step, across, step))
        else:
            tiles.append(Rect(rect.x, rect.y + start, across, step))
    return tiles


def proportions(held: Symbol | Raster) -> tuple[float, float]:
    """Width and height of a symbol or picture, in any unit."""
    if isinstance(held, Raster):
        return float(held.width), float(held.height)
    own = extent(held.outline)
    return max(own.width, 1e-9), max(own.height, 1e-9)


def picture(
    held: Symbol | Raster, into: Rect, colour: Colour, stretch: bool = False, clip: Path | None = None,
    by: Affine = UNMOVED,
) -> Primitive:  # fmt: skip
    """A symbol or picture put into a box, at its own proportions or stretched, and then moved `by` so much."""
    if isinstance(held, Symbol) and held.parts:
        place = by.after(fitted(held.outline, into, stretch))
        return Group(tuple(Shape(path, own, place=place) for path, own in coloured(held)), clip=clip)
    if isinstance(held, Symbol):
        return Stamp(held.name, outline(held.outline), by.after(fitted(held.outline, into, stretch)), colour, clip)
    if stretch:
        place = moved(into.x, into.y).after(scaled(into.width, into.height))
    else:
        factor = min(into.width / held.width, into.height / held.height)
        wide, tall = held.width * factor, held.height * factor
        place = moved(into.center[0] - wide / 2, into.center[1] - tall / 2).after(scaled(wide, tall))
    return Image(held.name, held.content, by.after(place), clip)
