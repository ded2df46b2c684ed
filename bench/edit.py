"""From an edited cell to the repainted chart in the real window, against matplotlib's rebuild to pixels."""

import itertools

from bench.ratio import Ratio, median, milliseconds, percentile_99
from bench.svg import VALUES
from bench.yardstick import matplotlib_funnel


def measure() -> list[Ratio]:
    """The edit goes through the model as typing does; the window is then repainted at once."""
    from kavlet.desktop.main import application, open_window

    made = application()
    window = open_window(demo=True)
    window.resize(1280, 800)
    made.processEvents()
    numbers = itertools.count(5000)
    model = window.figures.grid.cells

    def ours() -> None:
        model.setData(model.index(2, 1), str(next(numbers)))
        made.processEvents()  # paints what the edit has marked, once

    for _ in range(20):
        ours()
    taken = milliseconds(ours, 400)
    other = milliseconds(lambda: matplotlib_funnel([VALUES[0], float(next(numbers)), *VALUES[2:]], "raw"), 12)
    window.store.history.saved()
    window.close()
    worst = f"99th percentile {percentile_99(taken):.2f} ms (aim < 16)"
    return [
        Ratio("cell edit to repaint, against matplotlib", median(taken), median(other), "ms", "<= 0.1, < 8 ms", worst)
    ]
