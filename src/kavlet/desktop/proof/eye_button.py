"""The button that shows charts and pages as some of their readers see them."""

from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QAction, QActionGroup, QFontMetrics, QIcon, QPainter, QPainterPath, QPen
from PySide6.QtWidgets import QMenu, QToolButton, QWidget

from kavlet.core.messages import counted, named, words
from kavlet.core.scene.readers import READERS, TITLES, Reader
from kavlet.desktop.command import Commands
from kavlet.desktop.drawn_icon import RedrawOnNewLook, drawn_icon
from kavlet.desktop.proof.background_proof import BackgroundProof
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor

SIDE = 18


class EyeButton(QToolButton):
    """An eye, pressed while it is not everyone's; each of its choices is a toggle."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.setCheckable(True)
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.setIconSize(QSize(SIDE, SIDE))
        menu = QMenu(self)
        group = QActionGroup(self)
        self.choices: dict[Reader, QAction] = {}
        for reader in READERS:
            action = QAction(words("As seen by {reader}", reader=named(TITLES[reader])), self)
            action.setCheckable(True)
            action.triggered.connect(partial(self._choose, reader))
            group.addAction(action)
            menu.addAction(action)
            self.choices[reader] = action
        self.setMenu(menu)
        store.viewed.connect(self.refresh)
        RedrawOnNewLook(self, self.refresh)
        self.refresh()

    def _choose(self, reader: Reader, checked: bool = True) -> None:
        del checked
        self._store.read_as("everyone" if reader == self._store.reader else reader)

    def refresh(self) -> None:
        """Show who is seeing."""
        reader = self._store.reader
        self.choices[reader].setChecked(True)
        self.setChecked(reader != "everyone")
        self.setIcon(_eye(reader != "everyone"))
        said = words("As seen by {reader}", reader=named(TITLES[reader]))
        self.setToolTip(said)
        self.setAccessibleName(said)


def _eye(pressed: bool) -> QIcon:
    """An open eye in the window's ink, or in its accent."""
    tone = qcolor(colours().accent if pressed else colours().ink)

    def draw(painter: QPainter) -> None:
        painter.setPen(QPen(tone, 1.5))
        lids = QPainterPath(QPointF(1.5, 9))
        lids.quadTo(QPointF(9, 1.5), QPointF(16.5, 9))
        lids.quadTo(QPointF(9, 16.5), QPointF(1.5, 9))
        painter.drawPath(lids)
        painter.setBrush(tone)
        painter.drawEllipse(QRectF(6.6, 6.6, 4.8, 4.8))

    return drawn_icon(SIDE, draw)


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
