"""What the commands do with files: new, open, save, deliver, and asking before anything is lost."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from kavlet.core.document.document import Document
from kavlet.core.figures.cells import Cell
from kavlet.core.figures.table import Source
from kavlet.core.files import atomic, tables
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.formats import TABLES, Wish, patterns
from kavlet.core.messages import say, words
from kavlet.core.text.numbers import decimal_sign
from kavlet.desktop import documents, recent
from kavlet.desktop.command import Command, a_chart
from kavlet.desktop.deliver.sheet import DeliverSheet
from kavlet.desktop.figures.reading import ReadingSheet
from kavlet.desktop.languages import locale_name
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker
from kavlet.export import PAGE_ENDINGS, content, page_files

PAGE_SCALE = 2.0  # pixels per point of pages as pictures: 144 per inch


class FileCommands(QObject):
    """Each method carries out one command; what can't be read or written is said, and nothing changes.

    `opened` tells that another document is there, and whether it was made of a table; `saved` where something was
    written.
    """

    opened = Signal(bool)
    saved = Signal(Path)

    def __init__(self, parent: QWidget, store: Store, worker: Worker) -> None:
        super().__init__(parent)
        self._parent, self._store, self._worker = parent, store, worker
        self.wish = Wish(".png")
        self.commands = (
            Command("new_document", "File", "New", self.new_document, "Ctrl+N"),
            Command("open_document", "File", "Open…", self.open_document, "Ctrl+O"),
            Command("save", "File", "Save", self.save, "Ctrl+S", line_before=True),
            Command("save_as", "File", "Save as…", self.save_as, "Ctrl+Shift+S"),
            Command("deliver", "File", "Deliver…", self.deliver, "Ctrl+E", a_chart, line_before=True),
            Command("deliver_pages", "File", "Deliver pages…", self.deliver_pages, needs=lambda store: store.has_page),
            Command("open_demo", "File", "Open the demo document", self.open_demo, line_before=True),
        )

    def new_document(self) -> None:
        if self.may_close():
            self._store.load(Document(locale=documents.known(locale_name())), None, "")

    def open_demo(self) -> None:
        if self.may_close():
            self._store.load(documents.demo(), None, words("Mirefen year"))

    def open_document(self) -> None:
        """Ask for a file and open it."""
        kinds = words("Documents and tables ({kinds})", kinds=f"*{kavlet_file.SUFFIX} {patterns(TABLES)}")
        name, _ = QFileDialog.getOpenFileName(self._parent, words("Open"), self._folder(), kinds)
        if name:
            self.open_path(Path(name))

    def open_path(self, path: Path) -> None:
        """Open a document, or a table as a new document; a file that can't be read changes nothing."""
        locale, name = locale_name(), say("Opening {file}", file=path.name)

        def read() -> tuple[Document, bool] | None:
            return None if len(tables.sheets(path)) > 1 else documents.opened(path, locale)

        def take(made: tuple[Document, bool] | None) -> None:
            if made is None:
                self._ask_sheet(path)
            else:
                self._take(path, *made)

        self._worker.ask("open", name, read, take)

    def _ask_sheet(self, path: Path) -> None:
        """Which sheet of a workbook is meant, where it has several."""
        self.asks = ReadingSheet(Source(str(path.resolve())), decimal_sign(locale_name()), self._parent)

        locale, name = locale_name(), say("Opening {file}", file=path.name)

        def take(source: Source) -> None:
            self._worker.ask("open", name, lambda: documents.of_source(source, locale),
                             lambda document: self._take(path, document, False))  # fmt: skip

        self.asks.chosen.connect(take)
        self.asks.open()

    def _take(self, path: Path, document: Document, is_held: bool) -> None:
        if not self.may_close():
            return
        self._store.load(document, path if is_held else None, path.stem, unsaved=not is_held)
        recent.remember(path)
        self.opened.emit(not is_held)

    def open_cells(self, rows: list[list[Cell]]) -> None:
        """A new document of cells from elsewhere."""
        document = documents.from_clipboard(words("Table"), rows, locale_name())
        self._store.load(document, None, "", unsaved=True)
        self.opened.emit(True)

    def save(self) -> bool:
        """Save to the document's file, or ask for one. Returns whether it was saved."""
        path = self._store.path
        return self.save_as() if path is None else self._store.guard(lambda: self._save(path))

    def save_as(self) -> bool:
        start = str(Path(self._folder()) / f"{self._store.name or words('document')}{kavlet_file.SUFFIX}")
        kinds = words("Kavlet documents ({kinds})", kinds=f"*{kavlet_file.SUFFIX}")
        name, _ = QFileDialog.getSaveFileName(self._parent, words("Save as"), start, kinds)
        return bool(name) and self._store.guard(lambda: self._save(_ending(Path(name), kavlet_file.SUFFIX)))

    def _save(self, path: Path) -> None:
        kavlet_file.save(self._store.document, path)
        self._store.saved(path)
        recent.remember(path)

    def _folder(self) -> str:
        if self._store.path is not None:
            return str(self._store.path.parent)
        latest = recent.recent()
        return str(latest[0].parent if latest else Path.home())

    def may_close(self) -> bool:
        """Whether the document may be let go: saved, unchanged, or given up by the author."""
        if not self._store.has_table or not self._store.history.changed:
            return True
        box = QMessageBox(self._parent)
        box.setWindowTitle("Kavlet")
        box.setText(words("Save the changes to “{name}”?", name=self._store.name or words("Untitled")))
        save = box.addButton(words("Save"), QMessageBox.ButtonRole.AcceptRole)
        drop = box.addButton(words("Don’t save"), QMessageBox.ButtonRole.DestructiveRole)
        box.addButton(words("Cancel"), QMessageBox.ButtonRole.RejectRole)
        box.setDefaultButton(save)
        box.exec()
        if box.clickedButton() is save:
            return self.save()
        return box.clickedButton() is drop

    def deliver_as(self, ending: str) -> None:
        """Show the Deliver sheet with a format chosen."""
        self.wish = msgspec.structs.replace(self.wish, ending=ending)
        self._store.guard(self.deliver)

    def deliver(self) -> None:
        """Show the Deliver sheet, then ask where to save."""
        sheet = DeliverSheet(self._store.drawn, self.wish, self._worker, self._parent)
        sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        sheet.wished.connect(self._deliver_to)
        sheet.open()

    def _deliver_to(self, wish: Wish) -> None:
        self.wish = wish
        name = self._store.here.name.lower().replace(" ", "-")
        start = str(Path(self._folder()) / f"{name}{wish.ending}")
        chosen, _ = QFileDialog.getSaveFileName(self._parent, words("Deliver"), start, f"*{wish.ending}")
        if chosen:
            path, picture = _ending(Path(chosen), wish.ending), self._store.drawn
            self._worker.ask(
                "deliver", say("Writing {file}", file=path.name), lambda: atomic.write(path, content(picture, wish)),
                lambda _: self.saved.emit(path),
            )  # fmt: skip

    def deliver_pages(self) -> None:
        """Ask where to, and write all pages: one PDF, or a picture for each page."""
        store = self._store
        kinds = {words("PDF of all pages ({kinds})", kinds="*.pdf"): ".pdf"}
        kinds |= {words("{format}, a file for each page ({kinds})", format=name, kinds=f"*{ending}"): ending
                  for name, ending in (("SVG", ".svg"), ("PNG", ".png"))}  # fmt: skip
        start = str(Path(self._folder()) / f"{store.name or words('document')}.pdf")
        chosen, kind = QFileDialog.getSaveFileName(self._parent, words("Deliver pages"), start, ";;".join(kinds))
        if not chosen:
            return
        given = Path(chosen)
        ending = given.suffix.lower() if given.suffix.lower() in PAGE_ENDINGS else kinds.get(kind, ".pdf")
        path, wish = _ending(given, ending), Wish(ending, PAGE_SCALE)
        made, name = [store.page_picture(page.id) for page in store.document.pages], store.name or path.stem

        def write() -> Path:
            first = path
            for number, (to, written) in enumerate(page_files(made, name, path, wish)):
                atomic.write(to, written)
                first = to if number == 0 else first
            return first

        self._worker.ask("deliver", say("Writing {file}", file=path.name), write, self.saved.emit)


def _ending(path: Path, ending: str) -> Path:
    """The path with an ending, where it has not got it."""
    return path if path.suffix.lower() == ending else path.with_name(path.name + ending)
