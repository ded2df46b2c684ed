"""The shelf of symbols: all shipped ones and the document's own, found by words; a click or a drag takes one."""

from PySide6.QtCore import QMimeData, QPoint, QSize, Qt, Signal, SignalInstance
from PySide6.QtGui import QBrush, QIcon, QPainter, QPixmap
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import say, symbol_named, words
from kavlet.core.shapes.symbol import fitted, outline, search
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect
from kavlet.desktop.drawn_icon import drawn_icon
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT, colours, qcolor
from kavlet.paint.painter import qpath, qtransform

SIDE = 28


def symbol_icon(data: str, side: int = SIDE) -> QIcon:
    """A symbol as an icon in the window's ink."""

    def draw(painter: QPainter) -> None:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QBrush(qcolor(colours().ink)))
        painter.drawPath(qtransform(fitted(data, Rect(2, 2, side - 4, side - 4))).map(qpath(outline(data))))

    return drawn_icon(side, draw)


class _List(QListWidget):
    """A grid of symbols that can be dragged onto a part of the chart."""

    def mimeData(self, items) -> QMimeData:  # type: ignore[no-untyped-def]
        data = QMimeData()
        if items:
            data.setData("application/x-kavlet-symbol", str(items[0].data(Qt.ItemDataRole.UserRole)).encode())
        return data


class SymbolShelf(QFrame):
    """Opens beside a field. `chosen` tells the name; `add_wanted` asks for a file, `draw_wanted` for a drawing."""

    chosen = Signal(str)
    add_wanted = Signal()
    draw_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("panel")
        self._store = store
        self.search = QLineEdit()
        self.search.setPlaceholderText(words("Search: water, people, money …"))
        self.search.setAccessibleName(words("Search symbols"))
        self.search.textChanged.connect(lambda _: self.refresh())
        self.search.returnPressed.connect(self._take_first)
        self.list = _List()
        self.list.setViewMode(QListWidget.ViewMode.IconMode)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.list.setIconSize(QSize(SIDE, SIDE))
        self.list.setGridSize(QSize(SIDE + 12, SIDE + 12))
        self.list.setAccessibleName(words("Symbols"))
        self.list.itemActivated.connect(self._take)
        self.list.itemClicked.connect(self._take)
        self.add = QPushButton(words("Add a picture…"))
        self.add.clicked.connect(lambda: self._ask(self.add_wanted))
        self.draw = QPushButton(words("Draw a symbol…"))
        self.draw.clicked.connect(lambda: self._ask(self.draw_wanted))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(2 * UNIT, 2 * UNIT, 2 * UNIT, 2 * UNIT)
        layout.addWidget(self.search)
        layout.addWidget(self.list)
        foot = QHBoxLayout()
        foot.addWidget(self.add)
        foot.addWidget(self.draw)
        layout.addLayout(foot)
        self.resize(330, 330)

    def open_at(self, place: QPoint) -> None:
        """Open below a field, with everything shown."""
        self.search.clear()
        self.refresh()
        self.move(place)
        self.show()
        self.search.setFocus()

    def refresh(self) -> None:
        """The symbols that the search finds, the document's own first."""
        self.list.clear()
        sought = self.search.text().casefold().split()
        for own in self._store.document.pictures:
            if all(word in own.name.casefold() for word in sought):
                icon = symbol_icon(own.outline) if own.outline else QIcon(_thumb(own.content))
                self._put(own.name, own.name, icon)
        for symbol in search(self.search.text()):
            self._put(symbol.name, str(symbol_named(symbol.name)), symbol_icon(symbol.outline))

    def _put(self, name: str, shown: str, icon: QIcon) -> None:
        item = QListWidgetItem(icon, "")
        item.setData(Qt.ItemDataRole.UserRole, name)
        item.setToolTip(shown)
        item.setData(Qt.ItemDataRole.AccessibleTextRole, shown)
        self.list.addItem(item)

    def _take(self, item: QListWidgetItem) -> None:
        self.chosen.emit(str(item.data(Qt.ItemDataRole.UserRole)))
        self.hide()

    def _take_first(self) -> None:
        if self.list.count():
            self._take(self.list.item(0))

    def _ask(self, wish: SignalInstance) -> None:
        self.hide()
        wish.emit()


def _thumb(content: bytes) -> QPixmap:
    pixmap = QPixmap()
    if not pixmap.loadFromData(content):
        raise KavletError(say("The picture can’t be shown."))
    return pixmap.scaled(
        2 * SIDE, 2 * SIDE, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
    )
