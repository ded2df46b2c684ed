"""Bars: a bar chart's series, their hidden helpers among them; a narrower stack stands on the second axes."""

import msgspec

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.frame import Cartesian
from kavlet.core.messages import say
from kavlet.core.office_model.chart_model import AxisPair, Grouping, Labels, Series
from kavlet.core.office_model.converter import SHAPES, ChartConverter, DraftGroup
from kavlet.core.office_model.labels import labels

GROUPINGS: dict[str, Grouping] = {"none": "clustered", "stacked": "stacked", "share": "share"}


def tell(layer: Bars, converter: ChartConverter) -> None:
    """Add a layer of bars."""
    frame = converter.chart.frame
    assert isinstance(frame, Cartesian)
    draft = _group(layer, frame, converter)
    if layer.track and not layer.helper:
        _track(layer, draft, converter)
    fill, points = converter.dressed(layer)
    draft.series.append(
        Series(
            name=converter.name(layer),
            names=converter.names(),
            values=converter.cells(layer.values),
            fill=fill,
            line=None if layer.helper else converter.edge(layer, None),
            points=points,
            labels=labels(layer, converter, layer.values, outside=draft.grouping == "clustered"),
            listed=layer.listed and not layer.helper,
            shape=SHAPES.get(converter.chart.solid.form, "box") if converter.chart.solid is not None else "box",
        )
    )
    _differences(layer, converter)


def _group(layer: Bars, frame: Cartesian, converter: ChartConverter) -> DraftGroup:
    """The bars that this one stands among. The narrower part of a stack goes to the second axes, over
    copies that carry it."""
    grouping = GROUPINGS[layer.stack]
    first: AxisPair = "second" if layer.second else "first"
    gap = max(0.0, min(500.0, (100.0 + frame.gap_width) / max(0.05, layer.thickness) - 100.0))
    overlap = 100.0 if grouping != "clustered" else frame.overlap
    same = next((one for one in converter.drafts if one.kind == "bars" and one.axes == first), None)
    if same is None or (same.grouping == grouping and abs(same.gap - gap) < 0.5):
        return converter.group("bars", first, grouping, gap, overlap)
    free = first == "first" and frame.second is None
    narrow = next((one for one in converter.drafts if one.kind == "bars" and one.axes == "second"), None)
    if not free or (narrow is not None and (narrow.grouping, narrow.gap) != (grouping, gap)):
        converter.differ(say("“{name}” is as broad as the other bars", name=layer.name))
        return same
    if narrow is None:
        narrow = converter.group("bars", "second", grouping, gap, overlap)
        if grouping != "clustered":
            narrow.series += [_unseen(one) for one in same.series]
    return narrow


def _unseen(series: Series) -> Series:

    return msgspec.structs.replace(series, fill=None, line=None, points=(), labels=Labels(), listed=False, errors=None)


def _track(layer: Bars, draft: DraftGroup, converter: ChartConverter) -> None:
    """The whole scale behind each bar."""
    axis = converter.axis("x" if converter.lying else "y")
    if axis is None or draft.grouping != "clustered" or draft.series:
        converter.differ(say("the pale bars behind “{name}” are missing", name=layer.name))
        return
    draft.overlap = 100.0
    whole = converter.workings.column(f"{layer.name}: whole", [float(axis.maximum)] * converter.rows)
    draft.series.append(
        Series(
            name=converter.workings.one(f"{layer.name}, whole"),
            names=converter.names(),
            values=whole,
            fill=converter.style.named["track"],
            listed=False,
        )
    )


def _differences(layer: Bars, converter: ChartConverter) -> None:
    marks = [converter.marks[key] for key in converter.marks if key[0] == layer.key and converter.marks[key].visible]
    blocks = [mark.block for mark in marks if mark.block is not None]
    if layer.helper or not blocks:
        return
    if any(block.broken for block in blocks):
        converter.differ(say("bars of “{name}” end without a drawn break", name=layer.name))
    if layer.form in ("capsule", "rounded", "cylinder") and not converter.chart.as_solid:
        converter.differ(say("bars of “{name}” have straight corners", name=layer.name))
    elif layer.form == "tapered":
        converter.differ(say("bars of “{name}” do not narrow", name=layer.name))
    if layer.cuts:
        converter.differ(say("“{name}” is not cut into cells", name=layer.name))
    if layer.bulb:
        converter.differ(say("“{name}” has no bulb", name=layer.name))
