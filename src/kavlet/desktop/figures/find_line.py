"""The line that finds cells by what they show."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QToolButton, QWidget

from kavlet.core.messages import words
from kavlet.desktop.figures.grid import FiguresGrid
from kavlet.desktop.stylesheet import UNIT


class Finder(QWidget):
    """Goes to the next or previous cell that shows a text; Escape closes it."""

    def __init__(self, grid: FiguresGrid, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._grid = grid
        self.text = QLineEdit()
        self.text.setPlaceholderText(words("Find in this table"))
        self.text.setAccessibleName(words("Find"))
        self.text.returnPressed.connect(self.go_on)
        self.says = QLabel()
        self.says.setObjectName("quiet")
        back, on = QToolButton(), QToolButton()
        for button, sign, name, backward in ((back, "‹", words("Previous"), True), (on, "›", words("Next"), False)):
            button.setObjectName("plain")
            button.setText(sign)
            button.setToolTip(name)
            button.setAccessibleName(name)
            button.clicked.connect(lambda _checked=False, backward=backward: self.go_on(backward))
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        for widget in (self.text, self.says, back, on):
            layout.addWidget(widget)
        self.hide()

    def open(self) -> None:
        """Show the line and wait for a text."""
        self.show()
        self.text.setFocus()
        self.text.selectAll()

    def go_on(self, backward: bool = False) -> None:
        """Go to the next cell that shows the text."""
        found = self._grid.find_text(self.text.text(), backward)
        self.says.setText("" if found or not self.text.text() else words("not found"))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.hide()
            self._grid.setFocus()
            return
        super().keyPressEvent(event)
