"""One finding in full: what it says and why, its remedies, and silencing it with a reason."""

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.messages import say, words
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.registry import CHECKS
from kavlet.desktop.stylesheet import UNIT


class FindingDetails(QScrollArea):
    """`mend_wanted` names the remedy that is wanted, `all_wanted` the one for all of this kind; `silence_wanted` tells
    the reason and whether it is for the whole document; `listen_wanted` takes that back."""

    mend_wanted = Signal(object)
    all_wanted = Signal(str)
    silence_wanted = Signal(str, bool)
    listen_wanted = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWidgetResizable(True)
        self.setFrameShape(QScrollArea.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.finding: Finding | None = None
        self.title, self.says, self.source, self.reason_said = QLabel(), QLabel(), QLabel(), QLabel()
        font = self.title.font()
        font.setBold(True)
        self.title.setFont(font)
        for label in (self.title, self.says, self.source, self.reason_said):
            label.setWordWrap(True)
        self.source.setObjectName("quiet")
        self.reason_said.setObjectName("quiet")
        self.remedies: list[QPushButton] = []
        self._buttons = QVBoxLayout()
        self._buttons.setSpacing(UNIT)
        self.all = QPushButton()
        self.all.clicked.connect(lambda: self.all_wanted.emit(self._first_key()))
        self.reason = QLineEdit()
        self.reason.setPlaceholderText(words("Why it is to be left so"))
        self.reason.setAccessibleName(words("Why it is to be left so"))
        self.reason.returnPressed.connect(self._silence)
        self.scope = QComboBox()
        self.scope.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
        self.scope.setAccessibleName(words("Where it is silenced"))
        self.silence = QPushButton(words("Silence"))
        self.silence.setToolTip(words("Leave it so; the reason stays in the document"))
        self.silence.clicked.connect(self._silence)
        self.listen = QPushButton(words("Listen again"))
        self.listen.clicked.connect(self.listen_wanted)
        row = QHBoxLayout()
        row.setSpacing(UNIT)
        for field, stretch in ((self.reason, 1), (self.scope, 0), (self.silence, 0)):
            row.addWidget(field, stretch)
        row.setContentsMargins(0, UNIT, 0, 0)
        self._silencing = QWidget()
        self._silencing.setLayout(row)
        held = self._held = QWidget()
        layout = QVBoxLayout(held)
        layout.setContentsMargins(2 * UNIT, 0, UNIT, 0)
        layout.setSpacing(UNIT)
        for widget in (self.title, self.says, self.source):
            layout.addWidget(widget)
        layout.addLayout(self._buttons)
        layout.addWidget(self.all)
        layout.addWidget(self._silencing)
        layout.addWidget(self.reason_said)
        layout.addWidget(self.listen)
        layout.addStretch(1)
        self.setWidget(held)

    def show_finding(self, finding: Finding | None, others: int) -> None:
        """Show a finding; `others` counts those of its kind that are open as well."""
        again = self.finding is not None and finding is not None and self.finding.message == finding.message
        self.finding = finding
        self._held.setVisible(finding is not None)
        if not again:
            self.reason.clear()
        for button in self.remedies:
            button.setParent(None)
            button.deleteLater()
        self.remedies = []
        if finding is None:
            return
        check = CHECKS.get(finding.check)
        self.title.setText(words(check.says) if check is not None else finding.check)
        self.says.setText(str(finding.message))
        self.source.setText(words("By {source}.", source=words(check.source)) if check is not None else "")
        silenced = finding.silenced is not None
        for remedy in () if silenced else finding.remedies:
            self._add(remedy)
        can_all = others > 0 and not silenced and any(one.edit is not None for one in finding.remedies)
        self.all.setVisible(can_all)
        if can_all:
            first = next(one for one in finding.remedies if one.edit is not None)
            self.all.setText(words("{remedy}: all {count} of this kind", remedy=first.name, count=others + 1))
        self._silencing.setVisible(not silenced)
        self.listen.setVisible(silenced)
        self.reason_said.setVisible(silenced)
        self.reason_said.setText(words("Silenced: {reason}", reason=finding.silenced or ""))
        self._scopes(finding)

    def _scopes(self, finding: Finding) -> None:
        """For what it can be silenced: the chart or page it is of, or the document."""
        place = finding.place
        mine = say("for this page") if place.page else say("for this chart") if place.chart else None
        entries = [str(mine)] if mine is not None else []
        entries.append(words("for the document"))
        if [self.scope.itemText(i) for i in range(self.scope.count())] != entries:
            self.scope.clear()
            self.scope.addItems(entries)

    def _add(self, remedy: Remedy) -> None:
        button = QPushButton(remedy.label)
        if remedy.restates:
            button.setToolTip(words("It changes what the chart says, and is shown first"))
        button.clicked.connect(self._wish(remedy))
        self.remedies.append(button)
        self._buttons.addWidget(button)

    def _wish(self, remedy: Remedy) -> Callable[[], None]:
        return lambda: self.mend_wanted.emit(remedy)

    def _first_key(self) -> str:
        held = self.finding.remedies if self.finding is not None else ()
        return next((remedy.key for remedy in held if remedy.edit is not None), "")

    def _silence(self) -> None:
        self.silence_wanted.emit(self.reason.text(), self.scope.currentIndex() == self.scope.count() - 1)
