"""What is done to tables as wholes: adding, naming, copying, deleting, following a file, exporting."""

import re
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QPoint, Qt, Signal
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMenu, QMessageBox, QWidget

from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables import table_edits
from kavlet.core.document.tables.cell_edits import Box
from kavlet.core.messages import Message, say, words
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.spreadsheet.table import HEADER, Source, Table
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.errors import KavletError
from kavlet.desktop import document_loading
from kavlet.desktop.command import Command, a_table
from kavlet.desktop.dialogs import answer, open_sheet
from kavlet.desktop.languages import locale_name
from kavlet.desktop.remembered_looks import with_remembered_look
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker

if TYPE_CHECKING:
    from kavlet.core.document.tables import source_updates
    from kavlet.core.document.tables.samples import Sample
    from kavlet.core.document.tables.small_tables import SmallTableChoice
    from kavlet.core.files.worksheet import Worksheet


def a_source(store: Store) -> bool:
    """The table in view follows a file."""
    return store.table.source is not None


class TableCommands(QObject):
    """Commands on the table in view; `exported` tells where one was written to, `made` that there is a small one."""

    exported = Signal(Path)
    made = Signal()

    def __init__(self, parent: QWidget, store: Store, worker: Worker) -> None:
        super().__init__(parent)
        self._parent, self._store, self._worker = parent, store, worker
        self.selected: Callable[[], Box | None] = lambda: None  # the window says where to ask
        self.difference_here: Callable[[], source_updates.CellDifference | None] = lambda: (
            None
        )  # the window says where to ask
        self.commands = (
            Command("add_empty_table", "Tables", "New table", self.add_empty),
            Command("sample_figures", "Tables", "Put in sample figures…", self.offer_samples),
            Command("add_from_file", "Tables", "Add a table from a file…", self.add_from_file, "Ctrl+Shift+O"),
            Command("rename_table", "Tables", "Rename table…", self.ask_name, needs=a_table),
            Command("copy_table", "Tables", "Copy table", self.copy, needs=a_table),
            Command("delete_table", "Tables", "Delete table", self.delete, needs=a_table),
            Command("make_chart", "Tables", "Make a chart of this table", self.make_chart, needs=a_table,
                    line_before=True),
            Command("small_table", "Tables", "Small table from this one…", self.ask_small, needs=a_table,
                    also=("grid",)),
            Command("export_table", "Tables", "Export table…", self.export, needs=a_table, line_before=True),
            Command("read_otherwise", "Tables", "Read the source otherwise…", self.read_otherwise, needs=a_source,
                    line_before=True),
            Command("update_figures", "Tables", "Update figures", self.update_figures, "F9", a_source),
            Command("update_but_mine", "Tables", "Update figures, keep mine", self.update_but_mine, "Shift+F9",
                    a_source),
            Command("keep_mine", "Tables", "Keep my figure here", lambda: store.guard(self.keep_mine), needs=a_source,
                    also=("grid",)),
            Command("unlink_source", "Tables", "Stop following the source", self.unlink, needs=a_source),
        )  # fmt: skip
        self.helper_commands = (
            Command("fold_helpers", "Figures", "Fold helper columns", lambda: store.fold(not store.folded), "Ctrl+H",
                    a_table, is_on=lambda: store.folded),
        )  # fmt: skip

    def add_empty(self) -> None:
        """A new table to type into."""
        name = words("Table {number}", number=len(self._store.document.tables) + 1)
        table = self._store.make(say("new table"), lambda document: table_edits.add_empty(document, name))
        if table is not None:
            self._store.show_table(table)

    def offer_samples(self) -> None:
        """A list of sample tables, by the question each answers."""
        from kavlet.core.document.tables.samples import samples

        menu = QMenu(self._parent)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for one in samples(locale_name().split("_")[0]):
            title = words(QUESTIONS[one.question])
            below = next((held for held in menu.findChildren(QMenu) if held.title() == title), None)
            below = below if below is not None else menu.addMenu(title)
            below.addAction(one.name).triggered.connect(lambda _on=False, one=one: self.put_in_sample(one))
        menu.popup(self._parent.mapToGlobal(self._parent.rect().topLeft()) + QPoint(120, 40))

    def put_in_sample(self, sample: "Sample") -> None:
        """Put in a sample's table with its chart, to be typed over."""
        from kavlet.core.document.tables.samples import with_sample

        made: list[str] = []

        def added(document: Document) -> Document:
            document, chart = with_sample(document, sample)
            made.append(chart)
            return with_remembered_look(document, chart)

        if self._store.edit(say("put in sample figures"), added):
            self._store.show_chart(made[0])

    def add_from_file(self) -> None:
        """A table from a file, beside those that are here."""
        from kavlet.core.files.formats import TABLES, patterns

        kinds = words("Tables ({kinds})", kinds=patterns(TABLES))
        name, _ = QFileDialog.getOpenFileName(self._parent, words("Add a table"), str(Path.home()), kinds)
        if name:
            self.add_path(Path(name))

    def add_path(self, path: Path) -> None:
        """Add a table from a file at a path; a workbook of several sheets asks which."""
        from kavlet.core.files import tables as table_files

        source = Source(str(path.resolve()))

        def add() -> None:
            if len(table_files.sheets(path)) > 1:
                self._read(source, new=True)
            else:
                self._add(source)

        self._store.guard(add)

    def _add(self, source: Source) -> None:
        def take(read: "Worksheet") -> None:
            table = self._store.make(
                say("add table"), lambda document: document_loading.with_table(document, source, read)
            )
            if table is not None:
                self._store.show_table(table)
                self._tell(read.notes)

        self._asked(source, take)

    def _asked(self, source: Source, take: "Callable[[Worksheet], object]") -> None:
        """Read a file beside the window, then take its cells over."""
        from kavlet.core.files import tables as table_files

        self._store.followed.agree(source.path, self._store.path)
        name = say("Reading {file}", file=Path(source.path).name)
        decimal = decimal_sign(self._store.document.locale)
        self._worker.ask("table", name, lambda: table_files.read_source(source, decimal), take)

    def ask_name(self) -> None:
        table = self._store.there
        name, accepted = QInputDialog.getText(self._parent, words("Rename table"), words("Name"), text=table.name)
        if accepted:
            self.rename(name)

    def rename(self, name: str) -> None:
        self._store.edit_table(
            say("rename table"), lambda document, table: table_edits.rename(document, table.id, name)
        )  # fmt: skip

    def copy(self) -> None:
        table = self._store.there.id
        new = self._store.make(say("copy table"), lambda document: table_edits.copy(document, table))
        if new is not None:
            self._store.show_table(new)

    def delete(self) -> None:
        """Delete the table; when charts are built on it, ask first."""
        table = self._store.there
        document = self._store.document
        charts = table_edits.readers(document, table.id)
        pages = page_edits.pages_of(document, [chart.id for chart in charts], table.id)
        if charts or pages:
            names = [f"“{name}”" for name in (*(chart.name for chart in charts), *pages)]
            box = QMessageBox(self._parent)
            text = words("“{table}” is read by {charts}. Delete the table and what is built on it?",
                         table=table.name, charts=", ".join(names))  # fmt: skip
            box.setText(text)
            delete = box.addButton(words("Delete"), QMessageBox.ButtonRole.DestructiveRole)
            box.addButton(words("Cancel"), QMessageBox.ButtonRole.RejectRole)
            if answer(box) is not delete:
                return
        self._store.edit_table(say("delete table"), lambda document, table: table_edits.delete(document, table.id))

    def make_chart(self) -> None:
        """A chart of the table in view."""
        table = self._store.there.id
        chart = self._store.make(
            say("make a chart"), lambda document: document_loading.with_best_chart(document, table)
        )
        if chart is not None:
            self._store.show_chart(chart)

    def ask_small(self) -> None:
        """Ask what is to go into a small table; those rows and columns that are selected, to begin with."""
        from kavlet.desktop.figures.small_table_dialog import SmallTableDialog

        table = self._store.there
        box = self.selected()
        rows = tuple(range(max(0, box[1] - HEADER), box[3])) if box is not None and box[3] > box[1] else ()
        columns = (
            tuple(column.id for column in table.columns[box[0] : box[2] + 1])
            if box is not None and box[2] > box[0]
            else ()
        )
        sheet = SmallTableDialog(self._store.document, table.id, rows, columns, self._parent)
        sheet.chosen.connect(lambda pick: self.make_small(table.id, pick))
        open_sheet(sheet)

    def make_small(self, table: str, pick: "SmallTableChoice") -> None:
        """A small table of live references with its chart, and the wall of recipes for it."""
        from kavlet.core.document.tables.small_tables import small_table

        made: list[str] = []

        def added(document: Document) -> Document:
            document, small = small_table(document, table, pick)
            document, chart = document_loading.with_best_chart(document, small)
            made.append(chart)
            return document

        if self._store.edit(say("small table"), added):
            self._store.show_chart(made[0])
            self.made.emit()

    # Sources

    def read_otherwise(self) -> None:
        """Choose how the table's file is read."""
        self._read(_source(self._store.there), new=False)

    def _read(self, source: Source, new: bool) -> None:
        from kavlet.desktop.figures.import_dialog import ImportDialog

        sheet = ImportDialog(source, decimal_sign(self._store.document.locale), self._parent)
        take = self._add if new else self._reread
        sheet.chosen.connect(lambda chosen: self._store.guard(lambda: take(chosen)))
        open_sheet(sheet)

    def _reread(self, source: Source) -> None:
        self._take(say("read source otherwise"), source)

    def update_figures(self) -> None:
        """Take over what the table's file holds now."""
        self._take(say("update figures"), _source(self._store.there))

    def update_but_mine(self) -> None:
        """Take over what the table's file holds now, except where the author has changed it too."""
        self._take(say("update figures, keeping mine"), _source(self._store.there), keep_mine=True)

    def keep_mine(self) -> None:
        """Keep the current cell as it is: what the file says there counts as seen."""
        from kavlet.core.document.tables import source_updates

        difference = self.difference_here()
        if difference is None:
            raise KavletError(say("The file does not differ here."))
        wanted = difference
        self._store.edit_table(
            say("keep mine"), lambda document, table: source_updates.keep(document, table.id, wanted)
        )

    def _take(self, name: Message, source: Source, keep_mine: bool = False) -> None:
        from kavlet.core.document.tables import source_updates
        from kavlet.core.files import tables as table_files

        table = self._store.there.id

        def take(read: "Worksheet") -> None:
            notes = read.notes

            def updated(document: Document) -> Document:
                nonlocal notes
                made = source_updates.update(document, table, read.cells, keep_mine)
                notes = (*read.notes, *made.notes)
                return source_updates.linked_table(made.document, table, table_files.seen(source), read.cells)

            self._store.edit(name, updated)
            self._tell(notes)

        self._asked(source, take)

    def unlink(self) -> None:
        from kavlet.core.document.tables import source_updates

        self._store.edit_table(
            say("stop following"), lambda document, table: source_updates.link(document, table.id, None)
        )

    def _tell(self, notes: tuple[Message, ...]) -> None:
        if notes:
            self._store.tell(" ".join(map(str, notes)))

    # Export

    def export(self) -> None:
        from kavlet.core.files.formats import TABLES, by_ending, endings, patterns

        kinds = ";;".join(f"{words(one.title)} ({patterns([one], 'table')})" for one in TABLES)
        start = str(Path.home() / (re.sub(r"[^\w]+", "-", self._store.there.name.lower()).strip("-") + ".csv"))
        name, kind = QFileDialog.getSaveFileName(self._parent, words("Export table"), start, kinds)
        if name:
            path = Path(name)
            ending = next((one for one in endings(TABLES, "table") if f"*{one}" in kind), ".csv")
            self.export_to(path if by_ending(TABLES, path.suffix) else path.with_name(path.name + ending))

    def export_to(self, path: Path) -> None:
        """Write the table in view: CSV and JSON as values, XLSX and ODS with formulas."""
        from kavlet.core.files import atomic
        from kavlet.core.files.formats import renamings, table_content

        held = [(self._store.there, self._store.values)]
        if self._store.guard(lambda: atomic.write(path, table_content(held, path.suffix))):
            self.exported.emit(path)
            self._tell(renamings(held, path.suffix))


def _source(table: Table) -> Source:
    if table.source is None:
        raise KavletError(say("The table follows no file."))
    return table.source
