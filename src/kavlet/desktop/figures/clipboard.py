"""Cells on the clipboard: as shown for other programs, and as they are for this one."""

from contextlib import suppress
from html import escape
from html.parser import HTMLParser

import msgspec
from PySide6.QtCore import QByteArray, QMimeData
from PySide6.QtGui import QGuiApplication

from kavlet.core.document.tables.cell_edits import Box
from kavlet.core.files import csv
from kavlet.core.spreadsheet.cells import Cell, Value

KIND = "application/x-kavlet-cells"
MAX_HTML = 20_000_000  # characters


class CopiedCells(msgspec.Struct, frozen=True):
    """Cells as they are, their values, where they came from, and whether they are to be moved."""

    table: str
    box: Box
    cells: list[list[Cell]]
    values: list[list[bool | float | str | None]]
    moves: bool = False


def put(shown: list[list[str]], held: CopiedCells) -> None:
    """Put cells on the clipboard, as tab-separated text, as an HTML table, and as themselves."""
    mime = QMimeData()
    mime.setText("\n".join("\t".join(_field(text) for text in row) for row in shown))
    mime.setHtml(_html(shown))
    mime.setData(KIND, QByteArray(msgspec.json.encode(held)))
    QGuiApplication.clipboard().setMimeData(mime)


def own() -> CopiedCells | None:
    """The cells this program put there, if they are still there."""
    mime = QGuiApplication.clipboard().mimeData()
    if mime is None or not mime.hasFormat(KIND):
        return None
    try:
        return msgspec.json.decode(bytes(mime.data(KIND).data()), type=CopiedCells)
    except msgspec.DecodeError:
        return None


def fields(decimal: str) -> list[list[str]]:
    """The fields another program put there: from an HTML table where there is one, else from text, whose
    numbers have that decimal sign. May raise
    KavletError when the text can't be split into fields.
    """
    mime = QGuiApplication.clipboard().mimeData()
    if mime is None:
        return []
    if mime.hasHtml() and "<table" in mime.html().lower():
        reader = _Table()
        with suppress(AssertionError, ValueError):  # what the library raises for marked sections that never end
            reader.feed(mime.html()[:MAX_HTML])
        reader.end()
        if any(reader.rows):
            return reader.rows
    text = mime.text()
    return csv.pasted(text, decimal) if text.strip() else []


def plain_values(values: list[list[Value]]) -> list[list[bool | float | str | None]]:
    """Values as cells that hold them; errors become empty cells."""
    return [[value if isinstance(value, bool | float | str) else None for value in row] for row in values]


def _field(text: str) -> str:
    """A field for tab-separated text; tabs and line breaks are kept inside quotes."""
    return '"' + text.replace('"', '""') + '"' if any(c in text for c in '\t\n\r"') else text


def _html(rows: list[list[str]]) -> str:
    body = "".join("<tr>" + "".join(f"<td>{escape(text)}</td>" for text in row) + "</tr>" for row in rows)
    return f"<table>{body}</table>"


class _Table(HTMLParser):
    """Reads the first table of an HTML text into rows of fields; merged cells leave empty ones behind."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[list[str]] = []
        self._text: list[str] | None = None
        self._span = 1
        self._done = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if self._done:
            return
        if tag == "tr":
            self.rows.append([])
        elif tag in ("td", "th"):
            self._close()
            span = dict(attrs).get("colspan") or "1"
            self._span = min(200, int(span)) if span.isascii() and span.isdigit() else 1
            self._text = []
        elif tag == "br" and self._text is not None:
            self._text.append("\n")

    def handle_endtag(self, tag: str) -> None:
        if tag in ("td", "th", "tr"):
            self._close()
        elif tag == "table":
            self._close()
            self._done = True

    def handle_data(self, data: str) -> None:
        if self._text is not None:
            self._text.append(data)

    def end(self) -> None:
        """No more comes, whether the table is complete or not."""
        self._close()

    def _close(self) -> None:
        if self._text is not None and self.rows:
            self.rows[-1].extend([" ".join("".join(self._text).split()), *[""] * (self._span - 1)])
        self._text = None
