"""XLSX workbooks (ISO/IEC 29500): read with their formulas, and written with them."""

import io
import re
from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from kavlet.core.files import archive, subprocess_reader, workbook, workbook_size
from kavlet.core.files.worksheet import Worksheet
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import ERRORS, ErrorValue, FormattedNumber, Formula, Value, text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PLAIN, NumberText

SUFFIX = ".xlsx"
MOMENT = datetime(2000, 1, 1, tzinfo=UTC)  # when a file says it was made, so that the same tables give the same bytes
_WORTH_READING = re.compile(rb"<(?:\w+:)?f[ />]|t=[\"']e[\"']")  # formulas, by any prefix of the namespace, and errors
_APART = re.compile(r'"(?:[^"]|"")*"|;')


def sheets(path: Path) -> list[str]:
    """The names of a workbook's sheets."""
    content = workbook.content_of(path)
    archive.members(content, path.name, ())
    return subprocess_reader.names(content, path.name)


def read(path: Path, title: str | None = None, part: str | None = None) -> Worksheet:
    """A sheet (the first when not named) or a range of it. Raises KavletError when it can't be read."""
    content = workbook.content_of(path)
    parts = archive.members(content, path.name, (".xml",))
    workbook_size.check_xlsx(parts, path.name)
    title_read = workbook.pick(subprocess_reader.names(content, path.name), title, path.name)
    sheet_rows = subprocess_reader.values(content, title_read, path.name)
    has_formulas = any(_WORTH_READING.search(part_bytes) for name, part_bytes in parts.items() if "worksheets/" in name)
    formulas = _formulas(content, title_read, path.name) if has_formulas else {}
    return workbook.built(sheet_rows, formulas, title_read, part, path.name)


def _formulas(content: bytes, title: str, name: str) -> workbook.Formulas:
    import openpyxl

    found: workbook.Formulas = {}
    try:
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True)
        page = book[title]
        page.reset_dimensions()  # what a file says of its extent is only a hint, and may be too small
        for row in page.iter_rows():
            for cell in row:
                if cell.data_type == "e" and cell.value in ERRORS:
                    found[cell.column - 1, cell.row - 1] = f"={cell.value}"
                value = getattr(cell.value, "text", cell.value)  # an array formula holds its text
                if cell.data_type == "f" and isinstance(value, str):
                    found[cell.column - 1, cell.row - 1] = _ours(value)
    except (KeyError, ValueError, TypeError, AttributeError, OSError, SyntaxError):
        raise KavletError(say("{file} is no workbook, or it is damaged.", file=name)) from None
    return found


def _ours(formula: str) -> str:
    """A formula without the prefixes that mark newer functions (ECMA-376, 18.17.2.7)."""
    text = re.sub(r"_xlfn\.|_xlws\.", "", formula)
    return text if text.startswith("=") else f"={text}"


Further = Callable[[Any, dict[str, Any]], object]


def dumps(tables: list[tuple[Table, Values]]) -> bytes:
    """Tables as sheets of a workbook, formulas kept with their values beside them."""
    return dumps_with(tables, workbook.titles(table for table, _ in tables), lambda *_: None)


def dumps_with(tables: list[tuple[Table, Values]], names: Mapping[str, str], further: Further) -> bytes:
    """The same with sheets' names by the tables', and what else is put on them: `further` gets the book and the sheets
    by the tables' ids."""
    import xlsxwriter

    buffer = io.BytesIO()
    book = xlsxwriter.Workbook(buffer, {"in_memory": True, "use_future_functions": True})
    book.set_properties({"created": MOMENT})
    formats: dict[str, object] = {}
    pages: dict[str, Any] = {}
    for table, values in tables:
        page = pages[table.id] = book.add_worksheet(names[table.name])
        for c, column in enumerate(table.columns):
            for r, cell in enumerate(column.cells):
                value = values.of(table.id)[c].values[r]
                number = cell.number if isinstance(cell, Formula | FormattedNumber) else None
                code = _code(number or (column.number if r else None) or PLAIN)
                if code not in formats:
                    formats[code] = book.add_format({"num_format": code})
                if isinstance(cell, Formula):
                    page.write_formula(r, c, _theirs(workbook.renamed(cell.text, names)), formats[code], _cached(value))
                elif isinstance(value, bool):
                    page.write_boolean(r, c, value)
                elif isinstance(value, float):
                    page.write_number(r, c, value, formats[code])
                elif value is not None:
                    page.write_string(r, c, text_of(value))
    further(book, pages)
    book.close()
    return buffer.getvalue()


def _theirs(formula: str) -> str:
    """A formula as the file holds it: commas between arguments; those in texts stay."""
    return _APART.sub(lambda found: "," if found[0] == ";" else found[0], formula)


def _cached(value: Value) -> object:
    if value is None:
        return ""
    return value.value if isinstance(value, ErrorValue) else value


def _code(number: NumberText) -> str:
    """The number format code (ISO/IEC 29500-1, 18.8.31) of a number text."""
    if number.style == "date":
        return "yyyy-mm-dd"
    if number == PLAIN:
        return "General"
    digits = "0" * number.least_decimals + "#" * (number.decimals - number.least_decimals)
    body = ("#,##0" if number.grouping else "0") + ("." + digits if digits else "")
    unit = "%" if number.style == "percent" else ""
    quote = '"' if number.prefix or number.suffix else ""
    return f"{quote}{number.prefix}{quote}{body}{unit}{quote}{number.suffix}{quote}".replace('""', "")
