"""Reference: a line over the whole plot, or across the rim of a dial."""

from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.reference import Reference
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import CellRange, Labels, PointLabel, Series, Stroke
from kavlet.core.office_model.converter import ChartConverter, lettered
from kavlet.core.office_model.labels import labels
from kavlet.core.office_model.layers.needle import pointing

REACH = (0.95, 1.0)  # how far out a mark on a dial goes when the ring is thin


def tell(layer: Reference, converter: ChartConverter) -> None:
    """Add a line."""
    frame = converter.chart.frame
    if layer.helper:
        return
    colour = converter.style.solid(layer.fill, layer.tone) if layer.fill is not None else converter.style.ink
    line = Stroke(colour, layer.width, "dash" if layer.dash else "solid")
    if isinstance(frame, Cartesian) and frame.across.kind == "category":
        level = _level(layer, converter)
        x, y = converter.over_rows(
            converter.spots("along the plot", [0.0, max(0.5, converter.rows - 0.5), float(converter.rows)]), level
        )
        _put(layer, x, y, line, converter)
    elif isinstance(frame, Cartesian):
        across = converter.axis("y" if converter.lying else "x")
        low, high = (across.minimum, across.maximum) if across is not None else (0.0, 1.0)
        ends = [low, high - 0.08 * (high - low), high]
        level, places = _level(layer, converter), converter.workings.column("ends across", list(ends))
        series = Series(
            name=converter.workings.one(layer.name),
            x=places,
            values=level,
            line=line,
            labels=_labels(layer, converter),
            listed=layer.listed,
        )
        if any(draft.kind == "bubbles" for draft in converter.drafts):
            converter.differ(say("the line “{name}” is missing", name=layer.name))
            return
        converter.group("scatter").series.append(series)
    elif isinstance(frame, Polar) and frame.scale is not None:
        scale = converter.axis("angle")
        if scale is None or scale.maximum <= scale.minimum:
            return
        at = layer.at if layer.at is not None else 0.0
        turn = (
            f"({frame.start:g}+({at:.12g}-{scale.minimum:.12g})/{scale.maximum - scale.minimum:.12g}*{frame.sweep:g})"
        )
        inner = max(0.0, frame.hole)
        x = converter.workings.formulas(f"{layer.name}: x", [f"{r:g}*SIN(RADIANS({turn}))" for r in (inner, 1.0, 1.0)])
        y = converter.workings.formulas(f"{layer.name}: y", [f"{r:g}*COS(RADIANS({turn}))" for r in (inner, 1.0, 1.0)])
        _put(layer, x, y, line, converter, pointing(layer.name, turn, colour, converter))


def _level(layer: Reference, converter: ChartConverter) -> CellRange:
    """The height of both ends and of the label's place: as set, or what the column's first cell says."""
    if layer.at is not None:
        return converter.workings.column(f"{layer.name}: level", [float(layer.at)] * 3)
    if converter.source.table.place(layer.values) >= 0:
        first = converter.at(layer.values, 0)
        return converter.workings.formulas(f"{layer.name}: level", 3 * [first])
    return converter.workings.column(f"{layer.name}: level", 3 * [0.0])


def _put(
    layer: Reference, x: CellRange, y: CellRange, line: Stroke, converter: ChartConverter, ring: Series | None = None
) -> None:
    converter.overlay().series.append(
        Series(
            name=converter.workings.one(layer.name),
            x=x,
            values=y,
            line=line,
            labels=_labels(layer, converter),
            listed=layer.listed,
            as_ring=ring,
        )
    )


def _labels(layer: Reference, converter: ChartConverter) -> Labels:
    """The line's own text near its far end."""
    text = next((text for (key, _), text in converter.texts.items() if key == layer.key), None)
    if text is None or layer.label is None:
        return labels(layer, converter)
    return Labels(
        (PointLabel(1, converter.workings.column(f"{layer.name}: label", [text.text]), lettered(text), "above"),)
    )
