"""The small fields of the Dress place: a text, a choice, a switch, a number; each tells what was chosen."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QObject, QPoint, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent
from PySide6.QtWidgets import (
    QAbstractScrollArea,
    QButtonGroup,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QSizePolicy,
    QToolButton,
    QWidget,
)

from kavlet.core.messages import Message
from kavlet.desktop.pending_text import TextEditor
from kavlet.desktop.stylesheet import UNIT

PROSE = 110  # pixels that words of several lines are high
NOTE_LASTS = 12_000  # milliseconds
SHORT = 17  # letters of all choices together that fit side by side in the narrowest window
LABEL_WIDTH = 108  # of the words before a field, so that fields stand below each other


class FieldNote(QLabel):
    """Why a field can't take what was typed, in a sentence right below it, until something else is typed or the field
    is seen no more."""

    def __init__(self, field: QWidget, sentence: str) -> None:
        host = _page_of(field)
        super().__init__(sentence, host)
        self.setObjectName("field_note")
        self.setWordWrap(True)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        room = host.rect().adjusted(UNIT, UNIT, -UNIT, -UNIT)
        self.setFixedWidth(min(room.width(), max(field.width(), 240)))
        self.adjustSize()
        below = field.mapTo(host, field.rect().bottomLeft()) + QPoint(0, UNIT // 2)
        self.move(min(below.x(), room.right() - self.width()), min(below.y(), room.bottom() - self.height()))
        self.show()
        self.raise_()
        field.installEventFilter(self)
        field.destroyed.connect(self.deleteLater)
        QTimer.singleShot(NOTE_LASTS, self, self.hide)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """The field goes, or its place does."""
        if event.type() == QEvent.Type.Hide:
            self.hide()
        return super().eventFilter(watched, event)


def _page_of(field: QWidget) -> QWidget:
    """What a note beside a field goes along with: the page that scrolls with it, else its window."""
    page = field
    while (parent := page.parentWidget()) is not None and not page.isWindow():
        if isinstance(parent.parentWidget(), QAbstractScrollArea):
            return page
        page = parent
    return page


class ProseField(TextEditor, QPlainTextEdit):
    """Words of several lines, committed by leaving them; Escape gives back what they were."""

    committed = Signal(str)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._held = ""
        self.setAccessibleName(name)
        self.setTabChangesFocus(True)
        self.setFixedHeight(PROSE)
        self.textChanged.connect(self._note)

    def show_text(self, text: str) -> None:
        """Show a text from the document; a text being typed is left alone."""
        if text != self._held or not self.is_typed_in():
            self._held = text
            if text != self.toPlainText():
                self.setPlainText(text)

    def _note(self) -> None:
        if self.hasFocus() and self.is_changed():
            self.note_typing()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.give_up()
            self.clearFocus()
            return
        super().keyPressEvent(event)

    def typed_text(self) -> str:
        return self.toPlainText()

    def is_changed(self) -> bool:
        return self.toPlainText() != self._held

    def hand_over(self) -> None:
        self.committed.emit(self.toPlainText())

    def finish_typing(self) -> None:
        self._held = self.toPlainText()
        self.document().clearUndoRedoStacks()  # from here on, undo is the document's

    def give_up(self) -> None:
        """Give back what it held."""
        self.end_typing()
        self.setPlainText(self._held)


class TextField(TextEditor, QLineEdit):
    """A line of text that is committed by Enter or by leaving it; Escape gives back what it held.

    What is refused while it is committed is said at the field: the window passes it to `refuse`. After Enter the focus
    goes back to where the author was.
    """

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
        self.returnPressed.connect(self._enter)
        self.textEdited.connect(self._edited)
        self._note: FieldNote | None = None
        self._says = ""

    def show_text(self, text: str) -> None:
        """Show a text from the document; a text being typed is left alone."""
        if text != self._held or not self.is_typed_in():
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

        if not wrong and self._note is not None:
            self._note.hide()
            self._note.deleteLater()
            self._note = None
            self.setToolTip(self._says)
            self.setAccessibleDescription("")

    @property
    def is_wrong(self) -> bool:
        """Whether what it holds was refused."""
        return bool(self.property("wrong"))

    def refuse(self, sentence: str) -> None:
        """Show that what was typed can't be taken, and why."""
        self.mark_wrong(False)
        self._says = self.toolTip()
        self.mark_wrong(True)
        self._note = FieldNote(self, sentence)
        self.setToolTip(sentence)
        self.setAccessibleDescription(sentence)

    def typed_text(self) -> str:
        return self.text()

    def is_changed(self) -> bool:
        return self.text() != self._held

    def hand_over(self) -> None:
        self.committed.emit(self.text())

    def finish_typing(self) -> None:
        if self.is_wrong:  # a sheet has refused it
            return
        self._held = self.text()
        if self.isUndoAvailable() or self.isRedoAvailable():  # from here on, undo is the document's
            at = self.cursorPosition()
            self.setText(self._held)
            self.setCursorPosition(at)

    def give_up(self) -> None:
        """Give back what it held."""
        self.end_typing()
        self.setText(self._held)
        self.mark_wrong(False)

    def _edited(self) -> None:
        self.mark_wrong(False)
        self.note_typing()

    def _enter(self) -> None:
        self.commit()
        if not self.is_wrong:
            self.clearFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.give_up()
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


class PickField(TextEditor, QComboBox):
    """One of many words, from a list that opens. `said` tells a text of one's own, where that may be."""

    chosen = Signal(str)
    said = Signal(str)

    def __init__(self, name: str, choices: Sequence[tuple[str, str | Message]], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(8)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._typing, self._held = False, ""
        self.set_choices(choices)
        self.activated.connect(self._choose)

    def take_own_texts(self) -> None:
        """Let texts of one's own be typed too."""
        self.setEditable(True)
        self.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        line = self.lineEdit()
        if line is not None:
            line.textEdited.connect(self._edited)
            line.returnPressed.connect(self.commit)

    def _edited(self) -> None:
        self._typing = True
        self.note_typing()

    def set_choices(self, choices: Sequence[tuple[str, str | Message]]) -> None:
        """Offer these from now on; the same list stays as it is."""
        wanted = [(value, str(text)) for value, text in choices]
        if wanted != [(self.itemData(i), self.itemText(i)) for i in range(self.count())]:
            self.clear()
            for value, text in wanted:
                self.addItem(text, value)

    def _choose(self, index: int) -> None:
        self._typing = False
        if self.itemData(index) is not None:
            self.chosen.emit(str(self.itemData(index)))

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()  # scrolling the panel must not change what a field holds

    def show_choice(self, value: str) -> None:
        """Show what the document holds."""
        index = self.findData(value)
        if index >= 0:
            self.setCurrentIndex(index)
        self._held = self.currentText()

    def show_text(self, text: str) -> None:
        """Show a text of one's own."""
        self.setEditText(text)
        self._held = text

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self._typing:
            self.give_up()
            return
        super().keyPressEvent(event)

    def _line(self) -> QLineEdit | None:
        return self.lineEdit() if self.isEditable() else None

    def typed_text(self) -> str:
        return self.currentText()

    def is_changed(self) -> bool:
        return self._typing

    def hand_over(self) -> None:
        self.said.emit(self.currentText())

    def finish_typing(self) -> None:
        line, self._typing, self._held = self._line(), False, self.currentText()
        if line is not None and (line.isUndoAvailable() or line.isRedoAvailable()):
            line.setText(line.text())  # from here on, undo is the document's

    def can_undo(self) -> bool:
        line = self._line()
        return line is not None and line.isUndoAvailable()

    def can_redo(self) -> bool:
        line = self._line()
        return line is not None and line.isRedoAvailable()

    def undo_typing(self) -> None:
        line = self._line()
        if line is not None:
            line.undo()

    def redo_typing(self) -> None:
        line = self._line()
        if line is not None:
            line.redo()

    def give_up(self) -> None:
        """Give back what it held."""
        self._typing = False
        self.end_typing()
        if self.isEditable():
            self.setEditText(self._held)


def give_up_in(place: QWidget) -> None:
    """Give back what fields held: what is typed there was meant for another part or chart."""
    lines, picks = place.findChildren(TextField), place.findChildren(PickField)
    fields: list[TextField | ProseField | PickField] = [*lines, *place.findChildren(ProseField), *picks]
    for field in fields:
        field.give_up()
