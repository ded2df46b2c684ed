"""Bridge: what is an end, and whose colours the bars have."""

import pytest

from kavlet.core.document import edits
from tests.making import document, draw, findings, helper, labels, make, table


def moved(name: str, value: object) -> list[list[object]]:
    return table(["step", "sum"], ["Start", "Gifts", "Rent", name], [100, 50, -20, value])  # type: ignore[return-value]


@pytest.mark.parametrize(
    ("name", "value"), [("End", 500), ("Closing balance", 90), ("ENDE", 500), ("x", 130), ("x", None)]
)
def test_a_stated_end_is_an_end_whatever_it_says(name: str, value: object) -> None:
    made = make("bridge", moved(name, value))
    assert helper(made, "total") == [True, False, False, True]
    assert helper(made, "running")[-1] == 130
    assert labels(made, "totals") == ["100", "130"]
    said = [one.figure for one in findings(made) if one.check == "stated-total"]
    assert said == ([value - 130] if isinstance(value, int) and value != 130 else [])


@pytest.mark.parametrize(("name", "value"), [("Endowment", 500), ("Legacy", 500), ("Fees", -5)])
def test_a_last_change_stays_a_change(name: str, value: float) -> None:
    made = make("bridge", moved(name, value))
    assert helper(made, "total")[-1] is False
    assert helper(made, "running")[-1] == 130 + value


def test_colours_of_total_rise_and_fall_follow_a_sign_that_changes() -> None:
    settings = {"rise colour": "#00aa00", "fall colour": "#aa0000", "total colour": "#0000aa"}
    held = document("bridge", moved("x", None), **settings)
    fills = lambda made: [m.fill.hex for m in draw(made).figure.marks if m.key == "above" and m.fill]  # noqa: E731
    assert fills(held) == ["#0000aa", "#00aa00", "#aa0000", "#0000aa"]
    turned = edits.set_cells(held, held.tables[0].id, {(1, 2): -50.0})
    assert fills(turned)[1] == "#aa0000"


def test_a_fill_set_by_hand_wins_over_the_recipe_s_colours_and_a_setting_takes_it_back() -> None:
    made = draw(
        document("bridge", moved("x", None)),
        look={"layers.above.fill": "#123456", "layers.above.rows.1.fill": "#654321"},
    )
    assert [m.fill.hex for m in made.figure.marks if m.key == "above" and m.fill] == [
        "#123456",
        "#654321",
        "#123456",
        "#123456",
    ]
