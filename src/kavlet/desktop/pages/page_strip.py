"""The pages below each other, as live pictures: choose one, drag it to another place."""

from PySide6.QtCore import QModelIndex, QPersistentModelIndex, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPen, QPixmap
from PySide6.QtWidgets import (
    QAbstractItemView,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QWidget,
)

from kavlet.core.document.pages import page_edits
from kavlet.core.messages import say, words
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor
from kavlet.desktop.thumbnails import ThumbnailQueue, fitting, thumb

WIDE, TALL = 124, 140  # pixels of a page's picture at most
AIR, NAME = 6, 20  # pixels around it, and for its name
ID, PICTURE, SKIPPED = (int(Qt.ItemDataRole.UserRole) + i for i in range(3))


class _PageTile(QStyledItemDelegate):
    """A page's picture with its number and name below it; the one in view has a frame."""

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        del option
        pixmap = index.data(PICTURE)
        tall = pixmap.deviceIndependentSize().height() if isinstance(pixmap, QPixmap) else TALL
        return QSize(WIDE + 2 * AIR, int(tall) + NAME + 2 * AIR)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        c, area = colours(), QRectF(option.rect)
        pixmap, chosen = index.data(PICTURE), bool(option.state & QStyle.StateFlag.State_Selected)
        painter.save()
        painter.setOpacity(0.45 if index.data(SKIPPED) else 1.0)
        if isinstance(pixmap, QPixmap):
            size = pixmap.deviceIndependentSize()
            at = QRectF(QPointF(round(area.center().x() - size.width() / 2), area.top() + AIR), size)
            painter.drawPixmap(at.topLeft(), pixmap)
            painter.setPen(QPen(qcolor(c.accent if chosen else c.line), 2 if chosen else 1))
            painter.drawRect(at.adjusted(-0.5, -0.5, 0.5, 0.5) if not chosen else at.adjusted(-2, -2, 2, 2))
        painter.setPen(qcolor(c.ink if chosen else c.quiet))
        line = QRectF(area.left() + AIR, area.bottom() - NAME - 2, area.width() - 2 * AIR, NAME)
        text = painter.fontMetrics().elidedText(str(index.data()), Qt.TextElideMode.ElideRight, int(line.width()))
        painter.drawText(line, Qt.AlignmentFlag.AlignCenter, text)
        painter.restore()


class PageStrip(QListWidget):
    """Pictures are drawn one at a time, those that are out of date, so that no edit waits for them."""

    menu_wanted = Signal(object)
    delete_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._drawn: dict[str, object] = {}
        self._filling = False
        self.setAccessibleName(words("Pages"))
        self.setItemDelegate(_PageTile(self))
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setDefaultDropAction(Qt.DropAction.MoveAction)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.currentItemChanged.connect(self._chosen)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.customContextMenuRequested.connect(lambda at: self.menu_wanted.emit(self.viewport().mapToGlobal(at)))
        self.model().rowsMoved.connect(self._moved)
        self._pictures = ThumbnailQueue(store, self._draw_next, self)
        store.follow(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """List the pages there are now."""
        pages = self._store.document.pages
        self._filling = True
        shown_ids = [str(self.item(i).data(ID)) for i in range(self.count())]
        if shown_ids != [page.id for page in pages]:
            self.clear()
            self._drawn.clear()
            for _ in pages:
                self.addItem(QListWidgetItem())
        for i, page in enumerate(pages):
            item = self.item(i)
            item.setData(ID, page.id)
            item.setText(f"{i + 1}  {page.name}")
            item.setData(SKIPPED, page.skipped)
            item.setToolTip(
                page.name if not page.skipped else words("{name} (skipped when presenting)", name=page.name)
            )
            if page.id == self._store.page.id:
                self.setCurrentItem(item)
        self._drawn = {
            page: picture_key for page, picture_key in self._drawn.items() if any(page_.id == page for page_ in pages)
        }
        self._filling = False
        if self.isVisible():
            self._pictures.begin()

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self._pictures.begin()

    def _chosen(self, item: QListWidgetItem | None) -> None:
        if item is not None and not self._filling:
            self._store.show_page(str(item.data(ID)))

    def _moved(self) -> None:
        """Take the order that was dragged."""
        if self._filling:
            return
        order = [str(self.item(i).data(ID)) for i in range(self.count())]
        if order != [page.id for page in self._store.document.pages]:
            self._store.edit(say("move page"), lambda document: page_edits.in_order(document, order))

    def _draw_next(self) -> bool:
        for i, page in enumerate(self._store.document.pages):
            picture = self._store.page_picture(page.id)
            if self._drawn.get(page.id) is picture or i >= self.count():
                continue
            self._drawn[page.id] = picture
            room = fitting(picture.scene, QSize(WIDE, TALL))
            self.item(i).setData(PICTURE, thumb(picture.scene, room, self.devicePixelRatioF()))
            return True
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.delete_wanted.emit()
            return
        super().keyPressEvent(event)
