"""What Proof found: how much in a badge, the first sentence beside it, and all in a list that scrolls."""

from collections.abc import Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QListWidget, QToolButton, QVBoxLayout, QWidget

from kavlet.core.messages import counted, words
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.look import UNIT

TALL = 112  # of the list, in which the rest scrolls


class ProofLine(QWidget):
    """Never takes more from the chart than its list's height, whatever was found."""

    mend_wanted = Signal(object)  # the Remedy

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._found: Sequence[Finding] = ()
        self.mend = QToolButton()
        self.mend.clicked.connect(self._mend)
        self.badge = QToolButton()
        self.badge.setObjectName("plain")
        self.badge.setCheckable(True)
        self.badge.setToolTip(words("All that Proof found"))
        self.badge.toggled.connect(self._unfold)
        self.first = ElidedLabel()
        self.first.setObjectName("quiet")
        self.list = QListWidget()
        self.list.setAccessibleName(words("All that Proof found"))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.list.currentRowChanged.connect(lambda _row: self._offer())
        self.list.hide()
        line = QHBoxLayout()
        line.setSpacing(UNIT)
        line.addWidget(self.badge)
        line.addWidget(self.first, 1)
        line.addWidget(self.mend)
        line.addStretch(0)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addLayout(line)
        layout.addWidget(self.list)
        self.badge.setText(" ")
        self.first.setMinimumHeight(self.badge.sizeHint().height())  # so that nothing moves when something is found
        self.show_findings(None)

    def show_findings(self, found: Sequence[Finding] | None) -> None:
        """Show what was found; None where there is no chart to look at."""
        self._found = found or ()
        sentences = [str(one.message) for one in self._found]
        self.badge.setVisible(bool(sentences))
        self.badge.setText(str(counted("Proof: {count} finding", "Proof: {count} findings", len(sentences))))
        nothing = words("Proof: nothing found.") if found is not None else " "
        self.first.setText(sentences[0] if sentences else nothing)
        if [self.list.item(i).text() for i in range(self.list.count())] != sentences:
            self.list.clear()
            self.list.addItems(sentences)
            self._fit()
        self._unfold(self.badge.isChecked())
        self._offer()

    @property
    def remedy(self) -> Remedy | None:
        """What would mend the finding that is chosen in the list, else the first that can be mended."""
        row = self.list.currentRow() if self.list.isVisibleTo(self) else -1
        held = [self._found[row]] if 0 <= row < len(self._found) else self._found
        return next((remedy for one in held for remedy in one.remedies), None)

    def _offer(self) -> None:
        remedy = self.remedy
        self.mend.setVisible(remedy is not None)
        self.mend.setText(str(remedy.name) if remedy is not None else "")

    def _mend(self) -> None:
        remedy = self.remedy
        if remedy is not None:
            self.mend_wanted.emit(remedy)

    def text(self) -> str:
        """All that it says."""
        return "\n".join([self.first.text(), *(self.list.item(i).text() for i in range(self.list.count()))])

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        """The list is as tall as what it holds, up to its most."""
        tall = sum(self.list.sizeHintForRow(i) for i in range(self.list.count())) + 2 * self.list.frameWidth()
        self.list.setFixedHeight(min(TALL, tall))

    def _unfold(self, on: bool) -> None:
        self.list.setVisible(on and self.list.count() > 0)
        self.first.setVisible(not self.list.isVisibleTo(self))
