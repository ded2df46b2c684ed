"""The outbox as a sheet: what was "sent", with its words and pictures; a simulated service that sends nothing."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPlainTextEdit,
    QPushButton,
    QWidget,
)

from kavlet.core.messages import words
from kavlet.desktop.list_dialog import lay_out
from kavlet.sharing import outbox
from kavlet.sharing.outbox import OutboxMail

PICTURE = 220  # pixels, the longer side


class OutboxDialog(QDialog):
    """The mails at the left, the latest first; the one that is chosen at the right."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Outbox"))
        self.mails: list[OutboxMail] = []
        note = QLabel(
            words("A mail service to try with: it keeps what is sent to it, and nothing leaves this machine.")
        )
        note.setObjectName("quiet")
        note.setWordWrap(True)
        self.list = QListWidget()
        self.list.setAccessibleName(words("Mails"))
        self.list.setFixedWidth(280)
        self.list.currentRowChanged.connect(self._show)
        self.head = QLabel()
        self.head.setWordWrap(True)
        self.head.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.head.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.words = QPlainTextEdit()
        self.words.setReadOnly(True)
        self.words.setAccessibleName(words("Words"))
        self.picture = QLabel()
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.files = QLabel()
        self.files.setObjectName("quiet")
        self.files.setWordWrap(True)
        self.delete = QPushButton(words("Delete"))
        self.delete.clicked.connect(lambda _checked=False: self._delete())
        buttons = QDialogButtonBox()
        buttons.addButton(self.delete, QDialogButtonBox.ButtonRole.ActionRole)
        buttons.addButton(words("Close"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.rejected.connect(self.reject)
        self.words.setMinimumHeight(120)
        lay_out(self, note, self.list, (self.head, self.words, self.picture, self.files), self.words, buttons)
        self.resize(820, 560)
        self.refresh()

    def refresh(self) -> None:
        """Show what is there now, the latest chosen."""
        self.mails = outbox.mails()
        self.list.clear()
        for mail in self.mails:
            self.list.addItem(QListWidgetItem(f"{mail.subject or words('No subject')}\n{mail.when:%Y-%m-%d %H:%M}"))
        self.list.setCurrentRow(0 if self.mails else -1)
        self._show(self.list.currentRow())

    def _show(self, row: int) -> None:
        mail = self.mails[row] if 0 <= row < len(self.mails) else None
        self.delete.setEnabled(mail is not None)
        self.words.setVisible(mail is not None)
        if mail is None:
            self.head.setText(words("Nothing was sent yet."))
            self.picture.clear()
            self.files.clear()
            return
        self.head.setText(words("To {to}: {subject}", to=mail.to, subject=mail.subject))
        self.words.setPlainText(mail.words)
        pixmap = QPixmap()
        if mail.pictures and pixmap.loadFromData(mail.pictures[0]):
            ratio = self.devicePixelRatioF()
            side = round(PICTURE * ratio)
            pixmap = pixmap.scaled(
                side, side, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
            )
            pixmap.setDevicePixelRatio(ratio)
        self.picture.setPixmap(pixmap)
        self.files.setText(words("Attached: {names}", names=list(mail.files)) if mail.files else "")

    def _delete(self) -> None:
        row = self.list.currentRow()
        if 0 <= row < len(self.mails):
            outbox.delete(self.mails[row].path)
            self.refresh()
