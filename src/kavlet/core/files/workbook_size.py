"""How large the sheets of a workbook are, before they are built: found by reading their parts once, as they stand.

Libraries build whole areas: two cells at the far corners of a sheet take all memory there is, and some end the process.
"""

import re

from kavlet.core.messages import say
from kavlet.core.spreadsheet.references import column_index
from kavlet.core.spreadsheet.table import check_extent
from kavlet.core.values.errors import KavletError

MAX_CELLS = 4_000_000
LAST_ROW = 1_048_576  # of a sheet (ISO/IEC 29500-1, 18.3.1.73 leaves it open; all programs end there)
MAX_SPACES = 10_000  # of one text
_XLSX_CELL = re.compile(rb"""\sr=["']([A-Za-z]{1,8})(\d{1,9})["']""")
_XLSX_ROW = re.compile(rb"""<(?:\w+:)?row\b[^>]*?\sr=["'](\d+)["']""")
# The rows that hold anything: a cell need not say its own place.
_XLSX_HELD = re.compile(rb"""<(?:\w+:)?row\b[^>]*?\sr=["'](\d+)["'][^>]*>\s*<(?:\w+:)?c\b""")
_ODS_PART = re.compile(rb"<(/?)(?:table:)(table-row|table-cell|covered-table-cell|table)\b([^>]*?)(/?)>")
_ROWS = re.compile(rb"""number-rows-repeated=["'](\d+)["']""")
_COLUMNS = re.compile(rb"""number-columns-repeated=["'](\d+)["']""")
_SPACES = re.compile(rb"""text:c=["'](\d+)["']""")
_FILLED = re.compile(rb"office:value-type=|table:formula=|calcext:value-type=")


def _refuse(name: str) -> KavletError:
    return KavletError(
        say("{file}: a sheet reaches further than {count} cells.", file=name, count=MAX_CELLS),
        remedy=say("Delete what stands far from the table, and save it again."),
    )


def _check(rows: int, columns: int, name: str) -> None:
    check_extent(rows, columns)
    if rows * columns > MAX_CELLS:
        raise _refuse(name)


def check_xlsx(parts: dict[str, bytes], name: str) -> None:
    """Raises KavletError where the cells of a sheet lie further apart than can be held."""
    for part, content in parts.items():
        if "worksheets/" not in part:
            continue
        if any(
            int(found[1][:12]) > LAST_ROW for found in _XLSX_ROW.finditer(content)
        ):  # a library goes row by row there
            raise KavletError(say("{file} is no workbook, or it is damaged.", file=name))
        held = [int(found[1]) for found in _XLSX_HELD.finditer(content)]
        column, row = 0, max(held, default=0)
        first_column, first_row = 1 << 60, min(held, default=1 << 60)
        for found in _XLSX_CELL.finditer(content):
            c, r = column_index(found[1].decode().upper()), int(found[2])
            column, row = max(column, c), max(row, r)
            first_column, first_row = min(first_column, c), min(first_row, r)
        if row:
            _check(row - min(first_row, row) + 1, column - min(first_column, column) + 1, name)


def check_ods(parts: dict[str, bytes], name: str) -> None:
    """Raises KavletError where a sheet's filled cells, as often as they are repeated, are more than can be held."""
    for part, content in parts.items():
        if not part.endswith("content.xml"):
            continue
        if any(int(found[1]) > MAX_SPACES for found in _SPACES.finditer(content)):
            raise _refuse(name)
        _check_ods_sheet(content, name)


def _check_ods_sheet(content: bytes, name: str) -> None:
    row = last_row = last_column = column = times = 0
    filled = False
    for found in _ODS_PART.finditer(content):
        closing, tag, attributes, empty = found[1] == b"/", found[2], found[3], found[4] == b"/"
        if tag == b"table":
            row = last_row = last_column = 0
        elif tag == b"table-row":
            if not closing:
                column, filled = 0, False
                repeated = _ROWS.search(attributes)
                times = int(repeated[1]) if repeated else 1
            if closing or empty:
                row += times
                if filled:
                    last_row = row
        elif not closing:
            repeated = _COLUMNS.search(attributes)
            column += int(repeated[1]) if repeated else 1
            if _FILLED.search(attributes):
                filled = True
                last_column = max(last_column, column)
        _check(last_row, last_column, name)
