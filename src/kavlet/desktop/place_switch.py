"""The switch between the window's places: a row of buttons that carry out their commands."""

from collections.abc import Sequence

from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from kavlet.desktop.command import Commands
from kavlet.desktop.look import UNIT


class PlaceSwitch(QWidget):
    """A button for each place; the one that is shown is pressed."""

    def __init__(self, commands: Commands, names: Sequence[str], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.buttons: dict[str, QToolButton] = {}
        for name in names:
            action = commands.actions[name]
            button = QToolButton()
            button.setObjectName("place")
            button.setDefaultAction(action)
            self.buttons[name] = button
            row.addWidget(button)

    def beside(self, *others: QWidget) -> QWidget:
        """The switch with other widgets after it."""
        made = QWidget()
        row = QHBoxLayout(made)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(UNIT)
        row.addWidget(self)
        for other in others:
            row.addWidget(other)
        return made
