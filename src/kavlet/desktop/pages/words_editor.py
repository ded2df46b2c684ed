"""Words typed in place on the page: a caret, selection, clipboard and its own undo; leaving it is one step."""

from collections.abc import Callable

import msgspec
from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QFont,
    QKeyEvent,
    QKeySequence,
    QTextBlockFormat,
    QTextCharFormat,
    QTextCursor,
    QTextListFormat,
)
from PySide6.QtWidgets import QApplication, QFrame, QTextEdit

from kavlet.core.document.pages import page_edits
from kavlet.core.messages import say, words
from kavlet.core.pages.items.words import Listing, Paragraph, Run, Words
from kavlet.core.pipeline.page_items.words import look_of
from kavlet.core.text.faces import face, face_of
from kavlet.desktop.pages.page_view import PageView
from kavlet.desktop.pages.words_bar import WordsBar
from kavlet.desktop.pending_text import TextEditor
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours

ALIGNED = {"start": Qt.AlignmentFlag.AlignLeft, "middle": Qt.AlignmentFlag.AlignHCenter,
           "end": Qt.AlignmentFlag.AlignRight}  # fmt: skip
STEP = 1.15  # from one size of type to the next
COLOUR, SIZE, FAMILY = (
    QTextCharFormat.Property.UserProperty.value + i for i in (1, 2, 3)
)  # of a run, beside what Qt knows


class WordsEditor(TextEditor, QTextEdit):
    """Lies over the item it edits, in the same face and size. Escape and a click elsewhere finish it: what is typed is
    taken, by the page and item it was opened on."""

    def __init__(self, store: Store, canvas: PageView) -> None:
        super().__init__(canvas)
        self._store, self._canvas = store, canvas
        self._item: Words | None = None
        self._page = ""
        self._base = 12.0  # points
        self._held: tuple[Paragraph, ...] = ()
        self.setAcceptRichText(False)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setAccessibleName(words("Words on the page"))
        self.document().setDocumentMargin(0)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.textChanged.connect(self._typed)
        does: dict[str, Callable[[], object]] = {
            "bold": self.turn_bold, "italic": self.turn_italic,
            "smaller": lambda: self.resize_type(1 / STEP), "larger": lambda: self.resize_type(STEP),
            "start": lambda: self.align("start"), "middle": lambda: self.align("middle"),
            "end": lambda: self.align("end"), "dots": lambda: self.turn_list("dots"),
            "numbers": lambda: self.turn_list("numbers"),
        }  # fmt: skip
        self.bar = WordsBar(does, self.colour, self.face, self.put, canvas)
        self._keys = {
            "Ctrl+B": "bold", "Ctrl+I": "italic", "Ctrl+<": "smaller", "Ctrl+>": "larger", "Ctrl+L": "start",
            "Ctrl+E": "middle", "Ctrl+R": "end", "Ctrl+Shift+L": "dots", "Ctrl+Shift+N": "numbers",
        }  # fmt: skip
        self._does = does
        self.hide()

    @property
    def item(self) -> str:
        """The id of the item whose words are typed; empty where none are."""
        return self._item.id if self._item is not None else ""

    @property
    def is_open(self) -> bool:
        """Whether words are being typed."""
        return self._item is not None

    def open(self, item: Words) -> None:
        """Type the words of an item."""
        self.finish()
        picture = self._canvas.picture
        style, factor = picture.style, self._canvas.factor
        look = look_of(item, style, style.colour(item.fill) if item.fill else None)
        ground = style.colour(item.fill) if item.fill else style.ground
        self._item, self._page = item, picture.page.id
        self._base = look.size
        font = _font(look.face, look.size * factor)
        self.setFont(font)
        self.setStyleSheet(
            f"QTextEdit {{ background: {ground.hex}; color: {look.colour.hex}; border: 0;"
            f" selection-background-color: {colours().accent}; }}"
        )
        self.setPlainText("")
        cursor = QTextCursor(self.document())
        for number, paragraph in enumerate(item.paragraphs or (Paragraph(),)):
            block = QTextBlockFormat()
            block.setAlignment(ALIGNED[paragraph.align])
            block.setLineHeight(100 * item.spacing / 1.2, QTextBlockFormat.LineHeightTypes.ProportionalHeight.value)
            if number:
                cursor.insertBlock(block)
            else:
                cursor.setBlockFormat(block)
            for run in paragraph.runs:
                cursor.insertText(run.text, self._format(run, item, font, factor))
            if paragraph.listing:
                cursor.createList(_list_style(paragraph.listing))
        self._held = self._paragraphs()
        self.document().clearUndoRedoStacks()
        area = self._canvas.on_screen(picture.boxes[item.id]).toAlignedRect()
        inset = int(item.inset * factor)
        self.setGeometry(area.adjusted(inset, inset, -inset, max(-inset, 0)))
        self.show()
        self.raise_()
        self.setFocus(Qt.FocusReason.OtherFocusReason)
        self.selectAll()
        self.bar.show_over(self.geometry().topLeft(), self.geometry().bottom(), style)
        self.note_typing()
        self._canvas.update()

    # How they look

    def turn_bold(self) -> None:
        """What is chosen bold, or not."""
        bold = self.fontWeight() >= QFont.Weight.Bold
        self.setFontWeight(QFont.Weight.Normal if bold else QFont.Weight.Bold)

    def turn_italic(self) -> None:
        """What is chosen italic, or not."""
        self.setFontItalic(not self.fontItalic())

    def resize_type(self, by: float) -> None:
        """What is chosen in larger or smaller type, to half a point."""
        held = self.currentCharFormat().property(SIZE)
        size = float(held) if isinstance(held, int | float) else self._base
        new = max(4.0, min(400.0, round(2 * size * by) / 2))
        if new == size:
            new += 0.5 if by > 1 else -0.5
        made = QTextCharFormat()
        made.setProperty(SIZE, new)
        made.setProperty(QTextCharFormat.Property.FontPixelSize, max(1, round(new * self._canvas.factor)))
        self.mergeCurrentCharFormat(made)

    def colour(self, name: str) -> None:
        """What is chosen in one of the theme's colours; empty for the words' own."""
        made = QTextCharFormat()
        made.setProperty(COLOUR, name)
        made.setForeground(self._qcolor(name) if name else self.palette().text())
        self.mergeCurrentCharFormat(made)
        self.setFocus()

    def face(self, family: str) -> None:
        """What is chosen in another face; empty for the words' own."""
        made = QTextCharFormat()
        made.setProperty(FAMILY, family)
        made.setFontFamilies([face_of(face(family)).css_family] if family else self.font().families())  # type: ignore[arg-type]
        self.mergeCurrentCharFormat(made)
        self.setFocus()

    def align(self, how: str) -> None:
        """The paragraphs that are chosen to the left, middle or right."""
        self.setAlignment(ALIGNED[how])

    def turn_list(self, listing: str) -> None:
        """The paragraphs that are chosen in a list with dots or numbers, or in none."""
        cursor = self.textCursor()
        held = cursor.currentList()
        if held is None or held.format().style() != _list_style(listing):
            cursor.createList(_list_style(listing))
            return
        block, last = self.document().findBlock(cursor.selectionStart()), cursor.selectionEnd()
        while block.isValid() and block.position() <= last:
            of = block.textList()
            if of is not None:
                of.remove(block)
            plain = QTextCursor(block)
            form = plain.blockFormat()
            form.setIndent(0)
            plain.setBlockFormat(form)
            block = block.next()

    def put(self, text: str) -> None:
        """A text where the caret is."""
        self.insertPlainText(text)
        self.setFocus()

    # What they say

    def _format(self, run: Run, item: Words, font: QFont, factor: float) -> QTextCharFormat:
        made = QTextCharFormat()
        own = QFont(font)
        own.setItalic(run.italic)
        own.setBold(run.bold or item.style in ("title", "heading"))
        if run.size:
            own.setPixelSize(max(1, round(run.size * factor)))
        if run.family:
            own.setFamilies([face_of(face(run.family)).css_family])
        made.setFont(own)
        made.setProperty(FAMILY, run.family or "")
        if run.size:
            made.setProperty(SIZE, run.size)
        if run.colour:
            made.setForeground(self._qcolor(run.colour))
            made.setProperty(COLOUR, run.colour)
        made.setProperty(QTextCharFormat.Property.UserProperty, msgspec.json.encode(run).decode())
        return made

    def _qcolor(self, text: str) -> QColor:
        return QColor(self._canvas.picture.style.colour(text).hex)

    def _paragraphs(self) -> tuple[Paragraph, ...]:
        """What stands in the editor, as paragraphs of runs."""
        paragraphs: list[Paragraph] = []
        base_bold = self._item is not None and self._item.style in ("title", "heading")
        block = self.document().firstBlock()
        while block.isValid():
            runs: list[Run] = []
            fragments = block.begin()
            while not fragments.atEnd():
                fragment = fragments.fragment()
                if fragment.isValid() and fragment.text():
                    runs.append(self._run(fragment.text(), fragment.charFormat(), base_bold))
                fragments += 1
            align = block.blockFormat().alignment()
            alignment = next((name for name, flag in ALIGNED.items() if align & flag), "start")
            listing: Listing = ""
            in_list = block.textList()
            if in_list is not None:
                dots = in_list.format().style() == QTextListFormat.Style.ListDisc
                listing = "dots" if dots else "numbers"
            paragraphs.append(Paragraph(_joined(runs), alignment, listing))  # type: ignore[arg-type]
            block = block.next()
        return tuple(paragraphs)

    def _run(self, text: str, how: QTextCharFormat, base_bold: bool) -> Run:
        held = how.property(QTextCharFormat.Property.UserProperty)
        base = msgspec.json.decode(str(held), type=Run) if held else Run("")
        bold = how.fontWeight() >= QFont.Weight.Bold and not base_bold
        size, ink, family = how.property(SIZE), how.property(COLOUR), how.property(FAMILY)
        return msgspec.structs.replace(
            base, text=text.replace("\u2028", "\n"), bold=bold, italic=how.fontItalic(), colour=str(ink or ""),
            size=float(size) if isinstance(size, int | float) else None, family=family or None,
        )  # fmt: skip

    def finish(self) -> None:
        """Take what was typed, as one step; nothing is done where nothing was changed."""
        if self.is_open and not self.commit():
            self.end_typing()  # the words are gone from their page, which was said
            self.finish_typing()

    def typed_text(self) -> str:
        return self.toPlainText()

    def is_changed(self) -> bool:
        return self.is_open and self._paragraphs() != self._held

    def hand_over(self) -> None:
        page, item, made = self._page, self.item, self._paragraphs()
        self._store.edit(
            say("type words"), lambda document: page_edits.change_item(document, page, item, paragraphs=made)
        )

    def finish_typing(self) -> None:
        had_keys = self.hasFocus() or self.bar.isAncestorOf(QApplication.focusWidget() or self)
        self._item = None
        self.bar.hide()
        self.hide()
        if had_keys:
            self._canvas.setFocus(Qt.FocusReason.OtherFocusReason)
        self._canvas.update()

    def _typed(self) -> None:
        if self.is_open:
            self.note_typing()

    def has_use_for(self, event: QKeyEvent) -> bool:
        return self._own_key(event) != "" or super().has_use_for(event)

    def _own_key(self, event: QKeyEvent) -> str:
        """The keys of an event as its own commands are listed; empty where they are none of them."""
        keys = QKeySequence(event.keyCombination()).toString(QKeySequence.SequenceFormat.PortableText)
        keys = keys.replace("Shift+<", "<").replace("Shift+>", ">")
        return keys if keys in self._keys else ""

    def event(self, event: QEvent) -> bool:
        """Its own commands come before those of the window that have the same keys."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent) and self._own_key(event):
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        own = self._own_key(event)
        if event.key() == Qt.Key.Key_Escape:
            self.finish()
        elif event.key() == Qt.Key.Key_F10:
            self.bar.buttons["bold"].setFocus(Qt.FocusReason.TabFocusReason)
        elif own:
            self._does[self._keys[own]]()
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        new = QApplication.focusWidget()
        if new is not None and self.bar.isAncestorOf(new):
            QTextEdit.focusOutEvent(self, event)  # its buttons keep it open
        else:
            super().focusOutEvent(event)


def _joined(runs: list[Run]) -> tuple[Run, ...]:
    """Neighbours of one look as one run."""
    made: list[Run] = []
    for run in runs:
        if made and msgspec.structs.replace(made[-1], text="") == msgspec.structs.replace(run, text=""):
            made[-1] = msgspec.structs.replace(made[-1], text=made[-1].text + run.text)
        else:
            made.append(run)
    return tuple(made)


def _font(key: str, pixels: float) -> QFont:
    of = face_of(key)
    font = QFont([of.css_family])
    font.setPixelSize(max(1, round(pixels)))
    font.setWeight(QFont.Weight(of.weight))
    font.setItalic(of.italic)
    return font


def _list_style(listing: str) -> QTextListFormat.Style:
    return QTextListFormat.Style.ListDisc if listing == "dots" else QTextListFormat.Style.ListDecimal
