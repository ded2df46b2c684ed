"""What a mouse button held over a page does: items moved or sized, a seam moved, a rubber band drawn.

Each is only tried out while the button is held, and one edit when it is let go.
"""

from typing import Protocol

from PySide6.QtCore import QPointF, Qt

from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.messages import say
from kavlet.core.pages.arrangements import Seam, with_seam_moved
from kavlet.core.pages.items.item import MIN_SIDE
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.page import AnyItem
from kavlet.core.pages.placing import Guide, bay_at, cut_off, resized, snapped, touched
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.values.geometry import Rect
from kavlet.desktop.store import Store

NEAR = 6.0  # pixels within which the mouse is on a thing, and a thing snaps
Modifiers = Qt.KeyboardModifier


class DragTarget(Protocol):
    """Where the holds look up what is shown."""

    @property
    def picture(self) -> PagePicture: ...
    @property
    def factor(self) -> float: ...


class MouseDrag:
    """A button held since a place of the page: what it shows beside the page itself."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF) -> None:
        self.store, self.page, self.at = store, page, at
        self.guides: tuple[Guide, ...] = ()
        self.bay: int | None = None
        self.band: Rect | None = None

    @property
    def moving(self) -> frozenset[str]:
        """The items that are moved or sized."""
        return frozenset()

    @property
    def document(self) -> Document:
        """The document that the hold began with."""
        return self.store.history.current

    def move(self, to: QPointF, keys: Modifiers) -> None:
        """Show what letting go here would do."""

    def done(self) -> None:
        """Take what is shown."""


class RubberBand(MouseDrag):
    """A rubber band; what it touches is chosen, with what was before."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF, chosen: tuple[str, ...]) -> None:
        super().__init__(store, page, at)
        self._chosen = chosen

    def move(self, to: QPointF, keys: Modifiers) -> None:
        del keys
        start = self.at
        self.band = Rect(
            min(start.x(), to.x()), min(start.y(), to.y()), abs(to.x() - start.x()), abs(to.y() - start.y())
        )
        hit = touched(self.page.picture.boxes.items(), self.band)
        self.store.choose_items(*dict.fromkeys((*self._chosen, *hit)))


class SeamDrag(MouseDrag):
    """The line between two bays."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF, seam: Seam) -> None:
        super().__init__(store, page, at)
        self._seam = seam

    def move(self, to: QPointF, keys: Modifiers) -> None:
        del keys
        way = to - self.at
        page_ = self.document.page(self.page.picture.page.id)
        moved = with_seam_moved(page_, self._seam, way.x() if self._seam.way == "beside" else way.y())
        self.store.try_out(page_edits.change_page(self.document, page_.id, shares=moved.shares))

    def done(self) -> None:
        self.store.apply(say("move seam"), self.store.document)


class ItemDrag(MouseDrag):
    """Items moved together, or copies of them; a single one may go into a bay."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF, boxes: dict[str, Rect], copying: bool) -> None:
        super().__init__(store, page, at)
        self._boxes, self._copying = boxes, copying

    @property
    def moving(self) -> frozenset[str]:
        return frozenset() if self._copying else frozenset(self._boxes)

    def move(self, to: QPointF, keys: Modifiers) -> None:
        if not self._boxes:
            return
        picture = self.page.picture
        dx, dy = to.x() - self.at.x(), to.y() - self.at.y()
        around = Rect.around_all(list(self._boxes.values())).moved(dx, dy)
        self.guides = ()
        if not keys & Modifiers.AltModifier:
            others = [box for item, box in picture.boxes.items() if item not in self._boxes]
            fit = snapped(around, picture.page, others, NEAR / self.page.factor)
            dx, dy, self.guides = dx + fit.dx, dy + fit.dy, fit.guides
        alone = len(self._boxes) == 1 and not self._copying
        self.bay = bay_at(picture.page, to.x(), to.y()) if alone else None
        boxes = {item: box.moved(dx, dy) for item, box in self._boxes.items()}
        page = picture.page.id
        if self._copying:
            page_ = self.document.page(page)
            copies = [page_edits.at_place(item, boxes[item.id]) for item in page_.items if item.id in boxes]
            self.store.try_out(page_edits.pasted(self.document, page, copies, 0.0)[0])
        else:
            self.store.try_out(page_edits.placed(self.document, page, boxes))

    def done(self) -> None:
        store, page, tried = self.store, self.page.picture.page.id, self.store.document
        if not self._boxes:
            return
        if self._copying:
            copies = tuple(item.id for item in tried.page(page).items[-len(self._boxes) :])
            if store.apply(say("copy item"), tried):
                store.choose_items(*copies)
        elif self.bay is not None:
            item = next(iter(self._boxes))
            store.apply(say("put into bay"), page_edits.into_bay(self.document, page, item, self.bay))
        else:
            store.apply(say("move item"), tried)


class ItemResize(MouseDrag):
    """One item by a handle: the sides that it moves, of n, e, s, w. Pictures keep their proportion, others with
    Shift. A picture is cropped with Ctrl."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF, item: AnyItem, box: Rect, handle: str) -> None:
        super().__init__(store, page, at)
        self._item, self._box, self._handle = item, box, handle
        self._whole = page.picture.made[item.id].whole

    @property
    def moving(self) -> frozenset[str]:
        return frozenset((self._item.id,))

    def move(self, to: QPointF, keys: Modifiers) -> None:
        dx, dy = to.x() - self.at.x(), to.y() - self.at.y()
        item, box, page = self._item, self._box, self.page.picture.page
        crops = bool(keys & Modifiers.ControlModifier) and isinstance(item, PlacedPicture)
        proportion = not crops and (bool(keys & Modifiers.ShiftModifier) or isinstance(item, PlacedPicture))
        self.guides = ()
        across, down = set(self._handle) & set("ew"), set(self._handle) & set("ns")
        if not keys & Modifiers.AltModifier and not (proportion and across and down):
            side = Rect(
                box.right + dx if "e" in across else box.x + dx if across else box.center[0],
                box.bottom + dy if "s" in down else box.y + dy if down else box.center[1],
                0.0, 0.0,
            )  # fmt: skip
            others = [guide for name, guide in self.page.picture.boxes.items() if name != item.id]
            snap = snapped(side, page, others, NEAR / self.page.factor)
            dx += snap.dx if across else 0.0
            dy += snap.dy if down else 0.0
            self.guides = tuple(guide for guide in snap.guides if (across if guide.upright else down))
        new = resized(box, self._handle, dx, dy, 4 * MIN_SIDE, proportion)
        if crops and self._whole is not None:
            new = _within(new, self._whole)
        document = page_edits.placed(self.document, page.id, {item.id: new})
        if crops and self._whole is not None:
            document = page_edits.change_item(document, page.id, item.id, crop=cut_off(self._whole, new), fit="fill")
        self.store.try_out(document)

    def done(self) -> None:
        self.store.apply(say("size item"), self.store.document)


class PictureDrag(MouseDrag):
    """What of a picture its frame shows, moved inside the frame."""

    def __init__(self, store: Store, page: DragTarget, at: QPointF, item: str, box: Rect, whole: Rect) -> None:
        super().__init__(store, page, at)
        self._item, self._box, self._whole = item, box, whole

    @property
    def moving(self) -> frozenset[str]:
        return frozenset((self._item,))

    def move(self, to: QPointF, keys: Modifiers) -> None:
        del keys
        box, whole, way = self._box, self._whole, to - self.at
        dx = min(box.x - whole.x, max(box.right - whole.right, way.x())) if whole.width >= box.width else 0.0
        dy = min(box.y - whole.y, max(box.bottom - whole.bottom, way.y())) if whole.height >= box.height else 0.0
        crop = cut_off(whole.moved(dx, dy), box)
        page = self.page.picture.page.id
        self.store.try_out(page_edits.change_item(self.document, page, self._item, crop=crop, fit="fill"))

    def done(self) -> None:
        self.store.apply(say("crop picture"), self.store.document)


def _within(box: Rect, outer: Rect) -> Rect:
    """The part of a box that lies in another."""
    x, y = max(box.x, outer.x), max(box.y, outer.y)
    return Rect(x, y, max(MIN_SIDE, min(box.right, outer.right) - x), max(MIN_SIDE, min(box.bottom, outer.bottom) - y))
