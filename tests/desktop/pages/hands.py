"""Hands for the Pages place: a page of its own, and the mouse and keys on it."""

from PySide6.QtCore import QPoint, QPointF, Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document.pages import page_edits
from kavlet.core.messages import say
from kavlet.core.pages.page import AnyItem
from kavlet.core.values.geometry import Rect
from kavlet.desktop.main import Window
from tests.desktop.hands import pulled, send

NONE = Qt.KeyboardModifier.NoModifier
SHIFT, CONTROL, ALT = (
    Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier,
)  # fmt: skip


def fresh(window: Window, qtbot: QtBot, *items: tuple[AnyItem, Rect], size: str = "A4", **changes: object) -> list[str]:
    """A new page in view with items at places. Returns their ids."""
    made: list[str] = []

    def added(document):  # type: ignore[no-untyped-def]
        document, page = page_edits.add_page(document, size, **changes)
        for item, box in items:
            document, new = page_edits.put(document, page, item, box)
            made.append(new)
        made.insert(0, page)
        return document

    assert window.store.edit(say("add page"), added)
    page = made.pop(0)
    window.places.show_pages()
    window.store.show_page(page)
    qtbot.waitUntil(lambda: window.pages.canvas.isVisible() and window.pages.canvas.width() > 200)
    window.pages.canvas.setFocus()
    return made


def boxes(window: Window) -> dict[str, Rect]:
    return window.store.page_picture().boxes


def spot(window: Window, x: float, y: float) -> QPoint:
    """A place of the page in the canvas's pixels."""
    canvas = window.pages.canvas
    origin = canvas.origin()
    return QPointF(origin.x() + x * canvas.factor, origin.y() + y * canvas.factor).toPoint()


def middle(window: Window, item: str) -> QPoint:
    return spot(window, *boxes(window)[item].center)


def click(window: Window, at: QPoint, keys: Qt.KeyboardModifier = NONE) -> None:
    pulled(window.pages.canvas, at, at, keys)


def drag(window: Window, start: QPoint, end: QPoint, keys: Qt.KeyboardModifier = NONE, let_go: bool = True) -> None:
    pulled(window.pages.canvas, start, end, keys, let_go)


def double_click(window: Window, at: QPoint) -> None:
    canvas = window.pages.canvas
    click(window, at)
    from PySide6.QtCore import QEvent

    send(canvas, QEvent.Type.MouseButtonDblClick, at)
    send(canvas, QEvent.Type.MouseButtonRelease, at)


def key(window: Window, qtbot: QtBot, which: Qt.Key, keys: Qt.KeyboardModifier = NONE) -> None:
    qtbot.keyClick(window.pages.canvas, which, keys)
