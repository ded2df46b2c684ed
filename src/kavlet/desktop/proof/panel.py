"""The Proof place: all findings below the other places, one of them in full beside the list."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QSplitter,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import counted, say, words
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.proof.background_proof import BackgroundProof
from kavlet.desktop.proof.finding_details import FindingDetails
from kavlet.desktop.proof.finding_list import FindingList
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT


class ProofPanel(QFrame):
    """While the result of a remedy is only shown, two buttons take it or leave it."""

    closed = Signal()
    hidden = Signal(bool)
    taken = Signal()
    left = Signal()

    def __init__(self, store: Store, desk: BackgroundProof, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store, self._desk = store, desk
        self._stack = QStackedWidget(self)
        self._nothing = QLabel(self._stack)
        self.splitter = QSplitter(Qt.Orientation.Horizontal, self._stack)
        self.list = FindingList(self.splitter)
        self.details = FindingDetails(self.splitter)
        self.says = ElidedLabel()
        self.says.setObjectName("quiet")
        head = self._head()
        self._tried = self._trial_bar()
        self._nothing.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._nothing.setObjectName("quiet")
        self.splitter.setHandleWidth(2 * UNIT)
        self.splitter.setChildrenCollapsible(False)
        self.splitter.setStretchFactor(0, 1)
        self.splitter.setSizes([760, 420])
        self.details.setMinimumWidth(300)
        self._stack.addWidget(self._nothing)
        self._stack.addWidget(self.splitter)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 2 * UNIT, 3 * UNIT, 2 * UNIT)
        layout.setSpacing(UNIT)
        layout.addLayout(head)
        layout.addWidget(self._tried)
        layout.addWidget(self._stack, 1)
        self.list.chosen.connect(self._show_details)
        desk.found.connect(self.refresh)
        self.refresh()

    def _head(self) -> QHBoxLayout:
        """Its name, how much was found, and the ways through it."""
        self.previous, self.next = QToolButton(), QToolButton()
        for button, arrow, tip, way in (
            (self.previous, Qt.ArrowType.UpArrow, words("Previous finding (Shift+F7)"), -1),
            (self.next, Qt.ArrowType.DownArrow, words("Next finding (F7)"), 1),
        ):
            button.setArrowType(arrow)
            button.setObjectName("plain")
            button.setToolTip(tip)
            button.setAccessibleName(tip)
            button.clicked.connect(lambda _=False, way=way: self.list.step(way))
        self.close_button = QToolButton()
        self.close_button.setText("✕")
        self.close_button.setObjectName("plain")
        self.close_button.setToolTip(words("Close Proof (F8)"))
        self.close_button.setAccessibleName(words("Close Proof (F8)"))
        self.close_button.clicked.connect(self.closed)
        title = QLabel(words("Proof"))
        font = title.font()
        font.setBold(True)
        title.setFont(font)
        head = QHBoxLayout()
        head.setSpacing(2 * UNIT)
        head.addWidget(title)
        head.addWidget(self.says, 1)
        for button in (self.previous, self.next, self.close_button):
            head.addWidget(button)
        return head

    def _trial_bar(self) -> QWidget:
        """What is asked while a result is only shown."""
        made = QWidget()
        row = QHBoxLayout(made)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(UNIT)
        self.asks = QLabel()
        self.asks.setWordWrap(True)
        self.take = QPushButton(words("Take it"))
        self.take.clicked.connect(self.taken)
        self.leave = QPushButton(words("Leave it as it was"))
        self.leave.clicked.connect(self.left)
        row.addWidget(self.asks, 1)
        row.addWidget(self.take)
        row.addWidget(self.leave)
        made.hide()
        return made

    def show_or_hide(self, on: bool) -> None:
        """Come into view, or go."""
        self.setVisible(on)
        self.hidden.emit(not on)

    def ask(self, sentence: str) -> None:
        """Show what would become of it, and ask whether to take it; an empty sentence asks no more."""
        self.asks.setText(sentence)
        self._tried.setVisible(bool(sentence))
        self._stack.setEnabled(not sentence)
        if sentence:
            self.take.setFocus()

    def refresh(self) -> None:
        """Show what was found by now."""
        proof = self._desk.proof
        if proof is None:
            self.says.setText(words("Reading the document …"))
            self._nothing.setText("")
            self._stack.setCurrentIndex(0)
            return
        open_, silent = len(proof.open), len(proof.all) - len(proof.open)
        nothing = counted("Nothing found in {count} check.", "Nothing found in {count} checks.", proof.checks)
        message = counted(
            "{count} finding in {checks} checks", "{count} findings in {checks} checks", open_, checks=proof.checks
        )
        if silent:
            message = say(
                "{found}, {silenced}", found=message,
                silenced=counted("{count} silenced", "{count} silenced", silent),
            )  # fmt: skip
        self.says.setText(str(message) if proof.all else "")
        self._nothing.setText(str(nothing))
        self._stack.setCurrentIndex(1 if proof.all else 0)
        for button in (self.previous, self.next):
            button.setEnabled(bool(proof.all))
        self.list.show_proof(proof, self._store.document)

    def _show_details(self) -> None:
        finding = self.list.finding
        others = sum(
            one.silenced is None and finding is not None and one is not finding and one.check == finding.check
            for one in self.list.findings
        )
        self.details.show_finding(finding, others)
