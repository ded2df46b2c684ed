"""Solid charts: flat from the front, the same chart from anywhere, honest about what the view does."""

import io
import itertools
import math
from importlib.resources import files
from typing import Any

import msgspec
import numpy as np
import pytest
from PIL import Image as Pillow

from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits, solid_edits
from kavlet.core.files import kavlet, record, svg
from kavlet.core.files import pictures as pictures_file
from kavlet.core.layout.solid.visible_areas import seen
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.primitives import Image, Shape, Stamp, Writing
from kavlet.core.solid.cover import polygons
from kavlet.core.values.errors import KavletError
from tests.making import document, draw, findings, make, table, values_of

DEMO = kavlet.loads((files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes(), "mirefen.kavlet")
CHARTS = {f"{chart.recipe}, {chart.name}": chart.id for chart in DEMO.charts}
SOLID = [name for name, one in CHARTS.items() if picture(DEMO, values_of(DEMO), one).build.chart.has_bodies]
VIEWS = [
    (-20.0, 14.0, 0.0),
    (35.0, 25.0, 0.6),
    (-60.0, -40.0, 1.0),
    (0.0, -50.0, 0.3),
    (90.0, 0.0, 0.0),
    (5.0, 90.0, 0.5),
]
FORMS = ("drawn", "round", "cone", "pyramid")
ROWS = table(["season", "walks"], ["Spring", "Summer", "Autumn", "Winter"], [24, 41, 28, 9])


def seen_at(turn: float, tilt: float, perspective: float = 0.0, **more: Any) -> dict[str, Any]:
    look = {"solid.turn": turn, "solid.tilt": tilt, "solid.perspective": perspective}
    return look | {f"solid.{name}": value for name, value in more.items()}


def shown(name: str, look: dict[str, Any], base: Document = DEMO) -> Picture:
    """A chart of the demo with more looks than it has."""
    held = look_edits.set_looks(base, CHARTS[name], look)
    return picture(held, values_of(held), CHARTS[name])


# Flat and solid


@pytest.mark.parametrize("name", CHARTS)
@pytest.mark.parametrize("form", ["drawn", "round", "cone"])
def test_from_the_front_a_solid_is_the_flat_chart_primitive_by_primitive(name: str, form: str) -> None:
    flat = shown(name, {"solid.on": False})
    solid = shown(name, seen_at(0.0, 0.0, depth=1.4, form=form, material="glossy", edge=2.0, walls=True))
    assert len(solid.scene.items) == len(flat.scene.items)
    for ours, theirs in zip(solid.scene.items, flat.scene.items, strict=True):
        assert ours == theirs


@pytest.mark.parametrize("name", SOLID)
def test_a_hair_s_breadth_from_the_front_nothing_jumps(name: str) -> None:
    """The front of each body drawn as in the flat chart lies on the flat mark, in its colour; labels stay."""
    flat, solid = shown(name, {"solid.on": False}), shown(name, seen_at(0.001, 0.001, form="drawn", edge=0.0))
    for ours, theirs in zip(solid.figure.marks, flat.figure.marks, strict=True):
        b, c = ours.bounds, theirs.bounds
        if theirs.visible and theirs.kind.name in ("wedge", "ring"):
            assert (b.x, b.y, b.right, b.bottom) == pytest.approx((c.x, c.y, c.right, c.bottom), abs=0.1)
    ours_, theirs_ = ([(t.text, t.bounds) for t in p.figure.texts if t.kind != "label"] for p in (solid, flat))
    for (text, box), (other, place) in zip(sorted(ours_, key=str), sorted(theirs_, key=str), strict=True):
        assert text == other
        assert (box.x, box.y) == pytest.approx((place.x, place.y), abs=0.1)


def test_a_hair_s_breadth_from_the_front_bars_lie_on_the_flat_ones() -> None:
    flat, solid = make("columns", ROWS), draw(document("columns", ROWS), look=seen_at(0.001, 0.001))
    for ours, theirs in zip(solid.figure.marks, flat.figure.marks, strict=True):
        b, c = ours.bounds, theirs.bounds
        assert (b.x, b.y, b.right, b.bottom) == pytest.approx((c.x, c.y, c.right, c.bottom), abs=0.02)
        fronts = [item for item in solid.scene.items if isinstance(item, Shape) and item.mark is not None
                  and item.mark.row == theirs.row and item.fill is not None]  # fmt: skip
        front = fronts[-1].fill
        assert front is not None
        assert [*front.rgb] == pytest.approx([*theirs.fill.rgb], abs=0.01)  # type: ignore[union-attr]


def test_flat_and_back_keeps_colours_pictures_and_labels() -> None:
    looks = {
        "layers.series 1.fill": {"fill": "picture", "name": "tree", "how": "repeated"},
        "layers.series 1.label.position": "inside",
    }
    name = next(name for name in SOLID if name.startswith("columns"))
    chart = CHARTS[name]
    before = look_edits.set_looks(DEMO, chart, looks)
    spec = shown(name, {}, before).build.chart
    once = solid_edits.made_solid(before, chart, spec)
    turned = solid_edits.turned(once, chart, 33.0, 21.0)
    flat = solid_edits.made_flat(turned, chart)
    assert shown(name, {}, flat).scene == shown(name, {}, before).scene
    again = solid_edits.made_solid(flat, chart, shown(name, {}, flat).build.chart)
    held = shown(name, {}, again).build.chart
    assert held.solid is not None
    assert (held.solid.turn, held.solid.tilt) == (33.0, 21.0)
    assert held.layer("series 1").fill == spec.layer("series 1").fill


def test_a_chart_without_bodies_says_so() -> None:
    lines = make("lines", ROWS)
    with pytest.raises(KavletError, match="no bars, slices or rings"):
        solid_edits.made_solid(document("lines", ROWS), "k1", lines.build.chart)
    assert draw(document("lines", ROWS), look=seen_at(30, 20)).scene == lines.scene


@pytest.mark.parametrize("side", ["front", "above", "corner"])
def test_views_by_name(side: Any) -> None:
    held = document("columns", ROWS)
    chart = held.charts[0].id
    spec = draw(held).build.chart
    made = solid_edits.seen_from(held, chart, spec, side)
    solid = picture(made, values_of(made), chart).build.chart.solid
    assert solid is not None
    assert (solid.turn == 0) == (side != "corner")
    assert (solid.tilt == 0) == (side == "front")


def test_it_can_t_be_turned_to_its_back() -> None:
    held = document("columns", ROWS)
    made = solid_edits.turned(held, held.charts[0].id, 400.0, -123.0)
    overrides = made.charts[0].dress.overrides
    assert (overrides["solid.turn"], overrides["solid.tilt"]) == (90.0, -90.0)


def test_it_survives_saving() -> None:
    held = look_edits.set_looks(DEMO, DEMO.charts[0].id, seen_at(-31.5, 12.0, 0.4, form="cone", depth=0.8))
    assert kavlet.loads(kavlet.dumps(held), "a.kavlet").charts[0].dress.overrides == held.charts[0].dress.overrides


# From all sides


@pytest.mark.parametrize(
    ("name", "view", "form"),
    [
        (name, view, FORMS[(i + j + half) % 4])  # every form on two of four views, another two for the next chart
        for i, name in enumerate(SOLID)
        for j, view in enumerate(VIEWS)
        for half in (0, 2)
    ],
)
def test_every_chart_from_every_side(name: str, view: tuple[float, float, float], form: str) -> None:
    """All is finite, on the sheet or near it, named; texts lie over all bodies; the legend stays."""
    flat, made = shown(name, {}), shown(name, seen_at(*view, form=form, edge=1.5, walls=True, material="glossy"))
    width, height = made.scene.size.width, made.scene.size.height
    for item in made.scene.items:
        if isinstance(item, Shape):
            assert all(math.isfinite(part) for part in item.path.coordinates)
            if item.place is None and item.mark is not None and item.path.coordinates:
                box = item.path.bounds
                assert -width / 4 <= box.x <= box.right <= width * 1.25
                assert -height / 4 <= box.y <= box.bottom <= height * 1.25
        if isinstance(item, Shape) and isinstance(item.fill, LinearGradient | RadialGradient):
            assert all(colour.alpha == 1 for _, colour in item.fill.stops)  # what every format can hold
    kinds = [isinstance(item, Writing) for item in made.scene.items]
    own_texts = sum(isinstance(item, Writing) for mark in flat.figure.marks for item in mark.items)
    last = len(kinds) - 1 - kinds[::-1].index(False)
    assert sum(kinds[: last + 1]) <= own_texts  # but for texts that are part of a mark, all are painted last
    bodies = {number for number, _ in made.figure.faces if number >= 0}
    assert bodies
    named = {(item.mark.key, item.mark.row) for item in made.scene.items if isinstance(item, Shape) and item.mark}
    assert {(made.figure.marks[n].key, made.figure.marks[n].row) for n in bodies} <= named
    assert [key.bounds for key in made.figure.keys] == [key.bounds for key in flat.figure.keys]
    assert made.figure.legend == flat.figure.legend
    svg.dumps(made.scene)


@pytest.mark.parametrize("name", SOLID)
def test_labels_do_not_lie_on_each_other_nor_leave_the_sheet(name: str) -> None:
    for view in VIEWS[:4]:
        made = shown(name, seen_at(*view))
        held = [text.bounds for text in made.figure.texts if text.kind == "label" and not text.angle]
        for one, other in itertools.combinations(held, 2):
            assert not one.inset(0.6, 0.6, 0.6, 0.6).overlaps(other.inset(0.6, 0.6, 0.6, 0.6)), (name, view)
        for box in held:
            assert box.x >= -1
            assert box.y >= -1
            assert box.right <= made.scene.size.width + 1
            assert box.bottom <= made.scene.size.height + 1


def inside(x: float, y: float, rings: list[list[tuple[float, float]]]) -> bool:
    odd = False
    for ring in rings:
        for (x1, y1), (x2, y2) in zip(ring, [*ring[1:], ring[0]], strict=True):
            if (y1 > y) != (y2 > y) and x < x1 + (y - y1) / (y2 - y1) * (x2 - x1):
                odd = not odd
    return odd


def owner_at(made: Picture, x: float, y: float) -> int | None:
    """The number of the mark that is seen at a place."""
    found = None
    for number, path in made.figure.faces:
        if any(inside(x, y, [ring]) for ring in polygons(path)):
            found = number
    return found


@pytest.mark.parametrize("view", [(-20.0, 14.0, 0.0), (35.0, 25.0, 0.6), (15.0, -30.0, 0.3)])
def test_a_label_inside_stands_on_the_visible_face_of_its_own_body(view: tuple[float, float, float]) -> None:
    rows = table(["part", "a", "b"], ["P", "Q", "R"], [30, 42, 25], [20, 31, 28])
    look = {**seen_at(*view), "solid.depth": 0.6}
    made = draw(document("columns", rows, stack="stacked", labels="values"), look=look)
    held = [text for text in made.figure.texts if text.kind == "label"]
    assert held
    for text in held:
        number = owner_at(made, *text.bounds.center)
        assert number is not None
        mark = made.figure.marks[number]
        assert (mark.key, mark.row) == (text.key, text.row)


def test_leaders_start_at_the_seen_rim() -> None:
    rows = table(["part", "share"], list("ABCDEFG"), [30, 3, 3, 2, 2, 30, 30])
    look = {**seen_at(-14, -42), "layers.value.label.place": "leader"}
    made = draw(document("pie", rows), look=look)
    led = [text for text in made.figure.texts if text.leader]
    assert led
    for text in led:
        x, y = text.leader[-1]
        own = [
            ring
            for number, path in made.figure.faces
            if made.figure.marks[number].row == text.row
            for ring in polygons(path)
        ]
        near = min(math.dist((x, y), point) for ring in own for point in densified(ring))
        assert near < 3.0 or owner_at(made, x, y) == text.row


def densified(ring: list[tuple[float, float]]) -> list[tuple[float, float]]:
    made = []
    for (x1, y1), (x2, y2) in zip(ring, [*ring[1:], ring[0]], strict=True):
        made += [(x1 + (x2 - x1) * i / 20, y1 + (y2 - y1) * i / 20) for i in range(20)]
    return made


def test_gridlines_run_on_the_walls() -> None:
    flat = make("columns", ROWS, axis=True)
    made = draw(document("columns", ROWS, axis=True), look=seen_at(-25, 15, walls=True))
    lines = [rule for rule in flat.figure.under if rule.kind == "grid"]
    seen_lines = [rule for rule in made.figure.under if rule.kind == "grid"]
    assert len(seen_lines) == 2 * len(lines)  # on the back wall, and on over the side wall to the front
    assert len(made.figure.room) == 3
    for one, other in zip(seen_lines[::2], seen_lines[1::2], strict=True):
        ends = {(round(one.x1, 3), round(one.y1, 3)), (round(one.x2, 3), round(one.y2, 3))}
        assert (round(other.x1, 3), round(other.y1, 3)) in ends


# Fills


FILLS: dict[str, Any] = {
    "hatch": {"fill": "hatch", "colour": "#7a2a5a"},
    "gradient": {"fill": "gradient", "colours": ["#0d7d87", "#e8c060"]},
    "symbols": {"fill": "picture", "name": "tree", "how": "repeated"},
}


@pytest.mark.parametrize("fill", FILLS)
@pytest.mark.parametrize("form", ["drawn", "round"])
@pytest.mark.parametrize("perspective", [0.0, 0.7])
def test_fills_go_on_working(fill: str, form: str, perspective: float) -> None:
    look = {**seen_at(-25, 18, perspective, form=form), "layers.series 1.fill": FILLS[fill]}
    flat = draw(document("columns", ROWS), look={"layers.series 1.fill": FILLS[fill]})
    made = draw(document("columns", ROWS), look=look)

    def own(p: Picture) -> list[Any]:
        return [item for item in p.scene.items if getattr(item, "mark", None) is not None]

    if fill == "hatch":
        assert any(
            isinstance(item, Shape) and isinstance(item.fill, Hatch) and item.place is not None for item in own(made)
        )
    elif fill == "gradient":
        assert any(isinstance(item, Shape) and isinstance(item.fill, LinearGradient) for item in own(made))
    else:
        stamps = sum(isinstance(item, Stamp) for item in own(flat))
        drawn = [item for item in own(made) if isinstance(item, Stamp)]
        if perspective:  # an outline of its own each, since no affine map shows it right
            drawn = [item for item in own(made) if isinstance(item, Shape) and item.clip is not None]
        elif form == "drawn":
            assert len(drawn) == stamps
            assert all(item.place.b or item.place.c for item in drawn)
        assert len(drawn) >= stamps
        if form == "round":  # in strips around the body, each under its own light
            assert len({item.fill for item in drawn}) > 5


@pytest.mark.parametrize("turn", [0.5, -40.0, 70.0])
def test_what_a_round_body_wears_faces_the_reader_in_its_full_width(turn: float) -> None:
    rows = table(["n", "v"], ["A"], [10])
    look = {"layers.series 1.fill": FILLS["symbols"] | {"how": "stretched"}, **seen_at(turn, 10, form="round")}
    made = draw(document("columns", rows), look=look)
    stamp = next(item for item in made.scene.items if isinstance(item, Stamp) and item.mark is not None)
    worn, body = stamp.outline.mapped(stamp.place).bounds, made.figure.marks[0].bounds
    assert (worn.x, worn.right) == pytest.approx((body.x, body.right), abs=0.5)


@pytest.mark.parametrize("form", ["drawn", "round"])
@pytest.mark.parametrize(("turn", "tilt", "perspective"), [(-30, 20, 0.0), (-30, 20, 1.0), (25, -30, 0.5)])
def test_a_raster_picture_lies_on_the_face_it_fills(form: str, turn: float, tilt: float, perspective: float) -> None:
    """The picture is cut to what is seen of its body; at every corner of its pieces it shows what belongs there."""
    buffer = io.BytesIO()
    Pillow.new("RGB", (40, 60), (200, 60, 40)).save(buffer, "PNG")
    held = document("columns", ROWS)
    held = msgspec.structs.replace(held, pictures=(pictures_file.loads(buffer.getvalue(), "grid.png").picture,))
    fill = {"layers.series 1.fill": {"fill": "picture", "name": "grid", "how": "stretched"}}
    flat, made = draw(held, look=fill), draw(held, look={**fill, **seen_at(turn, tilt, perspective, form=form)})
    before = {item.mark.row: item for item in flat.scene.items if isinstance(item, Image) and item.mark}
    seen_ = [item for item in made.scene.items if isinstance(item, Image) and item.mark]
    assert {item.mark.row for item in seen_ if item.mark} == set(before)
    back = np.linalg.inv(np.array(made.figure.fronts[0]).reshape(3, 3))
    for item in seen_:
        assert item.clip is not None
        assert item.mark is not None
        assert made.figure.marks[item.mark.row].bounds.holds(item.clip.bounds, 0.6)
        if form == "round":
            continue
        flat_place = before[item.mark.row].place.inverse
        assert flat_place is not None
        c = item.clip.coordinates
        for x, y in zip(c[::2], c[1::2], strict=True):  # what of the picture is shown there is what belongs there
            u, v, w = back @ (x, y, 1.0)
            assert math.dist(item.place.apply(*flat_place.apply(float(u / w), float(v / w))), (x, y)) < 0.4


def test_a_symbol_on_a_turned_face_is_foreshortened_by_the_cosine() -> None:
    rows = table(["n", "v"], ["A"], [10])
    look = {"layers.series 1.fill": FILLS["symbols"] | {"how": "stretched"}}
    flat = draw(document("columns", rows), look=look)
    made = draw(document("columns", rows), look={**look, **seen_at(60, 0)})

    def size(p: Picture) -> tuple[float, float]:
        stamp = next(item for item in p.scene.items if isinstance(item, Stamp) and item.mark is not None)
        box = stamp.outline.mapped(stamp.place).bounds
        return box.width, box.height

    (w0, h0), (w1, h1) = size(flat), size(made)
    assert (w1 / h1) / (w0 / h0) == pytest.approx(math.cos(math.radians(60)), rel=1e-6)


# Light


def test_no_face_is_dead_black_nor_bleached() -> None:
    for material, view in itertools.product(["matte", "satin", "glossy"], VIEWS[:4]):
        made = draw(document("columns", ROWS), look=seen_at(*view, material=material, ambient=0.0, light_turn=170.0))
        colour = made.figure.marks[0].fill
        for item in made.scene.items:
            if isinstance(item, Shape) and item.mark is not None and item.fill is not None:
                assert max(item.fill.rgb) > 0.2 * max(colour.rgb)  # type: ignore[union-attr]


def test_a_face_toward_the_light_is_brighter() -> None:
    made = {}
    for side in (-60.0, 60.0):
        p = draw(document("columns", ROWS), look=seen_at(30, 0, light_turn=side, light_tilt=0.0, material="matte"))
        fills = {
            tuple(item.fill.rgb)
            for item in p.scene.items
            if isinstance(item, Shape) and item.mark and item.mark.row == 1
        }  # type: ignore[union-attr]
        made[side] = sorted(sum(one) for one in fills)
    front, side_face = made[-60.0][-1], made[60.0][-1]
    assert len(made[-60.0]) == 2  # a front and a side
    assert front != side_face


# Honest


def test_shares_of_the_seen_area_and_of_the_value() -> None:
    made = draw(document("columns", ROWS), look=seen_at(0.01, 0))
    found = seen(made.figure, 6.0)
    total = 24 + 41 + 28 + 9
    assert [one.value_share for one in found] == pytest.approx([24 / total, 41 / total, 28 / total, 9 / total])
    assert sum(one.area_share for one in found) == pytest.approx(1)
    # Columns of one width, seen straight: areas go as the values do.
    assert [one.area_share for one in found] == pytest.approx([one.value_share for one in found], abs=0.005)


def test_a_pie_that_lies_down_shows_its_front_larger() -> None:
    rows = table(["part", "share"], ["front", "back"], [50, 50])
    made = draw(document("pie", rows), look={**seen_at(0, -60), "frame.start": 90.0})
    by_row = {one.mark.row: one for one in seen(made.figure, 4.0)}
    front, back = by_row[0], by_row[1]
    assert front.value_share == back.value_share == 0.5
    assert front.area_share > 0.55
    assert front.off == pytest.approx(-back.off)
    # By hand: both halves of the disc, foreshortened by cos 60°, and the front's rim as high as depth·sin 60°.
    radius = max(mark.sector.outer for mark in draw(document("pie", rows)).figure.marks if mark.sector)
    half, rim = (
        math.pi * radius**2 / 2 * math.cos(math.radians(60)),
        2 * radius * 0.22 * radius * math.sin(math.radians(60)),
    )
    assert front.area_share == pytest.approx((half + rim) / (2 * half + rim), abs=0.01)


def test_the_record_tells_what_the_view_does() -> None:
    made = draw(document("columns", ROWS), look=seen_at(-35, 20, 0.8))
    held = record.record("columns", made.build.helpers, made.figure)
    bars = [mark for mark in held["marks"] if mark["type"] == "bar"]
    assert sum(mark["visible_share"] for mark in bars) == pytest.approx(1, abs=1e-3)
    assert [mark["value_share"] for mark in bars] == pytest.approx([24 / 102, 41 / 102, 28 / 102, 9 / 102], abs=1e-3)
    flat = draw(document("columns", ROWS))
    assert "visible_share" not in record.record("columns", flat.build.helpers, flat.figure, ())["marks"][0]


def test_of_shares_of_a_sum_the_share_is_what_counts() -> None:
    """Bars of 100 %: a small row's part of 60 % is as long as a large row's."""
    rows = table(["row", "a", "b"], ["small", "large"], [6, 600], [4, 400])
    made = draw(document("columns", rows, stack="100 %"), look=seen_at(0.01, 0))
    found = {(one.mark.key, one.mark.row): one for one in seen(made.figure, 6.0)}
    assert [found["series 1", row].value_share for row in (0, 1)] == pytest.approx([0.3, 0.3])
    for one in found.values():
        assert one.area_share == pytest.approx(one.value_share, abs=0.01)
        assert one.flat_share == pytest.approx(one.value_share, abs=0.001)
    assert not findings(made)


def test_what_a_log_scale_does_is_not_laid_to_the_view() -> None:
    look = {"frame.along.kind": "log", "frame.along.minimum": 1.0}
    made = draw(document("columns", ROWS), look={**seen_at(3, 3), **look})
    assert max(abs(one.off) for one in seen(made.figure)) > 0.05
    assert not any(finding.check == "solid-share" for finding in findings(made))


def test_proof_tells_of_a_view_that_misleads() -> None:
    rows = table(["part", "share"], ["front", "back"], [50, 50])
    steep = draw(document("pie", rows), look={**seen_at(0, -70), "frame.start": 90.0})
    assert any(finding.check == "solid-share" for finding in findings(steep))
    assert not any(finding.check == "solid-share" for finding in findings(draw(document("pie", rows))))


# Kept while turning


def test_turning_lays_nothing_out_anew_and_gives_the_same_picture() -> None:
    held = DEMO
    chart = CHARTS[next(name for name in SOLID if name.startswith("pie"))]
    pictures = Pictures()
    first = pictures.picture(held, chart)
    for turn in (10.0, -30.0, 0.0):
        held = look_edits.set_looks(DEMO, chart, seen_at(turn, -40.0))
        kept, fresh = pictures.picture(held, chart), picture(held, values_of(held), chart)
        assert kept.scene == fresh.scene
        assert kept.build.chart == fresh.build.chart
        assert kept.build.inputs is first.build.inputs  # the recipe did not run again
    wider = look_edits.set_looks(DEMO, chart, {**seen_at(10.0, -40.0), "frame.hole": 0.1})
    assert pictures.picture(wider, chart).scene == picture(wider, values_of(wider), chart).scene


def test_no_jump_from_one_degree_to_the_next() -> None:
    """Turned by a hundredth of a degree, every seen box moves by next to nothing."""
    name = next(name for name in SOLID if name.startswith("columns"))
    for turn, tilt in ((-20.0, 14.0), (12.0, -33.0), (44.0, 5.0)):
        one, other = shown(name, seen_at(turn, tilt)), shown(name, seen_at(turn + 0.01, tilt))
        for a, b in zip(one.figure.marks, other.figure.marks, strict=True):
            assert np.allclose([*msgspec.structs.astuple(a.bounds)], [*msgspec.structs.astuple(b.bounds)], atol=0.15)
        assert [n for n, _ in one.figure.faces] == [n for n, _ in other.figure.faces]


@pytest.mark.parametrize("name", SOLID)
@pytest.mark.parametrize("form", ["drawn", "round"])
def test_each_mark_is_called_once_whatever_number_of_faces_it_has(name: str, form: str) -> None:
    made = shown(name, seen_at(-25.0, 30.0, on=True, form=form))
    assert made.figure.faces
    said = [(item.mark, item.title) for item in made.scene.items if getattr(item, "title", "")]
    assert said
    assert len({mark for mark, _ in said}) == len(said)
    assert {mark.row for mark, _ in said if mark} == {one.row for one in made.figure.marks if one.visible and one.says}


@pytest.mark.parametrize(("turn", "tilt"), [(95.0, 10.0), (-91.0, 0.0), (0.0, 120.0), (10.0, -90.5)])
def test_a_solid_is_never_seen_from_behind(turn: float, tilt: float) -> None:
    chart = CHARTS[SOLID[0]]
    spec = picture(solid_edits.turned(DEMO, chart, turn, tilt), values_of(DEMO), chart).build.chart
    assert spec.solid is not None
    assert (abs(spec.solid.turn), abs(spec.solid.tilt)) == (min(90, abs(turn)), min(90, abs(tilt)))


@pytest.mark.parametrize(
    "field", ["turn", "tilt", "perspective", "depth", "edge", "light_turn", "light_tilt", "ambient"]
)
@pytest.mark.parametrize("value", [math.nan, math.inf, -math.inf])
def test_a_solids_numbers_are_numbers(field: str, value: float) -> None:
    """What is none comes only from a damaged file: it is refused, or drawn as if it were not there."""
    chart = CHARTS[SOLID[0]]
    looks = {"solid.on": True, f"solid.{field}": value}
    try:
        made = picture(look_edits.set_looks(DEMO, chart, looks), values_of(DEMO), chart)
    except KavletError:
        return
    assert "nan" not in svg.dumps(made.scene)
    assert "inf" not in svg.dumps(made.scene).replace("info", "")


def test_figures_whose_sum_is_larger_than_any_number_are_drawn() -> None:
    rows = table(["n", "v"], ["a", "b"], [1.2e308, 1.3e308])
    made = draw(document("columns", rows), look={"solid.turn": 20.0, "solid.tilt": 20.0, "solid.depth": 20.0})
    assert len(seen(made.figure)) == 2
    assert isinstance(findings(made), list)
