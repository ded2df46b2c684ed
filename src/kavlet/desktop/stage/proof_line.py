"""What Proof found of the chart in view, in one line: how much, the first sentence, and what mends it."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from kavlet.core.messages import counted, words
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.stylesheet import UNIT

if TYPE_CHECKING:
    from kavlet.core.proof.finding import Finding, Remedy


class ProofLine(QWidget):
    """`mend_wanted` names the first remedy there is, `list_wanted` asks for all findings."""

    mend_wanted = Signal(object)
    list_wanted = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._found: Sequence[Finding] = ()
        self.mend = QToolButton()
        self.mend.clicked.connect(self._mend)
        self.badge = QToolButton()
        self.badge.setObjectName("plain")
        self.badge.setToolTip(words("All that Proof found"))
        self.badge.clicked.connect(self.list_wanted)
        self.says = ElidedLabel()
        self.says.setObjectName("quiet")
        line = QHBoxLayout(self)
        line.setContentsMargins(0, 0, 0, 0)
        line.setSpacing(UNIT)
        line.addWidget(self.badge)
        line.addWidget(self.says, 1)
        line.addWidget(self.mend)
        self.badge.setText(" ")
        self.says.setMinimumHeight(self.badge.sizeHint().height())  # so that nothing moves when something is found
        self.show_findings(None, 0)

    def show_findings(self, findings: "Sequence[Finding] | None", checks: int) -> None:
        """Show what was found in so many checks, the gravest first; None where it is not known yet."""
        order = {"error": 0, "warning": 1, "note": 2}
        self._found = sorted(findings or (), key=lambda finding: order[finding.severity])
        count = len(self._found)
        self.badge.setVisible(bool(count))
        self.badge.setText(str(counted("Proof: {count} finding", "Proof: {count} findings", count)))
        nothing = counted("Proof: nothing found in {count} check.", "Proof: nothing found in {count} checks.", checks)
        sentence = str(self._found[0].message) if count else str(nothing) if findings is not None else " "
        self.says.setText(sentence)
        self.mend.setVisible(self.remedy is not None)
        self.mend.setText(self.remedy.label if self.remedy is not None else "")

    @property
    def first_finding(self) -> "Finding | None":
        """The gravest finding; None for none."""
        return self._found[0] if self._found else None

    @property
    def remedy(self) -> "Remedy | None":
        """What would mend the gravest finding."""
        held = self._found[0].remedies if self._found else ()
        return next((remedy for remedy in held if remedy.edit is not None), None)

    def _mend(self) -> None:
        if self.remedy is not None:
            self.mend_wanted.emit(self.remedy)

    def text(self) -> str:
        """All that was found."""
        return "\n".join(str(finding.message) for finding in self._found) or self.says.text()
