"""Labels: which rows have one, what they write, where they stand, and which give way where room is short."""

from typing import Any

import msgspec
import pytest

from kavlet.core.layout.words.free_space import FreeSpace
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelRequest, settle
from kavlet.core.pipeline.stages import Picture
from kavlet.core.spreadsheet.cells import FormattedNumber
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.values.colour import colour
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import NumberText
from tests.making import document, draw, labels, make, table


def shown(made: Picture, key: str) -> list[Any]:
    return [text for text in made.figure.texts if text.kind == "label" and text.key == key]


def test_above_a_share_includes_the_share_itself() -> None:
    rows = table(["part", "size"], ["a", "b", "c"], [50.0, 30.0, 20.0])
    says = {"layers.value.label.when": "above", "layers.value.label.template": "{name}"}
    for least, names in ((0.2, ["a", "b", "c"]), (0.200001, ["a", "b"]), (0.3, ["a", "b"]), (0.5, ["a"]), (0.51, [])):
        made = draw(document("pie", rows), look={**says, "layers.value.label.least": least})
        assert labels(made, "value") == names


@pytest.mark.parametrize("recipe", ["bars", "columns"])
def test_labels_stay_inside_the_chart(recipe: str) -> None:
    rows = table(["n", "v"], ["a", "b", "c"], [1_234_567.0, -987_654.0, 5.0])
    made = draw(document(recipe, rows, labels="values"), look={"layers.series 1.label.size": 22.0})
    texts = shown(made, "series 1")
    assert texts
    for text in texts:
        assert -1e-6 <= text.bounds.x <= text.bounds.right <= made.figure.size.width + 1e-6
        assert -1e-6 <= text.bounds.y <= text.bounds.bottom <= made.figure.size.height + 1e-6


def wanted(row: int, weight: float, dx: float = 0.0) -> LabelRequest:
    spot = LabelSpot(50.0, 50.0, "middle", "middle", colour("#000000"))
    face = resolve(Dress()).face
    return LabelRequest("value", "value", row, "Mere", face, 10.0, (spot,), dx=dx, weight=weight)


def test_where_room_is_short_the_heavier_label_stays_and_the_first_among_equals() -> None:
    def kept(*labels: LabelRequest) -> list[int | None]:
        placed, lost = settle(list(labels), FreeSpace(Rect(0.0, 0.0, 100.0, 100.0)))
        assert len(placed) + lost == len(labels)
        return [text.row for text in placed]

    assert kept(wanted(0, 1.0), wanted(1, 5.0), wanted(2, 3.0)) == [1]
    assert kept(wanted(0, 2.0), wanted(1, 2.0)) == [0]
    assert kept(wanted(0, 9.0), wanted(1, 1.0, dx=0.5)) == [1]  # placed by hand, it comes first


def test_a_label_writes_as_its_column_is_set_before_as_its_first_cell_was_typed() -> None:
    percent, plain = NumberText(style="percent"), NumberText(suffix=" t")
    rows: list[list[Any]] = [["n", "v"], ["a", FormattedNumber(0.25, percent)], ["b", 0.5]]
    made = document("columns", rows, labels="values")
    assert labels(draw(made), "series 1") == ["25%", "50%"]  # all as the first was typed
    first = made.tables[0]
    column = msgspec.structs.replace(first.columns[1], number=plain)
    own = msgspec.structs.replace(first, columns=(first.columns[0], column))
    assert labels(draw(msgspec.structs.replace(made, tables=(own,))), "series 1") == ["0.25 t", "0.5 t"]


def test_labels_moved_by_hand_are_placed_first() -> None:
    rows = table(["n", "v"], ["a", "b"], [10.0, 9.0])
    made = draw(document("columns", rows, labels="values"), look={"layers.series 1.rows.1.dx": 12.0})
    free = make("columns", rows, labels="values")
    a, b = (next(text for text in shown(one, "series 1") if text.row == 1) for one in (made, free))
    assert a.bounds.x - b.bounds.x == pytest.approx(12.0)


@pytest.mark.parametrize(("count", "size"), [(300, 10.0 * 0.84), (301, 10.0)])
def test_labels_of_a_crowd_keep_their_size_and_try_the_nearest_places(count: int, size: float) -> None:
    """One above another from place to place; only the first of all finds its own free, the last ones lie far out."""
    spots = tuple(LabelSpot(20.0, 20.0, "start", "top", colour("#000000")) for _ in range(20))
    far = (*spots, LabelSpot(20.0, 60.0, "start", "top", colour("#000000")))
    wanted = [LabelRequest("a", "a", row, "x", "FiraSans-Regular", 10.0, far) for row in range(count)]
    placed, lost = settle(wanted, FreeSpace(Rect(0.0, 0.0, 200.0, 100.0)))
    assert len(placed) == (2 if count == 300 else 1)
    assert lost == count - len(placed)
    assert {text.size for text in placed} <= {10.0, size}
