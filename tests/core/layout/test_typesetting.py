"""Type that can be read: every eleventh of the charts that `tools/typeset.py` looks over, by the same rules."""

import pytest

from kavlet.core.document import edits
from kavlet.core.layout.words.free_space import FreeSpace, body_of
from kavlet.core.text.disambiguate import disambiguated
from kavlet.core.text.shaping import width
from kavlet.core.values.geometry import Rect, Size
from tests.making import document, draw, findings, table
from tests.typeset_cases import Case, cases, drawn, names
from tests.typesetting import faults

FACE = "FiraSans-Regular"
SAMPLE = list(cases())[4::11]


@pytest.mark.parametrize("case", SAMPLE, ids=lambda case: case.name)
def test_labels_keep_their_sizes_and_places_and_names_their_difference(case: Case) -> None:
    made = drawn(case)
    if made is None:
        assert case.rows == 1  # a funnel of one stage
        return
    assert not faults(made, names(case))


ALIKE = [
    f"counted from the boardwalk by the evening watch before dusk at {place}" for place in ("Reed", "Mill", "Alder")
]


@pytest.mark.parametrize(("most", "lines"), [(300.0, 1), (120.0, 1), (60.0, 2), (40.0, 3), (30.0, 1)])
def test_names_that_begin_alike_are_cut_where_they_agree(most: float, lines: int) -> None:
    made = disambiguated(ALIKE, FACE, 9.0, most, lines)
    assert len(set(made)) == len(ALIKE)
    for held, name in zip(made, ALIKE, strict=True):
        assert len(held) <= lines
        assert all(width(line, FACE, 9.0) <= most for line in held)
        assert held[-1].endswith(("…", name[-3:]))


def test_names_are_cut_after_a_word_and_only_where_they_must_be() -> None:
    assert disambiguated(["Reed pond", "Mill"], FACE, 9.0, 100.0) == [("Reed pond",), ("Mill",)]
    (long,) = disambiguated(["Visitors at the northern hide"], FACE, 9.0, 80.0)
    assert long == ("Visitors at the…",)
    assert disambiguated(["same", "same"], FACE, 9.0, 10.0)[0] == disambiguated(["same", "same"], FACE, 9.0, 10.0)[1]
    assert disambiguated(["", "one"], FACE, 9.0, 50.0) == [(), ("one",)]
    words = disambiguated(["Reedwiesenbewässerung", "Reedwiesenbewässerer"], FACE, 9.0, 80.0)
    assert [held[0].split("…")[1] for held in words] == ["ung", "er"]


def test_all_labels_of_a_layer_step_down_together() -> None:
    rows = table(["s", "v"], list("abcdefghijkl"), [9, 90, 8, 70, 60, 5, 80, 7, 90, 4, 95, 3])
    for size in (Size(640.0, 360.0), Size(221.0, 147.0)):
        made = draw(document("highlight-bars", rows), size)
        sizes = {text.size for text in made.figure.texts if text.kind == "label" and text.key == "others"}
        assert len(sizes) == 1
        assert min(sizes) >= 7.0


def test_names_left_out_are_told() -> None:
    names = [f"Pond number {i}" for i in range(60)]
    made = draw(document("columns", table(["s", "v"], names, list(range(60)))), Size(221.0, 147.0))
    shown = sum(text.kind == "name" for text in made.figure.texts)
    told = next(one for one in findings(made) if one.check == "labels-lost")
    assert shown + told.figure == 60
    months = table(["month", "v"], [f"2020-{i:02}" for i in range(1, 61)], list(range(60)))
    lines = draw(document("lines", months), Size(221.0, 147.0))
    assert not any(one.check == "labels-lost" for one in findings(lines))  # times are skipped evenly


def test_bars_that_are_laid_down_name_their_rows() -> None:
    names = [f"Pond number {i}" for i in range(40)]
    rows = table(["s", "v"], names, list(range(40)))
    small = edits.change_chart(document("columns", rows), "k1", width=221.0, height=420.0)
    (finding,) = findings(draw(small), "labels-lost")
    remedy = next(one for one in finding.remedies if one.key == "lay down")
    assert remedy.edit is not None
    mended = draw(remedy.edit(small))
    assert not [one for one in findings(mended) if one.check == "labels-lost"]
    assert {text.text for text in mended.figure.texts if text.kind == "name"} == set(names)


def test_one_label_has_a_look_of_its_own() -> None:
    rows = table(["s", "v"], ["a", "b", "c"], [50, 100, 70])
    at = "layers.series 1.rows.1.text_look"
    look = {f"{at}.colour": "#b3372f", f"{at}.size": 18.0, f"{at}.bold": True, f"{at}.family": "serif"}
    made = draw(document("columns", rows, labels="values"), look=look)
    labels = {text.row: text for text in made.figure.texts if text.kind == "label"}
    assert (labels[1].size, labels[1].colour.hex, labels[1].face) == (18.0, "#b3372f", "SourceSerif4-Bold")
    assert labels[0].size == labels[2].size < 18.0


def test_what_is_typed_by_hand_stands_in_its_colour_wherever_that_is() -> None:
    rows = table(["s", "v"], ["a", "b"], [50, 100])
    look = {
        "layers.value.label.colour": "#7a2e5d",
        "layers.value.label.position": "middle",
        "layers.value.label.template": "{value}",
    }
    made = draw(document("picture-bars", rows), look=look)
    assert [text.colour.hex for text in made.figure.texts if text.kind == "label"] == ["#7a2e5d", "#7a2e5d"]


def test_a_leader_crosses_no_text_and_no_other_mark() -> None:
    made = drawn(Case("bubbles", 40, "short", "own", False))
    assert made is not None
    room = FreeSpace(Rect(0.0, 0.0, 640.0, 360.0))
    for mark in made.figure.marks:
        held = body_of(mark)
        if held is not None:
            room.take_body(held)
    led = [text for text in made.figure.texts if text.leader]
    assert led
    for text in led:
        assert room.is_led_freely(text)
