"""A chart repeated for each row or group: one scale, the table's order, and nothing left out unsaid."""

import pytest

from kavlet.core.values.geometry import Size
from tests.making import document, draw, findings, table

FUNDS = table(["fund", "given", "goal"], ["House", "Garden", "Pond"], [300, 0, 900], [1000, 500, 600])
ROLES = {"name": "fund", "value": "given", "goal": "goal"}


def repeated(recipe: str, rows: list, roles: dict, size: Size | None = None, **settings: object):  # type: ignore[no-untyped-def, type-arg]
    return draw(document(recipe, rows, roles, **settings), size, repeat=True)


def test_panels_share_one_scale() -> None:
    made = repeated("thermometer", FUNDS, ROLES, of="row")
    tops = [
        round(text.bounds.center[1], 3) for text in made.figure.texts if text.kind == "tick" and text.text == "100%"
    ]
    assert len(tops) == 3
    assert len(set(tops)) == 1


def test_groups_stand_in_the_order_in_which_they_first_appear() -> None:
    rows = table(["fund", "given"], ["House", "Garden", "House", "Pond", "Garden"], [3, 4, 5, 6, 7])
    made = repeated("thermometer", rows, {"name": "fund", "value": "given"}, of="group", goal=20.0)
    assert [text.text for text in made.figure.texts if text.kind == "panel"] == ["House", "Garden", "Pond"]


def test_what_is_not_drawn_is_said() -> None:
    names = [f"n{i}" for i in range(75)]
    made = repeated(
        "thermometer", table(["a", "b"], names, list(range(1, 76))), {"name": "a", "value": "b"}, of="row", goal=100.0
    )
    assert len([text for text in made.figure.texts if text.kind == "panel"]) == 60
    said = [str(one.message) for one in findings(made, "labels-lost")]
    assert said[:1] == ["15 panels are not drawn: there are too many."]


def test_alt_text_and_findings_tell_of_all_panels() -> None:
    made = repeated("thermometer", FUNDS, ROLES, of="row")
    for name, share in (("House", "30%"), ("Garden", "0%"), ("Pond", "150%")):
        assert f"{name}: Thermometer" in made.figure.long_text
        assert share in made.figure.long_text
    assert made.figure.alt_text == (
        "Thermometer: given. Pond stands out with 900, 3 times the next, House. The smallest is Garden with 0."
    )
    assert [str(one.message) for one in findings(made) if one.check == "out-of-range"] == [
        "Pond: The goal is passed: 150%. The tube shows a break."
    ]


@pytest.mark.parametrize("count", [3, 20, 60])
def test_type_in_panels_is_never_under_seven_points(count: int) -> None:
    names = [f"n{i}" for i in range(count)]
    made = repeated(
        "thermometer", table(["a", "b"], names, list(range(1, count + 1))), {"name": "a", "value": "b"}, Size(221, 147),
        of="row", goal=100.0,
    )  # fmt: skip
    assert min(text.size for text in made.figure.texts if text.kind in ("panel", "tick", "name")) >= 7
