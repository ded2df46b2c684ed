"""The window: its places beside each other, and what the commands do."""

from collections.abc import Callable
from pathlib import Path

import msgspec
from PySide6.QtCore import QPoint, QSettings, Qt
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QLabel,
    QMainWindow,
    QMenu,
    QMessageBox,
    QPushButton,
    QSplitter,
    QStackedWidget,
    QStatusBar,
)

import kavlet
from kavlet.core.document import edits
from kavlet.core.dress.palettes import from_text
from kavlet.core.figures.references import column_letters
from kavlet.core.figures.table import HEADER
from kavlet.core.touch.parts import Part
from kavlet.core.values.errors import KavletError
from kavlet.desktop import documents, recent
from kavlet.desktop.command_finder import CommandFinder
from kavlet.desktop.commands import COMMANDS
from kavlet.desktop.dress.panel import DressPanel
from kavlet.desktop.dress.work import DressCommands
from kavlet.desktop.figures.panel import FiguresPanel
from kavlet.desktop.figures.tables import TableCommands
from kavlet.desktop.filing import FileCommands
from kavlet.desktop.look import UNIT, dress_application
from kavlet.desktop.recipes.wall import RecipeWall
from kavlet.desktop.stage.panel import StagePanel
from kavlet.desktop.stage.solid_work import SolidCommands
from kavlet.desktop.stage.work import ChartCommands
from kavlet.desktop.store import Store

GRID_MENU = (
    *("cut", "copy", "paste", "paste_values", "clear", ""),
    *("insert_rows", "insert_rows_below", "delete_rows", "", "insert_column", "delete_columns", ""),
    *("sort_up", "sort_down", "", "give_back", "cut_loose", "choose_role", "title_from_cell"),
)


OF_CHARTS = (
    *("deliver", "edit_title", "title_from_cell", "choose_role", "cut_chart_loose", "save_as_recipe", "repeat_rows"),
    "rows_to_series",
    *("copy_chart", "delete_chart", "strip_chart", "lock_scale", "copy_dress", "copy_label_looks", "copy_colours"),
    *("copy_number_texts", "paste_dress", "give_all_looks_back", "paste_palette", "save_kit", "toggle_xray"),
    *("remember_look", "forget_look", "zoom_in", "zoom_out", "zoom_fit", "zoom_actual"),
    *("toggle_solid", "see_from_front", "see_from_above", "see_from_corner"),
)
STAGE_MENU = (
    *("copy_dress", "copy_label_looks", "copy_colours", "paste_dress", "give_all_looks_back", ""),
    *("strip_chart", "lock_scale", "", "open_recipes", "cut_chart_loose", "toggle_xray", "toggle_solid"),
)


class Window(QMainWindow):
    """Figures, Stage and Dress side by side, in one window with one document."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.actions_by_name: dict[str, QAction] = {}
        self.figures = FiguresPanel(store)
        self.stage = StagePanel(store)
        self.dress = DressPanel(store)
        self.files = FileCommands(self, store)
        self.tables = TableCommands(self, store)
        self.charts = ChartCommands(self, store, self.stage)
        self.looks = DressCommands(self, store)
        self.solids = SolidCommands(self, store)
        self.wall = RecipeWall(store)
        self.splitter = QSplitter(Qt.Orientation.Horizontal)
        self.splitter.setHandleWidth(3 * UNIT)
        for place, stretch in ((self.figures, 4), (self.stage, 6), (self.dress, 0)):
            self.splitter.addWidget(place)
            self.splitter.setStretchFactor(self.splitter.indexOf(place), stretch)
        self.splitter.setSizes([372, 560, 300])
        self.splitter.setChildrenCollapsible(False)
        for place, least in ((self.figures, 260), (self.stage, 320), (self.dress, 296)):
            place.setMinimumWidth(least)
        self.splitter.setContentsMargins(3 * UNIT, UNIT, 3 * UNIT, 0)
        self.pages = QStackedWidget()
        self.pages.addWidget(self.splitter)
        self.pages.addWidget(self.wall)
        self.setCentralWidget(self.pages)
        self.setStatusBar(QStatusBar())
        self.saying = QLabel()
        self.saying.setObjectName("alarm")
        self.statusBar().addWidget(self.saying, 1)
        self.statusBar().setSizeGripEnabled(False)
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self._make_menus()
        self._connect()
        self._restore_places()
        self.refresh()

    def _connect(self) -> None:
        """Who carries out what the places ask for."""
        store = self.store
        self.figures.open_wanted.connect(self.files.open_document)
        self.figures.paste_wanted.connect(self.paste)
        self.figures.rename_wanted.connect(self.tables.rename_table)
        self.figures.add_wanted.connect(self.tables.add_empty_table)
        self.figures.source.update_wanted.connect(self.tables.update_figures)
        self.figures.source.otherwise_wanted.connect(self.tables.read_otherwise)
        self.figures.grid.customContextMenuRequested.connect(self._grid_menu)
        self.figures.grid.selected.connect(self._light_marks)
        self.stage.view.picked.connect(self._go_to_row)
        self.stage.recipes_wanted.connect(self.open_recipes)
        self.stage.solid_wanted.connect(self.solids.toggle_solid)
        self.stage.solid_wanted.connect(lambda: self.dress.reveal("solid.turn"))
        self.stage.view.menu_wanted.connect(self._stage_menu)
        self.wall.chosen.connect(self._take_recipe)
        self.wall.closed.connect(self.close_recipes)
        self.dress.picture_wanted.connect(self.charts.add_picture)
        self.dress.parameters.current_cell = self.figures.cell_of_chart
        store.changed.connect(self.refresh)
        store.refused.connect(self.say)
        self.dress.solid.toggled.connect(self.solids.toggle_solid)
        self.dress.solid.from_wanted.connect(self.solids.see_from)

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
        deliver.clicked.connect(self.files.deliver)
        self.deliver_button = deliver
        self.menuBar().setCornerWidget(deliver)

    def _who_does(self, name: str) -> Callable[[], object]:
        """The method that carries a command out, of the window or of one of its places."""
        for place in (self, self.files, self.charts, self.looks, self.solids, self.tables, self.figures.grid.work):
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
            action.triggered.connect(lambda _checked=False, path=path: self.files.open_path(path))
        if not files:
            self.recent_menu.addAction(self.tr("No files yet")).setEnabled(False)

    def _grid_menu(self) -> None:
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._fill_menu(menu, GRID_MENU)
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
        for command in OF_CHARTS:
            self.actions_by_name[command].setEnabled(has_chart)
        self.actions_by_name["open_recipes"].setEnabled(self.store.table is not None)
        self.actions_by_name["cut_chart_loose"].setEnabled(
            has_chart and bool(self.store.chart and self.store.chart.recipe)
        )
        for command in ("paste_dress", "paste_dress_everywhere"):
            self.actions_by_name[command].setEnabled(has_chart and self.store.dress_copied is not None)
        self.deliver_button.setEnabled(has_chart)
        self.say("")

    def say(self, sentence: str) -> None:
        """One sentence at the foot of the window; it stays until the next edit."""
        self.saying.setText(sentence)
        self.saying.setToolTip(sentence)

    # Recipes

    def open_recipes(self) -> None:
        """Show the recipe wall in place of everything else."""
        if self.store.table is not None:
            self.pages.setCurrentWidget(self.wall)

    def close_recipes(self) -> None:
        self.pages.setCurrentWidget(self.splitter)
        self.stage.view.setFocus()

    def _take_recipe(self, name: str) -> None:
        self.charts.take_recipe(name)
        self.close_recipes()

    def _stage_menu(self, part: Part | None, place: QPoint) -> None:
        """What fits the part under the mouse, and what fits any."""
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        if part is not None and part.kind in ("layer", "mark"):
            menu.addAction(self.tr("Hide layer")).triggered.connect(lambda: self.charts.hide_layer(part.key))
        if part is not None and part.kind == "text":
            menu.addAction(self.tr("Edit {}").format(part.key)).triggered.connect(
                lambda: self.stage.view.edit_text(part.key)
            )
        if part is not None and part.kind == "label":
            menu.addAction(self.tr("Edit labels")).triggered.connect(lambda: self.stage.view.edit_label(part))
        if part is not None and part.path:
            menu.addAction(self.tr("Give this back to theme")).triggered.connect(
                lambda: self.dress.give_back(part.path)
            )
        if not menu.isEmpty():
            menu.addSeparator()
        self._fill_menu(menu, STAGE_MENU)
        menu.popup(place)

    def _fill_menu(self, menu: QMenu, names: tuple[str, ...]) -> None:
        for name in names:
            if name:
                menu.addAction(self.actions_by_name[name])
            else:
                menu.addSeparator()

    def give_all_looks_back(self) -> None:
        self.dress.give_all_back()

    def paste_palette(self) -> None:
        """Take the hex codes of any text on the clipboard as the chart's palette."""
        chart = self.store.chart
        if chart is None:
            return
        try:
            colours = from_text(QApplication.clipboard().text())
        except KavletError as error:
            self.say(str(error))
            return
        dress = msgspec.structs.replace(chart.dress, palette=colours)
        self.store.apply(self.tr("paste palette"), edits.change_chart(self.store.document, chart.id, dress=dress))

    def find_command(self) -> None:
        """Open the command finder."""
        CommandFinder(self.actions_by_name, self).show()

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
            document = documents.from_clipboard(self.tr("Table"), rows, self.files.locale_name)
        except KavletError as error:
            self.say(str(error))
            return
        self.store.load(document, None, "", unsaved=True)
        self.figures.grid.go_to(0, 1)
        self.open_recipes()

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
            self.files.open_path(paths[0])

    def _restore_places(self) -> None:
        settings = QSettings()
        for name, restore in (("geometry", self.restoreGeometry), ("places", self.splitter.restoreState)):
            held = settings.value(name)
            if held is not None:
                restore(held)

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.files.may_close():
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
