"""Edits that make a chart solid or flat, and turn it."""

from typing import Literal

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian, Polar
from kavlet.core.charts.solid import MAX_ANGLE
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

ViewSide = Literal["front", "above", "corner"]
Angles = tuple[float, float]  # degrees of turn and tilt


def made_solid(document: Document, chart_id: str, spec: Chart) -> Document:
    """The chart as a solid, as it was last looked at, else from a corner. KavletError when it has no bodies."""
    check(spec)
    looks: dict[str, object] = {"solid.on": True}
    held = spec.solid
    if held is None or (held.turn == 0 and held.tilt == 0 and held.perspective == 0):
        looks |= _angles(*angles(spec, "corner"))
    return look_edits.set_looks(document, chart_id, looks)


def made_flat(document: Document, chart_id: str) -> Document:
    """The chart flat again; what was set for the solid stays for the way back."""
    return look_edits.set_looks(document, chart_id, {"solid.on": False})


def seen_from(document: Document, chart_id: str, spec: Chart, side: ViewSide) -> Document:
    """The chart as a solid, seen from a side."""
    check(spec)
    return look_edits.set_looks(document, chart_id, {"solid.on": True, **_angles(*angles(spec, side))})


def turned(document: Document, chart_id: str, turn: float, tilt: float) -> Document:
    """The chart as a solid, turned and tilted by so many degrees, as far as it can be."""
    return look_edits.set_looks(document, chart_id, {"solid.on": True, **_angles(turn, tilt)})


def check(spec: Chart) -> None:
    """Raises KavletError when a chart has nothing that can be solid."""
    if not spec.has_bodies:
        raise KavletError(
            say("This chart has no bars, slices or rings, so there is nothing to make solid."),
            remedy=say("Choose a recipe that has some, such as columns, a pie or a funnel."),
        )


def angles(spec: Chart, side: ViewSide) -> Angles:
    """Turn and tilt that show a chart well from a side: discs lie down, standing bars are seen from above."""
    if side == "front":
        return 0.0, 0.0
    if isinstance(spec.frame, Polar):
        dial = any(kind_of(layer).hub for layer in spec.layers)
        if side == "above":
            return 0.0, -32.0 if dial else -55.0
        return -14.0, -30.0 if dial else -42.0
    if isinstance(spec.frame, Cartesian) and spec.frame.lying:
        return (0.0, 24.0) if side == "above" else (-12.0, 12.0)
    return (0.0, 30.0) if side == "above" else (-20.0, 14.0)


def _angles(turn: float, tilt: float) -> dict[str, object]:
    return {
        "solid.turn": round(min(MAX_ANGLE, max(-MAX_ANGLE, turn)), 1),
        "solid.tilt": round(min(MAX_ANGLE, max(-MAX_ANGLE, tilt)), 1),
    }
