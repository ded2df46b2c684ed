"""One window for many tests: it is taken again only where nothing tells it from a new one."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import shiboken6
from PySide6.QtCore import QCoreApplication, QEvent, QObject, QSettings, SignalInstance
from PySide6.QtWidgets import QApplication, QDialog, QWidget

from kavlet.core.document.document import Document
from kavlet.core.interaction.parts import Chosen
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.desktop import document_loading
from kavlet.desktop.main import Window, open_window
from kavlet.desktop.recovery.journal_writer import JournalWriter
from kavlet.desktop.store import Store

NAME = "Mirefen year"
Told = dict[str, Any]

_PLAIN = (bool, int, float, str, bytes, type(None), tuple, frozenset, Chosen)
_PAST = (  # what tells of earlier work, and is set anew before it is read
    *("__METAOBJECT__", "_thread", "_count", "_latest", "_slow", "_home", "_symbol_for", "_clicked", "_fill_target"),
    *("_says", "_pressed", "_at", "finding", "remedies"),
)


def settings_in(folder: Path) -> None:
    """Let the program's settings lie in a folder."""
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, str(folder))


class OneWindow:
    """Gives a window with a document, the demo by itself; the last one or a new one. What tests have left behind in it
    ends a window; where its places stood is then noted in a folder that nobody looks into."""

    def __init__(self, nowhere: Path, document: Document | None = None) -> None:
        self._document, self._nowhere = document or document_loading.demo(), nowhere
        self._drawn = Pictures()  # of the document as it is
        self._held: tuple[Window, Told] | None = None

    def take(self, settings: Path) -> Window:
        """A window that is as a new one, with settings in a folder."""
        settings_in(settings)
        if self._held is not None:
            window, new = self._held
            if shiboken6.isValid(window) and window.isVisible():
                store = window.store
                if store.document is self._document and store.values is self._drawn.values(self._document):
                    self._drawn.joined(store.pictures())
                renew(window, self._as_new())
                if not differences(new, told(window)):
                    return window
            self.end()
            settings_in(settings)
        settled()
        made = open_window()
        made.store.load(self._document, None, NAME)
        renew(made, self._as_new())
        self._held = made, told(made)
        return made

    def _as_new(self) -> Store:
        """A store that has just opened the document."""
        store = Store(self._document)
        store.name, store._pictures = NAME, self._drawn.copy()
        return store

    def end(self) -> None:
        """End the window; it is not asked what to do with what was edited."""
        if self._held is not None and shiboken6.isValid(self._held[0]):
            settings_in(self._nowhere)
            window = self._held[0]
            window.store.attended.stop()
            _close_unasked(window)
            window.deleteLater()
        self._held = None


def _close_unasked(one: QWidget) -> None:
    """Close a window without a question about what was edited or is typed in it."""
    if isinstance(one, Window):
        one.pending_text.drop()
        one.store.history.saved()
    one.close()


def told(window: Window) -> Told:
    """All that can tell a window from a new one: what its widgets show, and what its parts remember."""
    found: Told = {"active": window.isActiveWindow(), "focus": window.figures.grid.hasFocus()}
    seen: dict[int, Any] = {}  # held, so that no other takes one's place
    waiting: list[tuple[str, Any]] = [("window", window)]
    while waiting:
        name, one = waiting.pop()
        if id(one) in seen:
            continue
        seen[id(one)] = one
        hidden = isinstance(one, QWidget) and not one.isVisible()  # follows the document when it is seen again
        if isinstance(one, QObject):
            found.update(_shown(name, one))
            children = _inside(one)
            found[f"{name}/"] = len(children)
            waiting += [(f"{name}/{type(child).__name__}{at}", child) for at, child in enumerate(children)]
        for key, value in list(getattr(one, "__dict__", {}).items()):
            if key in _PAST or (hidden and key.startswith("_")) or isinstance(value, SignalInstance):
                continue
            if type(value).__module__.startswith("kavlet.desktop"):
                waiting.append((f"{name}.{key}", value))
            elif isinstance(value, _PLAIN):
                found[f"{name}.{key}"] = value
            else:
                found[f"{name}.{key}"] = len(value) if isinstance(value, list | set) else type(value).__name__
    return found


def _inside(one: QObject) -> list[QObject]:
    """What an object consists of; of a widget what is seen, as it stands."""
    if isinstance(one, QWidget):
        seen = [child for child in one.children() if isinstance(child, QWidget) and child.isVisible()]
        return sorted(seen, key=lambda child: (child.y(), child.x(), type(child).__name__))
    return one.children()


def _shown(name: str, one: QObject) -> Iterator[tuple[str, Any]]:
    if not isinstance(one, QWidget):
        return
    yield f"{name}:visible", one.isVisible()
    if one.isVisible():
        yield f"{name}:enabled", one.isEnabled()
        yield f"{name}:place", one.geometry().getRect()
        yield f"{name}:tip", one.toolTip()
        held = one.metaObject().userProperty()
        if held.isValid():
            yield f"{name}:held", held.read(one)


def differences(new: Told, now: Told) -> list[str]:
    """What tells a window from a new one, by name."""
    return [name for name in {**new, **now} if name not in new or name not in now or not _same(new[name], now[name])]


def _same(one: Any, other: Any) -> bool:
    return one is other or (type(one) is type(other) and bool(one == other))


def settled() -> None:
    """Let what is to end end, and what was put off be done."""
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    for _ in range(3):  # what is laid out anew asks for that of what is around it
        QCoreApplication.processEvents()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def renew(window: Window, as_new: Store) -> None:
    """Give a window what a new one has: a document, nothing else open, nothing kept of what was done before."""
    store, view, frame = window.store, window.stage.view, window.pages.canvas.frame
    window.pending_text.drop()
    for one in QApplication.topLevelWidgets():
        if one is not window and one.isVisible():
            _close_unasked(one)
    for sheet in window.findChildren(QDialog):
        sheet.deleteLater()
    window.places.show_stage()
    window.worker.patience = store.attended.patience = 60.0  # what is asked for is done when the call returns
    view.set_zoom(None)
    for in_place in (view.in_place, frame.in_place):
        if in_place.editor is not None:
            in_place.editor.deleteLater()
            in_place.editor = None
    if window.proof_panel.isVisible():
        window.proof.toggle()
    window.delivering._last = window.delivering._last_of = None
    window.offered.clear()
    window.keeper.close(keep=False)
    window.keeper.deleteLater()
    store.take_over(as_new)
    window.keeper = JournalWriter(store, window, lambda: window.presenting.draft)
    window.keeper.failed.connect(window.refused)
    window.desk.proof = None
    window.desk.read_again()
    window.desk.found.emit()
    window.say("")
    window.statusBar().clearMessage()
    QCoreApplication.sendEvent(view, QEvent(QEvent.Type.Leave))
    window.resize(1280, 800)
    window.activateWindow()
    window.figures.grid.go_to(1, 1)
    window.figures.grid.setFocus()
    settled()
