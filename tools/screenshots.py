"""Makes the pictures in docs/screenshots from the demo document, offscreen."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

import msgspec
from PySide6.QtCore import QSettings, Qt
from PySide6.QtWidgets import QApplication, QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.desktop.deliver.sheet import DeliverSheet
from kavlet.desktop.look import dress_application
from kavlet.desktop.main import application, open_window
from kavlet.desktop.window import Window

FOLDER = Path(__file__).parent.parent / "docs" / "screenshots"


def demo(window: Window) -> QWidget:
    return window


def dark(window: Window) -> QWidget:
    app = QApplication.instance()
    assert isinstance(app, QApplication)
    dress_application(app, dark=True)
    chart = window.store.chart
    assert chart is not None
    document = edits.change_chart(
        window.store.document, chart.id, dress=msgspec.structs.replace(chart.dress, theme="dusk")
    )
    window.store.apply("choose theme", edits.set_setting(document, chart.id, "shape", "tapered"))
    return window


def problem(window: Window) -> QWidget:
    window.figures.grid.cells.put({(1, 3): "about 2,700"}, "type in B4")
    window.figures.grid.go_to(1, 3)
    return window


def empty(window: Window) -> QWidget:
    window.store.load(Document(), None, "")
    return window


def deliver(window: Window) -> QWidget:
    window.files.deliver()
    sheet = window.findChild(DeliverSheet)
    assert sheet is not None
    sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose, False)
    return sheet


VIEWS: dict[str, Callable[[Window], QWidget]] = {
    "demo": demo, "dark": dark, "problem": problem, "empty": empty, "deliver": deliver,
}  # fmt: skip


def main() -> None:
    """Make all pictures, or those named on the command line."""
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, tempfile.mkdtemp())
    app = application()
    FOLDER.mkdir(parents=True, exist_ok=True)
    for name in sys.argv[1:] or VIEWS:
        dress_application(app, dark=False)
        window = open_window(demo=True)
        window.resize(1280, 800)
        app.processEvents()
        shown = VIEWS[name](window)
        app.processEvents()
        shown.grab().save(str(FOLDER / f"{name}.png"))
        window.store.history.saved()
        shown.close()
        window.close()


main()
