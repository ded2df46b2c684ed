"""The Pages place: the strip of pages, the page on its desk with what can be put onto it, and the fields."""

from PySide6.QtCore import QElapsedTimer, QMimeData, QPoint, QSize, Qt, Signal
from PySide6.QtGui import QDrag, QIcon, QKeyEvent
from PySide6.QtWidgets import (
    QApplication,
    QFrame,
    QHBoxLayout,
    QLabel,
    QListView,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QScrollArea,
    QSplitter,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import words
from kavlet.core.pages.fields import NAMES
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.item import Item
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words
from kavlet.core.pipeline.stages import NO_PICTURE
from kavlet.desktop.pages.canvas import MIME, PageCanvas
from kavlet.desktop.pages.item_fields import ItemFields
from kavlet.desktop.pages.page_strip import PageStrip
from kavlet.desktop.proof.eye_button import EyeButton
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.thumbnails import ThumbnailQueue, thumb

CHART = QSize(92, 52)
PUTS: tuple[type[Item], ...] = (Words, KeyFigure, Excerpt, SharedLegend, PlacedPicture, DrawnShape, StepControl)


class ChartShelf(QListWidget):
    """The document's charts as small live pictures, to drag onto the page or click into the next free bay."""

    put_wanted = Signal(str)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._drawn: dict[str, object] = {}
        self.setAccessibleName(words("Charts to put on the page"))
        self.setViewMode(QListView.ViewMode.IconMode)
        self.setFlow(QListView.Flow.LeftToRight)
        self.setWrapping(False)
        self.setMovement(QListView.Movement.Static)
        self.setIconSize(CHART)
        self.setGridSize(QSize(CHART.width() + 14, CHART.height() + 24))
        self.setFixedHeight(CHART.height() + 40)
        self.setDragEnabled(True)
        self.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.setWordWrap(False)
        self.setHorizontalScrollMode(QListWidget.ScrollMode.ScrollPerPixel)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._since, self._wished = QElapsedTimer(), ""
        self.itemClicked.connect(self._wish)
        self._pictures = ThumbnailQueue(store, self._draw_next, self)
        store.follow(self.refresh)

    def refresh(self) -> None:
        """List the charts there are now."""
        if not self.isVisible():
            return
        charts = self._store.document.charts
        role = int(Qt.ItemDataRole.UserRole)
        held = [(self.item(i).data(role), self.item(i).text()) for i in range(self.count())]
        if held != [(entry.id, entry.name) for entry in charts]:
            self.clear()
            self._drawn = {}
            for entry in charts:
                item = QListWidgetItem(entry.name)
                item.setData(role, entry.id)
                item.setToolTip(entry.name)
                self.addItem(item)
        self._pictures.begin()

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self.refresh()

    def _draw_next(self) -> bool:
        for i, chart in enumerate(self._store.document.charts):
            picture = self._store.picture_of(chart.id)
            if self._drawn.get(chart.id) is picture or i >= self.count():
                continue
            self._drawn[chart.id] = picture
            if picture is not NO_PICTURE:
                self.item(i).setIcon(QIcon(thumb(picture.scene, CHART, self.devicePixelRatioF())))
            return True
        return False

    def _wish(self, item: QListWidgetItem) -> None:
        """Ask for a chart to be put; the second half of a double click asks for nothing."""
        chart = str(item.data(int(Qt.ItemDataRole.UserRole)))
        again = chart == self._wished and self._since.isValid()
        if not again or self._since.elapsed() > QApplication.doubleClickInterval():
            self._wished = chart
            self._since.start()
            self.put_wanted.emit(chart)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        item = self.currentItem()
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and item is not None:
            self._wish(item)
            return
        super().keyPressEvent(event)

    def startDrag(self, actions: Qt.DropAction) -> None:
        del actions
        item = self.currentItem()
        if item is None:
            return
        drag = QDrag(self)
        data = QMimeData()
        data.setData(MIME, str(item.data(int(Qt.ItemDataRole.UserRole))).encode())
        drag.setMimeData(data)
        pixmap = item.icon().pixmap(CHART)
        drag.setPixmap(pixmap)
        drag.setHotSpot(QPoint(pixmap.width() // 2, pixmap.height() // 2))
        drag.exec(Qt.DropAction.CopyAction)


class PagesPanel(QWidget):
    """`put_wanted` names the kind of item to put; `first_wanted` asks for a first page, `present_wanted` to present."""

    put_wanted = Signal(str)
    first_wanted = Signal()
    present_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.splitter = QSplitter(Qt.Orientation.Horizontal, self)  # all is made where it stands
        left, middle = QFrame(self.splitter), QWidget(self.splitter)
        self._stack = QStackedWidget(middle)
        scroll = QScrollArea()
        self._stack.addWidget(scroll)
        self.side = QStackedWidget(self.splitter)  # the fields of what is chosen; or the chart's Dress, while touched
        self.strip = PageStrip(store, left)
        self.canvas = PageCanvas(store, scroll)
        self.fields = ItemFields(store, self.side)
        self.charts = ChartShelf(store, middle)
        self.charts.put_wanted.connect(self.canvas.put_chart)
        self.canvas.fields_wanted.connect(self.fields.go_to_first)
        self.canvas.turned.connect(self._turn)
        self.add = QPushButton(words("New page"))
        self.present = QPushButton(words("Present"))
        self.present.clicked.connect(self.present_wanted)
        self.side.addWidget(self.fields)
        left.setObjectName("panel")
        column = QVBoxLayout(left)
        column.setContentsMargins(2 * UNIT, 2 * UNIT, 2 * UNIT, 2 * UNIT)
        column.addWidget(self.strip, 1)
        column.addWidget(self.add)
        column.addLayout(self._last_row())
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.canvas)
        self._stack.addWidget(self._invitation())
        rows = QVBoxLayout(middle)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(UNIT)
        rows.addWidget(self._stack, 1)
        rows.addWidget(self._puts())
        rows.addWidget(self.charts)
        self.splitter.setHandleWidth(3 * UNIT)
        for place, stretch in ((left, 0), (middle, 1), (self.side, 0)):
            self.splitter.setStretchFactor(self.splitter.indexOf(place), stretch)
        left.setMinimumWidth(168)
        self.side.setMinimumWidth(296)
        self.splitter.setSizes([172, 780, 300])
        self.splitter.setChildrenCollapsible(False)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, UNIT, 3 * UNIT, 0)
        layout.addWidget(self.splitter)
        store.follow(self.refresh)
        self.refresh()

    def _last_row(self) -> QHBoxLayout:
        """Presenting, and how readers see the pages."""
        self.eye = EyeButton(self._store)
        row = QHBoxLayout()
        row.setSpacing(UNIT)
        row.addWidget(self.present, 1)
        row.addWidget(self.eye)
        return row

    def _puts(self) -> QWidget:
        """The kinds of items, to put one onto the page."""
        made = QWidget()
        row = QHBoxLayout(made)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(UNIT)
        self.puts: dict[str, QToolButton] = {}
        for one in PUTS:
            kind = one("").kind
            button = QToolButton()
            button.setText(str(NAMES[one]))
            button.setObjectName("put")
            button.setToolTip(words("Put on the page: {kind}", kind=NAMES[one]))
            button.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
            button.clicked.connect(lambda _checked=False, kind=kind: self.put_wanted.emit(kind))
            self.puts[kind] = button
            row.addWidget(button)
        row.addStretch(1)
        return made

    def _invitation(self) -> QWidget:
        """What stands where there is no page yet."""
        made = QWidget()
        column = QVBoxLayout(made)
        column.addStretch(1)
        text = QLabel(words("A page brings charts, words and figures together at their true size."))
        text.setObjectName("title")
        text.setWordWrap(True)
        text.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        column.addWidget(text)
        self.first = QPushButton(words("Make the first page"))
        self.first.setObjectName("main")
        self.first.clicked.connect(self.first_wanted)
        column.addWidget(self.first, 0, Qt.AlignmentFlag.AlignHCenter)
        column.addStretch(2)
        return made

    def take_dress(self, dress: QWidget) -> None:
        """Show the Dress of the chart that is touched, instead of the fields."""
        self.side.setCurrentIndex(self.side.addWidget(dress))
        dress.show()

    def give_dress(self, dress: QWidget) -> None:
        """Show the fields again."""
        self.side.removeWidget(dress)
        self.side.setCurrentWidget(self.fields)

    def refresh(self) -> None:
        """The invitation where there is no page."""
        self._stack.setCurrentIndex(0 if self._store.has_page else 1)
        for button in (*self.puts.values(), self.present):
            button.setEnabled(self._store.has_page)

    def _turn(self, by: int) -> None:
        pages = self._store.document.pages
        at = next((i for i, page in enumerate(pages) if page.id == self._store.page.id), 0)
        if pages:
            self._store.show_page(pages[max(0, min(len(pages) - 1, at + by))].id)
            self.strip.refresh()
