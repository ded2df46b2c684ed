"""Tab goes from field to field as they stand, however they came to stand there."""

from collections.abc import Iterable
from itertools import pairwise

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLayout, QWidget


def fields_of(layout: QLayout) -> list[QWidget]:
    """All that Tab reaches in a layout, in its order; inside each of its widgets, in the order in which it was made."""
    held = [item.widget() for item in map(layout.itemAt, range(layout.count())) if item is not None]
    inside = [each for one in held if one is not None for each in (one, *one.findChildren(QWidget))]
    return [
        one
        for one in inside
        if one.focusPolicy() & Qt.FocusPolicy.TabFocus.value and one.focusProxy() is None
        if not one.isWindow() and one.window().windowType() != Qt.WindowType.Popup
    ]


def in_tab_order(fields: Iterable[QWidget]) -> None:
    """Let Tab go through fields in this order."""
    for one, other in pairwise(fields):
        QWidget.setTabOrder(one, other)
