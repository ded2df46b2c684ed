"""Numbers, formulas and texts typed into the fields of Dress: taken as cells are, refused in a sentence, focus back."""

import pytest
from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables.cell_edits import set_number_text
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say
from kavlet.core.values.number_text import NumberText
from kavlet.desktop.dress.fields import FieldNote, PickField, TextField
from kavlet.desktop.main import Window
from tests.desktop.hands import figure, pick, show, spec, type_in


def notes(window: Window) -> list[str]:
    """What is said below fields now."""
    return [note.text() for note in window.findChildren(FieldNote) if note.isVisible()]


def setting(window: Window, name: str) -> TextField:
    field = window.dress.settings[name]
    assert isinstance(field, TextField)
    return field


@pytest.mark.parametrize(
    ("typed", "kept", "shown"), [("100,000", 100_000, "100000"), ("2,400.5", 2400.5, "2400.5"), ("=B2", "=B2", "=B2")]
)
def test_a_goal_is_read_as_a_cell_is(window: Window, qtbot: QtBot, typed: str, kept: object, shown: str) -> None:
    show(window, "thermometer")
    type_in(qtbot, setting(window, "goal"), typed)
    assert window.store.chart.settings["goal"] == kept
    assert setting(window, "goal").text() == shown


def test_what_can_t_be_read_is_said_at_the_field_and_at_the_foot(window: Window, qtbot: QtBot) -> None:
    show(window, "thermometer")
    before = window.store.document
    field = setting(window, "goal")
    type_in(qtbot, field, "plenty")
    assert window.store.document is before
    assert notes(window) == [window.saying.text()]
    assert notes(window)[0].startswith("“plenty” is not a number.")
    assert field.hasFocus()
    assert field.accessibleDescription() == notes(window)[0]
    qtbot.keyClick(field, Qt.Key.Key_Backspace)
    assert notes(window) == []
    qtbot.keyClick(field, Qt.Key.Key_Escape)
    assert not field.is_wrong


@pytest.mark.parametrize("path", ["frame.along.cap", "frame.along.step"])
def test_the_scale_takes_cells_and_refuses_words(window: Window, qtbot: QtBot, path: str) -> None:
    show(window, "bars")
    field = window.dress.rows[path].field
    assert isinstance(field, TextField)
    type_in(qtbot, field, "=B2")
    assert window.store.chart.dress.overrides[path] == "=B2"
    assert window.dress.rows[path].field.text() == "=B2"  # type: ignore[attr-defined]
    held = spec(window).frame.along  # type: ignore[union-attr]
    assert getattr(held, path.rpartition(".")[2]) == window.store.values.numbers(window.store.chart.table, 1)[0]
    type_in(qtbot, field, "low")
    assert len(notes(window)) == 1


def test_most_decimals_and_blanks_beside_numbers(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    fields = {path.rpartition(".")[2]: row.field for path, row in window.dress.rows.items() if ".label.number." in path}
    type_in(qtbot, fields["least_decimals"], "1")
    type_in(qtbot, fields["most_decimals"], "1")
    type_in(qtbot, fields["suffix"], " kg")
    type_in(qtbot, fields["prefix"], "c. ")
    said = [one.text for one in figure(window).texts if one.kind == "label"]
    assert said
    assert all(text.startswith("c. ") and text.endswith(" kg") and text[-5] == "." for text in said)


def test_own_words_of_labels_by_enter_stay(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    says = window.dress.rows["layers.series 1.label.template"].field
    assert isinstance(says, PickField)
    line = says.lineEdit()
    assert line is not None
    line.setFocus()
    line.selectAll()
    offered = says.count()
    qtbot.keyClicks(line, "so far {value}")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert window.store.chart.dress.overrides["layers.series 1.label.template"] == "so far {value}"
    assert says.count() == offered


@pytest.mark.parametrize("text", ["=1+", "=Z99", "=NOTHING(1)", "=1/0"])
def test_a_title_that_gives_nothing_is_refused_and_the_old_one_stays(window: Window, qtbot: QtBot, text: str) -> None:
    show(window, "bars")
    type_in(qtbot, window.dress.texts["title"], "A good title")
    type_in(qtbot, window.dress.texts["title"], text)
    assert window.store.chart.title == "A good title"
    assert len(notes(window)) == 1


def test_the_focus_goes_back_where_it_was(window: Window, qtbot: QtBot) -> None:
    show(window, "thermometer")
    for home in (window.figures.grid, window.stage.view):
        home.setFocus()
        type_in(qtbot, setting(window, "goal"), "90" if home is window.stage.view else "80")
        assert home.hasFocus()


def test_an_axis_follows_its_column_and_has_a_number_text_of_its_own(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    ticks = lambda: [one.text for one in figure(window).texts if one.kind == "tick"]  # noqa: E731
    percent, all_cells = NumberText(style="percent"), (1, 0, 1, window.store.table.height - 1)
    window.store.edit_table(
        say("number text"), lambda document, table: set_number_text(document, table.id, all_cells, percent)
    )
    window.store.edit_chart(
        say("ink"), lambda document, chart: look_edits.set_looks(document, chart.id, {"frame.along.visible": True})
    )
    assert ticks()
    assert all(text.endswith("%") for text in ticks())
    window.store.select(Part("axis", "along"))
    field = window.dress.rows["frame.along.number.suffix"].field
    type_in(qtbot, field, " or so")
    assert all(text.endswith("% or so") for text in ticks())


def test_the_locale_of_the_document_is_chosen(window: Window) -> None:
    show(window, "bars")
    pick(window.dress.look.numbers, "de-CH")
    assert window.store.document.locale == "de-CH"
    pick(window.dress.look.numbers, "de")
    window.store.undo()
    assert window.dress.look.numbers.currentData() == "de-CH"


@pytest.mark.parametrize(
    ("start", "end", "step", "says"),
    [
        ("300", "250", "", "can’t end at 250"),
        ("", "", "0", "above 0"),
        ("", "", "-5", "above 0"),
        ("", "", "0.01", "ticks"),
    ],
)
def test_a_scale_without_a_way_is_refused_at_the_field(
    window: Window, qtbot: QtBot, start: str, end: str, step: str, says: str
) -> None:
    show(window, "bars")
    window.store.select(Part("axis", "along"))
    field = lambda name: window.dress.rows[f"frame.along.{name}"].field  # noqa: E731
    if start:
        type_in(qtbot, field("minimum"), start)
    before = window.store.document
    type_in(qtbot, field("maximum" if end else "step"), end or step)
    assert window.store.document is before
    assert len(notes(window)) == 1
    assert says in notes(window)[0]


def test_a_size_of_its_own_keeps_the_proportion_by_choice(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    size = window.dress.look.size_fields
    before = window.store.chart.width / window.store.chart.height
    type_in(qtbot, size.width_field, "120 mm")
    assert window.store.chart.width == pytest.approx(120 * 72 / 25.4)
    assert window.store.chart.width / window.store.chart.height == pytest.approx(before)
    size.keeps.click()
    type_in(qtbot, size.height_field, "50")
    assert (size.width_field.text(), size.height_field.text()) == ("120", "50")
    held = window.store.document
    for text in ("0", "-5", "9000", "wide"):
        type_in(qtbot, size.height_field, text)
        assert window.store.document is held
        assert len(notes(window)) == 1


def test_a_chart_is_renamed(window: Window) -> None:
    window.charts.rename("Another name")
    assert window.store.chart.name == "Another name"
    assert window.stage.charts.currentText() == "Another name"
    held = window.store.document
    for name in (" ", window.store.document.charts[1].name):
        window.charts.rename(name)
        assert window.store.document is held


def test_settings_are_given_back_apart_from_looks(window: Window, qtbot: QtBot) -> None:
    show(window, "thermometer")
    type_in(qtbot, setting(window, "goal"), "1,234")
    held = dict(window.store.chart.dress.overrides)
    window.dress.look.give_settings.click()
    assert window.store.chart.settings == {}
    assert window.store.chart.dress.overrides == held


def test_a_chart_whose_scale_has_no_way_can_still_be_dressed(window: Window, qtbot: QtBot) -> None:
    show(window, "bars")
    looks = {"frame.along.step": -1.0}
    window.store.edit_chart(say("step"), lambda document, chart: look_edits.set_looks(document, chart.id, looks))
    window.store.select(Part("layer", "series 1"))
    type_in(qtbot, window.dress.rows["layers.series 1.name"].field, "Renamed")
    assert window.store.chart.dress.overrides["layers.series 1.name"] == "Renamed"
    assert notes(window) == []
