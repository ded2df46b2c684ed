"""The sheet of a document's earlier versions: when each was saved, its picture, and what has changed since."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from kavlet.core.document.document import Document
from kavlet.core.files.versions import Version
from kavlet.core.messages import say, words
from kavlet.desktop.recovery.version_list import VersionListDialog, told


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
