"""The switch between the window's places: a row of buttons that carry out their commands."""

from collections.abc import Mapping

from PySide6.QtGui import QAction
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from kavlet.desktop.command import Commands
from kavlet.desktop.stylesheet import UNIT


class WorkspaceSwitch(QWidget):
    """A button for each place; the one that is shown is pressed. `short` has the names for a narrow window."""

    def __init__(self, commands: Commands, short: Mapping[str, str], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.buttons: dict[str, QToolButton] = {}
        self._names: list[tuple[QAction, str, str]] = []
        for name, shorter in short.items():
            action = commands.actions[name]
            self._names.append((action, action.iconText(), shorter))
            button = QToolButton()
            button.setObjectName("place")
            button.setDefaultAction(action)
            self.buttons[name] = button
            row.addWidget(button)

    def shorten(self, narrow: bool) -> None:
        """Go by the short names, or by the full ones."""
        for action, full, shorter in self._names:
            action.setIconText(shorter if narrow else full)

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
