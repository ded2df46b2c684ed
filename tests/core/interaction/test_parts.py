"""Parts of a chart: where their looks stand, their boxes, the order Tab goes through them, their words."""

import pytest

from kavlet.core.interaction.drags import _unturned, begin
from kavlet.core.interaction.parts import Part, boxes, marks_of, says, text_part, walk
from kavlet.core.pipeline.stages import Picture
from tests.making import document, draw, make, marks, table

ROWS = table(["stage", "visits", "walks"], ["April", "May"], [5, 8], [2, 3])


@pytest.fixture
def made() -> Picture:
    return draw(document("columns", ROWS, labels="values"), title="Pond", subtitle="by month", source="desk")


def test_a_part_s_looks_stand_at_its_path() -> None:
    assert Part("layer", "series 1").path == "layers.series 1"
    assert Part("mark", "series 1", 2).path == "layers.series 1.rows.2"
    assert Part("label", "series 1", 2).path == "layers.series 1.label"
    assert Part("axis", "along").path == "frame.along"
    assert (Part("text", "title").path, Part("legend", "").path, Part("plot", "").path) == ("title", "legend", "frame")


def test_texts_belong_to_parts(made: Picture) -> None:
    held = {text.kind: text_part(text) for text in made.figure.texts}
    assert held["title"] == Part("text", "title")
    assert held["source"] == Part("text", "source")
    assert held["tick"] == Part("axis", "along")
    assert held["name"] == Part("axis", "across")
    assert held["legend"] == Part("legend", "")
    labels = [text_part(text) for text in made.figure.texts if text.kind == "label"]
    assert {(part.kind, part.key, part.row) for part in labels if part} == {
        ("label", key, row) for key in ("series 1", "series 2") for row in (0, 1)
    }


def test_boxes_are_those_of_a_part_s_own_texts(made: Picture) -> None:
    figure = made.figure
    (title,) = boxes(figure, Part("text", "title"))
    assert title == next(text.bounds for text in figure.texts if text.kind == "title")
    assert boxes(figure, Part("plot", "")) == [figure.plot]
    assert len(boxes(figure, Part("axis", "across"))) == 2
    assert len(boxes(figure, Part("label", "series 1"))) == 2
    (one,) = boxes(figure, Part("label", "series 1", 1))
    assert one == next(t.bounds for t in figure.texts if t.kind == "label" and t.key == "series 1" and t.row == 1)
    (legend,) = boxes(figure, Part("legend", ""))
    for key in figure.keys:
        assert legend.x <= key.bounds.x
        assert key.bounds.right <= legend.right + 1e-9
    assert boxes(make("funnel", ROWS).figure, Part("legend", "")) == []
    assert boxes(figure, Part("mark", "series 1", 0)) == []


def test_tab_goes_from_the_title_through_layers_to_the_source(made: Picture) -> None:
    assert walk(made.figure) == [
        Part("text", "title"), Part("text", "subtitle"), Part("layer", "series 1"), Part("layer", "series 2"),
        Part("legend", ""), Part("axis", "along"), Part("axis", "across"), Part("text", "source"),
    ]  # fmt: skip
    bare = [part.kind for part in walk(make("funnel", ROWS).figure)]
    assert "legend" not in bare
    assert "text" not in bare or bare[0] == "text"
    assert marks_of(made.figure, "series 2") == [Part("mark", "series 2", 0), Part("mark", "series 2", 1)]
    assert marks_of(made.figure, "none") == []
    hidden = make("bridge", ROWS)
    assert Part("layer", "base") not in walk(hidden.figure)


def test_parts_are_named_in_words(made: Picture) -> None:
    figure = made.figure
    assert says(figure, Part("layer", "series 1")) == "visits"
    assert says(figure, Part("layer", "gone")) == "gone"
    mark = marks(made, "series 1")[1]
    assert says(figure, Part("mark", "series 1", 1)) == f"{mark.says}  (visits)"
    assert "May" in mark.says
    assert says(figure, Part("mark", "series 1", 9)) == ""
    assert [says(figure, Part("axis", key)) for key in ("along", "across")] == ["scale", "names"]
    assert [says(figure, Part(kind, "")) for kind in ("legend", "plot", "label")] == ["legend", "plot", "label"]  # type: ignore[arg-type]
    assert says(figure, Part("text", "title")) == "title"


@pytest.mark.parametrize(
    "front",
    [
        (1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0),
        (0.8, 0.2, 10.0, -0.1, 0.9, 5.0, 0.0, 0.0, 1.0),
        (0.8, 0.2, 10.0, -0.1, 0.9, 5.0, 0.0004, -0.0002, 1.0),
    ],
)
@pytest.mark.parametrize("at", [(0.0, 0.0), (120.0, 45.0), (-30.0, 200.0)])
def test_a_place_on_a_turned_plane_is_found_again(front: tuple[float, ...], at: tuple[float, float]) -> None:
    """The inverse of a projective map (Hartley and Zisserman, Multiple View Geometry, 2.3)."""
    a, b, c, d, e, f, g, h, i = front
    u, v = at
    w = g * u + h * v + i
    found = _unturned(front, (a * u + b * v + c) / w, (d * u + e * v + f) / w)
    assert found == pytest.approx(at)


def test_a_plane_seen_edge_on_has_no_places() -> None:
    assert _unturned((1.0, 2.0, 0.0, 2.0, 4.0, 0.0, 0.0, 0.0, 1.0), 3.0, 4.0) is None


def test_a_drag_on_a_solid_goes_along_its_own_plane() -> None:
    """Seen from the front it is dragged as flat ones are; seen aslant, the same way on the sheet goes further on it."""
    made = document("columns", ROWS)
    solid = {"solid.on": True, "solid.tilt": 0.0, "solid.perspective": 0.0}
    gaps = []
    for turn in (1.0, 50.0):
        one = draw(made, look=solid | {"solid.turn": turn})
        assert one.figure.fronts
        a, b, c, d, e, f, *_ = one.figure.fronts[0]
        flat = draw(made)
        box = marks(flat, "series 1")[0].bounds
        x, y = box.x + 0.2, box.y + box.height / 2  # the side of a bar on the chart's own plane
        drag = begin(one.figure, one.build.chart, Part("mark", "series 1", 0), (), a * x + b * y + c, d * x + e * y + f)
        assert drag is not None
        gaps.append(next(iter(drag.looks(0.0, 0.0, a * x + b * y + c - 4.0, d * x + e * y + f).values())))
    assert gaps[1] < gaps[0]
