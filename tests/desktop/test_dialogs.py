"""Sheets over the window end with their closing, and what they showed with them."""

import pytest
from PySide6.QtWidgets import QDialog

from kavlet.desktop.main import Window
from kavlet.desktop.presenting.show import Show
from tests.desktop.hands import show
from tests.desktop.taken_again import settled


@pytest.mark.parametrize(
    "command", ["propose_colours", "draw_symbol", "small_table", "deliver", "print", "outbox", "showcase"]
)
def test_a_sheet_ends_when_it_is_closed(window: Window, command: str) -> None:
    show(window, "picture-bars")
    before = window.findChildren(QDialog)
    window.actions_by_name[command].trigger()
    (sheet,) = [one for one in window.findChildren(QDialog) if one not in before]
    assert sheet.isVisible()
    sheet.reject()
    settled()
    assert window.findChildren(QDialog) == before


def test_what_was_presented_ends_with_it(window: Window) -> None:
    window.presenting.present()
    assert window.presenting.findChildren(Show)
    window.presenting.end()
    settled()
    assert not window.presenting.findChildren(Show)
