"""Text that is being typed and that the document has not got yet, whatever it is typed into: one mechanism for all.

It belongs to what was in view when it was begun. So it is taken before anything else is done: a command, a click
elsewhere, saving, closing, another chart or page in view. Undo and redo are the editor's while it has steps of its own.
"""

from collections.abc import Callable
from typing import ClassVar, Protocol, runtime_checkable

import shiboken6
from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QLineEdit, QPlainTextEdit, QTextEdit, QWidget

KEY = Qt.Key
EDITING_KEYS = frozenset(
    (
        *(KEY.Key_A, KEY.Key_C, KEY.Key_V, KEY.Key_X, KEY.Key_Left, KEY.Key_Right, KEY.Key_Up, KEY.Key_Down),
        *(KEY.Key_Home, KEY.Key_End, KEY.Key_Backspace, KEY.Key_Delete, KEY.Key_Insert),
    )
)  # with Ctrl, they are a text's own
_COMING_BACK = frozenset(
    (
        Qt.FocusReason.PopupFocusReason,  # a menu, which may be its own
        Qt.FocusReason.MenuBarFocusReason,
        Qt.FocusReason.ActiveWindowFocusReason,  # another program
    )
)


class TextEditor:
    """What a widget for text adds to one of Qt's, before which it stands among the base classes.

    `kinds` lists all such widgets. One that edits something else than the document, such as a sheet's choice, is used
    as any other, but in no window that holds a document.
    """

    kinds: ClassVar[list[type["TextEditor"]]] = []
    keeps_draft = True  # whether what is typed is for the document, and so kept against a crash

    def __init_subclass__(cls) -> None:
        super().__init_subclass__()
        TextEditor.kinds.append(cls)

    # What each says

    def typed_text(self) -> str:
        """What stands in it, without its looks."""
        raise NotImplementedError

    def is_changed(self) -> bool:
        """Whether it holds what the document does not."""
        raise NotImplementedError

    def hand_over(self) -> None:
        """Tell the text to those who edit the document by it, and do nothing else."""
        raise NotImplementedError

    def refuse(self, sentence: str) -> None:
        """Show why the text can't be taken."""

    def finish_typing(self) -> None:
        """The text is taken, or was never changed: a field goes on showing it, an editor in place closes."""

    # What is the same for all

    def commit(self) -> bool:
        """Take what is typed. Returns whether the document has it now; what is refused stays, and why is said once."""
        if self.is_changed():
            pending = pending_text_of(self)
            if pending is None:
                self.hand_over()
            elif not pending.hand_over(self):
                return False
        self.end_typing()
        self.finish_typing()
        return True

    def note_typing(self) -> None:
        """Something was typed."""
        pending = pending_text_of(self)
        if pending is not None:
            pending.begin(self)

    def is_typed_in(self) -> bool:
        """Whether something is being typed in it, or is about to be; also while another program is in front."""
        pending = pending_text_of(self)
        focused = isinstance(self, QWidget) and self.hasFocus()
        return focused or (pending is not None and pending.editor is self)

    def end_typing(self) -> None:
        """Nothing is typed any more."""
        pending = pending_text_of(self)
        if pending is not None:
            pending.end(self)

    def can_undo(self) -> bool:
        """Whether there is typing to be undone."""
        return _line(self).isUndoAvailable() if _is_line(self) else _prose(self).document().isUndoAvailable()

    def can_redo(self) -> bool:
        """Whether there is typing to be done again."""
        return _line(self).isRedoAvailable() if _is_line(self) else _prose(self).document().isRedoAvailable()

    def undo_typing(self) -> None:
        """Undo the last of what was typed."""
        (_line(self) if _is_line(self) else _prose(self)).undo()

    def redo_typing(self) -> None:
        """Type it again."""
        (_line(self) if _is_line(self) else _prose(self)).redo()

    def has_use_for(self, event: QKeyEvent) -> bool:
        """Whether a key with Ctrl or Alt edits the text; all others are the window's commands."""
        if event.matches(QKeySequence.StandardKey.Undo):
            return self.can_undo()
        if event.matches(QKeySequence.StandardKey.Redo):
            return self.can_redo()
        commands = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
        return not event.modifiers() & commands or event.key() in EDITING_KEYS

    def event(self, event: QEvent) -> bool:
        """Let the window's commands have their keys."""
        is_key = event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent)
        if is_key and not self.has_use_for(event):  # type: ignore[arg-type]
            event.ignore()
            return False
        return bool(super().event(event))  # type: ignore[misc]

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """Left for another part of the window: what is typed is taken."""
        super().focusOutEvent(event)  # type: ignore[misc]
        if event.reason() not in _COMING_BACK:
            self.commit()


def _is_line(editor: TextEditor) -> bool:
    return isinstance(editor, QLineEdit)


def _line(editor: object) -> QLineEdit:
    assert isinstance(editor, QLineEdit)
    return editor


def _prose(editor: object) -> QPlainTextEdit | QTextEdit:
    assert isinstance(editor, QPlainTextEdit | QTextEdit)
    return editor


class PendingText(QObject):
    """The text that is being typed in a window, in one editor at a time.

    `changed` tells that something was typed, taken or given up.
    """

    changed = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._editor: TextEditor | None = None
        self._taking: TextEditor | None = None
        self._refused: str | None = None  # the text that could not be taken

    @property
    def editor(self) -> TextEditor | None:
        """Where something is being typed; an editor in place from its opening on."""
        self._forget_gone()
        return self._editor

    @property
    def is_changed(self) -> bool:
        """Whether anything is typed that the document has not got."""
        return self.editor is not None and self.editor.is_changed()

    @property
    def can_undo(self) -> bool:
        """Whether there is typing to be undone."""
        return self.editor is not None and self.editor.can_undo()

    @property
    def can_redo(self) -> bool:
        """Whether there is typing to be done again."""
        return self.editor is not None and self.editor.can_redo()

    def begin(self, editor: TextEditor) -> None:
        """Something is being typed there; what was typed elsewhere is taken first."""
        self._refused = None
        if editor is not self.editor:
            self.take()
            self._editor = editor
            if isinstance(editor, QWidget):
                editor.destroyed.connect(self._forget_gone)
        self.changed.emit()

    def _forget_gone(self) -> None:
        if self._editor is not None and not shiboken6.isValid(self._editor):
            self._editor = None

    def end(self, editor: TextEditor) -> None:
        """Nothing is typed there any more."""
        if editor is self._editor:
            self._editor = self._refused = None
            self.changed.emit()

    def drop(self) -> None:
        """Let go of what is typed."""
        self._refused = None
        if self.editor is not None:
            self.end(self.editor)

    def take(self) -> bool:
        """Take what is typed, before something else is done. Returns whether nothing is left that can't be taken."""
        editor = self.editor
        if editor is None or self._taking is not None:
            return True
        return editor.commit()

    def hand_over(self, editor: TextEditor) -> bool:
        """Let an editor hand its text over. Returns whether it was taken; what was refused is not tried again."""
        if self._refused is not None and editor is self.editor and self._refused == editor.typed_text():
            return False
        before, self._taking, self._refused = self._taking, editor, None
        try:
            editor.hand_over()
        finally:
            self._taking, refused = before, self._refused
            if editor is not self.editor:
                self._refused = None
        return refused is None

    def left_alone(self, do: Callable[[], object]) -> None:
        """Do something without taking what is typed."""
        before, self._taking = self._taking, self._editor
        try:
            do()
        finally:
            self._taking = before

    def refuse(self, sentence: str) -> None:
        """Tell the editor whose text is being taken why it can't be."""
        if self._taking is not None:
            self._refused = self._taking.typed_text()
            self._taking.refuse(sentence)

    def undo(self) -> bool:
        """Undo what was typed last. Returns whether there was anything; if not, nothing is typed any more."""
        return self._step(lambda editor: editor.can_undo(), lambda editor: editor.undo_typing())

    def redo(self) -> bool:
        """Type again what was undone. Returns whether there was anything; if not, nothing is typed any more."""
        return self._step(lambda editor: editor.can_redo(), lambda editor: editor.redo_typing())

    def _step(self, can: Callable[[TextEditor], bool], do: Callable[[TextEditor], object]) -> bool:
        editor = self.editor
        if editor is None:
            return False
        if can(editor):
            do(editor)
            self.changed.emit()
            return True
        return not self.take()


@runtime_checkable
class HoldsDocument(Protocol):
    """A window that holds a document."""

    @property
    def pending_text(self) -> PendingText: ...


def pending_text_of(editor: object) -> PendingText | None:
    """What is pending in the window of an editor; None where its window holds no document."""
    window = editor.window() if isinstance(editor, QWidget) else None
    return window.pending_text if isinstance(window, HoldsDocument) else None
