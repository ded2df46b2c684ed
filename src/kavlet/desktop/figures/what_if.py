"""The what-if strip: quick values for the selected cell, only tried out, to see that the chart holds."""

import math

from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QToolButton, QWidget

from kavlet.core.document import edits
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber
from kavlet.core.spreadsheet.table import HEADER
from kavlet.desktop.figures.grid import FiguresGrid
from kavlet.desktop.store import Store

CHOICES = (
    ("0", 0.0),
    ("¼", 0.25),
    ("½", 0.5),
    ("¾", 0.75),
    (say("full"), 1.0),
    (say("beyond"), 1.3),
    (say("empty"), math.nan),
)


class WhatIf(QWidget):
    """Fractions of the largest figure of the cell's column (or of a whole, for percents). Keep takes, Back gives up."""

    def __init__(self, store: Store, grid: FiguresGrid, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store, self._grid = store, grid
        self._place: tuple[str, int, int] | None = None
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        self._label = QLabel(words("What if"))
        self._label.setObjectName("quiet")
        layout.addWidget(self._label)
        self.buttons: dict[str, QToolButton] = {}
        for choice, share in CHOICES:
            text = str(choice)
            button = QToolButton()
            button.setObjectName("plain")
            button.setText(text)
            button.setMinimumWidth(button.fontMetrics().horizontalAdvance(text) + 12)
            button.setAccessibleName(words("Try {change}", change=text))
            button.clicked.connect(lambda _checked=False, share=share: self.try_share(share))
            self.buttons[text] = button
            layout.addWidget(button)
        layout.addStretch(1)
        self.keep = QToolButton()
        self.keep.setText(words("Keep"))
        self.keep.clicked.connect(self._keep)
        self.back = QToolButton()
        self.back.setText(words("Back"))
        self.back.clicked.connect(self._back)
        for button in (self.keep, self.back):
            layout.addWidget(button)
        store.follow(self.refresh)
        grid.selected.connect(self.refresh)
        self.refresh()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The words before the buttons give way where there is no room for all."""
        super().resizeEvent(event)
        buttons = sum(button.minimumWidth() for button in self.buttons.values())
        self._label.setVisible(self.width() >= buttons + self._label.sizeHint().width())

    def refresh(self) -> None:
        """Seen when a number of the table's own is selected, or something is being tried out."""
        trying = self._store.trying and self._place is not None
        if not trying:
            self._place = None
        self.setVisible(trying or self._number() is not None)
        self.keep.setVisible(trying)
        self.back.setVisible(trying)

    def _number(self) -> tuple[str, int, int] | None:
        """Table, column and row of the selected cell when a typed number stands there."""
        table, index = self._store.table, self._grid.currentIndex()
        column = table.column(index.column())
        if index.row() < HEADER or column is None or column.helper is not None or index.row() >= len(column.cells):
            return None
        cell = column.cells[index.row()]
        is_number = isinstance(cell, float | FormattedNumber)
        return (table.id, index.column(), index.row()) if is_number else None

    def try_share(self, share: float) -> None:
        """Show the chart with a share of the full figure in the cell."""
        place = self._place or self._number()
        if place is None:
            return
        self._store.try_out(None)
        table_id, column, row = place
        held = self._store.document.table(table_id).columns[column].cells
        numbers = [
            cell.value if isinstance(cell, FormattedNumber) else cell
            for cell in held[HEADER:]
            if isinstance(cell, float | FormattedNumber)
        ]
        own = held[row]
        percent = isinstance(own, FormattedNumber) and own.number.style == "percent"
        full = 1.0 if percent else max(map(abs, numbers), default=1.0) or 1.0
        new: Cell = None if math.isnan(share) else share * full
        if isinstance(own, FormattedNumber) and isinstance(new, float):
            new = FormattedNumber(new, own.number)
        self._place = place
        self._store.try_out(edits.set_cells(self._store.document, table_id, {(column, row): new}))

    def _keep(self) -> None:
        document = self._store.document
        self._place = None
        self._store.apply(say("try a value"), document)
        self.refresh()

    def _back(self) -> None:
        self._place = None
        self._store.try_out(None)
        self.refresh()
