"""All that was found, by chart and page, to be gone through with the keys."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QIcon, QKeyEvent, QPainter, QPen, QPolygonF
from PySide6.QtWidgets import QAbstractItemView, QTreeWidget, QTreeWidgetItem, QWidget

from kavlet.core.document.document import Document
from kavlet.core.messages import named, say, words
from kavlet.core.proof.finding import Finding, Severity
from kavlet.core.proof.proofreading import Proof
from kavlet.desktop.drawn_icon import RedrawOnNewLook, drawn_icon
from kavlet.desktop.stylesheet import colours, qcolor

HELD = int(Qt.ItemDataRole.UserRole)


class FindingList(QTreeWidget):
    """`chosen` tells that another finding is looked at, `mend_wanted` that its first remedy is wanted (Return)."""

    chosen = Signal()
    mend_wanted = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setHeaderHidden(True)
        self.setRootIsDecorated(False)
        self.setIndentation(10)
        self.setItemsExpandable(False)
        self.setUniformRowHeights(True)
        self.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.setAccessibleName(words("All that Proof found"))
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setExpandsOnDoubleClick(False)
        self.currentItemChanged.connect(lambda *_: self.chosen.emit())
        self._shown: list[tuple[str, list[tuple[str, str | None]]]] = []
        RedrawOnNewLook(self, self._draw_marks)

    def show_proof(self, proof: Proof | None, document: Document) -> None:
        """List what was found; the finding that was looked at, or the one that takes its place, stays chosen."""
        groups = list(_groups(proof, document)) if proof is not None else []
        group_texts = [
            (title, [(str(finding.message), finding.silenced) for finding in rows]) for title, rows in groups
        ]
        before, place = self.finding, self._place()
        self.blockSignals(True)
        if group_texts != self._shown:
            self._shown = group_texts
            self._fill(groups)
            rows = [item for item in self._items() if before is not None and _same(_held(item), before)]
            items = rows or self._items()
            if before is not None and items:
                self.setCurrentItem(rows[0] if rows else items[min(place, len(items) - 1)])
        else:  # the same sentences: remedies know the document as it is now
            for item, finding in zip(
                self._items(), (finding for _, findings in groups for finding in findings), strict=True
            ):
                item.setData(0, HELD, finding)
        self.blockSignals(False)
        self.chosen.emit()

    def _fill(self, groups: list[tuple[str, list[Finding]]]) -> None:
        self.clear()
        for title, found in groups:
            heading = QTreeWidgetItem([title])
            heading.setFlags(Qt.ItemFlag.ItemIsEnabled)
            font = heading.font(0)
            font.setBold(True)
            heading.setFont(0, font)
            self.addTopLevelItem(heading)
            for finding in found:
                item = QTreeWidgetItem([str(finding.message)])
                item.setData(0, HELD, finding)
                grave = str(named(finding.severity))
                item.setData(0, Qt.ItemDataRole.AccessibleTextRole, f"{title}, {grave}: {finding.message}")
                item.setToolTip(0, str(finding.message))
                item.setDisabled(False)
                heading.addChild(item)
            heading.setExpanded(True)
        self._draw_marks()

    def _draw_marks(self) -> None:
        for item, finding in zip(self._items(), self.findings, strict=True):
            item.setIcon(0, mark(finding.severity, finding.silenced is not None))

    @property
    def finding(self) -> Finding | None:
        """The finding that is looked at; None for none."""
        item = self.currentItem()
        return _held(item) if item is not None else None

    @property
    def findings(self) -> list[Finding]:
        """All that are listed, in their order."""
        return [found for item in self._items() if (found := _held(item)) is not None]

    def _items(self) -> list[QTreeWidgetItem]:
        headings = [self.topLevelItem(place) for place in range(self.topLevelItemCount())]
        held = [one.child(i) for one in headings if one is not None for i in range(one.childCount())]
        return [item for item in held if item is not None]

    def _place(self) -> int:
        item = self.currentItem()
        items = self._items()
        return items.index(item) if item in items else 0

    def step(self, way: int) -> None:
        """Look at the next finding, or the one before; from the last on to the first."""
        items = self._items()
        if not items:
            return
        at = self._place() + way if self.finding is not None else 0 if way > 0 else -1
        self.setCurrentItem(items[at % len(items)])

    def go_to(self, finding: Finding) -> None:
        """Look at a finding."""
        item = next((one for one in self._items() if _same(_held(one), finding)), None)
        if item is not None:
            self.setCurrentItem(item)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.mend_wanted.emit()
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.step(-1 if event.key() == Qt.Key.Key_Up else 1)  # over headings
        else:
            super().keyPressEvent(event)


def _held(item: QTreeWidgetItem | None) -> Finding | None:
    held = item.data(0, HELD) if item is not None else None
    return held if isinstance(held, Finding) else None


def _same(finding: Finding | None, other: Finding) -> bool:
    return finding is not None and (finding.check, finding.place, str(finding.message)) == (
        other.check, other.place, str(other.message),
    )  # fmt: skip


def _groups(proof: Proof, document: Document) -> Iterator[tuple[str, list[Finding]]]:
    """What is found of the document, of each chart and each page; of each, silenced findings last."""

    def sorted_(found: tuple[Finding, ...]) -> list[Finding]:
        order = {"error": 0, "warning": 1, "note": 2}
        return sorted(found, key=lambda finding: (finding.silenced is not None, order[finding.severity]))

    if proof.papers:
        yield words("The document"), sorted_(proof.papers)
    for chart in document.charts:
        if found := proof.charts.get(chart.id):
            yield chart.name, sorted_(found)
    for page in document.pages:
        if found := proof.pages.get(page.id):
            yield str(say("Page “{name}”", name=page.name)), sorted_(found)


SIDE = 14


def mark(severity: Severity, silenced: bool = False) -> QIcon:
    """The mark of a severity; pale where the finding is silenced."""
    c = colours()
    tone = qcolor(c.line if silenced else {"note": c.second, "warning": c.alarm, "error": c.alarm}[severity])

    def draw(painter: QPainter) -> None:
        painter.setPen(QPen(tone, 1.6))
        if severity == "note":
            painter.drawEllipse(QRectF(3.5, 3.5, 7, 7))
            return
        painter.setBrush(tone)
        if severity == "warning":
            painter.drawPolygon(QPolygonF([QPointF(7, 2.5), QPointF(12, 11.5), QPointF(2, 11.5)]))
        else:
            painter.drawRect(QRectF(3, 3, 8, 8))

    return drawn_icon(SIDE, draw)
