"""How a table's file is read: separator, encoding and decimal sign of a text, sheet and range of a workbook; with a
live preview.
"""

from pathlib import Path

import msgspec
from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLabel,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.files import csv, tables
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula, text_of
from kavlet.core.spreadsheet.table import Source
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import attempt
from kavlet.core.values.number_text import PLAIN
from kavlet.desktop.dress.fields import ChoiceField, TextField
from kavlet.desktop.stylesheet import UNIT

SEPARATORS = ((",", ","), (";", ";"), ("\t", say("Tab")), ("|", "|"))
DECIMALS = ((".", "1.5"), (",", "1,5"))
ENCODINGS = (
    "utf-8",
    "utf-8-sig",
    "utf-16",
    "cp1252",
    "latin-1",
    "iso8859-15",
    "cp1250",
    "cp1251",
    "cp437",
    "mac-roman",
)
SHOWN_ROWS, SHOWN_COLUMNS = 12, 8


class ImportDialog(QDialog):
    """Chooses how to read; shows at once what comes of it. `chosen` hands on the source as it is to be read."""

    chosen = Signal(object)

    def __init__(self, source: Source, decimal: str = ".", parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.source, self._usual = source, decimal
        path = Path(source.path)
        self.setWindowTitle(words("Read {file}", file=path.name))
        self.resize(640, 460)
        form = QFormLayout()
        form.setSpacing(2 * UNIT)
        if path.suffix.lower() in csv.SUFFIXES:
            self._text_fields(form, path)
        else:
            self._workbook_fields(form, path)
        self.preview = QTableWidget()
        self.preview.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.preview.setAccessibleName(words("Preview"))
        self.preview.verticalHeader().hide()
        self.says = QLabel()
        self.says.setObjectName("alarm")
        self.says.setWordWrap(True)
        buttons = QDialogButtonBox()
        self.take = QPushButton(words("Read"))
        self.take.setObjectName("main")
        buttons.addButton(self.take, QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.addButton(words("Cancel"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        self.accepted.connect(lambda: self.chosen.emit(self.source))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(3 * UNIT)
        layout.addLayout(form)
        layout.addWidget(self.preview, 1)
        layout.addWidget(self.says)
        layout.addWidget(buttons)
        self._show()

    def _text_fields(self, form: QFormLayout, path: Path) -> None:
        guess = csv.guess(csv.content(path), path.name, self._usual)
        self.separator = ChoiceField(words("Separator"), SEPARATORS)
        self.separator.show_choice(self.source.separator or guess.separator)
        self.separator.chosen.connect(lambda sign: self._change(separator=sign))
        self.decimal = ChoiceField(words("Decimal sign"), DECIMALS)
        self.decimal.show_choice(self.source.decimal or guess.decimal)
        self.decimal.chosen.connect(lambda sign: self._change(decimal=sign))
        self.encoding = QComboBox()
        self.encoding.addItems(list(ENCODINGS))
        self.encoding.setAccessibleName(words("Encoding"))
        self.encoding.setCurrentText(self.source.encoding or guess.encoding)
        self.encoding.currentTextChanged.connect(lambda name: self._change(encoding=name))
        self.accounts = QCheckBox(words("(200) and 200− are negative"))
        self.accounts.setChecked(self.source.accounts)
        self.accounts.clicked.connect(lambda on: self._change(accounts=on))
        form.addRow(words("Separator"), self.separator)
        form.addRow(words("Decimal sign"), self.decimal)
        form.addRow("", self.accounts)
        form.addRow(words("Encoding"), self.encoding)

    def _workbook_fields(self, form: QFormLayout, path: Path) -> None:
        self.sheet = QComboBox()
        self.sheet.setAccessibleName(words("Sheet"))
        names = tables.sheets(path)
        self.sheet.addItems(names)
        self.sheet.setCurrentText(self.source.sheet or (names[0] if names else ""))
        self.sheet.currentTextChanged.connect(lambda name: self._change(sheet=name))
        self.part = TextField(words("Range"), words("all of it, or a range: A1:C9"))
        self.part.show_text(self.source.part or "")
        self.part.committed.connect(lambda text: self._change(part=text.strip() or None))
        if names:
            form.addRow(words("Sheet"), self.sheet)
            form.addRow(words("Range"), self.part)

    def _change(self, **changes: object) -> None:
        self.source = msgspec.structs.replace(self.source, **changes)
        self._show()

    def _show(self) -> None:
        """Show what would be taken, or why nothing can be."""
        self.preview.setRowCount(0)
        self.take.setEnabled(attempt(self._show_read, self.says.setText))

    def _show_read(self) -> None:
        read = tables.read_source(self.source, self._usual)
        self.says.setText(" ".join(map(str, read.notes)))
        rows = read.cells[: SHOWN_ROWS + 1]
        width = min(SHOWN_COLUMNS, max(len(row) for row in rows))
        self.preview.setColumnCount(width)
        self.preview.setRowCount(len(rows) - 1)
        names = [text_of(cell) if isinstance(cell, str) else "" for cell in rows[0]]
        self.preview.setHorizontalHeaderLabels([*names, *[""] * width][:width])
        for r, row in enumerate(rows[1:]):
            for c in range(width):
                self.preview.setItem(r, c, QTableWidgetItem(_shown(row[c]) if c < len(row) else ""))


def _shown(cell: object) -> str:
    if isinstance(cell, Formula):
        return cell.text
    if isinstance(cell, FormattedNumber):
        return written(cell.value, cell.number)
    return written(cell, PLAIN) if isinstance(cell, float) else text_of(cell)  # type: ignore[arg-type]
