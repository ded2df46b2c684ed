"""All checks of a chart after an edit, against the repaint that they follow: the edit, its stages, and its painting."""

import itertools
import statistics

from PySide6.QtGui import QImage

from bench.ratio import Ratio
from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.proofreading import drawn_chart, of_chart
from kavlet.core.spreadsheet.cells import FormattedNumber
from kavlet.core.spreadsheet.table import HEADER

TIMES = 15


def measure() -> list[Ratio]:
    """Each chart of the demo: a figure changed, the chart drawn again and painted; then all checks."""
    from importlib.resources import files

    from kavlet.core.files import kavlet as kavlet_file
    from kavlet.paint import application, picture

    application.for_painting()
    demo = kavlet_file.loads((files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes(), "demo")
    ours, theirs, shares = [], [], {}
    for chart in demo.charts:
        checks, repaint = _of(demo, chart, picture.image)
        ours.append(checks)
        theirs.append(repaint)
        shares[chart.name] = checks / repaint
    worst = max(shares, key=lambda name: shares[name])
    note = f"worst: {worst}, {shares[worst]:.2f}"
    return [
        Ratio("all checks of a chart, against its repaint", statistics.mean(ours), statistics.mean(theirs), "ms",
              "<= 0.33", note)
    ]  # fmt: skip


def _of(demo: Document, chart: ChartEntry, painted: object) -> tuple[float, float]:
    """The least time in milliseconds of all checks, and of the repaint before them."""
    import time

    pictures, numbers = Pictures(), itertools.count(1)
    cell = _figure(demo, chart)
    checks, repaints = [], []
    for _ in range(TIMES):
        start = time.perf_counter()
        document = edits.set_cells(demo, chart.table, {cell[:2]: cell[2] * (1 + 0.001 * next(numbers))})
        values = pictures.values(document)
        drawn = pictures.picture(document, chart.id)
        image = painted(drawn.scene, 1.5)  # type: ignore[operator]
        assert isinstance(image, QImage)
        done = time.perf_counter()
        of_chart(drawn_chart(document, values, drawn))
        checks.append(1000 * (time.perf_counter() - done))
        repaints.append(1000 * (done - start))
    return statistics.median(checks), statistics.median(repaints)


def _figure(demo: Document, chart: ChartEntry) -> tuple[int, int, float]:
    """A cell that the chart reads, with its figure."""
    table = demo.table(chart.table)
    for column in (one for role, held in chart.roles.items() if role != "name" for one in held):
        place = table.place(column)
        for row, value in enumerate(table.columns[place].cells):
            number = value.value if isinstance(value, FormattedNumber) else value
            if row >= HEADER and isinstance(number, float) and number > 0:
                return place, row, number
    raise LookupError(chart.name)
