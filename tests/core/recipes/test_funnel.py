"""The funnel: its numbers, its geometry, and its states."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.layout.figure import Mark
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.scene.primitives import Shape, Writing
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from tests.making import findings, kept, make, table, values_of


def draw(document: Document, size: Size | None = None, **changes: Any) -> Picture:
    for name, value in changes.items():
        document = look_edits.set_setting(document, "k1", name, value)
    return kept(picture(document, values_of(document), "k1", size), document)


def of(rows: list[list[Any]]) -> Document:
    document, table = edits.add_table(Document(), "Stages", [["stage", "count"], *rows])
    return edits.add_chart(document, table, "funnel")[0]


def bars(made: Picture) -> list[Mark]:
    return [mark for mark in made.figure.marks if mark.key == "value"]


def helper(made: Picture, name: str) -> list[Any]:
    return list(next(one for one in made.build.helpers if one.name == name).values)


def test_helpers_are_live_formulas_with_the_values_of_the_design(funnel: Document) -> None:
    made = draw(funnel)
    assert helper(made, "offset") == [0, 5750, 7820, 8682.5, 9045]
    assert helper(made, "step")[0] is None
    assert helper(made, "step")[1:] == pytest.approx([0.375, 0.4, 0.375, 0.2995169])
    assert helper(made, "overall")[-1] == pytest.approx(310 / 18400)
    assert made.build.helpers[0].formulas[1] == "=(MAX(B$2:B$6)-B3)/2"


def test_bars_are_as_wide_as_their_values_and_centred(funnel: Document) -> None:
    made = draw(funnel)
    plot = made.figure.plot
    for mark in bars(made):
        assert mark.bounds.width == pytest.approx(mark.value / 18400 * plot.width)
        assert mark.bounds.center[0] == pytest.approx(plot.center[0])
        assert plot.holds(mark.bounds)
    offsets = [mark for mark in made.figure.marks if mark.key == "offset"]
    assert [mark.bounds.right for mark in offsets] == pytest.approx([mark.bounds.x for mark in bars(made)])


def test_the_gap_is_a_share_of_the_bars_thickness(funnel: Document) -> None:
    first, second, *_ = bars(draw(funnel, gap=25.0))
    assert second.bounds.y - first.bounds.bottom == pytest.approx(0.25 * first.bounds.height)


def test_standing_bars_are_centred_on_their_height(funnel: Document) -> None:
    made = draw(funnel, direction="standing")
    for mark in bars(made):
        assert mark.bounds.height == pytest.approx(mark.value / 18400 * made.figure.plot.height)
        assert mark.bounds.center[1] == pytest.approx(made.figure.plot.center[1])


def test_tapered_bars_point_at_the_next(funnel: Document) -> None:
    first, second, *_, last = bars(draw(funnel, shape="tapered"))
    assert first.path is not None
    assert second.path is not None
    _, y0, right, _, far, y1 = first.path.coordinates[:6]
    slope = (far - right) / (y1 - y0)
    assert right + slope * (second.bounds.y - y0) == pytest.approx(second.bounds.right)
    assert last.path is not None
    assert last.path.coordinates[2] == last.path.coordinates[4]


def test_helpers_leave_no_trace(funnel: Document) -> None:
    made = draw(funnel)
    assert all(not mark.visible for mark in made.figure.marks if mark.helper)
    assert "offset" not in made.figure.legend
    assert "offset" not in made.figure.alt_text
    drawn = {item.mark.layer for item in made.scene.items if isinstance(item, Shape) and item.mark}
    assert drawn == {"people", "flanks"}
    assert not any(isinstance(item, Writing) and item.text in ("5,750", "0") for item in made.scene.items)


def test_labels_say_values_inside_and_rates_between(funnel: Document) -> None:
    made = draw(funnel)
    labels = {(text.layer, text.row): text for text in made.figure.texts if text.kind == "label"}
    assert labels["people", 0].text == "18,400"
    assert bars(made)[0].bounds.holds(labels["people", 0].bounds)
    assert labels["people", 4].bounds.x > bars(made)[4].bounds.right  # too small for its label
    assert [labels["step", row].text for row in range(1, 5)] == ["37.5%", "40%", "37.5%", "30%"]
    assert bars(made)[0].bounds.bottom < labels["step", 1].bounds.center[1] < bars(made)[1].bounds.y
    assert labels["overall", 4].text == "1.7%"


@pytest.mark.parametrize("rates", ["between", "beside", "none"])
def test_rates_can_be_moved_and_left_out(funnel: Document, rates: str) -> None:
    made = draw(funnel, rates=rates, values=False, overall=False)
    steps = [text for text in made.figure.texts if text.kind == "label"]
    assert len(steps) == (0 if rates == "none" else 4)
    if rates == "beside":
        assert all(text.bounds.x > made.figure.plot.right for text in steps)


def test_a_larger_stage_is_shown_and_noted() -> None:
    made = draw(of([["a", 100.0], ["b", 250.0], ["c", 50.0]]))
    assert helper(made, "offset") == [75, 0, 100]
    assert helper(made, "step")[1] == 2.5
    assert [finding.check for finding in findings(made, "unsorted")] == ["unsorted"]


def test_an_empty_stage_is_no_value() -> None:
    made = draw(of([["a", 100.0], ["b", None], ["c", 50.0]]))
    assert [mark.row for mark in bars(made)] == [0, 2]
    assert [text.row for text in made.figure.texts if text.layer == "step"] == []
    assert [text.row for text in made.figure.texts if text.layer == "overall"] == [0, 2]
    assert [finding.check for finding in findings(made)] == ["missing"]


@pytest.mark.parametrize(
    ("rows", "sentence"),
    [
        ([["a", 100.0], ["b", "many"]], "B3 holds “many”, which is not a number."),
        ([["a", 100.0], ["b", -5.0]], "B3 is negative. A stage can’t be below zero."),
        ([["a", 100.0]], "A funnel needs at least two stages; this table has one."),
        ([["a", 0.0], ["b", 0.0]], "All stages are 0, so there is no funnel to draw."),
        ([["a", None], ["b", None]], "Column B holds no numbers."),
        ([], "The table has no rows of figures."),
    ],
)
def test_what_does_not_fit_is_said_in_one_sentence(rows: list[list[Any]], sentence: str) -> None:
    with pytest.raises(KavletError) as caught:
        draw(of(rows))
    assert str(caught.value.what) == sentence


def test_settings_may_be_cells(funnel: Document) -> None:
    first, second, *_ = bars(draw(funnel, gap="=B6/10"))
    assert second.bounds.y - first.bounds.bottom == pytest.approx(0.31 * first.bounds.height)
    with pytest.raises(KavletError, match="needs a number"):
        draw(funnel, gap="=A2")
    with pytest.raises(KavletError, match="can’t be 900"):
        draw(funnel, gap=900.0)


def test_a_title_may_be_a_formula(funnel: Document) -> None:
    document = edits.change_chart(funnel, "k1", title='=A2&": "&B2', subtitle="=B2", source="=1/0")
    texts = {text.kind: text.text for text in draw(document).figure.texts}
    assert texts["title"] == "Visits: 18400"
    assert texts["subtitle"] == "18,400"
    assert "source" not in texts


_names = st.text(st.characters(codec="utf-8", exclude_categories=("Cs",)), max_size=60)
_amounts = st.one_of(st.none(), st.floats(0, 1e9), st.integers(0, 50).map(float))


@settings(max_examples=120, deadline=None)
@given(
    st.lists(st.tuples(_names, _amounts), min_size=2, max_size=40),
    st.sampled_from(["lying", "standing"]),
    st.sampled_from(["stepped", "tapered"]),
    st.sampled_from([Size(640, 360), Size(160, 120), Size(300, 900), Size(1200, 200)]),
)
def test_any_table_draws_inside_the_plot(rows: list[Any], direction: str, shape: str, size: Size) -> None:
    amounts = np.array([math.nan if amount is None else amount for _, amount in rows])
    if np.isnan(amounts).all() or np.nanmax(amounts) == 0:
        return
    names = [[("'" + name) if name[:1] in "='" else name or None, amount] for name, amount in rows]
    made = draw(of(names), size, direction=direction, shape=shape)
    for mark in made.figure.marks:
        assert all(map(math.isfinite, (mark.bounds.x, mark.bounds.y, mark.bounds.width, mark.bounds.height)))
        if mark.visible:
            assert made.figure.plot.holds(mark.bounds, 0.01)
            assert not mark.helper
    expected = (np.nanmax(amounts) - np.nan_to_num(amounts)) / 2
    assert helper(made, "offset") == pytest.approx(expected)
    boxes = [text.bounds for text in made.figure.texts if text.kind == "label"]
    assert all(made.scene.bounds.holds(box, 0.5) for box in boxes)


@pytest.mark.parametrize("rows", [2, 12, 60, 200])
@pytest.mark.parametrize("direction", ["lying", "standing"])
def test_labels_never_overlap(rows: int, direction: str) -> None:
    made = draw(of([[f"Stage {i}", 1000.0 - 4 * i] for i in range(rows)]), direction=direction)
    boxes = [text.bounds for text in made.figure.texts if text.kind in ("label", "name")]
    assert not any(a.overlaps(b) for i, a in enumerate(boxes) for b in boxes[i + 1 :])


@pytest.mark.parametrize(("second", "found"), [(40.0, []), (40.0001, ["unsorted"]), (39.9, [])])
def test_an_equal_stage_is_no_rising_one(second: float, found: list[str]) -> None:
    made = make("funnel", table(["stage", "count"], ["a", "b", "c"], [40.0, second, 12.0]))
    assert [one.check for one in findings(made, "unsorted")] == found
