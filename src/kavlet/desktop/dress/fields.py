"""The small fields of the Dress place: a text, a choice, a switch, a number; each tells what was chosen."""

from collections.abc import Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QWheelEvent
from PySide6.QtWidgets import QButtonGroup, QComboBox, QHBoxLayout, QLineEdit, QSizePolicy, QToolButton, QWidget

from kavlet.core.messages import Message

LABEL_WIDTH = 108  # of the words before a field, so that fields stand below each other


class TextField(QLineEdit):
    """A line of text that is committed by Enter or by leaving it; Escape gives back what it held."""

    committed = Signal(str)
    pressed = Signal()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        super().mousePressEvent(event)
        self.pressed.emit()

    def __init__(self, name: str, hint: str = "", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._held = ""
        self.setAccessibleName(name)
        self.setPlaceholderText(hint)
        self.returnPressed.connect(self._commit)

    def show_text(self, text: str) -> None:
        """Show a text from the document; a text being typed is left alone."""
        if text != self._held or not self.hasFocus():
            self._held = text
            self.setText(text)
            self.setCursorPosition(0)
        self.mark_wrong(False)

    def mark_wrong(self, wrong: bool) -> None:
        """Show that what is typed can't be taken."""
        if bool(self.property("wrong")) != wrong:
            self.setProperty("wrong", wrong)
            self.style().unpolish(self)
            self.style().polish(self)

    def _commit(self) -> None:
        if self.text() != self._held:
            self.committed.emit(self.text())

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self._commit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self._held)
            self.mark_wrong(False)
            return
        super().keyPressEvent(event)


class ChoiceField(QWidget):
    """A few words side by side, one of them chosen."""

    chosen = Signal(str)

    def __init__(self, name: str, choices: Sequence[tuple[str, str | Message]], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self._group = QButtonGroup(self)
        self._group.setExclusive(True)
        self._buttons: dict[str, QToolButton] = {}
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        for value, text in choices:
            button = QToolButton()
            button.setObjectName("choice")
            button.setText(str(text))
            button.setCheckable(True)
            button.setAccessibleName(f"{name}: {text}")
            button.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
            button.setMinimumWidth(20)
            button.clicked.connect(lambda _checked=False, value=value: self.chosen.emit(value))
            self._group.addButton(button)
            self._buttons[value] = button
            layout.addWidget(button)

    def button(self, value: str) -> QToolButton:
        return self._buttons[value]

    def show_choice(self, value: str) -> None:
        """Show what the document holds."""
        if value in self._buttons:
            self._buttons[value].setChecked(True)


class PickField(QComboBox):
    """One of many words, from a list that opens."""

    chosen = Signal(str)

    def __init__(self, name: str, choices: Sequence[tuple[str, str | Message]], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(8)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        for value, text in choices:
            self.addItem(str(text), value)
        self.activated.connect(lambda index: self.chosen.emit(str(self.itemData(index))))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()  # scrolling the panel must not change what a field holds

    def show_choice(self, value: str) -> None:
        """Show what the document holds."""
        index = self.findData(value)
        if index >= 0:
            self.setCurrentIndex(index)
