"""Turning solids in the window: a frame is an angle set, the chart made anew, painted; against mplot3d's `bar3d`."""

import io
import itertools
import math
from collections.abc import Callable
from typing import Any

from bench.ratio import Ratio, median, milliseconds, percentile_99
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.files import svg
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.cells import Cell

FRAMES = 150
REFRESH = 1000 / 60
SIZES = [8.0, 11.0, 6.0, 14.0, 9.0, 12.0, 5.0, 10.0, 13.0, 7.0, 9.5, 11.5]


def _chart(recipe: str, rows: list[list[Cell]], **looks: Any) -> Document:
    document, table = edits.add_table(Document(), "T", rows)
    document, chart = edits.add_chart(document, table, recipe)
    return look_edits.set_looks(document, chart, {"solid.turn": -20.0, "solid.tilt": 15.0, **looks})


def scenes() -> dict[str, Document]:
    """12 columns, a pie of 7 slices, 100 cylinders."""
    dozen: list[list[Cell]] = [["month", "visitors"], *([f"M{i + 1}", size] for i, size in enumerate(SIZES))]
    seven: list[list[Cell]] = [["area", "share"], *([f"A{i + 1}", size] for i, size in enumerate(SIZES[:7]))]
    series = ["post", *(f"Y{i + 1}" for i in range(10))]
    hundred: list[list[Cell]] = [
        [*series], *([f"P{i + 1}", *(SIZES[(i * 7 + j * 5) % 12] for j in range(10))] for i in range(10))
    ]  # fmt: skip
    return {
        "12 columns": _chart("columns", dozen),
        "pie of 7 slices": _chart("pie", seven),
        "100 cylinders": _chart("columns", hundred, **{"solid.form": "round"}),
    }


def measure() -> list[Ratio]:
    """Each scene turned in the window and written as SVG; 12 bars against mplot3d in the same run."""
    rows: list[Ratio] = []
    twelve: list[float] = []
    other = _mplot3d("agg"), _mplot3d("svg")
    theirs = [median(milliseconds(call, 20)) for call in other]
    for name, document in scenes().items():
        taken = _turned(document)
        note = f"{1000 / median(taken):.0f} frames/s, 99th percentile {percentile_99(taken):.1f} ms"
        rows.append(Ratio(f"turning {name}", median(taken), REFRESH, "ms", "<= 1 (a 60th of a second)", note))
        written = median(milliseconds(_written(document), 40))
        if name == "12 columns":
            twelve = [median(taken), written, median(milliseconds(_painted(document), 60))]
        else:
            rows.append(Ratio(f"SVG of {name}, against mplot3d's 12 bars", written, theirs[1], "ms", "<= 1"))
    return [
        *rows,
        Ratio("turning 12 columns in the window, against mplot3d", twelve[0], theirs[0], "ms", "<= 0.05"),
        Ratio("turning 12 columns onto an image of that size, the same", twelve[2], theirs[0], "ms", "<= 0.05"),
        Ratio("SVG of 12 columns, against mplot3d", twelve[1], theirs[1], "ms", "<= 0.2"),
    ]


def _angles() -> Callable[[], dict[str, float]]:
    turns = itertools.count(1)

    def following() -> dict[str, float]:
        angle = next(turns) / 40
        return {"solid.turn": 45 * math.sin(angle), "solid.tilt": 12 + 20 * math.sin(1.3 * angle)}

    return following


def _turned(document: Document) -> list[float]:
    """Milliseconds of each frame while the shown chart is turned."""
    from kavlet.desktop.main import application, collect_here, open_window

    made = application()
    window = open_window(demo=True)
    window.resize(1280, 800)
    window.store.load(document, None, "", unsaved=False)
    made.processEvents()
    collect_here(application())
    store, following = window.store, _angles()
    chart = document.charts[0].id

    def frame() -> None:
        store.try_out(look_edits.set_looks(document, chart, following()))
        made.processEvents()

    milliseconds(frame, 10)
    taken = milliseconds(frame, FRAMES)
    store.try_out(None)
    window.store.history.saved()
    window.close()
    return taken


def _written(document: Document) -> Callable[[], object]:
    """The chart from another side each time, as SVG text."""
    pictures, following, chart = Pictures(), _angles(), document.charts[0].id

    def write() -> str:
        return svg.dumps(pictures.picture(look_edits.set_looks(document, chart, following()), chart).scene)

    write()
    return write


def _painted(document: Document) -> Callable[[], object]:
    """The chart from another side each time, painted onto an image as large as mplot3d's canvas."""
    from PySide6.QtGui import QImage, QPainter

    from kavlet.paint.painter import paint

    pictures, following, chart = Pictures(), _angles(), document.charts[0].id
    image = QImage(640, 360, QImage.Format.Format_ARGB32_Premultiplied)

    def draw() -> None:
        painter = QPainter(image)
        paint(pictures.picture(look_edits.set_looks(document, chart, following()), chart).scene, painter, fine=False)
        painter.end()

    draw()
    return draw


def _mplot3d(onto: str) -> Callable[[], object]:
    """12 bars turned and drawn by matplotlib's mplot3d, onto pixels or as SVG."""
    import matplotlib as mpl

    mpl.use("Agg")
    from matplotlib import pyplot as plt

    figure = plt.figure(figsize=(640 / 72, 360 / 72), dpi=72)
    axes: Any = figure.add_subplot(projection="3d")
    axes.bar3d(list(range(12)), [0] * 12, [0] * 12, 0.7, 0.5, SIZES, shade=True)
    angles = itertools.count()

    def draw() -> None:
        axes.view_init(elev=20, azim=-60 + next(angles) % 90)
        if onto == "svg":
            figure.savefig(io.BytesIO(), format="svg")
        else:
            figure.canvas.draw()

    draw()
    return draw
