"""Settings and texts that are formulas, bound to the cells they name."""

from typing import Any

import msgspec
import pytest

from kavlet.core.charts.texts import Note, Text
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.pipeline.cell_bindings import bound, bound_note, cell_fields, evaluated, settings_of
from kavlet.core.pipeline.stages import build_chart
from kavlet.core.recipes.recipe import Parameter
from kavlet.core.recipes.registry import recipe
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.values.errors import KavletError
from tests.making import document, draw, findings, table

ROWS = table(["what", "given"], ["Visits", "Walks", "goal", "none"], [40.5, 20.0, 100.0, "a lot"])


@pytest.fixture
def made() -> tuple[Document, Values, str]:
    one = document("thermometer", ROWS[:4], {"name": "what", "value": "given"}, goal="=B4", row=2.0, other="x")
    return one, recalculate(one.tables), one.tables[0].id


def _value(kind: str, value: object, held: tuple[Document, Values, str]) -> object:
    parameter = Parameter("one", kind, 0.0, "")  # type: ignore[arg-type]
    return evaluated(parameter, value, held[1], held[2])  # type: ignore[arg-type]


def test_formulas_give_what_the_cells_hold(made: tuple[Document, Values, str]) -> None:
    assert _value("number", "=B2*2", made) == 81.0
    assert _value("number", "12", made) == "12"
    assert _value("number", 3.5, made) == 3.5
    assert _value("flag", True, made) is True
    assert _value("text", "=A3", made) == "Walks"
    assert _value("text", "=B2", made) == "40.5"
    assert _value("symbol", "=A2", made) == "Visits"
    assert _value("choice", "=A2", made) == "=A2"
    assert _value("text", "plain", made) == "plain"


def test_lists_may_name_cells_among_their_numbers(made: tuple[Document, Values, str]) -> None:
    assert _value("numbers", "10; =B2; =B3/2", made) == "10; 40.5; 10"
    assert _value("numbers", "", made) == ""


@pytest.mark.parametrize(("kind", "text"), [("number", "=A2"), ("numbers", "1; =A2"),
                                            ("number", "=nothing")])  # fmt: skip
def test_a_number_that_is_none_is_said_with_its_formula(
    made: tuple[Document, Values, str], kind: str, text: str
) -> None:
    with pytest.raises(KavletError, match="The setting one needs a number, but =") as caught:
        _value(kind, text, made)
    assert text.rpartition("; ")[2] in str(caught.value)


def test_an_empty_cell_is_said_to_be_empty(made: tuple[Document, Values, str]) -> None:
    with pytest.raises(KavletError, match=r"The setting one needs a number, but =B99 is empty\. Type one there"):
        _value("number", "=B99", made)


def test_settings_of_another_recipe_are_passed_over(made: tuple[Document, Values, str]) -> None:
    one, values, _ = made
    held = settings_of(one.charts[0], recipe("thermometer"), values)
    assert held["goal"] == 100.0
    assert held["row"] == 2.0
    assert "other" not in held
    assert held["milestones"] == recipe("thermometer").defaults["milestones"]


def test_texts_show_what_their_formula_gives(made: tuple[Document, Values, str]) -> None:
    one, values, _ = made
    german = msgspec.structs.replace(one, locale="de_DE")
    look = Text(bold=True)
    assert bound("=B2", look, one, values, one.charts[0]).text == "40.5"
    assert bound("=B2", look, german, values, one.charts[0]).text == "40,5"
    assert bound('=A2&" and more"', look, one, values, one.charts[0]).text == "Visits and more"
    assert bound("=1/0", look, one, values, one.charts[0]).text == ""
    plain = bound("2 < 3", look, one, values, one.charts[0])
    assert (plain.text, plain.bold) == ("2 < 3", True)
    note = bound_note(Note("n1", "=A3", x=0.25), one, values, one.charts[0])
    assert (note.text, note.x) == ("Walks", 0.25)


def test_cells_that_labels_name_are_found(made: tuple[Document, Values, str]) -> None:
    one, _, _ = made
    chart = one.charts[0].id
    one = look_edits.set_looks(one, chart, {"layers.level.label.template": "{value} of {=B4} ({=A2})"})
    spec = build_chart(one, recalculate(one.tables), chart).chart
    assert cell_fields(spec) == {"=B4", "=A2"}


@pytest.mark.parametrize(
    "changes",
    [
        {"title": "=1/0"}, {"source": "=NOTHING(1)"}, {"look": {"frame.along.title": "=1/0"}},
        {"look": {"frame.along.maximum": "=1/0"}}, {"look": {"layers.series 1.label.template": "{value} {=1/0}"}},
    ],
)  # fmt: skip
def test_no_code_of_an_error_stands_in_a_picture_and_proof_tells_of_it(changes: dict[str, Any]) -> None:
    made = draw(document("bars", table(["a", "b"], ["x", "y"], [3, 4]), labels="values"), **changes)
    assert not [text.text for text in made.figure.texts if "#" in text.text]
    assert [one.check for one in findings(made) if one.check == "formula-error"] == ["formula-error"]


def test_an_equals_sign_before_a_number_is_a_sign() -> None:
    look = {"layers.series 1.label.number.prefix": "= ", "layers.series 1.label.template": "= {value}"}
    made = draw(document("bars", table(["a", "b"], ["x"], [3]), labels="values"), look=look)
    assert [text.text for text in made.figure.texts if text.kind == "label"] == ["= = 3"]
