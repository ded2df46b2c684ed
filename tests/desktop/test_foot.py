"""The sentence at the foot: said when something is refused, gone with the next edit or view."""

import pytest
from pytestqt.qtbot import QtBot

from kavlet.core.interaction.parts import Part
from kavlet.desktop.main import Window
from tests.desktop.hands import row, show, type_in


def test_a_sentence_goes_with_the_next_edit_and_with_another_chart(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    for leave in (lambda: type_in(qtbot, row(window, "frame.along.step"), "10"), lambda: show(window, "pie")):
        show(window, "columns")
        type_in(qtbot, row(window, "frame.along.step"), "many")
        assert "many" in window.saying.text()
        assert window.saying.toolTip() == window.saying.text()
        leave()
        assert window.saying.text() == ""
        assert window.saying.toolTip() == ""


@pytest.mark.parametrize(("path", "text"), [("layers.series 1.fill", "purplish"), ("layers.series 1.edge", "purplish")])
def test_what_is_no_colour_is_said(window: Window, qtbot: QtBot, path: str, text: str) -> None:
    show(window, "columns")
    window.store.select(Part("layer", "series 1"))
    field = row(window, path) if path.endswith("edge") else window.dress.rows[path].field.colour.hex  # type: ignore[attr-defined]
    type_in(qtbot, field, text)
    assert text in window.saying.text()
    assert field.property("wrong")
