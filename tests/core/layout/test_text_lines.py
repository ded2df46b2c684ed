"""Each kind of text set by its author: face, size, weight, colour; gridlines, tick marks, grounds and borders."""

from typing import Any

import pytest

from kavlet.core.files import svg
from kavlet.core.layout.figure import PlacedText
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.paints import LinearGradient
from kavlet.core.scene.primitives import Shape, Stamp
from kavlet.core.values.colour import Colour
from tests.making import document, draw, findings, table

ROWS = table(
    ["month", "Walks", "Members"], ["January", "February", "March", "April"], [40, 62, 55, 80], [12, 22, 30, 26]
)
SHOWN = {"frame.along.visible": True, "frame.along.title": "count", "frame.across.title": "month"}


def made(**look: Any) -> Picture:
    looks = SHOWN | {path.replace("__", "."): value for path, value in look.items()}
    return draw(document("columns", ROWS, labels="values"), look=looks, title="Walks", source="counted")


def of(picture: Picture, kind: str, key: str = "") -> list[PlacedText]:
    return [text for text in picture.figure.texts if text.kind == kind and (not key or text.key == key)]


@pytest.mark.parametrize(
    ("at", "kind", "key"),
    [
        ("frame.across.text", "name", ""), ("frame.along.text", "tick", "along"), ("legend.text", "legend", ""),
        ("frame.along.title_text", "axis title", "along"), ("frame.across.title_text", "axis title", "across"),
        ("title", "title", ""), ("source", "source", ""), ("layers.series 1.label", "label", "series 1"),
    ],
)  # fmt: skip
def test_each_kind_of_text_has_a_face_size_weight_and_colour(at: str, kind: str, key: str) -> None:
    looks = {f"{at}.family": "easy", f"{at}.size": 11.5, f"{at}.bold": True, f"{at}.colour": "#123456"}
    texts = of(draw(document("columns", ROWS, labels="values"), look=SHOWN | looks, title="Walks", source="counted"),
               kind, key)  # fmt: skip
    assert texts
    for text in texts:
        assert (text.face.removesuffix(" figures"), text.size, text.colour.hex) == (
            "AtkinsonHyperlegible-Bold",
            11.5,
            "#123456",
        )


def test_larger_names_and_ticks_take_their_room() -> None:
    small, large = made(), made(frame__along__text__size=20.0, frame__across__text__size=20.0)
    assert large.figure.plot.x > small.figure.plot.x + 5
    assert large.figure.plot.bottom < small.figure.plot.bottom - 5


def test_one_of_so_many_names_and_labels_is_shown() -> None:
    picture = made(**{"frame__across__every": 2, "layers__series 1__label__every": 3})
    assert [text.row for text in of(picture, "name")] == [0, 2]
    assert [text.row for text in of(picture, "label", "series 1")] == [0, 3]
    assert not any(one.check == "labels-lost" for one in findings(picture))


def test_labels_stand_further_out_and_turned() -> None:
    near, far = made(), made(**{"layers__series 1__label__distance": 12.0})
    for one, other in zip(of(near, "label", "series 1"), of(far, "label", "series 1"), strict=True):
        assert other.bounds.y < one.bounds.y
    turned = made(**{"layers__series 1__label__angle": -90.0})
    assert {text.angle for text in of(turned, "label", "series 1")} == {-90.0}


def test_gridlines_have_a_colour_dashes_and_lines_between() -> None:
    picture = made(frame__along__grid=True, frame__along__grid_colour="#0e7c86", frame__along__grid_dash="dashed",
                   frame__along__minor=2)  # fmt: skip
    grid = [rule for rule in picture.figure.under if rule.kind == "grid"]
    assert {rule.colour.hex[:7] for rule in grid} == {"#0e7c86"}
    assert all(rule.dash for rule in grid)
    assert sum(rule.kind == "minor" for rule in picture.figure.under) == len(grid) - 1


@pytest.mark.parametrize(
    ("marks", "outside", "inside"), [("outside", True, False), ("inside", False, True), ("across", True, True)]
)
def test_tick_marks_stand_outside_inside_or_across(marks: str, outside: bool, inside: bool) -> None:
    picture = made(frame__along__marks=marks)
    plot = picture.figure.plot
    ticks = [rule for rule in picture.figure.over if rule.kind == "tick"]
    assert len(ticks) == len(picture.figure.axes[0].ticks)
    for rule in ticks:
        assert (min(rule.x1, rule.x2) < plot.x - 1) == outside
        assert (max(rule.x1, rule.x2) > plot.x + 1) == inside
    assert not [rule for rule in made().figure.over if rule.kind == "tick"]


def test_plot_and_chart_have_grounds_and_borders() -> None:
    picture = made(plot_ground="#f3efe6", plot_border="ink", border="#7a2e5d", border_width=2.0)
    border, plot, line = (item for item in picture.figure.behind if isinstance(item, Shape))
    assert (border.edge_width, border.fill) == (2.0, None)
    assert (line.path, line.fill) == (plot.path, None)
    assert plot.path.bounds.width == pytest.approx(picture.figure.plot.width)
    assert picture.scene.items[:3] == picture.figure.behind
    assert not made().figure.behind


def test_a_legend_is_turned_round_and_has_a_ground() -> None:
    assert [text.text for text in of(made(legend__reversed=True), "legend")] == ["Members", "Walks"]
    picture = made(legend__ground="#eeeeee")
    ground = picture.figure.keys[0]
    assert all(ground.bounds.holds(text.bounds) for text in of(picture, "legend"))


def test_grounds_run_to_another_colour_or_hold_a_veiled_picture() -> None:
    (ground,) = made(ground_to="#e9efe0").figure.behind
    assert isinstance(ground, Shape)
    assert isinstance(ground.fill, LinearGradient)
    assert [stop.hex for _, stop in ground.fill.stops] == [made().figure.ground.hex, "#e9efe0"]
    picture, veil = made(ground_picture="tree", ground_veil=0.4).figure.behind
    assert isinstance(picture, Stamp)
    assert isinstance(veil, Shape)
    assert isinstance(veil.fill, Colour)
    assert veil.fill.alpha == pytest.approx(0.4)
    assert picture.clip is not None
    (plot,) = made(plot_ground="#ffffff", plot_to="#eeeeee").figure.behind
    assert isinstance(plot, Shape)
    assert isinstance(plot.fill, LinearGradient)


def test_rules_colour_labels_by_their_values() -> None:
    picture = made(**{"layers__series 1__label__colour_rules": "above 60: #b3372f; smallest: #0e7c86"})
    colours = {text.text: text.colour.hex for text in of(picture, "label", "series 1")}
    assert (colours["62"], colours["80"], colours["40"]) == ("#b3372f", "#b3372f", "#0e7c86")
    assert colours["55"] not in ("#b3372f", "#0e7c86")


def test_parts_between_have_shorter_tick_marks() -> None:
    picture = made(frame__along__marks="outside", frame__along__minor=2)
    ticks = [rule for rule in picture.figure.over if rule.kind == "tick"]
    count = len(picture.figure.axes[0].ticks)
    assert len(ticks) == 2 * count - 1
    lengths = sorted(abs(rule.x1 - rule.x2) for rule in ticks)
    assert lengths[0] == pytest.approx(0.55 * lengths[-1])


def test_a_narrow_legend_is_stacked() -> None:
    wide, narrow = of(made(), "legend"), of(made(legend__width=70.0), "legend")
    assert len({round(text.bounds.y) for text in wide}) == 1
    assert len({round(text.bounds.y) for text in narrow}) == 2
    beside = made(legend__side="right", legend__width=40.0)
    assert beside.figure.plot.width > made(legend__side="right", legend__width=200.0).figure.plot.width - 1
    assert all(text.bounds.width < 41 for text in of(beside, "legend"))


def test_the_plot_alone_holds_a_veiled_picture() -> None:
    drawn = made(plot_picture="tree", plot_ground="#f3efe6", plot_veil=0.25)
    ground, picture, veil = drawn.figure.behind
    assert isinstance(ground, Shape)
    assert isinstance(picture, Stamp)
    assert isinstance(veil, Shape)
    assert isinstance(veil.fill, Colour)
    assert (veil.fill.hex, veil.fill.alpha) == ("#f3efe640", 0.25)
    assert picture.clip == veil.path == ground.path
    assert veil.path.bounds.width == pytest.approx(drawn.figure.plot.width)


def test_numbers_below_each_other_have_figures_of_one_width() -> None:
    rows = table(["name", "n"], ["a", "b", "c"], [1117, 711, 71])
    upright = draw(document("columns", rows), look={"frame.along.visible": True})
    level = draw(document("bars", rows), look={"frame.along.visible": True})
    faces = [{text.face for text in one.figure.texts if text.kind == "tick"} for one in (upright, level)]
    assert faces == [{"FiraSans-Regular figures"}, {"FiraSans-Regular"}]
    funnel = draw(document("funnel", rows))
    strip = [text for text in funnel.figure.texts if text.kind == "label" and text.text.endswith("%")]
    column = [text for text in strip if text.face.endswith("figures")]
    assert len({round(text.bounds.right, 3) for text in column}) == 1
    assert len(column) == 3
    svg_text = svg.dumps(upright.scene)
    assert svg_text.count("tabular-nums") == sum(text.kind == "tick" for text in upright.figure.texts)
    assert svg_text.count("@font-face") == 2


@pytest.mark.parametrize(("suffix", "drawn"), [(" kg", "12\u202fkg"), (" of the plan", "12 of the plan"), ("%", "12%")])
def test_a_thin_space_stands_before_a_unit(suffix: str, drawn: str) -> None:
    rows = table(["name", "n"], ["a", "b"], [12, 7])
    look = {"layers.series 1.label.number.suffix": suffix}
    texts = of(draw(document("columns", rows, labels="values"), look=look), "label", "series 1")
    assert next(line.text for text in texts for line in text.lines) == drawn
    assert texts[0].text == f"12{suffix}", "the record says it as its author does"
