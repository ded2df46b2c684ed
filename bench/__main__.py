"""Prints all ratios: `python -m bench`, or `make bench`."""

import os

from bench import charts, deliver, dragging, edit, formulas, growth, pages, proof, scrolling, solids, start, svg, wall
from bench.ratio import Ratio


def main() -> None:
    """Run every measurement and print one line each."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    rows: list[Ratio] = [
        *svg.measure(),
        *charts.measure(),
        *edit.measure(),
        *dragging.measure(),
        *solids.measure(),
        *wall.measure(),
        *scrolling.measure(),
        *pages.measure(),
        *proof.measure(),
        *deliver.measure(),
        *formulas.measure(),
        *growth.measure(),
        *start.measure(),
    ]
    width = max(len(row.what) for row in rows)
    for row in rows:
        print(f"{row.what:{width}}  {row.text}")


main()
