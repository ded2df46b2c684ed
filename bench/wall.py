"""The recipe wall for a table of eight rows: every recipe drawn live, first and after one edit.

The yardstick is matplotlib's funnel written as SVG once for each tile: what drawing as many plain charts costs.
The wall draws tile by tile from a timer, so the longest stretch in which the window does not answer is one tile.
"""

import itertools
import time
from collections.abc import Callable

from bench.ratio import Ratio, median, milliseconds, percentile_99
from bench.svg import VALUES
from bench.yardstick import matplotlib_funnel

ROWS = [["stage", "visits", "last year"], *([f"place {i}", 900.0 - 90 * i, 850.0 - 80 * i] for i in range(8))]


def measure() -> list[Ratio]:
    """From opening the wall, or from an edit seen on it, until the last tile is drawn."""
    from kavlet.core.document import edits
    from kavlet.core.document.document import Document
    from kavlet.core.messages import say
    from kavlet.core.spreadsheet.table import Column, Table
    from kavlet.desktop.main import application, open_window

    made = application()
    window = open_window()
    columns = tuple(Column(f"c{i + 1}", tuple(row[i] for row in ROWS)) for i in range(3))
    document = Document(tables=(Table("t1", "places", columns),))
    document, _chart = edits.add_chart(document, "t1", "columns")
    window.store.load(document, None, "wall")
    window.resize(1280, 800)
    made.processEvents()
    stretches: list[float] = []

    def drawn(begin: Callable[[], object]) -> float:
        start = last = time.perf_counter()
        begin()
        while window.wall.drawing:
            made.processEvents()
            now = time.perf_counter()
            stretches.append((now - last) * 1000)
            last = now
        made.processEvents()
        return (time.perf_counter() - start) * 1000

    numbers = itertools.count(700)
    first = drawn(window.recipes.wall_wanted.emit)
    again = [
        drawn(lambda: window.figures.grid.cells.put({(1, 2): float(next(numbers))}, say("try a value")))
        for _ in range(12)
    ]  # fmt: skip
    tiles = len(window.wall.tiles)
    window.store.history.saved()
    window.close()
    one = median(milliseconds(lambda: matplotlib_funnel(VALUES), 5))
    longest = f"longest stretch {max(stretches):.1f} ms, 99th percentile {percentile_99(stretches):.1f} ms"
    return [
        Ratio(
            f"recipe wall, {tiles} tiles first drawn, against as many of matplotlib", first, tiles * one, "ms", "<= 0.5"
        ),
        Ratio("recipe wall redrawn after an edit, the same", median(again), tiles * one, "ms", "<= 0.25", longest),
    ]
