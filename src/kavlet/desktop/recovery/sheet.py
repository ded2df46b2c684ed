"""The sheet after a crash: what was kept, with its time, its picture and what the saved file has not got."""

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.building.stages import picture_if_any
from kavlet.core.document.differences import differences
from kavlet.core.document.document import Document
from kavlet.core.figures.recalculate import recalculate
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.journal import Kept
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.desktop.look import UNIT
from kavlet.desktop.thumbs import thumb

PICTURE = QSize(320, 200)


class RecoverySheet(QDialog):
    """`chosen` hands on what the author takes up again. Nothing is overwritten; *Later* keeps it for the next start."""

    chosen = Signal(object)

    def __init__(self, kept: list[Kept], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Kept from before"))
        self.kept = list(kept)
        note = QLabel(words(
            "Kavlet ended before these were saved. Taking one up changes no file until you save it."
        ))  # fmt: skip
        note.setWordWrap(True)
        self.list = QListWidget()
        self.list.setAccessibleName(words("Kept documents"))
        self.list.setFixedWidth(260)
        self.picture = QLabel()
        self.picture.setFixedSize(PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setAccessibleName(words("Preview"))
        self.says = QLabel()
        self.says.setWordWrap(True)
        self.says.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.take = QPushButton(words("Take up again"))
        self.take.setObjectName("main")
        self.take.setDefault(True)
        self.drop = QPushButton(words("Throw away"))
        later = QPushButton(words("Later"))
        self.take.clicked.connect(lambda _checked=False: self._take())
        self.drop.clicked.connect(lambda _checked=False: self._drop())
        later.clicked.connect(lambda _checked=False: self.reject())
        buttons = QDialogButtonBox()
        buttons.addButton(self.take, QDialogButtonBox.ButtonRole.ActionRole)
        buttons.addButton(self.drop, QDialogButtonBox.ButtonRole.ActionRole)
        buttons.addButton(later, QDialogButtonBox.ButtonRole.RejectRole)
        right = QVBoxLayout()
        right.setSpacing(2 * UNIT)
        right.addWidget(self.picture)
        right.addWidget(self.says, 1)
        across = QHBoxLayout()
        across.setSpacing(4 * UNIT)
        across.addWidget(self.list)
        across.addLayout(right, 1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(3 * UNIT)
        layout.addWidget(note)
        layout.addLayout(across, 1)
        layout.addWidget(buttons)
        self.list.currentRowChanged.connect(self._show)
        self._fill()

    def _fill(self) -> None:
        self.list.clear()
        for one in self.kept:
            name = one.path.name if one.path is not None else one.name or words("Untitled")
            self.list.addItem(QListWidgetItem(f"{name}\n{one.when:%Y-%m-%d %H:%M:%S}"))
        self.list.setCurrentRow(0 if self.kept else -1)

    def _show(self, row: int) -> None:
        there = 0 <= row < len(self.kept)
        self.take.setEnabled(there)
        self.drop.setEnabled(there)
        if not there:
            self.picture.clear()
            self.says.clear()
            return
        one = self.kept[row]
        document = one.document
        if document.charts:
            made = picture_if_any(document, recalculate(document.tables), document.charts[0].id)
            self.picture.setPixmap(thumb(made.scene, PICTURE, self.devicePixelRatioF()))
        else:
            self.picture.clear()
        self.says.setText(self._said(one))

    def _said(self, one: Kept) -> str:
        """What it holds that the saved file has not got."""
        if one.path is None:
            return words("It was never saved.")
        try:
            saved: Document | None = kavlet_file.load(one.path)
        except KavletError:
            saved = None
        if saved is None:
            return words("Its file {file} can’t be read now.", file=one.path)
        found = differences(saved, one.document)
        if not found:
            return words("Its file holds the same.")
        said = "\n".join(f"·  {what}" for what in found[:8])
        return f"{say('What {file} has not got:', file=one.path.name)}\n{said}"

    def _take(self) -> None:
        row = self.list.currentRow()
        if 0 <= row < len(self.kept):
            self.chosen.emit(self.kept[row])
            self.accept()

    def _drop(self) -> None:
        row = self.list.currentRow()
        if 0 <= row < len(self.kept):
            journal.remove(self.kept.pop(row).file)
            self._fill()
            if not self.kept:
                self.accept()
