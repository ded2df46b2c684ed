"""How a sheet with a list and what is shown of its choice is laid out."""

from collections.abc import Sequence

from PySide6.QtWidgets import QDialog, QHBoxLayout, QLabel, QListWidget, QVBoxLayout, QWidget

from kavlet.desktop.stylesheet import UNIT


def lay_out(
    sheet: QDialog, above: QLabel, held: QListWidget, beside: Sequence[QWidget], tall: QWidget, below: QWidget
) -> None:
    """A note above, the list with what is shown beside it, `tall` of that as high as there is room, buttons below."""
    right = QVBoxLayout()
    right.setSpacing(2 * UNIT)
    for widget in beside:
        right.addWidget(widget, int(widget is tall))
    across = QHBoxLayout()
    across.setSpacing(4 * UNIT)
    across.addWidget(held)
    across.addLayout(right, 1)
    layout = QVBoxLayout(sheet)
    layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
    layout.setSpacing(3 * UNIT)
    layout.addWidget(above)
    layout.addLayout(across, 1)
    layout.addWidget(below)
