"""The sheet after a crash: what was kept, with its time, its picture and what the saved file has not got."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from kavlet.core.document.document import Document
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.journal import JournalContent
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.desktop.recovery.version_list import VersionListDialog, told


class RecoveryDialog(VersionListDialog):
    """`chosen` hands on what the author takes up again. Nothing is overwritten; *Later* keeps it for the next start."""

    chosen = Signal(object)

    def __init__(self, kept: list[JournalContent], parent: QWidget | None = None) -> None:
        note = words("Kavlet ended before these were saved. Taking one up changes no file until you save it.")
        super().__init__(words("Kept from before"), note, words("Kept documents"), parent)
        self.kept = list(kept)
        self.take = self.acting(words("Take up again"), main=True)
        self.drop = self.acting(words("Throw away"))
        self.leaving(words("Later"))
        self.take.clicked.connect(lambda _checked=False: self._take())
        self.drop.clicked.connect(lambda _checked=False: self._drop())
        self._fill()

    def _fill(self) -> None:
        names = [one.path.name if one.path is not None else one.name or words("Untitled") for one in self.kept]
        self.fill([f"{name}\n{one.when:%Y-%m-%d %H:%M:%S}" for name, one in zip(names, self.kept, strict=True)])

    def document_at(self, row: int) -> Document:
        """The document as it was last."""
        return self.kept[row].document

    def said_at(self, row: int) -> str:
        """What it holds that the saved file has not got, and what was being typed."""
        one = self.kept[row]
        said = self._differs(one)
        if one.typed:
            said += "\n" + words("Was being typed, and could not be taken: “{text}”", text=one.typed)
        return said

    @staticmethod
    def _differs(one: JournalContent) -> str:
        if one.path is None:
            return words("It was never saved.")
        try:
            saved = kavlet_file.load(one.path)
        except KavletError:
            return words("Its file {file} can’t be read now.", file=one.path)
        return told(
            say("What {file} has not got:", file=one.path.name), say("Its file holds the same."), saved, one.document
        )

    def _take(self) -> None:
        self.chosen.emit(self.kept[self.list.currentRow()])
        self.accept()

    def _drop(self) -> None:
        journal.remove(self.kept.pop(self.list.currentRow()).file)
        self._fill()
        if not self.kept:
            self.accept()
