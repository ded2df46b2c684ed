"""Opening and making documents: from files of all known kinds, from cells, and the demo."""

from importlib.resources import files
from pathlib import Path

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.figures.cells import Cell
from kavlet.core.files import csv, tables
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.text.numbers import locale_of

FIRST_RECIPE = "funnel"


def opened(path: Path, locale: str) -> tuple[Document, bool]:
    """The document of a file, and whether the file holds it (a table's file does not). Raises KavletError."""
    if path.suffix.lower() == kavlet_file.SUFFIX:
        return kavlet_file.load(path), True
    name = path.stem.replace("_", " ").strip() or "Table"
    return from_rows(name, tables.named(tables.read(path)), locale), False


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
