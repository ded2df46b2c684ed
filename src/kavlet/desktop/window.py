"""The window: its places beside each other, and what the commands do."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QLocale, QSettings, Qt
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QLabel,
    QMainWindow,
    QMenu,
    QMessageBox,
    QPushButton,
    QSplitter,
    QStatusBar,
)

import kavlet
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.figures.references import column_letters
from kavlet.core.figures.table import HEADER
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.values.errors import KavletError
from kavlet.desktop import documents, recent
from kavlet.desktop.commands import COMMANDS
from kavlet.desktop.deliver import writers
from kavlet.desktop.deliver.sheet import DeliverSheet
from kavlet.desktop.dress.panel import DressPanel
from kavlet.desktop.figures.panel import FiguresPanel
from kavlet.desktop.figures.tables import TableCommands
from kavlet.desktop.look import UNIT, dress_application
from kavlet.desktop.stage.panel import StagePanel
from kavlet.desktop.store import Store

SAYING_LASTS = 12_000  # milliseconds
GRID_MENU = (
    *("cut", "copy", "paste", "paste_values", "clear", ""),
    *("insert_rows", "insert_rows_below", "delete_rows", "", "insert_column", "delete_columns", ""),
    *("sort_up", "sort_down", "", "give_back", "cut_loose", "choose_role", "title_from_cell"),
)


class Window(QMainWindow):
    """Figures, Stage and Dress side by side, in one window with one document."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.actions_by_name: dict[str, QAction] = {}
        self.wish = writers.Wish(".png")
        self.figures = FiguresPanel(store)
        self.stage = StagePanel(store)
        self.dress = DressPanel(store)
        self.tables = TableCommands(self, store)
        self.splitter = QSplitter(Qt.Orientation.Horizontal)
        self.splitter.setHandleWidth(3 * UNIT)
        for place, stretch in ((self.figures, 4), (self.stage, 6), (self.dress, 0)):
            self.splitter.addWidget(place)
            self.splitter.setStretchFactor(self.splitter.indexOf(place), stretch)
        self.splitter.setSizes([396, 588, 248])
        self.splitter.setChildrenCollapsible(False)
        self.dress.setMinimumWidth(248)
        self.stage.setMinimumWidth(320)
        self.figures.setMinimumWidth(260)
        self.splitter.setContentsMargins(3 * UNIT, UNIT, 3 * UNIT, 0)
        self.setCentralWidget(self.splitter)
        self.setStatusBar(QStatusBar())
        self.saying = QLabel()
        self.saying.setObjectName("alarm")
        self.statusBar().addWidget(self.saying, 1)
        self.statusBar().setSizeGripEnabled(False)
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self._make_menus()
        self.figures.open_wanted.connect(self.open_document)
        self.figures.paste_wanted.connect(self.paste)
        self.figures.rename_wanted.connect(self.tables.rename_table)
        self.figures.add_wanted.connect(self.tables.add_empty_table)
        self.figures.source.update_wanted.connect(self.tables.update_figures)
        self.figures.source.otherwise_wanted.connect(self.tables.read_otherwise)
        self.figures.grid.customContextMenuRequested.connect(self._grid_menu)
        self.figures.grid.selected.connect(self._light_marks)
        self.stage.view.picked.connect(self._go_to_row)
        store.changed.connect(self.refresh)
        store.refused.connect(self.say)
        self._restore_places()
        self.refresh()

    def _make_menus(self) -> None:
        menus: dict[str, QMenu] = {}
        for command in COMMANDS:
            if command.menu not in menus:
                menus[command.menu] = self.menuBar().addMenu(self.tr(command.menu))
            menu = menus[command.menu]
            if command.line_before:
                menu.addSeparator()
            action = QAction(self.tr(command.text), self)
            carry_out = self._who_does(command.name)
            action.triggered.connect(lambda _checked=False, carry_out=carry_out: carry_out())
            if command.shortcut:
                action.setShortcut(QKeySequence(command.shortcut))
            if command.name in (
                "cut",
                "copy",
                "paste",
                "clear",
                "rows_up",
                "rows_down",
                "columns_left",
                "columns_right",
            ):
                # The grid and the fields handle these keys themselves; here they only stand in the menu.
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
            menu.addAction(action)
            self.actions_by_name[command.name] = action
            if command.name == "open_document":
                self.recent_menu = menu.addMenu(self.tr("Open recent"))
                self.recent_menu.aboutToShow.connect(self._fill_recent)
        deliver = QPushButton(self.tr("Deliver"))
        deliver.setObjectName("main")
        deliver.setToolTip(self.tr("Take the chart away: PNG, SVG, PDF"))
        deliver.clicked.connect(self.deliver)
        self.deliver_button = deliver
        self.menuBar().setCornerWidget(deliver)

    def _who_does(self, name: str) -> Callable[[], object]:
        """The method that carries a command out, of the window or of one of its places."""
        for place in (self, self.tables, self.figures.grid.work):
            found: Callable[[], object] | None = getattr(place, name, None)
            if callable(found) and name in dir(type(place)):
                return found
        raise AttributeError(name)

    def _fill_recent(self) -> None:
        self.recent_menu.clear()
        files = recent.recent()
        for path in files:
            action = self.recent_menu.addAction(path.name)
            action.setToolTip(str(path))
            action.triggered.connect(lambda _checked=False, path=path: self.open_path(path))
        if not files:
            self.recent_menu.addAction(self.tr("No files yet")).setEnabled(False)

    def _grid_menu(self) -> None:
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for name in GRID_MENU:
            if name:
                menu.addAction(self.actions_by_name[name])
            else:
                menu.addSeparator()
        grid = self.figures.grid
        menu.popup(grid.viewport().mapToGlobal(grid.visualRect(grid.currentIndex()).center()))

    def refresh(self) -> None:
        """The window's title, and which commands can be carried out now."""
        history = self.store.history
        name = self.store.name or self.tr("Untitled")
        self.setWindowTitle(f"{name}[*] – Kavlet")
        self.setWindowModified(history.changed and self.store.table is not None)
        for command, edit in (("undo", history.undo_name), ("redo", history.redo_name)):
            action = self.actions_by_name[command]
            word = self.tr("Undo") if command == "undo" else self.tr("Redo")
            action.setText(f"{word}: {edit}" if edit else word)
            action.setEnabled(bool(edit))
        has_chart = self.store.chart is not None
        for command in ("deliver", "edit_title", "title_from_cell", "choose_role"):
            self.actions_by_name[command].setEnabled(has_chart)
        self.deliver_button.setEnabled(has_chart)
        self.say("")

    def say(self, sentence: str) -> None:
        """One sentence at the foot of the window; it stays until the next edit."""
        self.saying.setText(sentence)
        self.saying.setToolTip(sentence)

    # Documents

    @property
    def locale_name(self) -> str:
        return QLocale.system().name()

    def new_document(self) -> None:
        if self.may_close():
            self.store.load(Document(locale=documents.known(self.locale_name)), None, "")

    def open_demo(self) -> None:
        if self.may_close():
            self.store.load(documents.demo(), None, self.tr("Mirefen year"))

    def open_document(self) -> None:
        """Ask for a file and open it."""
        kinds = self.tr("Documents and tables (*.kavlet *.csv *.tsv *.txt *.xlsx *.ods *.json)")
        name, _ = QFileDialog.getOpenFileName(self, self.tr("Open"), self._folder(), kinds)
        if name:
            self.open_path(Path(name))

    def open_path(self, path: Path) -> None:
        """Open a document, or a table as a new document; a file that can't be read changes nothing."""
        try:
            document, is_held = documents.opened(path, self.locale_name)
        except KavletError as error:
            self.say(str(error))
            return
        if not self.may_close():
            return
        self.store.load(document, path if is_held else None, path.stem, unsaved=not is_held)
        recent.remember(path)
        self.figures.grid.go_to(0, 1)

    def save(self) -> bool:
        """Save to the document's file, or ask for one. Returns whether it was saved."""
        return self._save_to(self.store.path) if self.store.path is not None else self.save_as()

    def save_as(self) -> bool:
        start = str(Path(self._folder()) / f"{self.store.name or 'document'}{kavlet_file.SUFFIX}")
        name, _ = QFileDialog.getSaveFileName(self, self.tr("Save as"), start, self.tr("Kavlet documents (*.kavlet)"))
        if not name:
            return False
        path = Path(name)
        return self._save_to(
            path if path.suffix.lower() == kavlet_file.SUFFIX else path.with_name(path.name + kavlet_file.SUFFIX)
        )

    def _save_to(self, path: Path) -> bool:
        try:
            kavlet_file.save(self.store.document, path)
        except KavletError as error:
            self.say(str(error))
            return False
        self.store.saved(path)
        recent.remember(path)
        return True

    def _folder(self) -> str:
        if self.store.path is not None:
            return str(self.store.path.parent)
        latest = recent.recent()
        return str(latest[0].parent if latest else Path.home())

    def may_close(self) -> bool:
        """Whether the document may be let go: saved, unchanged, or given up by the author."""
        if self.store.table is None or not self.store.history.changed:
            return True
        box = QMessageBox(self)
        box.setWindowTitle("Kavlet")
        box.setText(self.tr("Save the changes to “{}”?").format(self.store.name or self.tr("Untitled")))
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
        picture = self.stage.view.picture
        if picture is None or self.stage.view.problem:
            self.say(self.stage.view.problem or self.tr("There is no chart to deliver."))
            return
        sheet = DeliverSheet(picture, self.wish, self)
        sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        sheet.wished.connect(self._deliver_to)
        sheet.open()

    def _deliver_to(self, wish: writers.Wish) -> None:
        picture = self.stage.view.picture
        if picture is None:
            return
        self.wish = wish
        name = (self.store.chart.name if self.store.chart else "chart").lower().replace(" ", "-")
        start = str(Path(self._folder()) / f"{name}{wish.ending}")
        chosen, _ = QFileDialog.getSaveFileName(self, self.tr("Deliver"), start, f"*{wish.ending}")
        if not chosen:
            return
        path = Path(chosen)
        if path.suffix.lower() != wish.ending:
            path = path.with_name(path.name + wish.ending)
        try:
            writers.write(picture, wish, path)
        except KavletError as error:
            self.say(str(error))
            return
        self.statusBar().showMessage(self.tr("Saved {}").format(path), SAYING_LASTS)

    # Cells and marks

    def _light_marks(self) -> None:
        """Light up the marks of the rows whose cells are selected."""
        chart, table, box = self.store.chart, self.store.table, self.figures.grid.chosen()
        reads = chart is not None and table is not None and chart.table == table.id and box is not None
        rows = range(box[1] - HEADER, box[3] - HEADER + 1) if reads and box is not None else ()
        self.stage.view.light(frozenset(rows))

    def _go_to_row(self, row: int) -> None:
        """Light up the cell that drives a mark."""
        chart = self.store.chart
        if chart is not None:
            self.store.show_table(chart.table)
            held = chart.roles.get("value", ()) or ("",)
            column = self.store.document.table(chart.table).place(held[0])
            self.figures.grid.go_to(max(0, column), row + HEADER)

    # Edits

    def undo(self) -> None:
        self.store.undo()

    def redo(self) -> None:
        self.store.redo()

    def paste(self) -> None:
        """Paste into the table, or make a new document of the cells where there is none."""
        if self.store.table is not None:
            self.figures.grid.work.paste()
            return
        rows = self.figures.grid.work.clipboard_cells()
        if not rows:
            self.say(self.tr("The clipboard holds no cells."))
            return
        try:
            document = documents.from_clipboard(self.tr("Table"), rows, self.locale_name)
        except KavletError as error:
            self.say(str(error))
            return
        self.store.load(document, None, "", unsaved=True)
        self.figures.grid.go_to(0, 1)

    def find(self) -> None:  # type: ignore[override]
        """Open the line to find cells by what they show."""
        self.figures.finder.open()

    def choose_role(self) -> None:
        """Open the role menu of the current column."""
        grid = self.figures.grid
        section = max(0, grid.currentIndex().column())
        corner = grid.roles.chip_rect(section).bottomLeft()
        grid.roles.role_menu(section).popup(grid.roles.viewport().mapToGlobal(corner))

    def edit_title(self) -> None:
        field = self.dress.texts["title"]
        field.setFocus(Qt.FocusReason.ShortcutFocusReason)
        field.selectAll()

    def title_from_cell(self) -> None:
        """Bind the title to the current cell."""
        chart, index = self.store.chart, self.figures.grid.currentIndex()
        if chart is not None and index.isValid():
            cell = f"={column_letters(index.column())}{index.row() + 1}"
            self.store.apply(self.tr("change title"), edits.change_chart(self.store.document, chart.id, title=cell))

    # The window itself

    def look_light(self) -> None:
        self._choose_look("light")

    def look_dark(self) -> None:
        self._choose_look("dark")

    def look_system(self) -> None:
        self._choose_look("system")

    def _choose_look(self, look: str) -> None:
        QSettings().setValue("look", look)
        apply_look()

    def about(self) -> None:
        text = self.tr(
            "<b>Kavlet {}</b><p>Turns small tables into the charts no chart menu offers, "
            "and shows how they are built.</p>"
            "<p>MIT License. Faces under the SIL Open Font License 1.1.</p>"
        )
        QMessageBox.about(self, self.tr("About Kavlet"), text.format(kavlet.__version__))

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        paths = [Path(url.toLocalFile()) for url in event.mimeData().urls() if url.isLocalFile()]
        if paths:
            event.acceptProposedAction()
            self.open_path(paths[0])

    def _restore_places(self) -> None:
        settings = QSettings()
        for name, restore in (("geometry", self.restoreGeometry), ("places", self.splitter.restoreState)):
            held = settings.value(name)
            if held is not None:
                restore(held)

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.may_close():
            event.ignore()
            return
        settings = QSettings()
        settings.setValue("geometry", self.saveGeometry())
        settings.setValue("places", self.splitter.saveState())
        event.accept()


def apply_look() -> None:
    """Dress the application light or dark, as chosen, else as the system does."""
    application = QApplication.instance()
    if not isinstance(application, QApplication):
        return
    chosen = str(QSettings().value("look", "system"))
    system_dark = application.styleHints().colorScheme() == Qt.ColorScheme.Dark
    dress_application(application, chosen == "dark" or (chosen == "system" and system_dark))
    for widget in QApplication.allWidgets():
        widget.update()
