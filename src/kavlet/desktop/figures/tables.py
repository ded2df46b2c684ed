"""What is done to tables as wholes: adding, naming, copying, deleting, following a file, exporting."""

from pathlib import Path

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

from kavlet.core.document import sources
from kavlet.core.document import tables as table_edits
from kavlet.core.figures.cells import Value
from kavlet.core.figures.table import Source
from kavlet.core.files import atomic, csv, ods, xlsx
from kavlet.core.files import tables as table_files
from kavlet.core.files.calculated import unrounded
from kavlet.core.values.errors import KavletError
from kavlet.desktop import documents
from kavlet.desktop.figures.reading import ReadingSheet
from kavlet.desktop.store import Store

KINDS = "Tables (*.csv *.tsv *.txt *.xlsx *.ods *.json)"


class TableCommands(QObject):
    """Commands on the table in view."""

    def __init__(self, window: QWidget, store: Store) -> None:
        super().__init__(window)
        self._window = window
        self._store = store

    def add_empty_table(self) -> None:
        """A new table to type into."""
        names = [table.name for table in self._store.document.tables]
        name = self.tr("Table {}").format(len(names) + 1)
        document, table = table_edits.add_empty(self._store.document, name)
        self._store.apply(self.tr("new table"), document)
        self._store.show_table(table)

    def add_from_file(self) -> None:
        """A table from a file, beside those that are here."""
        name, _ = QFileDialog.getOpenFileName(self._window, self.tr("Add a table"), str(Path.home()), KINDS)
        if name:
            self.add_path(Path(name))

    def add_path(self, path: Path) -> None:
        """Add a table from a file at a path; a workbook of several sheets asks which."""
        source = Source(str(path.resolve()))
        try:
            if len(table_files.sheets(path)) > 1:
                self._read(source, new=True)
                return
            document, table, notes = documents.added(self._store.document, source)
        except KavletError as error:
            self._store.refuse(error)
            return
        self._store.apply(self.tr("add table"), document)
        self._store.show_table(table)
        self._tell(notes)

    def rename_table(self) -> None:
        table = self._store.table
        if table is None:
            return
        name, accepted = QInputDialog.getText(self._window, self.tr("Rename table"), self.tr("Name"), text=table.name)
        if accepted:
            self.rename(table.id, name)

    def rename(self, table: str, name: str) -> None:
        try:
            self._store.apply(self.tr("rename table"), table_edits.rename(self._store.document, table, name))
        except KavletError as error:
            self._store.refuse(error)

    def copy_table(self) -> None:
        table = self._store.table
        if table is not None:
            document, new = table_edits.copy(self._store.document, table.id)
            self._store.apply(self.tr("copy table"), document)
            self._store.show_table(new)

    def delete_table(self) -> None:
        """Delete the table; when charts are built on it, ask first."""
        table = self._store.table
        if table is None:
            return
        charts = table_edits.readers(self._store.document, table.id)
        if charts:
            names = ", ".join(f"“{chart.name}”" for chart in charts)
            box = QMessageBox(self._window)
            box.setText(
                self.tr("“{}” is read by {}. Delete the table and what is built on it?").format(table.name, names)
            )
            delete = box.addButton(self.tr("Delete"), QMessageBox.ButtonRole.DestructiveRole)
            box.addButton(self.tr("Cancel"), QMessageBox.ButtonRole.RejectRole)
            box.exec()
            if box.clickedButton() is not delete:
                return
        self._store.apply(self.tr("delete table"), table_edits.delete(self._store.document, table.id))

    def make_chart(self) -> None:
        """A chart of the table in view."""
        table = self._store.table
        if table is not None:
            document, chart = documents.with_best_chart(self._store.document, table.id)
            self._store.apply(self.tr("make a chart"), document)
            self._store.show_chart(chart)

    def fold_helpers(self) -> None:
        self._store.fold(not self._store.folded)

    # Sources

    def read_otherwise(self) -> None:
        """Choose how the table's file is read."""
        table = self._store.table
        if table is not None and table.source is not None:
            try:
                self._read(table.source, new=False)
            except KavletError as error:
                self._store.refuse(error)

    def _read(self, source: Source, new: bool) -> None:
        sheet = ReadingSheet(source, self._window)
        sheet.chosen.connect(lambda chosen: self._take(chosen, new))
        sheet.open()

    def _take(self, source: Source, new: bool) -> None:
        table = self._store.table
        try:
            if new or table is None:
                document, made, notes = documents.added(self._store.document, source)
                self._store.apply(self.tr("add table"), document)
                self._store.show_table(made)
            else:
                read = table_files.read_source(source)
                updated = sources.update(self._store.document, table.id, read.cells)
                document = sources.link(updated, table.id, table_files.seen(source))
                notes = read.notes
                self._store.apply(self.tr("read source otherwise"), document)
            self._tell(notes)
        except KavletError as error:
            self._store.refuse(error)

    def update_figures(self) -> None:
        """Take over what the table's file holds now."""
        table = self._store.table
        if table is None or table.source is None:
            return
        try:
            read = table_files.read_source(table.source)
            updated = sources.update(self._store.document, table.id, read.cells)
            document = sources.link(updated, table.id, table_files.seen(table.source))
            self._store.apply(self.tr("update figures"), document)
            self._tell(read.notes)
        except KavletError as error:
            self._store.refuse(error)

    def unlink_source(self) -> None:
        table = self._store.table
        if table is not None and table.source is not None:
            self._store.apply(self.tr("stop following"), sources.link(self._store.document, table.id, None))

    def _tell(self, notes: tuple[str, ...]) -> None:
        if notes:
            self._store.refused.emit(" ".join(notes))

    # Export

    def export_table(self) -> None:
        table = self._store.table
        if table is None:
            return
        kinds = "CSV (*.csv);;XLSX (*.xlsx);;ODS (*.ods)"
        start = str(Path.home() / f"{table.name.lower().replace(' ', '-')}.csv")
        name, kind = QFileDialog.getSaveFileName(self._window, self.tr("Export table"), start, kinds)
        if name:
            path = Path(name)
            endings = (".csv", xlsx.SUFFIX, ods.SUFFIX)
            ending = next((one for one in endings if f"*{one}" in kind), ".csv")
            self.export_to(path if path.suffix.lower() in endings else path.with_name(path.name + ending))

    def export_to(self, path: Path) -> None:
        """Write the table in view: CSV as values, XLSX and ODS with formulas."""
        table = self._store.table
        if table is None:
            return
        values = self._store.values
        try:
            if path.suffix.lower() == xlsx.SUFFIX:
                atomic.write(path, xlsx.dumps([(table, values)]))
            elif path.suffix.lower() == ods.SUFFIX:
                atomic.write(path, ods.dumps([(table, values)]))
            else:
                columns = values.of(table.id)
                rows = [[_field(column.values[row]) for column in columns] for row in range(table.height)]
                atomic.write(path, csv.dumps(rows).encode())
        except KavletError as error:
            self._store.refuse(error)


def _field(value: Value) -> str:
    """A value as a field of a CSV file; text from the table stays text in any program."""
    return csv.harmless(value) if isinstance(value, str) else unrounded(value)
