"""Makes the pictures in docs/screenshots from the demo document, offscreen."""

import os
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

import msgspec
from PySide6.QtCore import QSettings, Qt
from PySide6.QtGui import QColor, QPainter, QPixmap
from PySide6.QtWidgets import QApplication, QLabel, QWidget

from kavlet.core.document import edits
from kavlet.core.document.charts import data_direction
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.desktop import languages
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.dress.schemes_dialog import SchemesDialog
from kavlet.desktop.incremental import IncrementalTask
from kavlet.desktop.main import Window, application, open_window
from kavlet.desktop.stylesheet import colours as colours_in_use
from kavlet.paint.painter import paint

FOLDER = Path(__file__).parent.parent / "docs" / "screenshots"
LONGEST = 30.0  # seconds that are waited at most
SETTLED = 2.0  # seconds, after which fields and layouts have found their places


def demo(window: Window) -> QWidget:
    return window


def dark(window: Window) -> QWidget:
    window.looking.choose_look("dark")
    chart = window.store.chart
    assert chart is not None
    document = edits.change_chart(
        window.store.document, chart.id, dress=msgspec.structs.replace(chart.dress, dark=True)
    )
    window.store.apply(say("choose ground"), look_edits.set_setting(document, chart.id, "shape", "tapered"))
    return window


def problem(window: Window) -> QWidget:
    while not window.dress.rows:
        QApplication.processEvents()
    window.figures.grid.cells.put({(1, 3): "about 2,700"}, say("type in {cell}", cell="B4"))
    window.figures.grid.go_to(1, 3)
    return window


def empty(window: Window) -> QWidget:
    window.store.load(Document(), None, "")
    while window.start.drawing:
        QApplication.processEvents()
    return window


def across(window: Window) -> QWidget:
    """A funnel of one month, read across its row."""
    _show(window, "columns")
    rows: list[list[Cell]] = [
        ["month", "Enquiries", "Bookings", "Walks", "Members"], ["April", 520.0, 180.0, 171.0, 61.0],
        ["May", 480.0, 210.0, 190.0, 70.0], ["June", 610.0, 260.0, 233.0, 91.0],
    ]  # fmt: skip
    document, table = edits.add_table(window.store.document, "Walks by month", rows)
    document, chart = edits.add_chart(document, table, "funnel")
    window.store.apply(say("add table"), data_direction.read_across(document, chart))
    window.store.show_chart(chart)
    QApplication.processEvents()
    return window


def colours(window: Window) -> QWidget:
    """Schemes of colours, drawn on the chart in view."""
    _show(window, "columns")
    sheet = SchemesDialog(window.store, window.worker, window)
    sheet.show()
    while sheet.drawing:
        QApplication.processEvents()
    return sheet


def deliver(window: Window) -> QWidget:
    window.delivering.deliver_as(".pptx")
    sheet = window.findChild(DeliverDialog)
    assert sheet is not None
    while not sheet.save.isEnabled():
        QApplication.processEvents()
    sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose, False)
    return sheet


def wall(window: Window) -> QWidget:
    _show(window, "columns")
    window.recipes.wall_wanted.emit()
    while window.wall.drawing:
        QApplication.processEvents()
    return window


def dressed(window: Window) -> QWidget:
    _show(window, "columns")
    window.store.select(Part("mark", "series 1", 2))
    return window


def xray(window: Window) -> QWidget:
    _show(window, "bridge")
    window.store.show_xray(True)
    return window


def stepping(window: Window) -> QWidget:
    _show(window, "stepping")
    return window


def solid(window: Window) -> QWidget:
    chart = window.store.document.charts[-1]
    window.store.show_chart(chart.id)
    QApplication.processEvents()
    window.dress.reveal("solid.turn")
    return window


def page(window: Window) -> QWidget:
    """A page of the report, with a chart on it touched."""
    window.places.show_pages()
    window.store.show_page(window.store.document.pages[2].id)
    QApplication.processEvents()
    canvas = window.pages.canvas
    frame = next(item for item in window.store.page.items if item.kind == "chart")
    window.store.choose_items(frame.id)
    canvas.touch(frame.id)
    window.store.select(Part("layer", "value"))
    for _ in range(60):  # the strip draws its pictures one by one
        QApplication.processEvents()
    return window


def report(window: Window) -> QWidget:
    """All pages of the report as they print, beside each other."""
    pages = window.store.document.pages
    sheets = [window.store.page_picture(one.id).scene for one in pages]
    columns, by, air = 4, 0.5, 18
    wide = round(by * sheets[0].size.width) + air
    tall = [max(round(by * one.size.height * min(1.0, sheets[0].size.width / one.size.width))
                for one in sheets[i : i + columns]) + air for i in range(0, len(sheets), columns)]  # fmt: skip
    pixmap = QPixmap(columns * wide + air, sum(tall) + air)
    pixmap.fill(QColor(colours_in_use().ground))
    painter = QPainter(pixmap)
    for i, scene in enumerate(sheets):
        scale = (wide - air) / scene.size.width
        painter.save()
        painter.translate(air + i % columns * wide, air + sum(tall[: i // columns]))
        painter.scale(scale, scale)
        paint(scene, painter)
        painter.restore()
    painter.end()
    shown = QLabel()
    shown.setPixmap(pixmap)
    shown.resize(pixmap.size())
    return shown


def proof(window: Window) -> QWidget:
    """What Proof finds in the document, with one finding opened and what mends it."""
    window.proof.toggle()
    while not window.desk.is_up_to_date:
        QApplication.processEvents()
    window.proof.step(1)
    window.proof.step(1)
    return window


def _show(window: Window, recipe: str) -> None:
    window.store.show_chart(next(one.id for one in window.store.document.charts if one.recipe == recipe))
    QApplication.processEvents()


def german(_window: Window) -> QWidget:
    """The window in German, with figures and words as German has them."""
    languages.choose("de")
    languages.apply_language(application())
    rows: list[list[Cell]] = [
        ["Stufe", "Leute"], ["Besuche", 18400.0], ["Führungen", 6900.0], ["Rundbrief", 2760.0], ["Spenden", 1035.0],
        ["Mitglieder", 310.0],
    ]  # fmt: skip
    shown = open_window()
    shown.resize(1280, 800)
    shown.files.open_cells(rows)
    shown.places.show_stage()
    shown.store.edit_chart(
        say("change title"),
        lambda document, chart: edits.change_chart(
            document, chart.id, title="Jeder 59. Gast wird Mitglied", subtitle="Naturschutzgebiet Mirefen, 2025"
        ),
    )
    languages.choose(languages.AS_DESKTOP)
    return shown


NAMED = (
    demo,
    wall,
    dressed,
    solid,
    xray,
    stepping,
    across,
    dark,
    problem,
    empty,
    deliver,
    colours,
    german,
    page,
    report,
    proof,
)
VIEWS: dict[str, Callable[[Window], QWidget]] = {one.__name__: one for one in NAMED}


def _busy(*shown: QWidget) -> bool:
    """Whether a window still reads its document, draws recipes, or lays out its fields."""
    bits = [bits for one in shown for bits in one.findChildren(IncrementalTask)]
    windows = [one for one in shown if isinstance(one, Window)]
    drawing = any(one.wall.isVisible() and one.wall.drawing for one in windows)
    return drawing or any(not one.desk.is_up_to_date for one in windows) or any(one.isActive() for one in bits)


def main() -> None:
    """Make all pictures, or those named on the command line."""
    QSettings.setDefaultFormat(QSettings.Format.IniFormat)
    own = tempfile.mkdtemp()  # nothing of the machine's own is seen
    os.environ.update(dict.fromkeys(("XDG_STATE_HOME", "XDG_CACHE_HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME"), own))
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, own)
    app = application()
    FOLDER.mkdir(parents=True, exist_ok=True)
    for name in sys.argv[1:] or VIEWS:
        languages.apply_language(app)
        window = open_window(demo=True)
        window.looking.choose_look("light")
        window.resize(1280, 800)
        app.processEvents()
        shown = VIEWS[name](window)
        began = time.monotonic()
        while time.monotonic() < began + SETTLED or (_busy(window, shown) and time.monotonic() < began + LONGEST):
            app.processEvents()
        shown.grab().save(str(FOLDER / f"{name}.png"))
        window.store.history.saved()
        if isinstance(shown, Window):
            shown.store.history.saved()
        shown.close()
        window.close()


main()
