"""Starts the window: wiring only."""

import atexit
import gc
import signal
import socket
import sys
from collections.abc import Callable
from functools import partial
from pathlib import Path

from PySide6.QtCore import QObject, QSettings, QSocketNotifier, QTimer
from PySide6.QtGui import QGuiApplication, QIcon
from PySide6.QtWidgets import QApplication

import kavlet
from kavlet.core.document.document import Document
from kavlet.core.files import journal
from kavlet.desktop import document_loading
from kavlet.desktop.command_registry import connect, declared
from kavlet.desktop.dialogs import open_sheet
from kavlet.desktop.languages import apply_language, locale_name
from kavlet.desktop.shell import Shell
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import apply_look
from kavlet.paint.application import add_faces

WITHOUT_DESKTOP = ("offscreen", "minimal")  # platforms whose clipboard ends after Python
TURNS = 0.0001  # seconds: the window waits so long at most for what another thread computes
COLLECTED = ((2_000, 1), (120_000, 2))  # milliseconds, and up to which generation: few values are held in circles
ICON = Path(kavlet.__file__).parent / "assets" / "icons" / "kavlet.svg"


def application() -> QApplication:
    """The application with Kavlet's names, faces and look."""
    running = QApplication.instance()
    made = running if isinstance(running, QApplication) else QApplication(sys.argv[:1])
    atexit.unregister(_let_go_of_clipboard)  # once, and before Qt's own
    atexit.register(_let_go_of_clipboard)
    made.setOrganizationName("kavlet")
    made.setApplicationName("kavlet")
    made.setApplicationDisplayName("Kavlet")
    made.setDesktopFileName("kavlet")
    made.setApplicationVersion(kavlet.__version__)
    made.setWindowIcon(QIcon(str(ICON)))
    sys.setswitchinterval(TURNS)
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    add_faces()
    apply_language(made)
    apply_look()
    return made


def _let_go_of_clipboard() -> None:
    """Take back what was copied where no desktop keeps it: it would go after Python, which owns part of it."""
    app = QApplication.instance()
    if isinstance(app, QApplication) and app.platformName() in WITHOUT_DESKTOP:
        QGuiApplication.clipboard().clear()


class Window(Shell):
    """All of the program's places with one document, each of which knows who carries out what it asks for."""

    def __init__(self, store: Store) -> None:
        super().__init__(store)
        self.take_commands(declared(self))
        connect(self)
        store.setParent(self)  # the last of what ends with the window
        self.restore_places()
        self.refresh()


class OpenWindow:
    """The window that is open; in another language, another one stands in its place, with all that was done in it."""

    def __init__(self, window: Window) -> None:
        self.window = window
        self._follow()

    def _follow(self) -> None:
        self.window.looking.language_chosen.connect(self.open_again)

    def open_again(self) -> None:
        """Put a window in the language that is chosen now in the place of the one that is open."""
        old, store = self.window, Store()
        apply_language(application())
        store.take_over(old.store)
        old.leave()
        self.window = Window(store)
        self._follow()
        self.window.show()
        old.hide()
        old.deleteLater()


def open_window(file: Path | None = None, demo: bool = False) -> Window:
    """A window with the demo, a file, or nothing yet."""
    store = Store(Document(locale=document_loading.known(locale_name())))
    if demo:
        store.load(document_loading.demo(), None, "Mirefen year")
    window = Window(store)
    if demo:
        window.figures.grid.go_to(1, 1)
        window.figures.grid.setFocus()
    window.show()
    if file is not None:
        window.files.open_path(file)
    return window


def offer_kept(window: Window) -> None:
    """Offer what was kept of documents that an earlier run could not save."""
    from kavlet.desktop.recovery.recovery_dialog import RecoveryDialog

    kept = journal.left_behind()
    if not kept:
        return
    sheet = RecoveryDialog(kept, window)

    def take(one: journal.JournalContent) -> None:
        if not window.store.take_up(one.history, one.path, one.name, one.stamp):
            return
        window.keeper.flush()  # what was kept is kept again before the old journal goes
        journal.remove(one.file)

    sheet.chosen.connect(take)
    open_sheet(sheet)


class Signals(QObject):
    """Ends the program at a signal of the system as at a crash: edits are kept, and nobody is asked."""

    def __init__(self, leave: Callable[[], object], parent: QObject) -> None:
        super().__init__(parent)
        self._leave = leave
        self._here, self._there = socket.socketpair()
        for one in (self._here, self._there):
            one.setblocking(False)
        signal.set_wakeup_fd(self._there.fileno())
        for number in (signal.SIGTERM, signal.SIGHUP, signal.SIGINT):
            signal.signal(number, lambda *_: None)  # the byte in the socket wakes Qt
        self._notifier = QSocketNotifier(self._here.fileno(), QSocketNotifier.Type.Read, self)
        self._notifier.activated.connect(self._end)

    def _end(self) -> None:
        self._leave()
        QApplication.exit(0)

    def close(self) -> None:
        """Give the signals back."""
        signal.set_wakeup_fd(-1)
        self._notifier.setEnabled(False)
        self._here.close()
        self._there.close()


def collect_here(app: QApplication) -> None:
    """Look for garbage in the window's thread alone, and not among what the window is made of. In another thread, a
    part of the window that nobody holds any more would end there, which Qt forbids; and turning a solid would jerk."""
    gc.disable()
    gc.freeze()
    for every, generation in COLLECTED:
        timer = QTimer(app)
        timer.timeout.connect(partial(gc.collect, generation))
        timer.start(every)


def run(file: Path | None = None, demo: bool = False) -> int:
    """Open a window and stay until it is closed. Returns the exit code."""
    made = application()
    made.styleHints().colorSchemeChanged.connect(lambda _scheme: apply_look())
    opened = OpenWindow(open_window(file, demo))
    offer_kept(opened.window)
    made.commitDataRequest.connect(lambda _: opened.window.keeper.flush())

    def end() -> None:
        opened.window.hide()  # nothing more can be done in it
        opened.window.leave(keep=True)

    signals = Signals(end, made)
    collect_here(made)
    code = made.exec()
    signals.close()
    opened.window.deleteLater()
    return code


def main() -> None:
    """The command without arguments, as a desktop starts it; one argument is a file to open."""
    arguments = sys.argv[1:]
    sys.exit(run(Path(arguments[0]) if arguments else None))
