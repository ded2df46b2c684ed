"""Charts of layers that no recipe puts together so, on figures of all kinds: below zero, missing, beyond the ends."""

from collections.abc import Callable
from functools import partial

from kavlet.core.charts.area import Area
from kavlet.core.charts.band import Band
from kavlet.core.charts.bars import Bars
from kavlet.core.charts.bubbles import Bubbles
from kavlet.core.charts.cells import Cells
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.flanks import Flanks
from kavlet.core.charts.frame import Cartesian, Frame, Grid, Polar
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Layer
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.line import Line
from kavlet.core.charts.needle import Needle
from kavlet.core.charts.points import Points
from kavlet.core.charts.ranges import Ranges
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.rings import Rings
from kavlet.core.charts.scale import Scale
from kavlet.core.charts.solid import Solid
from kavlet.core.charts.texts import Note, Text
from kavlet.core.charts.wedges import Wedges
from kavlet.core.pipeline.stages import Picture
from kavlet.core.values.geometry import Size
from tests.making import free, table

ROWS = table(
    ["pond", "seen", "last year", "low", "high", "at", "size", "share"],
    ["Reed", "Mill", "North", "Otter", "Heron"],
    [24, -8, 41, "", 63],
    [12, 15, 30, 22, 9],
    [18, -14, 33, 4, 50],
    [30, -2, 44, 11, 71],
    [1.5, 2.25, 4, 7.5, 11],
    [5, 45, 20, -12, 80],
    [0.31, 0.07, 0.44, 0.02, 0.16],
)
LABEL = Label(template="{value}")
AXES = {"along": Scale(minimum=-20.0, maximum=60.0)}


def _made(frame: Frame, *layers: Layer, size: Size | None = None, **chart: object) -> Callable[[], Picture]:
    held = Chart(frame, layers, **{"names": "c1", **chart})  # type: ignore[arg-type]
    return partial(free, held, ROWS, size or Size(460, 320))


def _both_ways(name: str, *layers: Layer, **frame: object) -> dict[str, Callable[[], Picture]]:
    """A chart standing and lying."""
    return {
        f"{name}, {'lying' if lying else 'standing'}": _made(Cartesian(lying=lying, **{**AXES, **frame}), *layers)  # type: ignore[arg-type]
        for lying in (False, True)
    }


PLANES = {
    **_both_ways("bars beyond both ends", Bars("b", "seen", "c2", label=LABEL, track=True), Bars("l", "last", "c3")),
    **_both_ways(
        "joined bars",
        Bars("b", "seen", "c3", thickness=0.8), Flanks("f", "between", of="b"),
        Flanks("g", "level", "c4", form="line", edge_width=2.0),
    ),
    **_both_ways(
        "areas on each other",
        Area("a", "seen", "c3", stack="stacked", course="smooth", opacity=0.6, width=2.0, label=LABEL),
        Area("b", "last", "c5", stack="stacked", course="stepped", tone=1),
        Area("c", "left out", "c2", missing="bridge", tone=2),
    ),
    **_both_ways(
        "a band, lines and a target",
        Band("z", "usual", low=10.0, high=35.0, label=Label()), Band("y", "beyond", low=50.0, high=90.0, label=Label()),
        Line("l", "seen", "c2", course="smooth", spot="diamond", missing="bridge", label=LABEL),
        Line("m", "last", "c3", course="stepped", dash=(4.0, 2.0), spot="square", second=True, tone=1),
        Reference("r", "goal", at=48.0, label=Label()), second=Scale(minimum=0.0, maximum=40.0, title="last year"),
    ),
    **_both_ways(
        "ranges",
        Ranges("w", "spread", low="c4", high="c5", on="p", label=LABEL), Points("p", "seen", "c2", spot="diamond"),
        Ranges("d", "distance", "c3", low="c8", high="c8", by="distance", form="bar", width=6.0, spot="disc", tone=1),
    ),
    **_both_ways(
        "symbols at their places",
        Bars("b", "last", "c3", form="capsule", label=Label(template="{value}", position="inside end")),
        Points("p", "walker", "c3", symbol="walker", size=16.0, ride=True, on="b"),
        Points("s", "side", "c2", beside=True, heading="counted in the reserve", label=LABEL),
    ),
    **_both_ways("cells in lines", Cells("c", "seen", "c3", cell="disc", wrap=4, gap=0.3, label=LABEL)),
    **_both_ways("cut symbols", Cells("c", "shares", "c6", symbol="tree", cut="area", wrap=6)),
    **_both_ways(
        "tapered bars in shades",
        Bars("b", "seen", "c3", form="tapered", shades="in order", label=Label(position="middle")),
    ),
    "bubbles at numbers": _made(
        Cartesian(across=Scale(zero=False), along=Scale()),
        Bubbles("b", "seen", "c3", x="c6", sizes="c7", hollow=True, label=Label(template="{name}")),
    ),
    "bubbles at numbers, lying": _made(
        Cartesian(lying=True, across=Scale(zero=False, grid=True), along=Scale(marks="outside")),
        Bubbles("b", "seen", "c3", x="c6", sizes="c7", label=Label(template="{name}")), ink=3,
    ),
    "a second scale that nothing uses": _made(
        Cartesian(second=Scale(title="unused")), Bars("b", "seen", "c3", second=False),
        Line("h", "hidden", "c5", second=True, hidden=True), ink=3,
    ),
    "bubbles by diameter": _made(
        Cartesian(across=Scale(minimum=2.0, maximum=10.0), along=Scale(zero=False)),
        Bubbles("b", "seen", "c3", x="c6", sizes="c7", by="diameter", largest=0.35, opacity=0.5, label=LABEL),
    ),
    "lines and points at numbers": _made(
        Cartesian(across=Scale(zero=False, grid=True, title="acres"), along=Scale(kind="log", minor=2)),
        Line("l", "last", "c3", x="c6", label=LABEL), Points("p", "high", "c8", x="c6", spot="cross"),
        legend=Legend(side="bottom"),
    ),
    "many texts": _made(
        Cartesian(), Bars("b", "seen", "c3"),
        title=Text("What the evening watch has seen at five ponds of the reserve", size=18.0),
        subtitle=Text("in two summers", align="end"), source=Text("Source: own counts", align="middle"),
        notes=(
            Note("a", "a note on top", x=0.5, y=0.02, clear=True), Note("b", "in the middle", middle=True, bold=True),
            Note("c", "at the side", x=0.9, y=0.5, align="end", italic=True),
        ),
    ),
    "solid joined bars": _made(
        Cartesian(**AXES), Bars("b", "seen", "c3", label=LABEL), Flanks("f", "between", of="b"),  # type: ignore[arg-type]
        Reference("r", "goal", at=25.0, label=Label()), Line("l", "last", "c2", label=LABEL),
        solid=Solid(turn=-30.0, tilt=-15.0, form="round", shadow=True, walls=True, perspective=0.3, edge=1.5),
    ),
    "solid bars one behind the other": _made(
        Cartesian(overlap=100.0), Bars("b", "seen", "c3", label=Label(template="{value}", position="inside end")),
        Bars("c", "high", "c5", tone=1), legend=Legend(side="right"),
        solid=Solid(turn=40.0, tilt=35.0, form="drawn", shadow=True, walls=True, depth=0.4),
    ),
    "solid pyramids, lying": _made(
        Cartesian(lying=True), Bars("b", "seen", "c3", stack="stacked", label=LABEL),
        Bars("c", "last", "c7", stack="stacked", tone=1),
        solid=Solid(turn=25.0, tilt=20.0, form="pyramid", shadow=True, walls=True),
    ),
}  # fmt: skip
DISCS = {
    "a cut pie": _made(
        Polar(start=-90.0, sweep=180.0, shown=180.0, hole=0.3),
        Wedges("w", "share", "c8", explode=0.1, gap=3.0, corner=4.0, label=Label(template="{name} {share}")),
    ),
    "a pie without room inside": _made(
        Polar(start=30.0), Wedges("w", "last", "c3", gap=0.0, label=Label(template="{name}: {value}", leader="elbow")),
        size=Size(300, 200),
    ),
    "rings": _made(
        Polar(hole=0.2, sweep=270.0, ring_gap=4.0, scale=Scale(maximum=50.0)), Rings("r", "last", "c3", label=LABEL),
        size=Size(360, 360),
    ),
    "flat rings": _made(Polar(hole=0.4, start=180.0, shown=200.0), Rings("r", "last", "c3", round=False, track=False)),
    "two needles": _made(
        Polar(start=-120.0, sweep=240.0, shown=240.0, hole=0.7, scale=Scale(minimum=0.0, maximum=60.0, visible=True)),
        Wedges("w", "last", "c3"), Needle("n", "last", "c3", row=1, figures="c3"),
        Needle("m", "past", "c3", row=4, figures="c3", length=0.6, past=1, label=LABEL),
        Reference("r", "goal", at=45.0, label=Label()),
    ),
    "solid pie": _made(
        Polar(start=20.0, hole=0.35), Wedges("w", "last", "c3", explode=0.12, label=Label(template="{share}")),
        solid=Solid(turn=0.0, tilt=50.0, edge=3.0, shadow=True, material="glossy"),
    ),
    "solid half rings": _made(
        Polar(hole=0.3, start=-90.0, sweep=180.0, shown=180.0), Rings("r", "last", "c3", label=LABEL),
        solid=Solid(turn=-25.0, tilt=40.0, shadow=True),
    ),
}  # fmt: skip
FIELDS = {
    f"a field from {corner}": _made(
        Grid(rows=5, columns=6, by=by, corner=corner),  # type: ignore[arg-type]
        Cells("c", "at", "c6", vary=True, cell="disc" if by == "rows" else "square"),
    )
    for corner, by in (("top left", "rows"), ("bottom right", "columns"), ("top right", "rows"))
}
FREE = {**PLANES, **DISCS, **FIELDS}
