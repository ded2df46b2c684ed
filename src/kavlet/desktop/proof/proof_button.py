"""The button that opens Proof, with the number of what is found."""

from PySide6.QtGui import QFontMetrics
from PySide6.QtWidgets import QToolButton, QWidget

from kavlet.core.messages import counted, words
from kavlet.desktop.command import Commands
from kavlet.desktop.proof.background_proof import BackgroundProof


class ProofButton(QToolButton):
    """Says how much was found; nothing but its name while the document is read for the first time."""

    def __init__(self, commands: Commands, desk: BackgroundProof, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("place")
        self._action = commands.actions["show_proof"]
        self.setCheckable(True)
        self.clicked.connect(self._action.trigger)
        self._action.changed.connect(self._follow)
        self._desk = desk
        font = self.font()
        font.setBold(True)
        self.setMinimumWidth(QFontMetrics(font).horizontalAdvance(words("Proof {count}", count=88)) + 14)
        desk.found.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Say how much was found by now."""
        proof = self._desk.proof
        count = len(proof.open) if proof is not None else 0
        grave = sum(finding.severity != "note" for finding in proof.open) if proof is not None else 0
        self.setText(words("Proof {count}", count=count) if count else words("Proof"))
        message = counted("{count} finding", "{count} findings", count)
        self.setToolTip(
            words("{findings}, {grave} of them grave (F8)", findings=message, grave=grave)
            if grave
            else words("{findings} (F8)", findings=message)
            if count
            else words("What a careful reader would object to (F8)")
        )
        self._follow()

    def _follow(self) -> None:
        self.setChecked(self._action.isChecked())
        self.setEnabled(self._action.isEnabled())
