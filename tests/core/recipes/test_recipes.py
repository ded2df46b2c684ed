"""What each recipe computes, with the check values of its definition, and one fact of its geometry each."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.scene.primitives import Shape, Stamp, Writing
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from tests.making import document, draw, findings, helper, labels, make, marks, table, values_of

NAMES = ["Reed", "Mere", "Carr", "Dyke", "Leat", "Mill"]


def one(value: float) -> list[list[Any]]:
    return table(["pond", "clarity"], ["Mere"], [value])


def test_gauge_needle_and_rest() -> None:
    made = make("gauge", one(63.0))
    assert helper(made, "needle") == [pytest.approx(23.4)]
    assert helper(made, "rest") == [100]
    wide = make("gauge", one(75.0), sweep=240.0)
    assert (helper(wide, "needle"), helper(wide, "rest")) == ([pytest.approx(60)], [pytest.approx(50)])
    needle = marks(wide, "needle")[0]
    assert needle.sector.start == pytest.approx(60)


def test_gauge_bands_share_the_sweep() -> None:
    made = make("gauge", one(63.0), bands="40; 70")
    assert [helper(made, f"band {i}")[0] for i in (1, 2, 3)] == [40, 30, 30]
    angles = [(mark.sector.start, mark.sector.end) for mark in marks(made, "bands")]
    assert angles == [pytest.approx(pair) for pair in ((-90, -18), (-18, 36), (36, 90))]
    assert [text.text for text in made.figure.texts if text.kind == "tick"] == ["0", "40", "70", "100"]


@pytest.mark.parametrize(("value", "angle"), [(130.0, 90.0), (-5.0, -90.0)])
def test_gauge_out_of_range_stands_at_the_stop_and_tells_the_true_value(value: float, angle: float) -> None:
    made = make("gauge", one(value), maximum=100.0)
    assert helper(made, "needle") == [pytest.approx(angle)]
    assert labels(made, "needle") == [f"{value:g}".replace("-", "−")]
    assert [finding.check for finding in findings(made)] == ["out-of-range"]
    assert len(marks(made, "needle")[0].items) == 4  # pointer, arrow, hub, its hole


def test_thermometer_level() -> None:
    rows = table(["giver", "given"], ["Members", "Fair", "Bakery"], [20000, 9000, 6640])
    made = make("thermometer", rows, goal=48000.0)
    assert helper(made, "level") == [pytest.approx(0.7425), None, None]
    tube = marks(made, "level")[0]
    assert tube.block.rect.height == pytest.approx(0.7425 * made.figure.plot.height)
    assert "35,640" in labels(made, "total")
    over = make("thermometer", rows, goal=30000.0)
    assert helper(over, "shown")[0] == 1
    assert [finding.check for finding in findings(over)] == ["out-of-range"]


def test_battery_left() -> None:
    rows = table(["month", "hours"], ["a", "b"], [300, 144])
    made = make("battery", rows, budget=1200.0)
    assert helper(made, "left")[0] == pytest.approx(0.63)
    left, plot = marks(made, "left")[0], made.figure.plot
    assert left.block.rect.height == pytest.approx(0.63 / 1.1 * plot.height)
    assert labels(made) == ["63%"]
    over = make("battery", rows, budget=400.0)
    assert labels(over) == ["over by 44"]
    assert [finding.check for finding in findings(over)] == ["out-of-range"]


def test_capsule_symbol_rides_inside_the_end() -> None:
    rows = table(["bird", "share"], ["Bittern", "Rail"], [0.61, 0.02])
    made = make("capsule", rows, size=48.0)
    plot = made.figure.plot
    inside, beyond = marks(made, "rider")
    inset = (inside.bounds.width / 2 + 8) / plot.width
    assert (inside.bounds.center[0] - plot.x) / plot.width == pytest.approx(0.61 - inset)
    assert (beyond.bounds.center[0] - plot.x) / plot.width == pytest.approx(
        0.02 + (beyond.bounds.width / 2 + 8) / plot.width
    )
    assert helper(made, "whole") == [1, 1]


def test_radial_bars_sweep() -> None:
    rows = table(["plot", "hours"], ["a", "b"], [45, 60])
    assert helper(make("radial-bars", rows, maximum=60.0, sweep=360.0), "sweep") == [270, 360]
    half = make("radial-bars", rows, maximum=60.0, sweep=240.0)
    assert helper(half, "sweep") == [180, 240]
    assert helper(half, "rest") == [60, 0]
    outer, inner = marks(half, "value")
    assert outer.sector.outer > inner.sector.outer
    assert outer.sector.end == pytest.approx(180)


def test_target_columns_split_at_the_target() -> None:
    rows = table(["plot", "done", "target"], ["a", "b", "c"], [80, 100, 120], [100, 100, 100])
    made = make("target-columns", rows)
    assert helper(made, "met") == ["", 100, 120]
    assert helper(made, "missed") == [80, "", ""]
    assert [mark.row for mark in marks(made, "missed")] == [0]
    with pytest.raises(KavletError, match="need targets"):
        make("target-columns", table(["plot", "done"], ["a"], [1]))


def test_pie_of_a_declared_whole() -> None:
    rows = table(["task", "hours"], ["Reed", "Guide", "Repair"], [960, 540, 300])
    made = make("pie", rows, whole=2400.0, labels="share")
    assert helper(made, "share") == [pytest.approx(0.4), pytest.approx(0.225), pytest.approx(0.125)]
    assert helper(made, "rest")[0] == 600
    assert sorted(labels(made)) == sorted(["40%", "23%", "12%", "25%"])  # adds up to 100
    sweeps = [mark.sector.end - mark.sector.start for mark in marks(made, "value")]
    assert sweeps == [pytest.approx(angle) for angle in (144, 81, 45, 90)]
    over = make("pie", rows, whole=1000.0)
    assert [finding.check for finding in findings(over)] == ["share-sum"]


def test_pie_gathers_small_parts_and_explodes_along_their_own_direction() -> None:
    rows = table(["task", "hours"], ["a", "b", "c", "d"], [60, 30, 6, 4])
    made = make("pie", rows, gather=8.0, explode=10.0)
    assert helper(made, "gathered")[0] == 10
    wedges = marks(made, "value")
    assert len(wedges) == 3
    first = wedges[0].sector
    middle = math.radians((first.start + first.end) / 2)
    rest = wedges[2].sector.center
    dx, dy = first.center[0] - rest[0], first.center[1] - rest[1]
    assert (dx, dy) == pytest.approx((0.1 * first.outer * math.sin(middle), -0.1 * first.outer * math.cos(middle)))


def test_two_level_ring_keeps_groups_together() -> None:
    rows = table(["kind", "habitat", "species"], NAMES[:4], ["B", "A", "B", "A"], [10, 20, 30, 40])
    made = make("two-level-ring", rows)
    assert helper(made, "group sum") == [40, 60, "", ""]
    outer = marks(made, "value")
    assert [mark.row for mark in outer] == [0, 2, 1, 3]
    inner = {mark.row: mark.sector for mark in marks(made, "group")}
    assert inner[0].end == pytest.approx(outer[1].sector.end)
    assert inner[0].outer <= outer[0].sector.inner


def test_waffle_cells_add_up() -> None:
    rows = table(["habitat", "cover"], NAMES[:5], [41.6, 23.3, 19.8, 11.2, 4.1])
    made = make("waffle", rows)
    assert helper(made, "cells") == [42, 23, 20, 11, 4]
    part = make("waffle", rows, whole=200.0)
    assert sum(helper(part, "cells")) == 50
    assert sum(mark.value for mark in part.figure.marks if mark.layer == "empty") == 50


def test_funnel_standing_in_the_registry_is_the_design_s() -> None:
    rows = table(["stage", "people"], NAMES[:5], [18400, 6900, 2760, 1035, 310])
    made = make("funnel", rows)
    assert helper(made, "offset") == [0, 5750, 7820, 8682.5, 9045]
    assert helper(made, "overall")[-1] == pytest.approx(0.0168, abs=5e-5)


def test_bridge_from_total_to_total() -> None:
    rows = table(["item", "sum"], ["a", "b", "c", "d", "e", "f", "g"], [212, 86, 48, 19, -94, -63, -27])
    made = make("bridge", rows)
    assert helper(made, "running")[-1] == 181
    crossing = make("bridge", table(["item", "sum"], ["a", "b"], [30, -50]))
    assert helper(crossing, "running") == [30, -20]
    assert (helper(crossing, "above")[1], helper(crossing, "below")[1], helper(crossing, "base")[1]) == (30, -20, 0)
    above, below = (next(mark for mark in marks(crossing, key) if mark.row == 1) for key in ("above", "below"))
    assert above.bounds.bottom == pytest.approx(below.bounds.y)
    assert above.fill == below.fill


def test_bridge_says_when_a_stated_total_differs() -> None:
    rows = table(["item", "sum"], ["a", "b", "end"], [10, 5, 16])
    made = make("bridge", rows, totals="first and last")
    assert [(one.check, one.figure) for one in findings(made)] == [("stated-total", 1.0)]
    found = make("bridge", table(["item", "sum"], ["a", "b", "end"], [10, 5, 15]))
    assert helper(found, "total") == [True, False, True]


def test_growth_bars() -> None:
    rows = table(["species", "before", "after"], ["a", "b", "c"], [40, 20, 0], [60, 15, 5])
    made = make("growth-bars", rows)
    assert helper(made, "change") == [0.5, -0.25, ""]
    assert labels(made) == ["+50%", "−25%"]
    up, down = marks(made, "change")
    assert up.bounds.x == pytest.approx(down.bounds.right)
    assert [one.check for one in findings(made)] == ["no-base"]


def test_pictogram_cuts_the_last_symbol() -> None:
    rows = table(["species", "pairs"], ["Grebe", "Heron"], [34, 90])
    made = make("pictogram", rows, unit=10.0)
    assert helper(made, "symbols") == [3.4, 9]
    grebe = marks(made, "symbols")[0]
    assert len(grebe.items) == 4
    assert grebe.items[3].clip is not None
    assert grebe.items[0].clip is None
    assert helper(make("pictogram", rows), "unit")[0] == 5  # 90 / 20 = 4.5, rounded up to 1, 2 or 5
    wrapped = make("pictogram", rows, unit=10.0, wrap=5.0)
    heron = marks(wrapped, "symbols")[1]
    assert len({round(item.place.f, 3) for item in heron.items}) == 2


def test_picture_bars_repeat_from_the_base() -> None:
    rows = table(["year", "trees"], ["2024", "2025"], [100, 250])
    made = make("picture-bars", rows)
    bar = marks(made, "value")[1]
    stamps = [item for item in bar.items if isinstance(item, Stamp)]
    assert len(stamps) > 1
    assert all(stamp.clip is not None for stamp in stamps)
    stretched = marks(make("picture-bars", rows, how="stretched"), "value")[1]
    assert sum(isinstance(item, Stamp) for item in stretched.items) == 1


@pytest.mark.parametrize(
    ("rule", "more", "rows"),
    [
        ("largest", {}, [1]), ("smallest", {}, [0, 2]), ("first", {}, [0]), ("last", {}, [3]),
        ("named", {"named": "Dyke"}, [3]), ("above", {"than": 3.5}, [1, 3]), ("below", {"than": 4.0}, [0, 2]),
    ],
)  # fmt: skip
def test_highlight_rules(rule: str, more: dict[str, Any], rows: list[int]) -> None:
    made = make("highlight-bars", table(["gate", "people"], NAMES[:4], [3, 9, 3, 4]), rule=rule, **more)
    assert [row for row, value in enumerate(helper(made, "highlight")) if value != ""] == rows
    assert {mark.row for mark in marks(made, "highlight")} == set(rows)
    assert sorted(labels(made)) == ["3", "3", "4", "9"]  # an empty half is never labelled "0"


def test_capped_bars_break_and_tell_the_true_value() -> None:
    made = make("capped-bars", table(["month", "rain"], ["a", "b", "c"], [52, 48, 402]), cap=100.0)
    assert helper(made, "shown") == [52, 48, 100]
    capped = marks(made, "shown")[2]
    assert len(capped.items) == 2  # the bar and the cut
    assert "402" in labels(made)
    assert capped.bounds.height == pytest.approx(marks(made, "shown")[0].bounds.height * 100 / 52)


def test_stacked_bars_shares_add_up() -> None:
    rows = table(["path", "a", "b", "c"], ["x", "y"], [1, 2], [1, 3], [1, 5])
    made = make("stacked-bars", rows)
    assert helper(made, "share 1") == [pytest.approx(1 / 3), 0.2]
    assert sorted(labels(made)[::2]) == sorted(["34%", "33%", "33%"])
    ends = [max(mark.bounds.right for mark in made.figure.marks if mark.row == row and mark.visible) for row in (0, 1)]
    assert ends == [pytest.approx(made.figure.plot.right)] * 2


def test_mirrored_bars_meet_in_the_middle() -> None:
    made = make("mirrored-bars", table(["age", "left", "right"], ["a", "b"], [5, 10], [10, 2]))
    left, right = marks(made, "left"), marks(made, "right")
    middle = made.figure.plot.center[0]
    assert [mark.bounds.right for mark in left] == [pytest.approx(middle)] * 2
    assert right[0].bounds.width == pytest.approx(2 * left[0].bounds.width)
    assert sorted(labels(made)) == ["10", "10", "2", "5"]


def test_stepping_locks_the_scale_and_tweens() -> None:
    rows = table(["kind", "birds", "month"], ["a", "b", "a", "b"], [10, 40, 30, 20], ["May", "May", "June", "June"])
    first, between = make("stepping", rows), make("stepping", rows, step=1.5)
    assert helper(first, "step") == [1, 1, 2, 2]
    assert helper(first, "shown") == [10, 40, "", ""]
    assert helper(between, "shown") == [20, 30, "", ""]
    assert (first.figure.axes[0].minimum, first.figure.axes[0].maximum) == (0, 40)
    assert [mark.row for mark in marks(make("stepping", rows, step=2.0), "shown")] == [2, 3]


def test_combined_on_two_axes() -> None:
    rows = table(["month", "guests", "rain"], ["a", "b"], [100, 200], [3, 9])
    made = make("combined", rows, {"value": "guests", "line": "rain"}, second=True)
    assert [axis.name for axis in made.figure.axes] == ["y", "y2"]
    assert [mark.kind.name for mark in made.figure.marks] == ["bar", "bar", "line", "line"]


def test_repeat_makes_one_for_each_row_on_one_scale() -> None:
    rows = table(["pond", "clarity"], NAMES[:4], [63, 20, 80, 45])
    made = draw(document("gauge", rows), repeat=True)
    needles = marks(made, "needle")
    assert [mark.panel for mark in needles] == [0, 1, 2, 3]
    assert [mark.sector.start for mark in needles] == [pytest.approx(angle) for angle in (0.63 * 180 - 90, -54, 54, -9)]
    assert [text.text for text in made.figure.texts if text.kind == "panel"] == NAMES[:4]
    assert len({round(mark.sector.outer, 6) for mark in needles}) == 1


def test_settings_may_be_cells() -> None:
    rows = [*table(["pond", "clarity"], ["Mere"], [40.0]), [None, None]]
    rows[2] = ["top", 80.0]
    made = make("gauge", rows, maximum="=B3")
    assert helper(made, "needle")[0] == pytest.approx(0)
    assert made.build.helpers[0].formulas[0] == "=$B$3"


@pytest.mark.parametrize(
    ("value", "end"),
    [(0.4, 1), (1, 1), (7, 10), (40, 100), (100, 100), (130, 200), (201, 300), (950, 1000), (1234, 2000), (-3, 1)],
)
def test_gauge_without_a_maximum_ends_at_a_round_number(value: float, end: float) -> None:
    assert helper(make("gauge", one(value)), "maximum") == [end]


def _rows(values: list[Any], columns: int, with_group: bool) -> list[list[Any]]:
    names = [f"row {i}" if i % 3 else "a row with a rather long name to be wrapped" for i in range(len(values))]
    head = ["name", *(["group"] if with_group else []), *(f"n{i}" for i in range(columns))]
    body = [
        [name, *(["ab"[i % 2]] if with_group else []), *((value if not j else values[-1 - i]) for j in range(columns))]
        for i, (name, value) in enumerate(zip(names, values, strict=True))
    ]
    return [head, *body]


EXTRA: dict[str, dict[str, Any]] = {
    "thermometer": {"goal": 50.0}, "battery": {"budget": 50.0}, "target-columns": {"target": 20.0},
}  # fmt: skip


def check_scene(made: Picture) -> None:
    """No NaN in the scene, nothing visible outside the chart, helpers never seen, labels apart and inside."""
    size = made.figure.size
    sheet = Rect(0, 0, size.width, size.height)
    for item in made.scene.items:
        numbers = item.path.coordinates if isinstance(item, Shape) else ()
        if isinstance(item, Writing):
            numbers = (item.x, item.y, item.size)
        assert all(math.isfinite(number) for number in numbers)
    for mark in made.figure.marks:
        assert not (mark.helper and mark.visible)
        if mark.visible and mark.path is not None and mark.kind.name not in ("flank", "reference"):
            slack = 0.12 * size.height if mark.block is not None and mark.block.form in ("cylinder", "capsule") else 6.0
            assert sheet.holds(mark.bounds, slack), (mark.layer, mark.bounds)
    boxes = [text.bounds for text in made.figure.texts if text.kind in ("label", "name") and not text.angle]
    for i, box in enumerate(boxes):
        assert sheet.holds(box, 3.0), box
        assert not any(box.inset(0.3, 0.3, 0.3, 0.3).overlaps(other) for other in boxes[i + 1 :])


values = st.lists(
    st.one_of(st.none(), st.integers(-500, 1000).map(float), st.floats(0.01, 1e6)), min_size=1, max_size=14
)


@settings(max_examples=25, deadline=None)
@given(values=values, size=st.sampled_from([Size(640, 360), Size(200, 130), Size(360, 640)]))
@pytest.mark.parametrize("name", list(RECIPES))
def test_any_table_is_drawn_or_refused_in_a_sentence(name: str, values: list[Any], size: Size) -> None:
    recipe = RECIPES[name]
    texts = sum(role.kind == "text" and role.required for role in recipe.roles)
    rows = _rows(values, 3, texts > 1 or name == "stepping")
    try:
        made = document(name, rows, **EXTRA.get(name, {}))
        drawn = picture(made, values_of(made), made.charts[0].id, size)
    except KavletError:
        return  # refused in one sentence; any other error fails the test
    check_scene(drawn)


@pytest.mark.parametrize("name", list(RECIPES))
@pytest.mark.parametrize("count", [1, 2, 200])
def test_one_row_to_two_hundred(name: str, count: int) -> None:
    rows = _rows([float(3 + i * 7 % 40) for i in range(count)], 3, True)
    if name == "funnel" and count == 1:
        with pytest.raises(KavletError, match="at least two stages"):
            make(name, rows)
        return
    made = make(name, rows, **EXTRA.get(name, {}))
    check_scene(made)
    assert made.figure.alt_text
    assert made.figure.marks


@pytest.mark.parametrize("name", list(RECIPES))
def test_what_a_recipe_declares_is_what_it_makes(name: str) -> None:
    recipe = RECIPES[name]
    made = make(name, _rows([3.0, 8.0, 5.0, 1.0], 3, True), **EXTRA.get(name, {}))
    built = [one.name for one in made.build.helpers]
    for declared in recipe.helpers:
        assert any(one == declared.name or (declared.many and one.startswith(declared.name)) for one in built)
    assert all(any(one.startswith(declared.name) for declared in recipe.helpers) for one in built)
    assert all(parameter.meaning.endswith((".", "!")) for parameter in recipe.parameters)


def test_shares_in_words_are_those_of_the_labels() -> None:
    """Largest remainders: 960, 540 and 300 of 2,400 are 40, 23 and 12 percent, which leaves 25."""
    rows = table(["what", "sum"], ["Stay", "Food", "Travel"], [960, 540, 300])
    made = make("pie", rows, whole=2400.0)
    for name, share in (("Stay", "40%"), ("Food", "23%"), ("Travel", "12%")):
        assert f"{name} {share}" in made.figure.long_text
        assert share in made.figure.alt_text
        assert any(text.startswith(name) and text.endswith(share) for text in labels(made))
    groups = table(["g", "n", "v"], ["A", "B", "C"], ["x", "y", "z"], [1, 1, 1])
    ring = make("two-level-ring", groups, {"group": "g", "name": "n", "value": "v"})
    assert ring.figure.long_text.count("33%") == 2
    assert ring.figure.long_text.count("34%") == 1
