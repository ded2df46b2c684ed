"""ODS workbooks (OASIS ODF 1.3): read with their formulas, and written with them."""

import io
import re
from collections.abc import Mapping
from datetime import date
from pathlib import Path

from kavlet.core.files import archive, subprocess_reader, workbook, workbook_size
from kavlet.core.files.worksheet import Worksheet
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import ErrorValue, FormattedNumber, Formula, text_of
from kavlet.core.spreadsheet.functions.dates import as_date
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.references import SCAN, RangeReference, quoted, reference
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.xml_text import xml_text

SUFFIX = ".ods"
MAX_REPEATED = 10_000  # cells that one formula stands for
_APART = re.compile(r'"(?:[^"]|"")*"|\[[^\]]*\]|,')
_BRACKETS = re.compile(r'("(?:[^"]|"")*")|\[([^\]]*)\]')


def sheets(path: Path) -> list[str]:
    """The names of a workbook's sheets."""
    content = workbook.content_of(path)
    workbook_size.check_ods(archive.members(content, path.name, ("content.xml",)), path.name)
    return subprocess_reader.names(content, path.name)


def read(path: Path, title: str | None = None, part: str | None = None) -> Worksheet:
    """A sheet (the first when not named) or a range of it. Raises KavletError when it can't be read."""
    content = workbook.content_of(path)
    parts = archive.members(content, path.name, ("content.xml",))
    workbook_size.check_ods(parts, path.name)
    title_read = workbook.pick(subprocess_reader.names(content, path.name), title, path.name)
    sheet_rows = subprocess_reader.values(content, title_read, path.name)
    has_formulas = any(b"table:formula" in cell for cell in parts.values())
    formulas = _formulas(parts["content.xml"], title_read, path.name) if has_formulas else {}
    return workbook.built(sheet_rows, formulas, title_read, part, path.name)


def _formulas(content: bytes, title: str, name: str) -> workbook.Formulas:
    """The formulas of a sheet by column and row. What is empty is counted, however often it is repeated, and not
    gone through."""
    from lxml import etree

    found: workbook.Formulas = {}
    space = "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}"
    try:
        parser = etree.XMLParser(resolve_entities=False, no_network=True, huge_tree=True)
        sheets_ = etree.fromstring(content, parser).iter(f"{space}table")
        sheet = next(one for one in sheets_ if one.get(f"{space}name") == title)
        row = 0
        for line in sheet.iter(f"{space}table-row"):
            column, times = 0, int(line.get(f"{space}number-rows-repeated", "1"))
            for cell in line.iterchildren(f"{space}table-cell", f"{space}covered-table-cell"):
                repeated, formula = int(cell.get(f"{space}number-columns-repeated", "1")), cell.get(f"{space}formula")
                if formula is not None:
                    for down in range(min(times, MAX_REPEATED)):
                        for right in range(min(repeated, MAX_REPEATED)):
                            found[column + right, row + down] = ours(formula)
                column += repeated
            row += times
    except (StopIteration, ValueError, etree.XMLSyntaxError):
        raise KavletError(say("{file} is no workbook, or it is damaged.", file=name)) from None
    return found


def ours(formula: str) -> str:
    """A formula in plain A1 form from the standard's file form: ``of:=SUM([.B2:.B6])`` is ``=SUM(B2:B6)``."""
    body = re.sub(r"^(of|oooc|msoxl):", "", formula)

    def plain(found: re.Match[str]) -> str:
        if found[1] is not None:
            return found[1]
        ends = [_end(end) for end in found[2].split(":")]
        cells = ":".join(cell for _, cell in ends)
        return f"{quoted(ends[0][0])}!{cells}" if ends[0][0] else cells

    return _BRACKETS.sub(plain, body)


def _end(text: str) -> tuple[str, str]:
    """The sheet (empty for the formula's own) and the cell of one end, such as ``$'My sheet'.B2`` or ``.B2``."""
    sheet, _, cell = text.rpartition(".")
    sheet = sheet.lstrip("$")
    return (sheet[1:-1].replace("''", "'") if sheet.startswith("'") else sheet), cell


def theirs(formula: str) -> str:
    """A formula in the standard's file form."""

    def replaced(found: re.Match[str]) -> str:
        return found[0] if found["text"] is not None else _bracketed(reference(found[0]))

    # Commas between arguments become semicolons; those in texts and in brackets stay.
    body = _APART.sub(lambda found: ";" if found[0] == "," else found[0], SCAN.sub(replaced, formula))
    return f"of:{body}"


def _bracketed(to: RangeReference) -> str:
    sheet = "$'" + to.table.replace("'", "''") + "'" if to.table else ""
    ends = to.text.rpartition("!")[2].split(":")
    return "[" + ":".join(f"{'' if i else sheet}.{end}" for i, end in enumerate(ends)) + "]"


def dumps(tables: list[tuple[Table, Values]]) -> bytes:
    """Tables as sheets of a workbook, formulas kept with their values beside them."""
    return dumps_with(tables, workbook.titles(table for table, _ in tables))


def dumps_with(tables: list[tuple[Table, Values]], names: Mapping[str, str]) -> bytes:
    """The same with the sheets' names by the tables'."""
    import odfdo

    document = odfdo.Document("spreadsheet")
    document.body.clear()
    for table, values in tables:
        page = odfdo.Table(names[table.name])
        for r in range(table.height):
            row = odfdo.Row()
            for c, column in enumerate(table.columns):
                cell, value = column.cells[r], values.of(table.id)[c].values[r]
                formula = xml_text(theirs(workbook.renamed(cell.text, names))) if isinstance(cell, Formula) else None
                shown: bool | float | str | date | None = text_of(value) if isinstance(value, ErrorValue) else value
                if isinstance(shown, str):
                    shown = xml_text(shown)
                if isinstance(cell, FormattedNumber) and cell.number.style == "date" and isinstance(value, float):
                    shown = as_date(value)
                row.append_cell(odfdo.Cell(shown, formula=formula))
            page.append_row(row)
        document.body.append(page)
    buffer = io.BytesIO()
    document.save(buffer)
    return buffer.getvalue()
