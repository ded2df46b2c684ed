"""What the commands do with files: new, open, save, deliver, and asking before anything is lost."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QLocale, QObject, Qt
from PySide6.QtWidgets import QFileDialog, QMessageBox

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.values.errors import KavletError
from kavlet.desktop import documents, recent
from kavlet.desktop.deliver import writers
from kavlet.desktop.deliver.sheet import DeliverSheet
from kavlet.desktop.store import Store

if TYPE_CHECKING:
    from kavlet.desktop.window import Window

SAYING_LASTS = 12_000  # milliseconds


class FileCommands(QObject):
    """Each method carries out one command; what can't be read or written is said, and nothing changes."""

    def __init__(self, window: "Window", store: Store) -> None:
        super().__init__(window)
        self._window, self._store = window, store
        self.wish = writers.Wish(".png")

    @property
    def locale_name(self) -> str:
        return QLocale.system().name()

    def new_document(self) -> None:
        if self.may_close():
            self._store.load(Document(locale=documents.known(self.locale_name)), None, "")

    def open_demo(self) -> None:
        if self.may_close():
            self._store.load(documents.demo(), None, self.tr("Mirefen year"))

    def open_document(self) -> None:
        """Ask for a file and open it."""
        kinds = self.tr("Documents and tables (*.kavlet *.csv *.tsv *.txt *.xlsx *.ods *.json)")
        name, _ = QFileDialog.getOpenFileName(self._window, self.tr("Open"), self._folder(), kinds)
        if name:
            self.open_path(Path(name))

    def open_path(self, path: Path) -> None:
        """Open a document, or a table as a new document; a file that can't be read changes nothing."""
        try:
            document, is_held = documents.opened(path, self.locale_name)
        except KavletError as error:
            self._window.say(str(error))
            return
        if not self.may_close():
            return
        self._store.load(document, path if is_held else None, path.stem, unsaved=not is_held)
        recent.remember(path)
        self._window.figures.grid.go_to(0, 1)
        if not is_held:
            self._window.open_recipes()

    def save(self) -> bool:
        """Save to the document's file, or ask for one. Returns whether it was saved."""
        return self._save_to(self._store.path) if self._store.path is not None else self.save_as()

    def save_as(self) -> bool:
        start = str(Path(self._folder()) / f"{self._store.name or 'document'}{kavlet_file.SUFFIX}")
        name, _ = QFileDialog.getSaveFileName(
            self._window, self.tr("Save as"), start, self.tr("Kavlet documents (*.kavlet)")
        )
        if not name:
            return False
        path = Path(name)
        return self._save_to(
            path if path.suffix.lower() == kavlet_file.SUFFIX else path.with_name(path.name + kavlet_file.SUFFIX)
        )

    def _save_to(self, path: Path) -> bool:
        try:
            kavlet_file.save(self._store.document, path)
        except KavletError as error:
            self._window.say(str(error))
            return False
        self._store.saved(path)
        recent.remember(path)
        return True

    def _folder(self) -> str:
        if self._store.path is not None:
            return str(self._store.path.parent)
        latest = recent.recent()
        return str(latest[0].parent if latest else Path.home())

    def may_close(self) -> bool:
        """Whether the document may be let go: saved, unchanged, or given up by the author."""
        if self._store.table is None or not self._store.history.changed:
            return True
        box = QMessageBox(self._window)
        box.setWindowTitle("Kavlet")
        box.setText(self.tr("Save the changes to “{}”?").format(self._store.name or self.tr("Untitled")))
        save = box.addButton(self.tr("Save"), QMessageBox.ButtonRole.AcceptRole)
        drop = box.addButton(self.tr("Don’t save"), QMessageBox.ButtonRole.DestructiveRole)
        box.addButton(self.tr("Cancel"), QMessageBox.ButtonRole.RejectRole)
        box.setDefaultButton(save)
        box.exec()
        if box.clickedButton() is save:
            return self.save()
        return box.clickedButton() is drop

    def deliver(self) -> None:
        """Show the Deliver sheet, then ask where to save."""
        picture = self._window.stage.view.picture
        if picture is None or self._window.stage.view.problem:
            self._window.say(self._window.stage.view.problem or self.tr("There is no chart to deliver."))
            return
        sheet = DeliverSheet(picture, self.wish, self._window)
        sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        sheet.wished.connect(self._deliver_to)
        sheet.open()

    def _deliver_to(self, wish: writers.Wish) -> None:
        picture = self._window.stage.view.picture
        if picture is None:
            return
        self.wish = wish
        name = (self._store.chart.name if self._store.chart else "chart").lower().replace(" ", "-")
        start = str(Path(self._folder()) / f"{name}{wish.ending}")
        chosen, _ = QFileDialog.getSaveFileName(self._window, self.tr("Deliver"), start, f"*{wish.ending}")
        if not chosen:
            return
        path = Path(chosen)
        if path.suffix.lower() != wish.ending:
            path = path.with_name(path.name + wish.ending)
        try:
            writers.write(picture, wish, path)
        except KavletError as error:
            self._window.say(str(error))
            return
        self._window.statusBar().showMessage(self.tr("Saved {}").format(path), SAYING_LASTS)
