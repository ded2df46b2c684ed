"""A line to type values and formulas in: references in colour, functions completed and explained, F4 and picking."""

import re

from PySide6.QtCore import QMimeData, QStringListModel, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QFontMetrics,
    QKeyEvent,
    QSyntaxHighlighter,
    QTextCharFormat,
    QTextCursor,
    QTextDocument,
    QTextOption,
)
from PySide6.QtWidgets import QCompleter, QFrame, QListView, QPlainTextEdit, QToolTip, QWidget

from kavlet.core.messages import words
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.references import SCAN, RangeReference, reference
from kavlet.desktop.pending_text import TextEditor
from kavlet.desktop.stylesheet import colours

REFERENCE_COLOURS = ("#7a2e5d", "#0e7c86", "#b0630c", "#3f6b2a", "#34558b", "#a8452f")
REFERENCE_COLOURS_DARK = ("#d58bb8", "#5bb9c2", "#e0aa5a", "#9dbb84", "#8faadc", "#e08b76")


def reference_colour(index: int) -> QColor:
    """The colour of a formula's reference, by its place among the different ones."""
    palette = REFERENCE_COLOURS_DARK if QColor(colours().panel).lightness() < 128 else REFERENCE_COLOURS
    return QColor(palette[index % len(palette)])


def spans(text: str) -> list[tuple[int, int, RangeReference, int]]:
    """Start, end, reference and colour index of each reference in a formula; equal references share a colour."""
    if not text.startswith("="):
        return []
    found: list[tuple[int, int, RangeReference, int]] = []
    seen: dict[str, int] = {}
    for match in SCAN.finditer(text):
        if match["text"] is None:
            key = match[0].replace("$", "").upper()
            found.append((match.start(), match.end(), reference(match[0]), seen.setdefault(key, len(seen))))
    return found


class _Colours(QSyntaxHighlighter):
    """Colours references and functions of a formula."""

    def __init__(self, document: QTextDocument) -> None:
        super().__init__(document)

    def highlightBlock(self, text: str) -> None:
        if not text.startswith("="):
            return
        for match in re.finditer(r"[^\W\d][\w.]*(?=\s*\()", text):
            form = QTextCharFormat()
            form.setFontWeight(600)
            self.setFormat(match.start(), match.end() - match.start(), form)
        for start, end, _, index in spans(text):
            form = QTextCharFormat()
            form.setForeground(reference_colour(index))
            self.setFormat(start, end - start, form)


class FormulaEdit(TextEditor, QPlainTextEdit):
    """One line of text, of one cell. `committed` tells the text that the cell is to have, and `closed` that nothing is
    typed any more; `finished` the key it was left with, once the text was taken; `edited` each change of the text."""

    committed = Signal(str)
    closed = Signal()
    finished = Signal(int)
    cancelled = Signal()
    edited = Signal()

    def __init__(self, parent: QWidget | None = None, in_cell: bool = False) -> None:
        super().__init__(parent)
        self._held = ""
        self._showing = False
        self._picked: tuple[int, int] | None = None
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self.setWordWrapMode(QTextOption.WrapMode.NoWrap)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.document().setDocumentMargin(2 if in_cell else 3)
        if in_cell:
            self.setFrameShape(QFrame.Shape.NoFrame)
        else:
            self.setFixedHeight(QFontMetrics(self.font()).height() + 14)
            self.setViewportMargins(3, 3, 3, 0)
        self._colours = _Colours(self.document())
        self._popup = QListView(self)
        names = [one.shown for one in sorted(FUNCTIONS.values(), key=lambda one: one.name)]
        self._completer = QCompleter(QStringListModel(names, self), self)
        self._completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self._completer.setPopup(self._popup)
        self._completer.setWidget(self)
        self._completer.setMaxVisibleItems(8)
        self._completer.activated.connect(self._complete)
        self.textChanged.connect(self._changed)
        self.cursorPositionChanged.connect(self._explain)

    @property
    def completer(self) -> QCompleter:
        """What completes the names of functions."""
        return self._completer

    def text(self) -> str:
        return self.toPlainText()

    def set_text(self, text: str) -> None:
        """Show what the cell holds, the cursor at its end."""
        self._held = text
        self.mirror(text)

    def mirror(self, text: str) -> None:
        """Show what is being typed elsewhere."""
        self._showing = True
        if text != self.text():
            self.setPlainText(text)
        self._showing = False
        self.moveCursor(QTextCursor.MoveOperation.End)
        self._picked = None

    def typed_text(self) -> str:
        return self.text()

    def is_changed(self) -> bool:
        return self.text() != self._held

    def hand_over(self) -> None:
        self.committed.emit(self.text())

    def finish_typing(self) -> None:
        self._popup.hide()
        self._held = self.text()
        self.document().clearUndoRedoStacks()  # from here on, undo is the document's
        self.closed.emit()

    def _changed(self) -> None:
        self.edited.emit()
        if self.hasFocus() and not self._showing:  # colouring counts as a change too
            self.note_typing()
        word = self._word()
        if self.hasFocus() and self.text().startswith("=") and len(word) >= 1:
            self._completer.setCompletionPrefix(word)
            if self._completer.completionCount():
                popup = self._popup
                popup.setCurrentIndex(self._completer.completionModel().index(0, 0))
                rect = self.cursorRect()
                rect.setWidth(popup.sizeHintForColumn(0) + 32)
                self._completer.complete(rect)
                return
        self._popup.hide()

    def _word(self) -> str:
        """The letters before the cursor that may begin a function's name."""
        before = self.text()[: self.textCursor().position()]
        found = re.search(r"(?<![\w.$!\"])[A-Za-z][A-Za-z0-9.]*$", before)
        inside_text = before.count('"') % 2
        return found[0] if found and not inside_text else ""

    def _complete(self, chosen: str) -> None:
        cursor = self.textCursor()
        cursor.movePosition(QTextCursor.MoveOperation.Left, QTextCursor.MoveMode.KeepAnchor, len(self._word()))
        cursor.insertText(chosen.partition("(")[0] + "(")
        self.setTextCursor(cursor)

    def called(self) -> str:
        """The function whose arguments the cursor stands in; empty when there is none."""
        before = self.text()[: self.textCursor().position()]
        depth = 0
        for at in range(len(before) - 1, -1, -1):
            if before[at] == ")":
                depth += 1
            elif before[at] == "(":
                if depth == 0:
                    found = re.search(r"[^\W\d][\w.]*\s*$", before[:at])
                    return found[0].strip().upper() if found else ""
                depth -= 1
        return ""

    def _explain(self) -> None:
        function = FUNCTIONS.get(self.called()) if self.hasFocus() and self.text().startswith("=") else None
        if function is None:
            QToolTip.hideText()
            return
        text = f"{function.shown}  {words(function.help)}"
        QToolTip.showText(self.mapToGlobal(self.rect().bottomLeft()), text, self)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        popup = self._popup
        if popup.isVisible() and key in (Qt.Key.Key_Tab, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._complete(str(popup.currentIndex().data() or ""))
            popup.hide()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Tab, Qt.Key.Key_Backtab):
            if self.commit():
                self.finished.emit(int(key))
        elif key == Qt.Key.Key_Escape:
            self.end_typing()
            self._held = self.text()  # leaving it takes nothing any more
            self.cancelled.emit()
        elif key == Qt.Key.Key_F4:
            self.cycle_absolute()
        else:
            self._picked = None
            super().keyPressEvent(event)

    def insertFromMimeData(self, source: QMimeData) -> None:
        self.insertPlainText(" ".join(source.text().splitlines()))

    def focusOutEvent(self, event: QFocusEvent) -> None:
        QToolTip.hideText()
        super().focusOutEvent(event)

    def cycle_absolute(self) -> None:
        """Turn the reference at the cursor from B2 to $B$2, B$2, $B2 and back."""
        position = self.textCursor().position()
        for start, end, held, _ in spans(self.text()):
            if start <= position <= end:
                flags = (held.one.keep_column, held.one.keep_row)
                order = [(False, False), (True, True), (False, True), (True, False)]
                column, row = order[(order.index(flags) + 1) % 4]
                new = _with_flags(held, column, row).text
                self._replace(start, end, new)
                return

    def _replace(self, start: int, end: int, text: str) -> None:
        cursor = self.textCursor()
        cursor.setPosition(start)
        cursor.setPosition(end, QTextCursor.MoveMode.KeepAnchor)
        cursor.insertText(text)
        self.setTextCursor(cursor)

    def can_pick(self) -> bool:
        """Whether a click on a cell would put a reference here: in a formula, where a value is due."""
        before = self.text()[: self.textCursor().position()].rstrip()
        return self.text().startswith("=") and (self._picked is not None or before[-1:] in "=(+-*/^&;,<>:")

    def pick(self, text: str) -> None:
        """Put a reference at the cursor, in place of the one picked just before."""
        at = self.textCursor().position()
        start, end = self._picked or (at, at)
        self._replace(start, end, text)
        self._picked = (start, start + len(text))


def _with_flags(held: RangeReference, column: bool, row: bool) -> RangeReference:
    import msgspec

    one = msgspec.structs.replace(held.one, keep_column=column, keep_row=row)
    other = held.other and msgspec.structs.replace(held.other, keep_column=column, keep_row=row)
    return msgspec.structs.replace(held, one=one, other=other)
