"""Names of rows where they are crowded: in how many lines, how large, which are shown, and the room they take."""

import math
from itertools import pairwise

import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Scale
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.texts.text_lines import tall
from kavlet.core.values.geometry import Size
from tests.making import free, table

EDGE = 16.5  # points that a sheet of 400 × 300 keeps free around
ALONG = Scale(minimum=0.0, maximum=50.0, visible=False)


def made(names: list[str], lying: bool = False, size: Size | None = None, **across: object) -> Figure:
    frame = Cartesian(lying=lying, along=ALONG, across=Scale(kind="category", **across))  # type: ignore[arg-type]
    rows = table(["n", "v"], names, [10] * len(names))
    return free(Chart(frame, (Bars("v", "v", "c2"),), names="c1"), rows, size or Size(400, 300)).figure


def named(figure: Figure) -> list[PlacedText]:
    return [text for text in figure.texts if text.kind == "name"]


def test_names_beside_lying_bars_take_the_width_of_the_longest() -> None:
    figure = made(["Mere", "Alder carr", "Fen"], lying=True)
    texts = named(figure)
    longest = max(text.bounds.width for text in texts)
    assert [text.text for text in texts] == ["Mere", "Alder carr", "Fen"]
    assert figure.plot.x == pytest.approx(EDGE + longest + texts[0].size, abs=0.01)
    assert {round(text.bounds.x, 6) for text in texts} == {EDGE}
    third = figure.plot.height / 3
    for row, text in enumerate(texts):
        assert text.bounds.center[1] == pytest.approx(figure.plot.y + (row + 0.5) * third, abs=1.5)


def test_long_names_beside_bars_are_wrapped_at_three_tenths_and_cut_at_two_fifths() -> None:
    wraps = named(made(["The reed bed along the old northern dyke", "Fen"], lying=True))
    assert len(wraps[0].lines) == 2 or len(wraps[0].lines) == 3
    assert max(line.width for line in wraps[0].lines) <= 0.3 * 367
    words = "Reedbedalongtheoldnortherndykeandbeyondthelittlebridge " * 3
    cut = named(made([words.strip(), "Fen"], lying=True))
    assert cut[0].text.endswith("…")
    assert 0.3 * 367 < max(line.width for line in cut[0].lines) <= 0.4 * 367


@pytest.mark.parametrize(("rows", "lines"), [(4, 3), (12, 1)])
def test_names_beside_bars_have_as_many_lines_as_their_bars_have_room(rows: int, lines: int) -> None:
    words = "The reed bed along the old northern dyke and the bridge to the hide"
    figure = made([f"{words} {i}" for i in range(rows)], lying=True)
    texts = named(figure)
    assert len(texts) == rows
    assert max(len(text.lines) for text in texts) == lines
    for text, after in pairwise(texts):
        assert text.bounds.bottom <= after.bounds.y


def test_many_names_beside_bars_step_down_and_then_are_skipped() -> None:
    few, more, most = (named(made([f"plot {i}" for i in range(n)], lying=True)) for n in (10, 25, 100))
    assert len(few) == 10
    assert len(more) == 25
    assert more[0].size < few[0].size
    pitch = 267 / 100
    every = math.ceil(1.15 * most[0].size / pitch)
    assert [text.row for text in most] == list(range(0, 100, every))
    assert every > 1


def test_names_below_bars_are_wrapped_to_their_place_and_take_their_lines_room() -> None:
    figure = made(["The old reed bed", "Fen", "Alder carr"])
    texts = named(figure)
    place = figure.plot.width / 3
    assert all(text.bounds.width <= 0.96 * place for text in texts)
    lines = max(len(text.lines) for text in texts)
    size = texts[0].size
    strip = tall(lines, texts[0].face, size) + 0.35 * size
    assert figure.plot.bottom == pytest.approx(300 - EDGE - strip - 0.6 * size, abs=0.01)
    for row, text in enumerate(texts):
        assert text.bounds.center[0] == pytest.approx(figure.plot.x + (row + 0.5) * place, abs=1)
        assert text.bounds.y >= figure.plot.bottom + 0.5 * size
    long = named(made(["a reed bed that is wide and old and wet and green and far away from here", "b", "c", "d"]))
    assert len(long[0].lines) == 3


def test_words_wider_than_their_bars_are_turned() -> None:
    names = [f"Meadowsweet{i}" for i in range(10)]
    figure = made(names)
    texts = named(figure)
    assert {text.angle for text in texts} == {-45}
    size = texts[0].size
    longest = max(text.lines[0].width for text in texts)
    turn = math.radians(45)
    strip = longest * math.sin(turn) + size * math.cos(turn)
    assert figure.plot.bottom == pytest.approx(300 - EDGE - strip - 0.5 * size, abs=0.01)
    assert len(texts) == 10


def test_turned_names_stand_upright_where_they_are_many_and_then_are_skipped() -> None:
    texts = named(made([f"Meadowsweet{i}" for i in range(50)]))
    assert {text.angle for text in texts} == {-90}
    pitch = 367 / 50
    assert len(texts) == math.ceil(50 / max(1, math.ceil(0.85 * texts[0].size / pitch)))
    many = named(made([f"Meadowsweet{i}" for i in range(200)]))
    rows = [text.row or 0 for text in many]
    assert len({after - before for before, after in pairwise(rows)}) == 1
    assert rows[1] >= 0.85 * many[0].size / (367 / 200)


def test_as_many_names_are_shown_as_their_author_says() -> None:
    texts = named(made([f"plot {i}" for i in range(10)], every=3))
    assert [text.row for text in texts] == [0, 3, 6, 9]
    skipped = named(made([f"Meadowsweet{i}" for i in range(20)], crowded="skip"))
    assert {text.angle for text in skipped} == {0}
    rows = [text.row or 0 for text in skipped]
    every = rows[1] - rows[0]
    width = max(text.bounds.width for text in skipped)
    pitch = 367 / 20
    assert every >= (width + 0.6 * skipped[0].size) / pitch > every - 2
    assert all(text.bounds.right < after.bounds.x for text, after in pairwise(skipped))


@pytest.mark.parametrize(("asked", "drawn"), [(30.0, -30), (-30.0, -30), (90.0, -90), (200.0, -90)])
def test_names_are_turned_as_steep_as_asked_for(asked: float, drawn: float) -> None:
    assert {text.angle for text in named(made(["Mere", "Fen", "Carr"], angle=asked))} == {drawn}


def test_turned_names_have_room_at_the_left_for_what_goes_beyond_the_plot() -> None:
    names = ["A name that is really rather long, longer than its place", "b", "c"]
    for angle in (20.0, 45.0):
        figure = made(names, crowded="turn", angle=angle)
        assert 0 <= named(figure)[0].bounds.x < 8
        assert figure.plot.x > made(["a", "b", "c"], crowded="turn", angle=angle).plot.x + 10
