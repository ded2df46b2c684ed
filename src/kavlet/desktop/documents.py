"""Opening and making documents: from files of all known kinds, from cells, and the demo."""

from importlib.resources import files
from pathlib import Path

from kavlet.core.document import edits, sources
from kavlet.core.document.document import Document
from kavlet.core.figures.cells import Cell
from kavlet.core.figures.table import Source
from kavlet.core.files import csv, tables
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.text.numbers import locale_of

FIRST_RECIPE = "funnel"


def opened(path: Path, locale: str) -> tuple[Document, bool]:
    """The document of a file, and whether the file holds it (a table's file does not). Raises KavletError."""
    if path.suffix.lower() == kavlet_file.SUFFIX:
        return kavlet_file.load(path), True
    source = Source(str(path.resolve()))
    document = from_rows(table_name(path), tables.read_source(source).cells, locale)
    return sources.link(document, document.tables[0].id, tables.seen(source)), False


def added(document: Document, source: Source) -> tuple[Document, str, tuple[str, ...]]:
    """The document with one more table, read from a file; its id, and notes on what was not kept."""
    read = tables.read_source(source)
    document, table = edits.add_table(document, table_name(Path(source.path)), read.cells)
    return sources.link(document, table, tables.seen(source)), table, read.notes


def table_name(path: Path) -> str:
    """What to call a table that comes from a file."""
    name = path.stem.replace("_", " ").strip() or "Table"
    return name[:1].upper() + name[1:]


def from_rows(name: str, rows: list[list[Cell]], locale: str) -> Document:
    """A document with one table and its first chart. Raises KavletError when there are no cells."""
    document, table = edits.add_table(Document(locale=known(locale)), name[:1].upper() + name[1:], rows)
    document, _ = edits.add_chart(document, table, FIRST_RECIPE)
    return document


def from_clipboard(name: str, rows: list[list[Cell]], locale: str) -> Document:
    """A document from pasted cells, which may come without a row of names."""
    return from_rows(name, csv.with_names(rows), locale)


def demo() -> Document:
    """The demo document: Mirefen's year."""
    content = (files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes()
    return kavlet_file.loads(content, "mirefen.kavlet")


def known(locale: str) -> str:
    """The locale's name if its numbers are known, else the default's."""
    return str(locale_of(locale))
