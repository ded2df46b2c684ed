"""Places wedges: sectors that share a turn, with labels inside, or outside with leaders."""

import math
from collections.abc import Callable

import msgspec
from msgspec import Struct

from kavlet.core.charts.fields import Field
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import GATHERED, LEFT_OVER, Row
from kavlet.core.charts.wedges import Wedges
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import MarkKind, PlacedText
from kavlet.core.layout.kind import Kind, LegendEntry
from kavlet.core.layout.marks.shared_kinds import row_entries
from kavlet.core.layout.painting import Filling, fill_of, painted
from kavlet.core.layout.placing import MarkDrawing, MarkSource, Placing
from kavlet.core.layout.planes.disc import Disc
from kavlet.core.layout.texts.text_lines import upright
from kavlet.core.layout.words.free_space import pieces
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelStyle, ink, label_request
from kavlet.core.layout.words.radial_labels import RadialLabel
from kavlet.core.scene.path import recorded
from kavlet.core.shapes.arc import Sector, at, wedge
from kavlet.core.styling.fills import Fill
from kavlet.core.text.shaping import width
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import WHOLE_PERCENT
from kavlet.core.values.sums import exact_sum

REST = -1  # the number of the part that is left over
OUTSIDE = ("outside", "by sign", "beside")  # where labels stand around the disc


class Slice(Struct, frozen=True):
    """One wedge before it has its place: its row here (None: what is gathered or left over), figure and angles."""

    row: int | None
    number: int
    figure: float
    start: float
    end: float
    name: str


def parts(layer: Wedges, on: Disc, placing: Placing) -> list[Slice]:
    """All wedges in the order they follow each other. No value, zero and negative figures have no wedge."""
    if layer.parts:
        row = _row(layer, placing)
        names = [placing.data.titles.get(column, "") for column in layer.parts]
        figures = [
            (row, i, float(placing.data.column(column)[row]), names[i]) for i, column in enumerate(layer.parts)
        ] if row is not None else []  # fmt: skip
        rest = float(placing.data.column(layer.rest)[row]) if layer.rest and row is not None else 0.0
    else:
        places = {entry: i for i, entry in enumerate(placing.data.ids)}
        order = [places[entry] for entry in layer.order if entry in places] or list(range(placing.data.rows))
        column = placing.data.column(layer.values)
        figures = [(i, i, float(column[i]), placing.wording.names[i]) for i in order]
        rest = placing.wording.rest(layer)
    positive: list[tuple[int | None, int, float, str]] = [entry for entry in figures if entry[2] > 0]
    gathered = placing.wording.gathered(layer)
    if gathered > 0:
        positive.append((None, len(figures), gathered, layer.gathered_name))
    if rest > 0:
        positive.append((None, REST, rest, layer.rest_name))
    total = exact_sum(entry[2] for entry in positive)
    if total <= 0:
        return []
    whole = on.frame.sweep if layer.turn is None else layer.turn
    slices: list[Slice] = []
    turn = on.frame.start
    for row, number, figure, name in positive:
        sweep = figure / total * whole
        slices.append(Slice(row, number, figure, turn, turn + sweep, name))
        turn += sweep
    return slices


def _row(layer: Wedges, placing: Placing) -> int | None:
    return placing.data.ids.index(layer.row) if layer.row in placing.data.ids else (0 if placing.data.rows else None)


def place(layer: Wedges, on: Disc, placing: Placing) -> None:
    """A mark per wedge; inside labels are wanted, outside ones noted for the fan around the disc."""
    inner, outer = on.ring(min(layer.ring, on.rings - 1))
    for part in parts(layer, on, placing):
        is_rest = part.number == REST
        row_id = placing.id(part.row) if part.row is not None else LEFT_OVER if is_rest else GATHERED
        own = layer.rows.get(row_id, Row())
        out = (own.explode if own.explode is not None else layer.explode if part.row is not None else 0.0) * outer
        center = at(on.center, out, (part.start + part.end) / 2) if out else on.center
        sector = Sector(center, inner, outer, part.start, part.end)
        path = recorded(wedge, Sector(center, inner, outer, part.start, part.end), layer.gap, layer.corner)
        bounds = path.bounds
        if layer.helper or (is_rest and not layer.rest_shown) or own.hidden:
            source = MarkSource(row_id, name=layer.rest_name if is_rest else layer.name, helper=layer.helper or is_rest)
            placing.put(layer, source, part.figure, bounds, MarkDrawing(sector=sector, visible=False))
            continue
        filling = _filling(layer, part, placing)
        fill, tone = filling.fill, filling.tone
        rect = bounds if not _is_radial(fill) else Rect(center[0] - outer, center[1] - outer, 2 * outer, 2 * outer)
        drawing = MarkDrawing(
            path=path, fill=placing.style.solid(fill, tone), items=painted(filling, path, rect, "up", placing.context),
            sector=sector, dressed=fill, tone=tone,
        )  # fmt: skip
        name = part.name if layer.parts or part.row is None else layer.name
        says = placing.wording.says(layer, part.row) if part.row is not None and not layer.parts else part.name
        placing.put(
            layer,
            MarkSource(row_id, says, name, part.number if layer.parts else None, is_computed=is_rest),
            part.figure,
            bounds,
            drawing,
        )
        text = _text(layer, part, placing)
        if text and layer.label is not None:
            _label(layer, part, text, on, placing)


def _is_radial(fill: Fill | None) -> bool:
    return getattr(fill, "run", "") == "radial"


def _filling(layer: Wedges, part: Slice, placing: Placing) -> Filling:
    if part.row is None:
        own = layer.rows.get(LEFT_OVER if part.number == REST else GATHERED, Row())
        edge, width = (placing.style.colour(own.edge), layer.edge_width) if own.edge else (None, 0.0)
        plain = "track" if part.number == REST else "quiet +45"
        return Filling(own.fill if own.fill is not None else plain, layer.tone, edge, width, part.figure)
    held = placing.filling(layer, part.row, part.figure)
    if not layer.parts:
        return _within(layer, part.row, held, placing)
    slice_ = layer.rows.get(part.number)
    fill = slice_.fill if slice_ is not None else None
    return msgspec.structs.replace(held, fill=fill, tone=layer.tone + part.number)


def _within(layer: Wedges, row: int, held: Filling, placing: Placing) -> Filling:
    """A part of a group without a fill of its own: a tint of the group's colour, whatever that has become."""
    group = placing.chart.layer(layer.within) if layer.within else None
    place = layer.groups.get(placing.id(row))
    if group is None or place is None or held.fill is not None or place[0] not in placing.data.ids:
        return held
    fill, tone = fill_of(group, place[0], placing.data.ids.index(place[0]), placing.data)
    return msgspec.structs.replace(held, fill=f"{placing.style.solid(fill, tone).hex} +{place[1]}")


def _text(layer: Wedges, part: Slice, placing: Placing) -> str:
    if layer.label is None:
        return ""
    if part.row is None:
        own = layer.rows.get(LEFT_OVER if part.number == REST else GATHERED, Row())
        label = layer.label if own.text is None else msgspec.structs.replace(layer.label, template=own.text)
        return _rest_text(layer, label, part, placing) if own.label else ""
    if layer.parts:
        return part.name
    return placing.wording.text(layer, part.row)


def _rest_text(layer: Wedges, label: Label, part: Slice, placing: Placing) -> str:
    from kavlet.core.text.numbers import written

    text = label.template
    how = label.numbers.get("share", WHOLE_PERCENT)
    share = placing.wording.extra_shares(layer, how)[part.number == REST]
    number = written(part.figure, placing.wording.number_text(layer), placing.data.locale)
    for field, value in (("{name}", part.name), ("{share}", share), ("{value}", number)):
        text = text.replace(field, value)
    return "\n".join(line.strip() for line in text.split("\n") if line.strip() and "{" not in line)


def _label(layer: Wedges, part: Slice, text: str, on: Disc, placing: Placing) -> None:
    """A label for the mark that was placed last."""
    mark, style, label = placing.marks[-1], placing.style, layer.label
    sector = mark.sector
    if label is None or sector is None:
        return
    behind = style.behind(mark.dressed, mark.tone)
    inside_colour, outside_colour = ink(label, style, behind), ink(label, style, None)
    outermost = layer.ring >= on.rings - 1
    outside = label.position in OUTSIDE and outermost
    spots = [] if outside else inside_spots(sector, inside_colour, label.turn)
    middle = (sector.start + sector.end) / 2
    target = at(sector.center, sector.outer, middle)
    one = label_request(layer, mark.row, text, spots, style, LabelStyle(placing.sizes.text, target, part.figure))
    if outside or outermost:
        placing.fans.append(RadialLabel(one, sector, outside_colour, not outside))
    else:
        placing.labels.append(one)


def inside_spots(sector: Sector, colour: Colour, turn: bool) -> list[LabelSpot]:
    """Spots inside a sector: upright, in its middle or further out; with `turn`, along the ring or the radius."""
    start, end = sector.start, sector.end
    middle = (start + end) / 2
    whole = end - start >= 359.9
    spots: list[LabelSpot] = []
    radii: tuple[float, ...] = (0.5, 0.6, 0.68) if sector.inner > 0 else (0.58, 0.66, 0.72)
    if whole and sector.inner == 0:
        radii = (0.0,)
    for share in radii:
        radius = sector.inner + (sector.outer - sector.inner) * share
        x, y = at(sector.center, radius, middle)
        spots.append(
            LabelSpot(
                x,
                y,
                "middle",
                "middle",
                colour,
                fits=lambda text: holds(sector, text),
                width=1.9 * sector.outer,
                height=2 * sector.outer,
            )
        )
    if turn:
        radius = (sector.inner + sector.outer) / 2
        x, y = at(sector.center, radius, middle)
        thick = sector.outer - sector.inner
        chord = 2 * radius * math.sin(math.radians(min(180.0, end - start)) / 2)
        spots.append(
            LabelSpot(
                x,
                y,
                "middle",
                "middle",
                colour,
                width=1.1 * chord,
                height=0.8 * thick,
                angle=upright(middle),
                fits=lambda text: holds(sector, text),
            )
        )
        spots.append(
            LabelSpot(
                x,
                y,
                "middle",
                "middle",
                colour,
                width=0.94 * thick,
                height=0.9 * chord,
                angle=upright(middle + 90),
                fits=lambda text: holds(sector, text),
            )
        )
    return spots


def holds(sector: Sector, text: PlacedText, back: Callable[[float, float], tuple[float, float]] | None = None) -> bool:
    """Whether a text, upright or turned, lies inside a sector; `back` leads from where it is seen to the sector."""
    return all(_inside(box, sector, back) for box in pieces(text))


def _inside(
    box: Rect, sector: Sector, back: Callable[[float, float], tuple[float, float]] | None, air: float = 2.0
) -> bool:
    """Whether a box lies inside a sector, `air` points from its sides."""
    cx, cy = sector.center
    xs, ys = (box.x, box.center[0], box.right), (box.y, box.center[1], box.bottom)
    half = (sector.end - sector.start) / 2
    middle = (sector.start + sector.end) / 2
    for x in xs:
        for y in ys:
            px, py = back(x, y) if back is not None else (x, y)
            dx, dy = px - cx, py - cy
            radius = math.hypot(dx, dy)
            if radius > sector.outer - air or radius < sector.inner + (air if sector.inner else 0):
                return False
            if half >= 180:
                continue
            turn = math.degrees(math.atan2(dx, -dy))
            off = abs(math.remainder(turn - middle, 360.0))
            if off > half or (half < 90 and radius * math.sin(math.radians(half - off)) < air):
                return False
    return True


class WedgesKind(Kind[Wedges]):
    spec = Wedges
    mark = MarkKind("wedge", handles=frozenset({"out"}), has_slices=True, has_body=True, bars_texts=True)
    is_compared = is_hatched = only_shares = True
    places = ((Disc, place),)
    fields = (
        Field(
            "Shape",
            "Explode",
            "explode",
            "number",
            unit="%",
            times=100,
            does="How far a slice is moved outward, in % of the radius.",
        ),
        Field(
            "Shape",
            "Gap",
            "gap",
            "number",
            unit="pt",
            does="Free space between neighbours, in points or in % of a cell.",
        ),
        Field("Shape", "Corner", "corner", "number", unit="pt", does="How far corners are rounded, in points."),
    )
    row_fields = (
        Field(
            "Shape",
            "Explode",
            "explode",
            "number",
            unit="%",
            times=100,
            optional=True,
            does="How far a slice is moved outward, in % of the radius.",
        ),
    )

    def margins(self, layer: Wedges, context: Context, on: Disc) -> tuple[float, float]:
        if layer.label is None or layer.helper or layer.hidden or layer.label.position not in OUTSIDE:
            return 0.0, 0.0
        texts = [context.wording.text(layer, row) for row in range(context.data.rows)]
        size = context.sizes.text
        most = max((width(line, context.style.face, size) for text in texts for line in text.split("\n")), default=0.0)
        if not most:
            return 0.0, 0.0
        return min(most, 11 * size) + 1.4 * size, 1.1 * size * (1 + max(text.count("\n") for text in texts))

    def explosion(self, layer: Wedges) -> float:
        return max(layer.explode, *(row.explode or 0.0 for row in layer.rows.values()), 0.0)

    def rings(self, layer: Wedges, rows: int) -> int:
        return layer.ring + 1

    def entries(self, layer: Wedges, context: Context) -> list[LegendEntry]:
        if not layer.parts:
            return row_entries(layer, context)
        titles = context.data.titles
        return [
            LegendEntry(titles.get(column, ""), None, layer.tone + i, layer) for i, column in enumerate(layer.parts)
        ]


KIND = WedgesKind()
