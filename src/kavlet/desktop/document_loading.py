"""Opening and making documents: from files of all known kinds, from cells, and the demo."""

from importlib.resources import files
from pathlib import Path
from typing import TYPE_CHECKING

from kavlet.core.document import edits
from kavlet.core.document.charts import data_direction
from kavlet.core.document.document import Document
from kavlet.core.pipeline.chart_inputs import MAX_ROWS
from kavlet.core.pipeline.stages import main_layer
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Source
from kavlet.core.text.numbers import decimal_sign, locale_of
from kavlet.desktop.remembered_looks import with_remembered_look

if TYPE_CHECKING:
    from kavlet.core.files.worksheet import Worksheet

FALLBACK = "columns"  # its sentence says what is wrong with a table that fits no recipe


def opened(path: Path, locale: str) -> tuple[Document, bool]:
    """The document of a file, and whether the file holds it (a table's file does not). Raises KavletError."""
    from kavlet.core.files import kavlet as kavlet_file

    if path.suffix.lower() == kavlet_file.SUFFIX:
        return kavlet_file.load(path), True
    return of_source(Source(str(path.resolve())), locale), False


def of_source(source: Source, locale: str) -> Document:
    """A document of a table's file, which it follows. Raises KavletError."""
    from kavlet.core.document.tables import source_updates
    from kavlet.core.files import tables

    cells = tables.read_source(source, decimal_sign(locale)).cells
    document = from_rows(table_name(Path(source.path)), cells, locale)
    return source_updates.linked_table(document, document.tables[0].id, tables.seen(source), cells)


def with_table(document: Document, source: Source, read: "Worksheet") -> tuple[Document, str]:
    """The document with one more table, of what was read from a file; and its id."""
    from kavlet.core.document.tables import source_updates
    from kavlet.core.files import tables

    document, table = edits.add_table(document, table_name(Path(source.path)), read.cells)
    return source_updates.linked_table(document, table, tables.seen(source), read.cells), table


def table_name(path: Path) -> str:
    """What to call a table that comes from a file."""
    name = path.stem.replace("_", " ").strip() or "Table"
    return name[:1].upper() + name[1:]


def from_rows(name: str, rows: list[list[Cell]], locale: str) -> Document:
    """A document with one table and the chart that suits it best. Raises KavletError when there are no cells."""
    document, table = edits.add_table(Document(locale=known(locale)), name[:1].upper() + name[1:], rows)
    return with_best_chart(document, table)[0]


def with_best_chart(document: Document, table: str) -> tuple[Document, str]:
    """The document with the chart that suits a table best, looking as is remembered for it, and the chart's id."""
    from kavlet.core.document.tables.table_advice import suggestions

    if document.table(table).rows > MAX_ROWS:
        return edits.add_chart(document, table, FALLBACK)  # no chart shows as many, so none is tried
    for one in suggestions(document, table):
        made, chart = edits.add_chart(document, table, one.recipe)
        if one.across:
            made = data_direction.read_across(made, chart)
        made = with_remembered_look(made, chart)
        if main_layer(made, recalculate(made.tables), chart) is not None:
            return made, chart
    return edits.add_chart(document, table, FALLBACK)


def from_clipboard(name: str, rows: list[list[Cell]], locale: str) -> Document:
    """A document from pasted cells, which may come without a row of names."""
    from kavlet.core.files import csv

    return from_rows(name, csv.with_names(rows), locale)


def demo() -> Document:
    """The demo document: Mirefen's year."""
    from kavlet.core.files import kavlet as kavlet_file

    content = (files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes()
    return kavlet_file.loads(content, "mirefen.kavlet")


def known(locale: str) -> str:
    """The locale's name if its numbers are known, else the default's."""
    return str(locale_of(locale))
