"""The window's places, one of which is shown: figures with Stage and Dress, the recipe wall, Start, the pages."""

from typing import TYPE_CHECKING, TypeVar

from PySide6.QtCore import QByteArray, QEvent, QObject, Qt, QTimer
from PySide6.QtWidgets import QSplitter, QStackedWidget, QWidget

from kavlet.desktop.debounce import AFTER_EDIT
from kavlet.desktop.figures.panel import FiguresPanel
from kavlet.desktop.on_demand import OnDemand
from kavlet.desktop.stage.panel import StagePanel
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.worker import Worker

if TYPE_CHECKING:
    from kavlet.desktop.dress.panel import DressPanel
    from kavlet.desktop.pages.panel import PagesPanel
    from kavlet.desktop.recipes.wall import RecipeWall
    from kavlet.desktop.start.panel import StartPanel

DRESS_WIDTH = 296  # pixels at least
Place = TypeVar("Place", bound=QWidget)


class Workspaces(QStackedWidget):
    """Builds the places, and goes from one to another. `splitter` holds figures, Stage and Dress beside each other.

    All are made where they stand: what is moved under another parent is laid out, and its style worked out, anew.
    """

    def __init__(self, store: Store, worker: Worker, parent: QWidget) -> None:
        super().__init__(parent)
        self._store = store
        self.splitter = QSplitter(Qt.Orientation.Horizontal, self)
        self.splitter.setHandleWidth(3 * UNIT)
        self.figures = FiguresPanel(store, self.splitter)
        self.stage = StagePanel(store, self.splitter)
        self._dress_room = QWidget(self.splitter)  # stands there until the chart has been painted once
        self.dress_part = OnDemand(self._new_dress)
        self.stage.view.installEventFilter(self)
        self.wall_part = OnDemand(lambda: self._added(self._new_wall(store, worker)))
        self.start_part = OnDemand(lambda: self._added(self._new_start(worker)))
        self.pages_part = OnDemand(lambda: self._added(self._new_pages(store)))
        for place, stretch, least in ((self.figures, 4, 260), (self.stage, 6, 320), (self._dress_room, 0, DRESS_WIDTH)):
            self.splitter.setStretchFactor(self.splitter.indexOf(place), stretch)
            place.setMinimumWidth(least)
        self.splitter.setSizes([372, 560, 300])
        self.splitter.setChildrenCollapsible(False)
        self.splitter.setContentsMargins(3 * UNIT, UNIT, 3 * UNIT, 0)
        self.addWidget(self.splitter)

    def _added(self, place: Place) -> Place:
        self.addWidget(place)
        return place

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Once the chart is painted, Dress is made."""
        if event.type() == QEvent.Type.Paint and self._store.has_chart:
            self.stage.view.removeEventFilter(self)
            QTimer.singleShot(AFTER_EDIT, self, self.dress_part)
        return super().eventFilter(watched, event)

    def _new_dress(self) -> "DressPanel":
        from kavlet.desktop.dress.panel import DressPanel

        sizes = self.splitter.sizes()[:3]
        dress = DressPanel(self._store, self.splitter)
        dress.setMinimumWidth(DRESS_WIDTH)
        dress.setVisible(self._store.has_chart)
        dress.sought.connect(lambda: None if dress.isVisible() else self.show_stage())
        self._dress_room.setParent(None)
        self._dress_room.deleteLater()
        self.splitter.insertWidget(2, dress)
        self.splitter.setStretchFactor(2, 0)
        self.splitter.setSizes(sizes)
        return dress

    def _new_wall(self, store: Store, worker: Worker) -> "RecipeWall":
        from kavlet.desktop.recipes.wall import RecipeWall

        wall = RecipeWall(store, worker, self)
        wall.closed.connect(self.show_stage)
        return wall

    def _new_start(self, worker: Worker) -> "StartPanel":
        from kavlet.desktop.start.panel import StartPanel

        return StartPanel(worker, self)

    def _new_pages(self, store: Store) -> "PagesPanel":
        from kavlet.desktop.pages.panel import PagesPanel

        pages = PagesPanel(store, self)
        pages.canvas.chart_wanted.connect(self.go_to_chart)
        pages.canvas.frame.opened.connect(self._dress_on_page)
        return pages

    @property
    def dress(self) -> "DressPanel":
        """Dress, made once the chart is painted, or when it is asked for."""
        return self.dress_part()

    @property
    def wall(self) -> "RecipeWall":
        """The recipes, made when they are first asked for, as the next two are."""
        return self.wall_part()

    @property
    def start(self) -> "StartPanel":
        """What is seen while there is no table."""
        return self.start_part()

    @property
    def pages(self) -> "PagesPanel":
        """The pages."""
        return self.pages_part()

    def _leave_page(self) -> None:
        """Let go of a chart that is touched on its page."""
        if self.pages_part.made is not None:
            self.pages_part.made.canvas.leave()

    @property
    def on_pages(self) -> bool:
        """Whether the pages are shown."""
        return self.currentWidget() is self.pages_part.made

    @property
    def on_stage(self) -> bool:
        """Whether figures, Stage and Dress are shown."""
        return self.currentWidget() is self.splitter

    def show_pages(self) -> None:
        """Go to the pages; while there is no table, that is said."""
        if self._has_table() and (self.on_pages or self._store.look_at(pages=True)):
            self.setCurrentWidget(self.pages)
            self.pages.canvas.setFocus()

    def show_stage(self) -> None:
        """Go to figures, Stage and Dress; while there is no table, that is said."""
        if self._has_table():
            self._leave_page()
            if not self.on_stage and not self._store.look_at(pages=False):
                return
            self.setCurrentWidget(self.splitter)
            self.stage.view.setFocus()

    def _has_table(self) -> bool:
        """Whether there is a table; that there is none is said."""
        return self._store.guard(lambda: self._store.there)

    def show_wall(self) -> None:
        """Go to the recipes."""
        self._leave_page()
        self._store.look_at(pages=False)
        self.setCurrentWidget(self.wall)

    def go_to_chart(self, chart: str) -> None:
        """A chart's table and Stage, from its page; the key that shows pages goes back to it."""
        self.show_stage()
        self._store.show_chart(chart)

    def go_to_table(self, table: str) -> None:
        """A table, with the first chart built on it."""
        self.show_stage()
        self._store.show_table(table)

    def go_to_cell(self, table: str, column: int, row: int) -> None:
        """A cell of a table."""
        if self.on_pages or self._store.table.id != table:
            self.go_to_table(table)
        self.figures.grid.go_to(column, row)

    def go_to_page(self, page: str) -> None:
        """One of the pages."""
        self._store.show_page(page)
        self.show_pages()

    def fit(self) -> None:
        """Start while there is no table; Dress only where there is a chart to dress."""
        if not self._store.has_table:
            self._leave_page()
            self._store.look_at(pages=False)
            self.setCurrentWidget(self.start)
        elif self.currentWidget() is self.start_part.made:
            self.setCurrentWidget(self.splitter)
            self.figures.grid.setFocus()
        (self.dress_part.made or self._dress_room).setVisible(self._store.has_chart)

    def _dress_on_page(self, opened: bool) -> None:
        """The Dress of the chart that is touched on its page stands beside it there."""
        if opened:
            self.pages.take_dress(self.dress)
            return
        self.pages.give_dress(self.dress)
        self.splitter.addWidget(self.dress)
        self.dress.setVisible(self._store.has_chart)

    def shares(self) -> QByteArray:
        """How wide figures, Stage and Dress are, to be remembered."""
        self._leave_page()
        return self.splitter.saveState()
