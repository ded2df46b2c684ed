"""From a changed table to SVG text: Kavlet against matplotlib drawing the same funnel."""

import itertools

from bench.ratio import Ratio, median, milliseconds
from bench.yardstick import NAMES, matplotlib_funnel
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import svg
from kavlet.core.pipeline.picture_cache import Pictures

VALUES = [18400.0, 6900.0, 2760.0, 1035.0, 310.0]


def funnel() -> tuple[Document, str, str]:
    """The visitor path and its funnel."""
    rows = [["stage", "people"], *([name, value] for name, value in zip(NAMES, VALUES, strict=True))]
    document, table = edits.add_table(Document(), "Visitor path", rows)
    document, chart = edits.add_chart(document, table, "funnel")
    return document, table, chart


def measure() -> list[Ratio]:
    """Each call edits one value, so that nothing can be taken from a cache as it is."""
    document, table, chart = funnel()
    pictures, numbers = Pictures(), itertools.count(5000)

    def ours() -> str:
        edited = edits.set_cells(document, table, {(1, 2): float(next(numbers))})
        return svg.dumps(pictures.picture(edited, chart).scene)

    def other() -> bytes:
        return matplotlib_funnel([VALUES[0], float(next(numbers)), *VALUES[2:]])

    ours(), other()
    return [Ratio("table to SVG, against matplotlib", median(milliseconds(ours, 60)), median(milliseconds(other, 12)),
                  "ms", "<= 0.1")]  # fmt: skip
