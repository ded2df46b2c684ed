"""How the helper columns of recipes grow with the rows: 1,000 rows against 100 (10 where in proportion)."""

import random

from bench.ratio import Ratio, median, milliseconds

FEW, MANY = 100, 1_000


def measure() -> list[Ratio]:
    """One row for the recipe whose helper columns grow the most, each evaluated afresh."""
    from kavlet.core.document import edits
    from kavlet.core.document.document import Document
    from kavlet.core.recipes.registry import RECIPES
    from kavlet.core.spreadsheet.recalculate import recalculate

    chance = random.Random(3)

    def taken(recipe: str, rows: int) -> float:
        cells = [
            [f"Row {i}", f"Group {i % 9}", round(100 * chance.random(), 1), round(90 * chance.random(), 1)]
            for i in range(rows)
        ]
        document, table = edits.add_table(Document(), "T", [["name", "group", "a", "b"], *cells])
        document, _ = edits.add_chart(document, table, recipe)
        return median(milliseconds(lambda: recalculate(document.tables), 5))

    found = [(taken(name, FEW), taken(name, MANY), name) for name in RECIPES]
    few, many, name = max(found, key=lambda one: one[1] / one[0])
    slowest = max(found, key=lambda one: one[1])
    return [
        Ratio(f"helpers of {name}, 1,000 rows / 100", many, few, "ms", "< 15"),
        Ratio(f"helpers of {slowest[2]}, 1,000 rows / a frame", slowest[1], 1000 / 60, "ms", "< 12"),
    ]
