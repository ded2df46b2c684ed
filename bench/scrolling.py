"""Scrolling a table of 10,000 rows in the real window, against one frame at 60 a second."""

from bench.ratio import Ratio, median, milliseconds, percentile_99
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.spreadsheet.cells import Cell

ROWS = 10_000


def measure() -> list[Ratio]:
    """Each step scrolls by 200 pixels and paints; the edit goes through the model as typing does."""
    from kavlet.desktop.main import application, open_window

    made = application()
    rows: list[list[Cell]] = [["name", *(f"c{c}" for c in range(9))]]
    rows += [[f"row {r}", *(float(r * c) for c in range(9))] for r in range(ROWS)]
    window = open_window()
    document, _ = edits.add_table(Document(), "Large", rows)
    window.store.load(document, None, "large")
    window.resize(1280, 800)
    made.processEvents()
    bar = window.figures.grid.verticalScrollBar()

    def scroll() -> None:
        bar.setValue((bar.value() + 200) % max(1, bar.maximum()))
        made.processEvents()

    model = window.figures.grid.cells
    numbers = iter(range(1_000))

    def edit() -> None:
        model.setData(model.index(5, 1), str(next(numbers)))
        made.processEvents()

    taken, edited = milliseconds(scroll, 200), milliseconds(edit, 40)
    window.store.history.saved()
    window.close()
    note = f"99th percentile {percentile_99(taken):.1f} ms; an edit there {median(edited):.1f} ms"
    return [Ratio("scrolling 10,000 rows, against a frame", median(taken), 1000 / 60, "ms", "< 1", note)]
