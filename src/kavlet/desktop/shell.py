"""The window's places beside each other, and those who work in them; what they do is theirs."""

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QSettings, Qt
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QResizeEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QSplitter,
    QStatusBar,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import words
from kavlet.desktop import command_search
from kavlet.desktop.command import Command, Commands
from kavlet.desktop.deliver.deliver_commands import DeliverCommands
from kavlet.desktop.dress.dress_commands import DressCommands
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.figures.table_commands import TableCommands
from kavlet.desktop.file_commands import FileCommands
from kavlet.desktop.menus import Menus
from kavlet.desktop.on_demand import OnDemand
from kavlet.desktop.pages.item_commands import ItemCommands
from kavlet.desktop.pages.page_commands import PageCommands
from kavlet.desktop.pending_text import PendingText
from kavlet.desktop.presenting.present_commands import PresentCommands
from kavlet.desktop.proof.background_proof import BackgroundProof
from kavlet.desktop.proof.eye_button import ProofButton
from kavlet.desktop.proof.proof_commands import ProofCommands
from kavlet.desktop.recipes.recipe_commands import RecipeCommands
from kavlet.desktop.recovery.journal_writer import JournalWriter
from kavlet.desktop.stage.chart_commands import ChartCommands, SolidCommands
from kavlet.desktop.stage.layer_commands import LayerCommands
from kavlet.desktop.stage.picture_commands import PictureCommands
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.view_commands import ViewCommands
from kavlet.desktop.work_bar import WorkBar
from kavlet.desktop.worker import Worker
from kavlet.desktop.workspaces import Workspaces

if TYPE_CHECKING:
    from kavlet.desktop.dress.panel import DressPanel
    from kavlet.desktop.pages.panel import PagesPanel
    from kavlet.desktop.proof.panel import ProofPanel
    from kavlet.desktop.recipes.wall import RecipeWall
    from kavlet.desktop.start.panel import StartPanel


class Shell(QMainWindow):
    """Figures, Stage and Dress side by side, in one window with one document. It has commands once it took them."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.worker = Worker(store.tell, self)
        self.over_under = QSplitter(Qt.Orientation.Vertical)
        self.over_under.setChildrenCollapsible(False)
        self.setCentralWidget(self.over_under)
        places = self.places = Workspaces(store, self.worker, self.over_under)
        self.figures, self.stage, self.splitter = (
            places.figures,
            places.stage,
            places.splitter,
        )
        self.offered: set[str] = set()  # the tables that the wall came up for by itself
        self.files = FileCommands(self, store, self.worker)
        self.delivering = DeliverCommands(self, store, self.worker, self.files.folder, lambda: places.on_pages)
        self.tables = TableCommands(self, store, self.worker)
        self.recipes = RecipeCommands(self, store)
        self.charts = ChartCommands(self, store, self.stage.view, self.figures.cell_of_chart)
        self.layers = LayerCommands(self, store, self.stage.strip)
        self.pictures = PictureCommands(self, store)
        self.looks = DressCommands(self, store, self.worker)
        self.solids = SolidCommands(self, store)
        self.looking = ViewCommands(self, self.findable)
        self.page_work = PageCommands(self, store, places.pages_part, lambda: places.on_pages)
        self.items = ItemCommands(self, store, places.pages_part, lambda: places.on_pages, self.pictures.ask_drawing)
        self.presenting = PresentCommands(self, store)
        self.keeper = JournalWriter(store, self, lambda: self.presenting.draft)
        self.presenting.changed.connect(self.keeper.look_soon)
        self.desk = BackgroundProof(store, self)
        self.proof_part = OnDemand(self._below)
        self.proof = ProofCommands(self, store, self.proof_part, places)
        self._home: QWidget = self.stage.view
        self._lay_out()

    @property
    def dress(self) -> "DressPanel":
        """What can be set of the chart; made once it is painted."""
        return self.places.dress

    @property
    def wall(self) -> "RecipeWall":
        """The recipes; made, as the next three are, when they are first asked for."""
        return self.places.wall

    @property
    def start(self) -> "StartPanel":
        """What is seen while there is no table."""
        return self.places.start

    @property
    def pages(self) -> "PagesPanel":
        """The pages."""
        return self.places.pages

    @property
    def proof_panel(self) -> "ProofPanel":
        """What Proof found."""
        return self.proof_part()

    @property
    def pending_text(self) -> PendingText:
        """What is being typed in this window."""
        return self.store.pending_text

    def take_commands(self, commands: tuple[Command, ...]) -> None:
        """Show commands in the menus, and the buttons at the bar's end."""
        self.menus = Menus(self, self.store, commands)
        self.actions_by_name = self.menus.commands.actions
        self.menus.fill_bar(self.menuBar(), self.files.open_path)
        self.deliver_button = self.menus.deliver_button(self.delivering.deliver, self.delivering.in_view)
        self.place_switch = WorkspaceSwitch(
            self.menus.commands, {"show_stage": words("Stage"), "show_pages": words("Pages")}
        )
        self.proof_button = ProofButton(self.menus.commands, self.desk)
        self.bar_end = self.place_switch.beside(self.proof_button, self.deliver_button)
        self.menuBar().setCornerWidget(self.bar_end)

    def _lay_out(self) -> None:
        self.over_under.setStretchFactor(0, 1)
        self.setStatusBar(QStatusBar())
        self.saying = QLabel()
        self.saying.setObjectName("alarm")
        self.statusBar().addWidget(self.saying, 1)
        self.work_bar = WorkBar(self.worker, self.store.attended, self)
        self.statusBar().addPermanentWidget(self.work_bar)
        self.statusBar().setSizeGripEnabled(False)
        self.statusBar().setContentsMargins(0, 0, 3 * UNIT, 0)
        self.setAcceptDrops(True)
        self.resize(1280, 800)

    def _below(self) -> "ProofPanel":
        """Proof, in line with the places above it."""
        from kavlet.desktop.proof.panel import ProofPanel

        line = QWidget(self.over_under)
        line.hide()
        layout = QVBoxLayout(line)
        layout.setContentsMargins(3 * UNIT, UNIT, 3 * UNIT, 0)
        made = ProofPanel(self.store, self.desk, line)
        layout.addWidget(made)
        made.hide()
        made.hidden.connect(line.setHidden)
        self.over_under.setSizes([540, 250])
        return made

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The bar has its full names where they fit."""
        super().resizeEvent(event)
        self.place_switch.shorten(False)
        self.place_switch.shorten(self.menuBar().sizeHint().width() > self.width())

    def findable(self) -> list[command_search.Findable]:
        """All that can be found by its words now."""
        return [
            *command_search.of_actions(self.actions_by_name),
            *command_search.of_recipes(self.store, self.take_recipe),
            *command_search.of_fields(self.dress),
            *command_search.of_document(self.store, self.places, self.charts.set_size),
            *command_search.of_formats(self.store, self.delivering.deliver_as),
        ]

    def take_recipe(self, name: str) -> None:
        """Draw the table's figures by a recipe, as the wall showed it."""
        self.store.guard(lambda: self.recipes.take(name, self.wall.across, self.wall.typed.get(name, {})))
        self.places.show_stage()

    def refresh(self) -> None:
        """The window's title, and which commands can be carried out now."""
        self.setWindowTitle(f"{self.store.name or words('Untitled')}[*] – Kavlet")
        self.show_modified()
        if not self.store.trying:  # a trial changes with every move of the mouse, and no command's condition with it
            self.menus.refresh()
        self.places.fit()
        self.deliver_button.setEnabled(self.store.has_chart or self.store.has_page)
        self.say("")

    def show_modified(self) -> None:
        """Show in the title whether there is anything that no file holds."""
        store = self.store
        self.setWindowModified((store.history.changed and store.has_table) or self.pending_text.is_changed)

    def say(self, sentence: str) -> None:
        """One sentence at the foot of the window; it stays until the next edit."""
        self.saying.setText(sentence)
        self.saying.setToolTip(sentence)

    def refused(self, sentence: str) -> None:
        """Say why something was not done: at the foot, and at the field where it was typed."""
        self.say(sentence)
        self.pending_text.refuse(sentence)

    def focus_moved(self, old: QWidget | None, new: QWidget | None) -> None:
        """A field that is done gives the focus back to the table or the chart, whichever had it last."""
        if new in (self.figures.grid, self.stage.view):
            self._home = new
        elif new is None and isinstance(old, TextField) and self.isActiveWindow():
            self._home.setFocus(Qt.FocusReason.OtherFocusReason)

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

    def restore_places(self) -> None:
        """Let the places stand as they stood last."""
        settings = QSettings()
        for name, restore in (("geometry", self.restoreGeometry), ("places", self.splitter.restoreState)):
            held = settings.value(name)
            if held is not None:
                restore(held)

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.presenting.ended(self.close) or not self.files.may_close():
            event.ignore()
            return
        self.leave()
        event.accept()

    def leave(self, keep: bool = False) -> None:
        """End its work, and remember where its places stood. Edits that no file holds are kept for the next start where
        nobody could be asked about them."""
        self.keeper.close(keep)
        self.worker.stop()
        self.desk.stop()
        self.store.attended.stop()
        self.delivering.stop_server()
        settings = QSettings()
        settings.setValue("geometry", self.saveGeometry())
        settings.setValue("places", self.places.shares())


class WorkspaceSwitch(QWidget):
    """A button for each place; the one that is shown is pressed. `short` has the names for a narrow window."""

    def __init__(self, commands: Commands, short: Mapping[str, str], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.buttons: dict[str, QToolButton] = {}
        self._names: list[tuple[QAction, str, str]] = []
        for name, shorter in short.items():
            action = commands.actions[name]
            self._names.append((action, action.iconText(), shorter))
            button = QToolButton()
            button.setObjectName("place")
            button.setDefaultAction(action)
            self.buttons[name] = button
            row.addWidget(button)

    def shorten(self, narrow: bool) -> None:
        """Go by the short names, or by the full ones."""
        for action, full, shorter in self._names:
            action.setIconText(shorter if narrow else full)

    def beside(self, *others: QWidget) -> QWidget:
        """The switch with other widgets after it."""
        made = QWidget()
        row = QHBoxLayout(made)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(UNIT)
        row.addWidget(self)
        for other in others:
            row.addWidget(other)
        return made
