"""Makes charts for tests: a table in, a picture out."""

from collections import deque
from collections.abc import Sequence
from typing import Any

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.pipeline.stages import Picture, picture
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.proofreading import drawn_chart, of_chart
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.values.geometry import Size


def table(head: Sequence[str], *columns: Sequence[Any]) -> list[list[Cell]]:
    """Rows of cells from names and columns; whole numbers become numbers as cells hold them."""
    lines = [[float(cell) if isinstance(cell, int) else cell for cell in line] for line in zip(*columns, strict=True)]
    return [list(head), *lines]


def document(recipe: str, rows: list[list[Cell]], roles: dict[str, Any] | None = None, **settings: Any) -> Document:
    """A document with one table and one chart; roles by the columns' names."""
    made, table_id = edits.add_table(Document(), "Figures", rows)
    ids = {str(column.cells[0]): column.id for column in made.table(table_id).columns}
    chosen = {
        role: tuple(ids[one] for one in ([held] if isinstance(held, str) else held))
        for role, held in (roles or {}).items()
    }
    made, chart = edits.add_chart(made, table_id, recipe, chosen)
    return edits.change_chart(made, chart, settings=settings) if settings else made


def draw(made: Document, size: Size | None = None, look: dict[str, Any] | None = None, **changes: Any) -> Picture:
    """The picture of a document's first chart, with values set by hand and other changes of the chart."""
    if look or changes:
        entry = made.charts[0]
        dress = msgspec.structs.replace(changes.pop("dress", entry.dress), overrides=look or {})
        made = edits.change_chart(made, entry.id, dress=dress, **changes)
    return kept(picture(made, values_of(made), made.charts[0].id, size), made)


_VALUES: deque[Values] = deque(maxlen=4)


def values_of(made: Document) -> Values:
    """The values of a document's tables; those worked out lately again where a document has the same tables."""
    held = next((one for one in _VALUES if one.tables is made.tables), None)
    if held is None:
        held = recalculate(made.tables)
        _VALUES.append(held)
    return held


_KEPT: deque[tuple[Picture, Document]] = deque(maxlen=64)  # pictures drawn lately, with their documents


def kept(drawn: Picture, of: Document) -> Picture:
    """A picture whose document `findings` can look up."""
    _KEPT.append((drawn, of))
    return drawn


def findings(drawn: Picture, *names: str) -> list[Finding]:
    """What Proof finds in a chart drawn by itself: by some checks, or by all but those of titles and order, which the
    small tables of tests have none of."""
    of = next(document for one, document in _KEPT if one is drawn)
    found = of_chart(drawn_chart(of, values_of(of), drawn))
    return [one for one in found if (one.check in names if names else one.check not in ("title-missing", "unsorted"))]


def make(recipe: str, rows: list[list[Cell]], roles: dict[str, Any] | None = None, **settings: Any) -> Picture:
    return draw(document(recipe, rows, roles, **settings))


def free(chart: Chart, rows: list[list[Cell]], size: Size | None = None, **changes: Any) -> Picture:
    """A chart of layers of its own, without a recipe; columns are c1, c2, … in the table's order."""
    made, table_id = edits.add_table(Document(), "Figures", rows)
    entry = ChartEntry("k1", "Free", table_id, "", free=chart, **changes)
    made = msgspec.structs.replace(made, charts=(entry,))
    return kept(picture(made, values_of(made), "k1", size), made)


def helper(made: Picture, name: str) -> list[Any]:
    """The values of a helper column."""
    return list(next(one for one in made.build.helpers if one.name == name).values)


def marks(made: Picture, key: str) -> list[Any]:
    """The visible marks of a layer."""
    return [mark for mark in made.figure.marks if mark.key == key and mark.visible]


def labels(made: Picture, key: str = "") -> list[str]:
    """The label texts, of one layer or of all."""
    return [text.text for text in made.figure.texts if text.kind == "label" and (not key or text.key == key)]
