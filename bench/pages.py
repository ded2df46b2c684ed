"""Pages: opening many, an edit that one chart of twenty reads, dragging an item, turning pages before an audience."""

import math
import tracemalloc

from bench.ratio import Ratio, median, milliseconds, percentile_99
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.values.geometry import Rect

RECIPES = ("columns", "funnel", "lines", "waffle", "pie", "radial-bars")
GATES = ["North", "South", "East", "West", "Mill", "Ferry"]
TIMES = 40
FRAMES = 200
REFRESH = 1000 / 60


def document_of(pages: int, charts: int) -> Document:
    """So many pages with so many charts each, every chart on a table of its own."""
    made = Document()
    for page in range(pages):
        made, held = page_edits.add_page(made)
        columns = max(1, math.ceil(math.sqrt(charts)))
        rows = math.ceil(charts / columns)
        for number in range(charts):
            figures = [[gate, 400.0 / (i + 1) + page + number] for i, gate in enumerate(GATES)]
            made, table = edits.add_table(made, f"T{page}-{number}", [["Gate", "Guests"], *figures])  # type: ignore[list-item]
            recipe = RECIPES[number % len(RECIPES)]
            made, chart = edits.add_chart(made, table, recipe, {"name": ("c1",), "value": ("c2",)})
            wide, tall = 480 / columns, 720 / rows
            box = Rect(57 + (number % columns) * wide, 57 + (number // columns) * tall, wide - 10, tall - 10)
            made, _ = page_edits.put(made, held, ChartFrame("", chart=chart), box)
    return made


def measure() -> list[Ratio]:
    """Each against what it is compared to in the same run."""
    return [_opening(), _editing(), _dragging(), _turning(), _memory()]


def _opening() -> Ratio:
    """A file of 40 pages with 120 charts to the picture of its first page, against one of that page alone."""
    many, one = (kavlet_file.dumps(document_of(pages, 3)) for pages in (40, 1))

    def first(content: bytes) -> object:
        held = kavlet_file.loads(content, "pages.kavlet")
        return Pictures().page(held, held.pages[0].id)

    times = [median(milliseconds(lambda content=content: first(content), 7)) for content in (many, one)]
    return Ratio("open 40 pages, 120 charts, to the first page", *times, "ms", "<= 40 (each page's share of reading)",
                 f"{times[0]:.0f} ms")  # fmt: skip


def _editing() -> Ratio:
    """An edit of one cell that 1 of 20 charts reads, to the page's picture, against composing the page anew."""
    held = document_of(1, 20)
    page, table, pictures = held.pages[0].id, held.tables[3].id, Pictures()
    pictures.page(held, page)
    turn = iter(range(10_000))

    def edited() -> None:
        pictures.page(edits.set_cells(held, table, {(1, 1): 300.0 + next(turn)}), page)

    ours = median(milliseconds(edited, TIMES))
    anew = median(milliseconds(lambda: Pictures().page(held, page), 5))
    return Ratio("edit a cell that 1 of 20 charts reads", ours, anew, "ms", "<= 0.15 (a twentieth, and the rest)",
                 f"{ours:.1f} ms")  # fmt: skip


def _dragging() -> Ratio:
    """A chart moved over a page with 20, as a hand moves it: frames against those a screen shows."""
    from PySide6.QtCore import QEvent, QPointF, Qt
    from PySide6.QtGui import QMouseEvent

    from kavlet.desktop.main import application, open_window

    made = application()
    window = open_window(demo=True)
    window.resize(1280, 800)
    window.store.load(document_of(6, 20), None, "pages")
    window.places.show_pages()
    made.processEvents()
    canvas = window.pages.canvas

    def mouse(kind: QEvent.Type, at: QPointF) -> None:
        left, none = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
        button = none if kind == QEvent.Type.MouseMove else left
        keys = Qt.KeyboardModifier.NoModifier
        made.sendEvent(canvas, QMouseEvent(kind, at, canvas.mapToGlobal(at), button, left, keys))

    start = canvas.on_screen(window.store.page_picture().boxes["i7"]).center()
    turn = iter(range(FRAMES + 2))

    def frame() -> None:
        angle = next(turn) / 9
        mouse(QEvent.Type.MouseMove, start + QPointF(60 * math.cos(angle) + 12, 60 * math.sin(angle) + 12))
        made.processEvents()

    mouse(QEvent.Type.MouseButtonPress, start)
    frame()
    taken = milliseconds(frame, FRAMES)
    mouse(QEvent.Type.MouseButtonRelease, start)
    window.store.history.saved()
    window.close()
    note = f"{1000 / median(taken):.0f} frames/s, 99th percentile {percentile_99(taken):.1f} ms"
    return Ratio("drag a chart over a page with 20", median(taken), REFRESH, "ms", "<= 1 (a 60th of a second)", note)


def _turning() -> Ratio:
    """Pages of 20 charts turned before an audience, at 1920 × 1080, against the time the design allows."""
    from kavlet.desktop.main import application
    from kavlet.desktop.presenting.audience_screen import AudienceScreen
    from kavlet.desktop.presenting.show import Show

    made, held = application(), document_of(6, 20)
    show = Show(held, tuple(page.id for page in held.pages))
    stage = AudienceScreen(show)
    stage.resize(1920, 1080)
    stage.show()
    taken: list[float] = []
    for number in range(40):
        for _ in range(2):
            made.processEvents()  # the neighbours are made ready in between

        def turned(by: int = 1 if number // 5 % 2 == 0 else -1) -> None:
            show.turn(by)
            stage.repaint()

        taken += milliseconds(turned, 1)
    stage.hide()
    note = f"99th percentile {percentile_99(taken):.1f} ms"
    return Ratio("turn a page of 20 charts while presenting", median(taken), 50.0, "ms", "<= 1 (50 ms)", note)


def _memory() -> Ratio:
    """What is kept of 6 composed pages with 120 charts, against one of them."""
    held = document_of(6, 20)

    def kept(count: int) -> float:
        tracemalloc.start()
        pictures = Pictures()
        for page in held.pages[:count]:
            pictures.page(held, page.id)
        size = tracemalloc.get_traced_memory()[0] / 1e6
        tracemalloc.stop()
        return size

    one, six = kept(1), kept(6)
    return Ratio("memory of 6 pages with 120 charts", six, one, "MB", "<= 6 (no page costs more)", f"{six:.1f} MB")
