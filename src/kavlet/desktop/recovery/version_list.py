"""A list of documents as they were, with a picture of the one that is chosen and what is to be said of it."""

from collections.abc import Sequence

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QLabel,
    QListWidget,
    QPushButton,
    QWidget,
)

from kavlet.core.document.differences import differences
from kavlet.core.document.document import Document
from kavlet.core.files.versions import Version
from kavlet.core.messages import Message, say, words
from kavlet.core.pipeline.stages import picture_if_any
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import attempt
from kavlet.desktop.list_dialog import lay_out
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.thumbnails import thumb

PICTURE = QSize(320, 200)
MAX_SAID = 8


class VersionListDialog(QDialog):
    """What is listed comes from `fill`; which document a row is, and what is said of it, say those that build on it."""

    def __init__(self, title: str, note: str, listed: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        above = QLabel(note)
        above.setWordWrap(True)
        self.list = QListWidget()
        self.list.setAccessibleName(listed)
        self.list.setFixedWidth(260)
        self.list.setSpacing(UNIT // 2)
        self.picture = QLabel()
        self.picture.setFixedSize(PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setAccessibleName(words("Preview"))
        self.says = QLabel()
        self.says.setWordWrap(True)
        self.says.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.says.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.buttons = QDialogButtonBox()
        self._acting: list[QPushButton] = []
        lay_out(self, above, self.list, (self.picture, self.says), self.says, self.buttons)
        self.list.currentRowChanged.connect(self._show)

    def acting(self, text: str, main: bool = False) -> QPushButton:
        """A button for the row that is chosen."""
        made = QPushButton(text)
        if main:
            made.setObjectName("main")
            made.setDefault(True)
        self.buttons.addButton(made, QDialogButtonBox.ButtonRole.ActionRole)
        self._acting.append(made)
        return made

    def leaving(self, text: str) -> QPushButton:
        """A button that closes the sheet."""
        made = QPushButton(text)
        self.buttons.addButton(made, QDialogButtonBox.ButtonRole.RejectRole)
        made.clicked.connect(lambda _checked=False: self.reject())
        return made

    def fill(self, names: Sequence[str]) -> None:
        """List what there is, and choose the first."""
        self.list.clear()
        self.list.addItems(list(names))
        self.list.setCurrentRow(0 if names else -1)

    def document_at(self, row: int) -> Document:
        """The document of a row. May raise KavletError."""
        raise NotImplementedError

    def said_at(self, row: int) -> str:
        """What is said of a row."""
        raise NotImplementedError

    def _show(self, row: int) -> None:
        for button in self._acting:
            button.setEnabled(row >= 0)
        self.picture.clear()
        self.says.clear()
        if row < 0:
            return
        acts = attempt(lambda: self._show_document(row), self.says.setText)
        for button in self._acting:
            button.setEnabled(acts)

    def _show_document(self, row: int) -> None:
        document = self.document_at(row)
        if document.charts:
            picture = picture_if_any(document, recalculate(document.tables), document.charts[0].id)
            self.picture.setPixmap(thumb(picture.scene, PICTURE, self.devicePixelRatioF()))
        self.says.setText(self.said_at(row))


def told(heading: Message, same: Message, old: Document, new: Document) -> str:
    """What changed from one document to another as a short list, or that nothing did."""
    found = differences(old, new)
    if not found:
        return str(same)
    return "\n".join((str(heading), *(f"·  {what}" for what in found[:MAX_SAID])))


class VersionsDialog(VersionListDialog):
    """`wanted` hands on the document of the version to go back to, which is an edit like any other."""

    wanted = Signal(object)

    def __init__(self, now: Document, held: list[Version], parent: QWidget | None = None) -> None:
        note = words("Going back is a step that Undo takes back; your file stays as it is until you save.")
        super().__init__(words("Earlier versions"), note, words("Earlier versions"), parent)
        self._now, self._held = now, held
        self._read: dict[int, Document] = {}
        self.back = self.acting(words("Go back to it"), main=True)
        self.leaving(words("Cancel"))
        self.back.clicked.connect(lambda _checked=False: self._go_back())
        self.fill([f"{version.when:%Y-%m-%d %H:%M:%S}" for version in held])

    def document_at(self, row: int) -> Document:
        """The document of a version; read once."""
        if row not in self._read:
            self._read[row] = self._held[row].document
        return self._read[row]

    def said_at(self, row: int) -> str:
        """What has changed since."""
        same = say("Nothing has changed since then.")
        return told(say("Changed since then:"), same, self.document_at(row), self._now)

    def _go_back(self) -> None:
        self.wanted.emit(self.document_at(self.list.currentRow()))
        self.accept()
