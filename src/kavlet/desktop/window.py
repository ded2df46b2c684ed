"""The window: its places beside each other, wired; what they do is theirs."""

from pathlib import Path

from PySide6.QtCore import QPoint, QSettings, Qt
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import (
    QApplication,
    QLabel,
    QMainWindow,
    QStatusBar,
    QWidget,
)

from kavlet.core.charts.layer import GATHERED
from kavlet.core.document.columns import is_ready
from kavlet.core.figures.table import HEADER
from kavlet.core.messages import words
from kavlet.core.touch.parts import Part
from kavlet.desktop import finding
from kavlet.desktop.command import Command, a_chart, a_table
from kavlet.desktop.deliver.work import DeliverCommands
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.dress.work import DressCommands
from kavlet.desktop.figures.tables import TableCommands
from kavlet.desktop.filing import FileCommands
from kavlet.desktop.looking import LookCommands
from kavlet.desktop.menus import Menus, history_commands
from kavlet.desktop.pages.item_work import ItemCommands
from kavlet.desktop.pages.work import PageCommands
from kavlet.desktop.place_switch import PlaceSwitch
from kavlet.desktop.places import Places
from kavlet.desktop.presenting.work import PresentCommands
from kavlet.desktop.recipes.work import RecipeCommands
from kavlet.desktop.stage.chart_work import ChartCommands
from kavlet.desktop.stage.layer_work import LayerCommands
from kavlet.desktop.stage.picture_work import PictureCommands
from kavlet.desktop.stage.solid_work import SolidCommands
from kavlet.desktop.store import Store
from kavlet.desktop.work_bar import WorkBar
from kavlet.desktop.worker import Worker

SAYING_LASTS = 12_000  # milliseconds


class Window(QMainWindow):
    """Figures, Stage and Dress side by side, in one window with one document."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.worker = Worker(store.refuse, self)
        places = self.places = Places(store, self.worker)
        self.figures, self.stage, self.dress, self.splitter = (
            places.figures,
            places.stage,
            places.dress,
            places.splitter,
        )
        self.wall, self.start, self.pages = places.wall, places.start, places.pages
        self._offered: set[str] = set()  # the tables that the wall came up for by itself
        self.files = FileCommands(self, store, self.worker)
        self.delivering = DeliverCommands(self, store, self.worker, self.files.folder, lambda: places.on_pages)
        self.tables = TableCommands(self, store, self.worker)
        self.recipes = RecipeCommands(self, store)
        self.charts = ChartCommands(self, store, self.stage.view, self.figures.cell_of_chart)
        self.layers = LayerCommands(self, store, self.stage.strip)
        self.pictures = PictureCommands(self, store)
        self.looks = DressCommands(self, store, self.worker)
        self.solids = SolidCommands(self, store)
        self.looking = LookCommands(self, self.findable)
        self.page_work = PageCommands(self, store, self.pages, lambda: places.on_pages)
        self.items = ItemCommands(self, store, self.pages, lambda: places.on_pages, self.pictures.ask_drawing)
        self.presenting = PresentCommands(self, store)
        self.menus = Menus(self, store, self._declared())
        self.actions_by_name = self.menus.commands.actions
        self._lay_out()
        self.menus.fill_bar(self.menuBar(), self.files.open_path)
        self.deliver_button = self.menus.deliver_button(self.delivering.deliver, self.delivering.in_view)
        self.place_switch = PlaceSwitch(self.menus.commands, ("show_stage", "show_pages"))
        self.bar_end = self.place_switch.beside(self.deliver_button)
        self.menuBar().setCornerWidget(self.bar_end)
        self._home: QWidget = self.stage.view
        self._connect()
        self._restore_places()
        self.refresh()

    def _lay_out(self) -> None:
        self.setCentralWidget(self.places)
        self.setStatusBar(QStatusBar())
        self.saying = QLabel()
        self.saying.setObjectName("alarm")
        self.statusBar().addWidget(self.saying, 1)
        self.work_bar = WorkBar(self.worker, self)
        self.statusBar().addPermanentWidget(self.work_bar)
        self.statusBar().setSizeGripEnabled(False)
        self.setAcceptDrops(True)
        self.resize(1280, 800)

    def _declared(self) -> tuple[Command, ...]:
        """All commands, in the order of the menus."""
        store, grid = self.store, self.figures.grid
        return (
            *self.files.commands,
            *self.delivering.commands,
            Command("close", "File", "Quit", self.close, "Ctrl+Q", line_before=True),
            *history_commands(store),
            *grid.work.edit_commands,
            Command("paste", "Edit", "Paste", self.paste, "Ctrl+V", also=("grid",), own_keys=True),
            Command("find", "Edit", "Find…", self.figures.finder.open, "Ctrl+F", a_table, line_before=True),
            *self.tables.commands,
            *grid.work.commands,
            Command("choose_role", "Figures", "Choose the column’s role…", grid.choose_role, "Ctrl+R", a_chart,
                    ("grid",), line_before=True),
            *self.tables.helper_commands,
            Command("edit_title", "Chart", "Edit title", lambda: self.dress.edit("title"), "F6", a_chart),
            *self.charts.title_commands,
            *self.recipes.commands,
            *self.charts.commands,
            *self.looks.commands,
            *self.pictures.commands,
            *self.looks.kit_commands,
            *self.solids.commands,
            *self.page_work.commands,
            *self.items.commands,
            *self.page_work.place_commands,
            *self.page_work.view_commands,
            *self.charts.view_commands,
            *self.looking.commands,
        )  # fmt: skip

    def findable(self) -> list[finding.Findable]:
        """All that can be found by its words now."""
        return [
            *finding.of_actions(self.actions_by_name),
            *finding.of_recipes(self.store, self._take_recipe),
            *finding.of_fields(self.dress),
            *finding.of_document(self.store, self.places, self.charts.set_size),
            *finding.of_formats(self.store, self.delivering.deliver_as),
        ]

    def _connect(self) -> None:
        """Who carries out what the places ask for."""
        store, actions = self.store, self.actions_by_name
        for wish, command in (
            (self.start.open_wanted, "open_document"), (self.start.paste_wanted, "paste"),
            (self.start.empty_wanted, "add_empty_table"), (self.start.demo_wanted, "open_demo"),
            (self.figures.rename_wanted, "rename_table"), (self.figures.add_wanted, "add_empty_table"),
            (self.figures.source.update_wanted, "update_figures"),
            (self.figures.source.mine_wanted, "update_but_mine"),
            (self.figures.source.otherwise_wanted, "read_otherwise"), (self.stage.recipes_wanted, "open_recipes"),
            (self.stage.solid_wanted, "toggle_solid"), (self.dress.solid.toggled, "toggle_solid"),
            (self.dress.picture_wanted, "add_picture"), (self.dress.drawing_wanted, "draw_symbol"),
        ):  # fmt: skip
            wish.connect(lambda *_, action=actions[command]: action.trigger())
        self.figures.grid.customContextMenuRequested.connect(
            lambda: self.menus.popup("grid", self.figures.grid.corner())
        )
        self.figures.grid.selected.connect(self._light_marks)
        self.stage.view.picked.connect(self._go_to_row)
        self.stage.view.menu_wanted.connect(self._stage_menu)
        self.stage.view.dropped.connect(lambda part, what: store.guard(lambda: self.pictures.drop(part, what)))
        self.stage.solid_wanted.connect(lambda: self.dress.reveal("solid.turn"))
        self.stage.size_wanted.connect(self.charts.set_size)
        self.stage.follow(self.layers)
        self.layers.more = lambda menu: self.menus.commands.fill(menu, "layers")
        self.recipes.wall_wanted.connect(self.places.show_wall)
        self.wall.chosen.connect(self._take_recipe)
        self.wall.reading_wanted.connect(self.charts.read_across)
        self.dress.reading_wanted.connect(self.charts.read_across)
        self.start.path_wanted.connect(self.files.open_path)
        self.start.sample_wanted.connect(self.tables.put_in_sample)
        store.edited.connect(self._offer_recipes)
        self.files.opened.connect(self._opened)
        self.delivering.saved.connect(self._saved)
        self.tables.exported.connect(self._saved)
        self.tables.made.connect(self.recipes.wall_wanted)
        self.tables.selected = self.figures.grid.inside
        self.tables.difference_here = self.figures.difference_here
        self.dress.parameters.current_cell = self.figures.cell_of_chart
        self.dress.solid.from_wanted.connect(lambda side: store.guard(lambda: self.solids.see_from(side)))
        self._connect_pages()
        self.places.currentChanged.connect(lambda _: self.menus.refresh())
        store.follow(self.refresh, view=True)
        store.selected.connect(self.menus.refresh)
        store.refused.connect(self._refused)
        QApplication.instance().focusChanged.connect(self._focus_moved)  # type: ignore[union-attr]

    def _connect_pages(self) -> None:
        """The Pages place: how one comes to it and back, and what it asks for."""
        store, work, canvas = self.store, self.page_work, self.pages.canvas
        work.pages_wanted.connect(self.places.show_pages)
        work.stage_wanted.connect(self.places.show_stage)
        work.present_wanted.connect(lambda page: store.guard(lambda: self.presenting.present(page)))
        work.full_view_wanted.connect(lambda: store.guard(self.presenting.full_view))
        canvas.menu_wanted.connect(lambda place: self.menus.popup("page", place))
        canvas.frame.menu_wanted.connect(self._stage_menu)
        canvas.frame.dropped.connect(lambda part, what: store.guard(lambda: self.pictures.drop(part, what)))
        self.pages.strip.menu_wanted.connect(lambda place: self.menus.popup("pages", place))

    def refresh(self) -> None:
        """The window's title, and which commands can be carried out now."""
        history = self.store.history
        self.setWindowTitle(f"{self.store.name or words('Untitled')}[*] – Kavlet")
        self.setWindowModified(history.changed and self.store.has_table)
        if not self.store.trying:  # a trial changes with every move of the mouse, and no command's condition with it
            self.menus.refresh()
        self.places.fit()
        self.deliver_button.setEnabled(self.store.has_chart or self.store.has_page)
        self.say("")

    def _offer_recipes(self) -> None:
        """Bring up the wall, once, as soon as a table without a chart holds two rows of figures."""
        store, table = self.store, self.store.table
        reads = any(table.id in (one.table, one.reading and one.reading.table) for one in store.document.charts)
        if reads or table.id in self._offered or not is_ready(table) or not self.places.on_stage:
            return
        self._offered.add(table.id)
        self.recipes.wall_wanted.emit()

    def say(self, sentence: str) -> None:
        """One sentence at the foot of the window; it stays until the next edit."""
        self.saying.setText(sentence)
        self.saying.setToolTip(sentence)

    def _refused(self, sentence: str) -> None:
        """Say why something was not done: at the foot, and at the field where it was typed."""
        self.say(sentence)
        if TextField.committing is not None:
            TextField.committing.refuse(sentence)

    def _focus_moved(self, old: QWidget | None, new: QWidget | None) -> None:
        """A field that is done gives the focus back to the table or the chart, whichever had it last."""
        if new in (self.figures.grid, self.stage.view):
            self._home = new
        elif new is None and isinstance(old, TextField) and self.isActiveWindow():
            self._home.setFocus(Qt.FocusReason.OtherFocusReason)

    # What one place tells another

    def _stage_menu(self, part: Part | None, place: QPoint) -> None:
        """What fits the part under the mouse, and what fits any."""
        first = [] if part is None else self.stage.offers(part, self.layers)
        if part is not None and part.path:
            first.append((words("Give this back to theme"), lambda: self.dress.give_back(part.path)))
        self.menus.popup("stage", place, first)

    def _take_recipe(self, name: str) -> None:
        self.store.guard(lambda: self.recipes.take(name, self.wall.across, self.wall.typed.get(name, {})))
        self.places.show_stage()

    def _opened(self, is_table: bool) -> None:
        self.figures.grid.go_to(0, 1)
        if is_table:
            self.recipes.wall_wanted.emit()

    def _saved(self, path: Path) -> None:
        self.statusBar().showMessage(words("Saved {file}", file=path), SAYING_LASTS)

    def _light_marks(self) -> None:
        """Light up the marks of the rows whose cells are selected."""
        box = self.figures.grid.chosen() if self.store.chart_is_of_table else None
        self.stage.view.light(frozenset(range(box[1] - HEADER, box[3] - HEADER + 1) if box is not None else ()))

    def _go_to_row(self, row: int) -> None:
        """Light up the cell that drives a mark; what is left over, or empty, has none."""
        if row >= GATHERED:
            return
        chart = self.store.here
        self.store.show_table(chart.table)
        held = chart.roles.get("value", ()) or ("",)
        self.figures.grid.go_to(max(0, self.store.there.place(held[0])), row + HEADER)

    def paste(self) -> None:
        """Paste into the table, or make a new document of the cells where there is none."""
        work = self.figures.grid.work
        if self.store.has_table:
            work.paste()
            return
        rows = work.clipboard_cells()
        if rows:
            self.files.open_cells(rows)
        else:
            self.say(words("The clipboard holds no cells."))

    # The window itself

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
        self.leave()
        event.accept()

    def leave(self) -> None:
        """End its work, and remember where its places stood."""
        self.worker.stop()
        self.delivering.server.stop()
        settings = QSettings()
        settings.setValue("geometry", self.saveGeometry())
        settings.setValue("places", self.places.shares())
