"""Makes a small table from the one in view: which columns, which rows, or groups added up; with a live preview."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.document.document import Document
from kavlet.core.document.tables.columns import kinds
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.document.tables.small_tables import HOWS, SmallTableChoice, entries, small_table
from kavlet.core.messages import Message, named, say, words
from kavlet.core.spreadsheet.cells import ErrorValue, text_of
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import attempt
from kavlet.core.values.number_text import PLAIN
from kavlet.desktop.dress.fields import ChoiceField, PickField
from kavlet.desktop.stylesheet import UNIT

ALL, CHOSEN = "", "\x00"  # of the rows: every one, those that were selected
SHOWN_ROWS, MAX_ENTRIES = 10, 200


class SmallTableDialog(QDialog):
    """`chosen` hands on what is to go into the small table."""

    chosen = Signal(object)

    def __init__(self, document: Document, table: str, rows: tuple[int, ...], columns: tuple[str, ...],
                 parent: QWidget | None = None) -> None:  # fmt: skip
        super().__init__(parent)
        self._document, self._table, self._rows = document, table, rows
        held = settled(document, table)
        self._kinds, self._how = kinds(held), "sum"
        self.setWindowTitle(words("Small table from “{table}”", table=held.name))
        self.resize(620, 560)
        self._make_columns(columns)
        self._make_choices()
        self.preview = QTableWidget()
        self.preview.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.preview.setAccessibleName(words("Preview"))
        self.preview.verticalHeader().hide()
        self.says = QLabel()
        self.says.setObjectName("alarm")
        self.says.setWordWrap(True)
        form = QFormLayout()
        form.setSpacing(2 * UNIT)
        for label, field in (
            (words("Columns"), self.columns), (words("Rows"), self.rows), (words("Gather by"), self.by),
            (words("As"), self.how),
        ):  # fmt: skip
            form.addRow(label, field)
        buttons = QDialogButtonBox()
        self.take = QPushButton(words("Make it"))
        self.take.setObjectName("main")
        buttons.addButton(self.take, QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.addButton(words("Cancel"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        self.accepted.connect(lambda: self.chosen.emit(self.pick))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(3 * UNIT)
        layout.addLayout(form)
        layout.addWidget(self.preview, 1)
        layout.addWidget(self.says)
        layout.addWidget(buttons)
        self._show()

    def _own(self) -> list[tuple[str, str]]:
        """The table's own columns: what each is called, by its id."""
        table = settled(self._document, self._table)
        return [(column.id, str(table.called(i))) for i, column in enumerate(table.columns) if column.helper is None]

    def _make_columns(self, columns: tuple[str, ...]) -> None:
        """A list to tick; those selected, or all but notes, to begin with."""
        self.columns = QListWidget()
        self.columns.setAccessibleName(words("Columns"))
        self.columns.setMaximumHeight(132)
        for column, name in self._own():
            item = QListWidgetItem(name)
            item.setData(Qt.ItemDataRole.UserRole, column)
            item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable)
            wanted = column in columns if columns else self._kinds[column] not in ("notes", "nothing")
            item.setCheckState(Qt.CheckState.Checked if wanted else Qt.CheckState.Unchecked)
            self.columns.addItem(item)
        self.columns.itemChanged.connect(lambda _item: self._show())

    def _make_choices(self) -> None:
        """Which rows, and whether and how they are gathered."""
        self.rows = PickField(words("Rows"), self._row_choices())
        self.rows.chosen.connect(lambda _value: self._show())
        if self._rows:
            self.rows.show_choice(CHOSEN)
        groups = [(one, name) for one, name in self._own() if self._groups(one)]
        self.by = PickField(words("Gather by"), [("", words("not at all")), *groups])
        self.by.chosen.connect(lambda _value: self._show())
        self.how = ChoiceField(words("As"), [(one, named(one)) for one in HOWS])
        self.how.show_choice(self._how)
        self.how.chosen.connect(self._set_how)

    def _groups(self, column: str) -> bool:
        """Whether a column's entries come back, so that rows can be gathered by it."""
        table = self._document.table(self._table)
        if self._kinds[column] in ("figures", "notes", "nothing"):
            return False
        return 0 < len(entries(self._document, self._table, column)) < table.rows

    def _row_choices(self) -> list[tuple[str, Message]]:
        """All rows, those selected, or those of one entry of a column whose entries come back."""
        found: list[tuple[str, Message]] = [(ALL, say("all"))]
        if self._rows:
            found.append((CHOSEN, say("those selected: {count}", count=len(self._rows))))
        table = settled(self._document, self._table)
        for column in table.columns:
            if column.helper is not None or not self._groups(column.id):
                continue
            for entry in entries(self._document, self._table, column.id)[:MAX_ENTRIES]:
                head = str(table.called(table.place(column.id)))
                found.append((f"{column.id}\n{entry}", say("{column}: {entry}", column=head, entry=entry)))
        return found

    def _set_how(self, how: str) -> None:
        self._how = how
        self._show()

    @property
    def pick(self) -> SmallTableChoice:
        """What is chosen now."""
        items = [self.columns.item(i) for i in range(self.columns.count())]
        ticked = [item for item in items if item.checkState() == Qt.CheckState.Checked]
        columns = tuple(str(item.data(Qt.ItemDataRole.UserRole)) for item in ticked)
        where, _, equals = str(self.rows.currentData() or "").partition("\n")
        rows = self._rows if where == CHOSEN else None if columns else ()
        by = str(self.by.currentData() or "")
        figures = tuple(one for one in columns if self._kinds[one] == "figures")
        how = next(one for one in HOWS if one == self._how)
        return SmallTableChoice(
            columns=figures if by else columns, rows=rows, where="" if where == CHOSEN else where, equals=equals, by=by,
            how=how,
        )  # fmt: skip

    def _show(self) -> None:
        """Show the table that would be made, or why there is none."""
        self.how.setEnabled(bool(self.by.currentData()))
        self.preview.setRowCount(0)
        self.take.setEnabled(attempt(self._show_made, self.says.setText))

    def _show_made(self) -> None:
        document, table = small_table(self._document, self._table, self.pick)
        self.says.setText("")
        values, held = recalculate(document.tables).of(table), document.table(table)
        self.preview.setColumnCount(len(held.columns))
        self.preview.setHorizontalHeaderLabels([column.name for column in held.columns])
        self.preview.setRowCount(min(SHOWN_ROWS, held.rows))
        for c, column in enumerate(values):
            for r, value in enumerate(column.values[1 : 1 + SHOWN_ROWS]):
                number = held.columns[c].writes or PLAIN
                text = written(value, number, document.locale) if isinstance(value, float) else text_of(value)
                item = QTableWidgetItem(str(value.value) if isinstance(value, ErrorValue) else text)
                side = Qt.AlignmentFlag.AlignRight if isinstance(value, float) else Qt.AlignmentFlag.AlignLeft
                item.setTextAlignment(side | Qt.AlignmentFlag.AlignVCenter)
                self.preview.setItem(r, c, item)
