"""Charts of all recipes, layers and looks, told in words line by line: what is drawn, whose it is, where, in which ink.

`tests/pictures` holds them as they are meant to be. `tools/pictures.py` writes them anew after a change that was wanted
and looked at; version control then shows what has moved.
"""

from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from functools import lru_cache, partial
from importlib.resources import files
from itertools import groupby
from pathlib import Path
from typing import Any

import msgspec

from kavlet.core.charts.overrides import leads
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables import table_advice
from kavlet.core.files import kavlet
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.path import Path as Outline
from kavlet.core.scene.primitives import Group, Image, Primitive, Shape, Stamp, Writing
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.sizes import CHARTS
from tests import typeset_cases
from tests.free_charts import FREE
from tests.making import values_of

FOLDER = Path(__file__).parent / "pictures"
MANY = 4  # pieces of one mark one after the other, from which on they are told together
TITLES = {"frame.along.title": "counted", "frame.across.title": "where", "title.align": "middle", "source.align": "end"}
LOOKS: dict[str, dict[str, Any]] = {
    "ruled": {"ink": 3, "frame.along.minor": 3, "frame.along.marks": "outside", "frame.across.marks": "across",
              "border": "ink", "plot_ground": "track", "plot_border": "quiet", **TITLES},
    "placed": {"plot": (0.22, 0.2, 0.18, 0.22), "legend.side": "inside", "legend.x": 0.3, "legend.y": 0.6,
               "legend.title": "Kinds", "legend.ground": "track", "frame.along.maximum": 300.0,
               "frame.across.angle": 30.0, "frame.start": 20.0, "ground_to": "track"},
    "turned": {"frame.lying": True, "legend.side": "left", "frame.along.reversed": True, "frame.along.kind": "log",
               "frame.along.minor": 2, "frame.gap_width": 20.0, "frame.overlap": 30.0, "frame.hole": 0.55,
               "frame.sweep": 250.0},
    "solid": {"solid.on": True, "solid.turn": 25.0, "solid.tilt": 20.0, "solid.edge": 2.0, "solid.shadow": True},
    "odd": {"frame.overlap": -20.0, "frame.gap_width": 120.0, "frame.flush": True, "frame.across.angle": -40.0,
            "frame.along.marks": "inside", "frame.second.title": "more", "legend.side": "right", "frame.shown": 200.0,
            "frame.ring_gap": 5.0, "frame.corner": "top right", "frame.by": "columns", "plot_ground": "track",
            "frame.across.title": "where", "border": "line", "frame.across.reversed": True},
    "round": {"solid.on": True, "solid.turn": 30.0, "solid.tilt": -20.0, "solid.form": "round", "solid.walls": True,
              "solid.shadow": True, "solid.material": "satin"},
}  # fmt: skip
LAYERS: dict[str, dict[str, Any]] = {
    "ruled": {"label.position": "inside end", "label.every": 2, "label.size": 8.0, "rules": [{"when": "largest",
              "fill": "alarm"}], "smooth": True, "spot": "diamond", "corner": 3.0, "gap": 3.0, "edge": "ink"},
    "placed": {"label.position": "outside end", "label.distance": 6.0, "label.angle": 20.0, "rows.1.dx": 25.0,
               "rows.1.dy": -18.0, "rows.0.explode": 0.2, "label.leader": "arrow", "form": "bevel", "radius": 5.0},
    "odd": {"label.position": "beside", "label.when": "ends", "label.bold": True, "course": "smooth", "width": 3.0,
            "missing": "zero", "form": "capsule", "thickness": 0.7, "track": True, "by": "diameter", "largest": 0.3,
            "hollow": True, "wrap": 3, "cut": "area", "empty": False, "explode": 0.15, "gap": 4.0, "cap": 12.0,
            "colour_rules": "above 200: #b3372f; smallest: tone3", "rows.0.edge": "alarm", "rows.1.label": False,
            "rows.2.explode": 0.3, "rows.0.text": "seen at last", "dash": [6.0, 2.0], "opacity": 0.5},
    "round": {"label.position": "inside end", "cuts": 5, "track": True, "label.leader": "elbow"},
    "turned": {"label.position": "base", "label.width": 40.0, "label.lines": 3, "fill": {"kind": "gradient",
               "colours": ["tone2", "tone3"]}, "opacity": 0.6, "form": "arrow", "spot": "ring"},
}  # fmt: skip


@lru_cache(maxsize=1)
def demo() -> Document:
    """The demo document."""
    return kavlet.loads((files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes(), "mirefen.kavlet")


def _dressed(made: Document, chart: str, looks: dict[str, Any], layers: dict[str, Any]) -> Document:
    """The chart with those of the looks that it can have."""
    spec = picture(made, values_of(made), chart).build.chart
    keys = [layer.key for layer in spec.layers if not layer.helper]
    wanted = {**looks, **{f"layers.{key}.{field}": value for key in keys for field, value in layers.items()}}
    return _taken(made, chart, [(path, value) for path, value in wanted.items() if leads(spec, path)])


def _taken(made: Document, chart: str, looks: list[tuple[str, Any]]) -> Document:
    """The chart with looks: all of them at once where that can be, else of each half those that can be."""
    if not looks:
        return made
    try:
        tried = look_edits.set_looks(made, chart, dict(looks))
        picture(tried, values_of(tried), chart)
    except KavletError:
        half = len(looks) // 2
        return _taken(_taken(made, chart, looks[:half]), chart, looks[half:]) if half else made
    return tried


def _with_odd_figures(made: Document, recipe: str) -> Document:
    """A table with no figure in one row, one below zero and one of nothing, as far as the recipe takes them."""
    for row, figure in ((3, None), (2, -140.0), (5, 0.0)):
        table = made.tables[0]
        places = [(i, row) for i, one in enumerate(table.columns) if isinstance(one.cells[row], float)]
        tried = edits.set_cells(made, table.id, dict.fromkeys(places, figure))
        with suppress(KavletError):
            drawn, chart = edits.add_chart(tried, table.id, recipe)
            drawn = table_advice.with_proposals(drawn, chart)
            picture(drawn, values_of(drawn), chart)
            made = tried
    return made


def of_recipe(name: str, look: str) -> Picture:
    """A chart by a recipe, in one of the looks."""
    recipe, rows = RECIPES[name], {"ruled": 6, "placed": 4, "turned": 9, "odd": 7}.get(look, 5)
    case = typeset_cases.Case(name, rows, "alike" if look == "turned" else "short", "own", look == "placed")
    made, table = edits.add_table(Document(locale="de_DE" if look == "turned" else "en"), "Counts",
                                  typeset_cases.table(case, recipe))  # fmt: skip
    if look == "odd":
        made = _with_odd_figures(made, name)
    made, chart = edits.add_chart(made, table, name)
    made = table_advice.with_proposals(made, chart)
    dress = msgspec.structs.replace(made.chart(chart).dress, dark=case.dark)
    made = edits.change_chart(made, chart, dress=dress, subtitle="by the evening watch", source="Source: own counts")
    looks = LOOKS.get(look, {})
    if look == "odd":  # what is largest goes on beyond the scale
        axes = picture(made, values_of(made), chart).figure.axes
        looks = {**looks, "frame.along.maximum": 0.7 * max((axis.maximum for axis in axes), default=1.0)}
    made = _dressed(made, chart, looks, LAYERS.get(look, {}))
    size = {
        "ruled": CHARTS["S"], "placed": CHARTS["page width"], "turned": Size(380, 420), "odd": Size(520, 330),
    }.get(look)  # fmt: skip
    return picture(made, values_of(made), chart, size)


def cases() -> Iterator[tuple[str, str, Callable[[], Picture]]]:
    """File, name and maker of every picture."""
    made = demo()
    for entry in made.charts:
        yield "demo", entry.name, partial(picture, made, values_of(made), entry.id)
    for name, make in FREE.items():
        yield "layers", name, make
    for name in RECIPES:
        for look in ("ruled", "placed", "turned", "odd"):
            yield name, look, partial(of_recipe, name, look)
        if of_recipe(name, "small").build.chart.has_bodies:
            for look in ("solid", "round"):
                yield name, look, partial(of_recipe, name, look)


def told(made: Picture) -> list[str]:
    """What a picture draws, back to front, as a table: a row for each mark, for rules of one ink and for texts of one
    type; then its axes and what found no room."""
    figure = made.figure
    lines = [_row(list(run)) for _, run in groupby(_flat(made.scene.items), _alike)]
    lines += [f"axis {one.name} {_n(one.minimum)} {_n(one.maximum)} {[float(_n(tick)) for tick in one.ticks]}"
              for one in figure.axes]  # fmt: skip
    lines.append(f"ground {_ink(made.scene.ground)} plot {_box(figure.plot)}")
    lines.append(f"left out {figure.dropped} labels {figure.unnamed} names {figure.unlisted} entries")
    return lines


Told = tuple[Primitive, str]  # a primitive, and the groups it stands in


def _flat(items: Sequence[Primitive], within: str = "") -> Iterator[Told]:
    for item in items:
        if isinstance(item, Group):
            yield from _flat(item.items, f"{within} in {_map(item.place)}{_cut(item.clip)}")
        else:
            yield item, within


def _alike(told_: Told) -> tuple[object, ...]:
    """What primitives that follow each other must share to stand in one row."""
    item, within = told_
    if isinstance(item, Writing):
        return "text", str(item.face), _n(item.size), _ink(item.colour), _n(item.angle), within
    if item.mark is not None and item.mark.layer:
        return item.mark.layer, item.mark.row, within
    return type(item), _look(item), within


def _row(run: Sequence[Told]) -> str:
    """The row of primitives that belong together."""
    (first, within), items = run[0], [item for item, _ in run]
    if isinstance(first, Writing):
        turn = f" turned {_n(first.angle)}" if first.angle else ""
        places = " · ".join(f"“{item.text}” {_n(item.x)} {_n(item.y)}" for item in items if isinstance(item, Writing))
        return f"{first.face} {_n(first.size)} {_ink(first.colour)}{turn}{within}: {places}"
    if first.mark is None or not first.mark.layer:
        return f"{_look(first)}{within}: " + " · ".join(_place(item) for item in items)
    mark = f"{first.mark.layer}.{first.mark.row}{within}"
    if len(items) < MANY:
        return f"{mark}: " + " · ".join(f"{_place(item)} {_look(item)}" for item in items)
    boxes = Rect.around_all([item.path.bounds for item in items if isinstance(item, Shape)] or [Rect(0, 0, 0, 0)])
    at = [value for item in items if isinstance(item, Shape) for value in item.path.coordinates]
    inks = f"{_look(items[0])} | {_look(items[len(items) // 2])} | {_look(items[-1])}"
    return f"{mark}: {len(items)} pieces {_box(boxes)} about {_middle(at) if at else _map_of(items)} {inks}"


def _map_of(items: Sequence[Primitive]) -> str:
    """The first and the last place of stamps."""
    return f"{_place(items[0])} to {_place(items[-1])}"


def _middle(at: Sequence[float]) -> str:
    """The middle of points that are given as x and y in turn."""
    return f"{_n(sum(at[0::2]) / (len(at) / 2))} {_n(sum(at[1::2]) / (len(at) / 2))}"


def _look(item: Primitive) -> str:
    """How a primitive is drawn, wherever it stands."""
    match item:
        case Shape():
            edge = f" edge {_ink(item.edge)} {_n(item.edge_width)}" if item.edge is not None else ""
            dash = f" dash {[float(_n(one)) for one in item.dash]}" if item.dash else ""
            ends = f" {item.cap} ends" if item.edge is not None and item.cap != "round" else ""
            corners = f" {item.join} corners" if item.edge is not None and item.join != "round" else ""
            return f"{_verbs(item.path.verbs)} {_ink(item.fill)}{edge}{dash}{ends}{corners}"
        case Stamp():
            return f"stamp {item.name} {_ink(item.fill)}"
    return "image"


def _place(item: Primitive) -> str:
    """Where a primitive stands."""
    match item:
        case Shape():
            place = f" at {_map(item.place)}" if item.place is not None else ""
            return f"{_outline(item)}{place}{_cut(item.clip)}"
        case Stamp() | Image():
            return f"{_map(item.place)}{_cut(item.clip)}"
    return ""


def _outline(item: Shape) -> str:
    """A short outline by its points, a long one by its box and the middle of its points."""
    at = item.path.coordinates
    if len(at) <= 8:
        return " ".join(_n(one) for one in at)
    return f"{_box(item.path.bounds)} about {_middle(at)}"


def _map(place: Affine) -> str:
    return " ".join(
        f"{one:.3g}" if number < 4 else _n(one) for number, one in enumerate(msgspec.structs.astuple(place))
    )


def _cut(clip: Outline | None) -> str:
    return f" cut {_box(clip.bounds)}" if clip is not None else ""


def _verbs(verbs: str) -> str:
    return verbs if len(verbs) <= 6 else f"{verbs[:2]}…{len(verbs)}"


def _box(box: Rect) -> str:
    return f"[{_n(box.x)} {_n(box.y)} {_n(box.width)} {_n(box.height)}]"


def _n(number: float) -> str:
    return "0.0" if abs(number) < 0.05 else f"{number:.1f}"


def _ink(paint: object) -> str:
    match paint:
        case Colour():
            return paint.hex
        case LinearGradient() | RadialGradient():
            ends = "–".join(f"{colour.hex}@{_n(100 * offset)}" for offset, colour in (paint.stops[0], paint.stops[-1]))
            if isinstance(paint, RadialGradient):
                return f"{ends} around {_n(paint.x)} {_n(paint.y)} {_n(paint.radius)}"
            return f"{ends} from {_n(paint.x1)} {_n(paint.y1)} to {_n(paint.x2)} {_n(paint.y2)}"
        case Hatch():
            return f"{paint.kind} {paint.colour.hex} {_n(paint.angle)} {_n(paint.width)}"
    return "none"


def held() -> dict[tuple[str, str], list[str]]:
    """The pictures as they are meant to be, by file and name."""
    found: dict[tuple[str, str], list[str]] = {}
    for file in sorted(FOLDER.glob("*.txt")):
        for block in file.read_text(encoding="utf-8").split("\n\n"):
            head, *lines = block.strip("\n").split("\n")
            found[file.stem, head.removeprefix("# ")] = lines
    return found
