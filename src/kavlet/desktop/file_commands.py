"""What the commands do with files: new, open, save, and asking before anything is lost."""

from pathlib import Path

from PySide6.QtCore import QObject, QSettings, Signal
from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import tables
from kavlet.core.files.formats import TABLES, patterns
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.table import Source
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.errors import refusal
from kavlet.desktop import document_loading, recent_files
from kavlet.desktop.command import Command
from kavlet.desktop.dialogs import answer, open_sheet
from kavlet.desktop.languages import locale_name
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker

KEEPS_VERSIONS = "earlier versions"
_ACCEPTS, _DESTROYS = QMessageBox.ButtonRole.AcceptRole, QMessageBox.ButtonRole.DestructiveRole


class FileCommands(QObject):
    """Each method carries out one command; what can't be read or written is said, and nothing changes.

    `opened` tells that another document is there, and whether it was made of a table.
    """

    opened = Signal(bool)

    def __init__(self, parent: QWidget, store: Store, worker: Worker) -> None:
        from kavlet.core.files import versions

        super().__init__(parent)
        self._parent, self._store, self._worker = parent, store, worker
        self.commands = (
            Command("new_document", "File", "New", self.new_document, "Ctrl+N"),
            Command("open_document", "File", "Open…", self.open_document, "Ctrl+O"),
            Command("save", "File", "Save", self.save, "Ctrl+S", line_before=True),
            Command("save_as", "File", "Save as…", self.save_as, "Ctrl+Shift+S"),
            Command(
                "earlier_versions",
                "File",
                "Earlier versions…",
                self.earlier_versions,
                needs=lambda store: store.path is not None and bool(versions.versions(store.path)),
            ),
            Command("keep_versions", "File", "Keep earlier versions", self.keep_versions, is_on=keeps_versions),
            Command("open_demo", "File", "Open the demo document", self.open_demo, line_before=True),
        )

    def new_document(self) -> None:
        if self.may_close():
            self._store.load(Document(locale=document_loading.known(locale_name())), None, "")

    def open_demo(self) -> None:
        if self.may_close():
            self._store.load(document_loading.demo(), None, words("Mirefen year"))

    def open_document(self) -> None:
        """Ask for a file and open it."""
        kinds = words("Documents and tables ({kinds})", kinds=f"*{kavlet_file.SUFFIX} {patterns(TABLES)}")
        name, _ = QFileDialog.getOpenFileName(self._parent, words("Open"), self.folder(), kinds)
        if name:
            self.open_path(Path(name))

    def open_path(self, path: Path) -> None:
        """Open a document, or a table as a new document; a file that can't be read changes nothing."""
        locale, name = locale_name(), say("Opening {file}", file=path.name)

        def read() -> tuple[Document, bool] | None:
            return None if len(tables.sheets(path)) > 1 else document_loading.opened(path, locale)

        def take(made: tuple[Document, bool] | None) -> None:
            if made is None:
                self._ask_sheet(path)
            else:
                self._take(path, *made)

        self._worker.ask("open", name, read, take)

    def _ask_sheet(self, path: Path) -> None:
        """Which sheet of a workbook is meant, where it has several."""
        from kavlet.desktop.figures.import_dialog import ImportDialog

        sheet = ImportDialog(Source(str(path.resolve())), decimal_sign(locale_name()), self._parent)

        locale, name = locale_name(), say("Opening {file}", file=path.name)

        def take(source: Source) -> None:
            self._worker.ask("open", name, lambda: document_loading.of_source(source, locale),
                             lambda document: self._take(path, document, False))  # fmt: skip

        sheet.chosen.connect(take)
        open_sheet(sheet)

    def _take(self, path: Path, document: Document, is_held: bool) -> None:
        if not self.may_close():
            return
        if self._store.load(document, path if is_held else None, path.stem, unsaved=not is_held):
            recent_files.remember(path)
            self.opened.emit(not is_held)

    def open_cells(self, rows: list[list[Cell]]) -> None:
        """A new document of cells from elsewhere."""
        document = document_loading.from_clipboard(words("Table"), rows, locale_name())
        if self._store.load(document, None, "", unsaved=True):
            self.opened.emit(True)

    def save(self) -> bool:
        """Save to the document's file, or ask for one. Returns whether it was saved."""
        path = self._store.path
        return self.save_as() if path is None else self._put(path)

    def save_as(self) -> bool:
        start = str(Path(self.folder()) / f"{self._store.name or words('document')}{kavlet_file.SUFFIX}")
        kinds = words("Kavlet documents ({kinds})", kinds=f"*{kavlet_file.SUFFIX}")
        name, _ = QFileDialog.getSaveFileName(self._parent, words("Save as"), start, kinds)
        if not name:
            return False
        path = _ending(Path(name), kavlet_file.SUFFIX)
        return self._put(path, agreed=path == Path(name))

    def _put(self, path: Path, agreed: bool = True) -> bool:
        """Save to a path, after asking where that would overwrite what the author does not know of: `agreed` tells
        that replacing what lies there was agreed to. What is being typed is saved too."""
        self._store.pending_text.take()
        doubt = self._store.on_disk.doubt(path)
        if not doubt and not agreed and path.exists():
            doubt = words("“{file}” is there already.", file=path.name)
        if doubt:
            over, other = words("Save there anyway"), words("Save as…")
            chosen = self._ask(doubt, {over: _DESTROYS, other: _ACCEPTS}, other)
            if chosen == other:
                return self.save_as()
            if chosen != over:
                return False
        return self._store.guard(lambda: self._save(path))

    def earlier_versions(self) -> None:
        """Show what the document's file held before, and go back to it where that is wanted."""
        from kavlet.core.files import versions
        from kavlet.desktop.recovery.version_list import VersionsDialog

        store = self._store
        if store.path is None:
            return
        sheet = VersionsDialog(store.document, versions.versions(store.path), self._parent)
        sheet.wanted.connect(lambda earlier: store.edit(say("go back to an earlier version"), lambda _: earlier))
        open_sheet(sheet)

    def keep_versions(self) -> None:
        """Keep what a file held before each saving from now on, or no longer; what is kept stays."""
        QSettings().setValue(KEEPS_VERSIONS, not keeps_versions())

    def _keep_version(self, path: Path) -> str:
        """Why the earlier version can't be kept, which hinders no saving; empty where it is, or is not to be."""
        from kavlet.core.files import versions

        if not keeps_versions() or path != self._store.path:
            return ""
        why = refusal(lambda: versions.keep(path))
        return words("The earlier version was not kept. {why}", why=why) if why else ""

    def _save(self, path: Path) -> None:
        not_kept = self._keep_version(path)
        kavlet_file.save(self._store.document, path)
        self._store.saved(path)
        recent_files.remember(path)
        if not_kept:
            self._store.tell(not_kept)

    def folder(self) -> str:
        """Where files are looked for and put: the document's own folder, else that of the last one."""
        if self._store.path is not None:
            return str(self._store.path.parent)
        latest = recent_files.recent()
        return str(latest[0].parent if latest else Path.home())

    def may_close(self) -> bool:
        """Whether the document may be let go: saved, unchanged, or given up by the author. What is typed is taken
        first."""
        if not self._store.pending_text.take() and not self._may_lose_text():
            return False
        if not self._store.has_table or not self._store.history.changed:
            return True
        save, drop = words("Save"), words("Don’t save")
        asked = words("Save the changes to “{name}”?", name=self._store.name or words("Untitled"))
        chosen = self._ask(asked, {save: _ACCEPTS, drop: _DESTROYS}, save)
        return self.save() if chosen == save else chosen == drop

    def _may_lose_text(self) -> bool:
        """Whether the author lets go of what is typed and can't be taken."""
        editor = self._store.pending_text.editor
        if editor is None:
            return True
        drop = words("Close without it")
        asked = words("“{text}” is typed and can’t be taken as it is. Close without it?", text=editor.typed_text())
        if self._ask(asked, {drop: _DESTROYS}, drop) != drop:
            return False
        self._store.pending_text.drop()
        return True

    def _ask(self, text: str, answers: dict[str, QMessageBox.ButtonRole], usual: str) -> str:
        """Ask, and give the words of the answer; empty where it is given up. `usual` is what Return answers."""
        box = QMessageBox(self._parent)
        box.setWindowTitle("Kavlet")
        box.setText(text)
        buttons = {box.addButton(said, role): said for said, role in answers.items()}
        box.addButton(words("Cancel"), QMessageBox.ButtonRole.RejectRole)
        box.setDefaultButton(next(button for button, said in buttons.items() if said == usual))
        chosen = answer(box)
        return next((said for button, said in buttons.items() if button is chosen), "")


def keeps_versions() -> bool:
    """Whether earlier versions of documents are kept, which is the author's choice."""
    return bool(QSettings().value(KEEPS_VERSIONS, False, bool))


def _ending(path: Path, ending: str) -> Path:
    """The path with an ending, where it has not got it."""
    return path if path.suffix.lower() == ending else path.with_name(path.name + ending)
