"""Comma-separated values (RFC 4180), with the separators, encodings and decimal signs people really use."""

import codecs
import csv
import io
import re
from collections import Counter
from pathlib import Path

from msgspec import Struct

from kavlet.core.files import atomic
from kavlet.core.messages import say, words
from kavlet.core.spreadsheet.cell_input import read_field
from kavlet.core.spreadsheet.cells import Cell, Formula, is_number, plain_value, text_of
from kavlet.core.spreadsheet.table import check_extent
from kavlet.core.values.errors import KavletError

SUFFIXES = (".csv", ".tsv", ".txt")
MAX_BYTES = 100_000_000
_BOMS = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF32_LE, "utf-32"),
    (codecs.BOM_UTF32_BE, "utf-32"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)
_CONTROL = re.compile(r"[\x00-\x08\x0e-\x1f]")


def _telling(point: str, group: str) -> re.Pattern[str]:
    """Numbers that tell their decimal sign; a single group of three digits (1.234, 1,234) may be either."""
    grouped = rf"\d{{1,3}}(?:{group}\d{{3}})+"
    apart = rf"(?:\d+|{grouped}){point}(?:\d{{1,2}}|\d{{4,}})"  # decimals that are no group
    long = rf"(?:\d{{4,}}|{grouped}){point}\d+"  # before it stands more than one group holds
    many = rf"\d{{1,3}}(?:{group}\d{{3}}){{2,}}"  # no number has two decimal signs
    return re.compile(rf"[+-]?(?:{apart}|{long}|{many})\s*%?")


_COMMA_NUMBER, _POINT_NUMBER = _telling(",", r"\."), _telling(r"\.", ",")
_EITHER = re.compile(r"[+-]?\d{1,3}([.,])\d{3}")


class CsvDialect(Struct, frozen=True):
    """How a text is to be read: its encoding, the separator of fields, and the decimal sign of numbers.

    With `accounts`, (200) and 200- are negative numbers.
    """

    encoding: str
    separator: str
    decimal: str
    accounts: bool = False

    @property
    def group(self) -> str:
        """What groups the digits of its numbers."""
        return "," if self.decimal == "." else "."


def content(path: Path) -> bytes:
    """The bytes of a file. Raises KavletError when it can't be read or is too large."""
    return atomic.read(path, MAX_BYTES)


def read(path: Path) -> list[list[Cell]]:
    """The cells of a file, each where it stands, its manner guessed."""
    held = content(path)
    return grid(held, path.name, guess(held, path.name))


def guess(content: bytes, name: str, decimal: str = ".") -> CsvDialect:
    """Guess how to read a file. Raises KavletError when it is not text or holds nothing.

    `decimal` is the usual sign, for figures such as 1.234 that do not tell theirs.
    """
    encoding = _encoding(content, name)
    text = content.decode(encoding)
    if _CONTROL.search(text):
        raise KavletError(say("{file} is not a text file.", file=name))
    if not text.strip():
        raise KavletError(say("{file} is empty.", file=name))
    separator = _separator(text)
    fields = [field.strip() for row in rows(text, separator, name)[:500] for field in row]
    return CsvDialect(encoding, separator, "." if separator == "," else _decimal(fields, decimal))


def _decimal(fields: list[str], usual: str) -> str:
    """The decimal sign that most numbers tell; where none does, the usual one, if they could be its groups."""
    commas = sum(bool(_COMMA_NUMBER.fullmatch(field)) for field in fields)
    points = sum(bool(_POINT_NUMBER.fullmatch(field)) for field in fields)
    if commas != points:
        return "," if commas > points else "."
    signs = {found[1] for found in map(_EITHER.fullmatch, fields) if found is not None}
    return "," if signs == {","} or (signs == {"."} and usual == ",") else "."


def grid(content: bytes, name: str, dialect: CsvDialect) -> list[list[Cell]]:
    """Rows of cells, each where it stands in the file."""
    try:
        text = content.decode(dialect.encoding)
    except (UnicodeDecodeError, LookupError):
        raise KavletError(say("{file} is not written in {encoding}.", file=name, encoding=dialect.encoding)) from None
    found = rows(text, dialect.separator, name)
    while found and not any(field.strip() for field in found[-1]):
        found.pop()
    return [[read_field(field, dialect.decimal, dialect.group, dialect.accounts) for field in row] for row in found]


def with_names(found: list[list[Cell]]) -> list[list[Cell]]:
    """The rows with a first row of names: the one they have, or “Column 1”, … where the first row holds figures.

    Whole numbers from 1900 to 2100 in the first row are taken for years that name their columns. Blank rows are left
    out, unless there are formulas, which count them.
    """
    if not any(isinstance(cell, Formula) for row in found for cell in row):
        found = [row for row in found if any(cell is not None for cell in row)]  # no formula counts the rows
    if not found:
        raise KavletError(say("The table is empty."))
    numbers = [plain_value(cell) for cell in found[0] if is_number(cell)]
    years = all(isinstance(number, float) and number.is_integer() and 1900 <= number <= 2100 for number in numbers)
    if numbers and not (years and len(found[0]) > len(numbers)):
        width = max(len(row) for row in found)
        letters: list[Cell] = [words("Column {number}", number=index + 1) for index in range(width)]
        return [letters, *found]
    return [[_name(cell) for cell in found[0]], *found[1:]]


def _name(cell: Cell) -> Cell:
    """A cell of the first row: formulas stay, all else becomes text."""
    return cell if cell is None or isinstance(cell, Formula) else text_of(plain_value(cell))


def rows(text: str, separator: str, name: str) -> list[list[str]]:
    """The fields of a text (RFC 4180, section 2; line breaks may be LF, CRLF or CR). Blank lines stay.

    Raises KavletError for what is no table, or larger than one can be.
    """
    csv.field_size_limit(1_000_000)
    try:
        found: list[list[str]] = []
        for row in csv.reader(io.StringIO(text, newline=""), delimiter=separator):
            found.append(row)
            check_extent(len(found), len(row))
        return found
    except csv.Error:
        raise KavletError(say("{file} can’t be read as a table.", file=name)) from None


def pasted(text: str, decimal: str) -> list[list[str]]:
    """The fields of a pasted text: parted by tabs, else by what parts all its lines alike; one cell a line otherwise.

    A comma parts only where it is not the decimal sign, and there are lines to compare.
    """
    if "\t" in text:
        return rows(text, "\t", "The clipboard")
    lines = [line for line in text.splitlines() if line.strip()]
    for separator in (";", "|", ","):
        widths = {len(row) for row in rows("\n".join(lines), separator, "The clipboard")}
        is_list = len(lines) > 1 or (separator == ";" and "; " not in text)
        if len(widths) == 1 and widths != {1} and is_list and separator != decimal:
            return rows(text, separator, "The clipboard")
    return rows(text, "\t", "The clipboard")


def _encoding(content: bytes, name: str) -> str:
    for mark, encoding in _BOMS:
        if content.startswith(mark):
            try:
                content.decode(encoding)
            except UnicodeDecodeError:
                raise KavletError(say("{file} is not a text file.", file=name)) from None
            return encoding
    if b"\0" in content:
        raise KavletError(say("{file} is not a text file.", file=name))
    try:
        content.decode("utf-8")
    except UnicodeDecodeError:
        return "cp1252" if _is_western(content) else "latin-1"
    return "utf-8"


def _is_western(content: bytes) -> bool:
    try:
        content.decode("cp1252")
    except UnicodeDecodeError:
        return False
    return True


def _separator(text: str) -> str:
    """The candidate that splits the most lines into the same number of fields, more than one."""
    sample = text[:200_000]
    best, best_score = ",", (0.0, 0)
    for candidate in (",", ";", "\t", "|"):
        try:
            widths = [len(row) for row in csv.reader(io.StringIO(sample, newline=""), delimiter=candidate) if row]
        except csv.Error:
            continue
        width, lines = Counter(widths).most_common(1)[0]
        score = (lines / len(widths), width) if width > 1 else (0.0, 0)
        if score > best_score:
            best, best_score = candidate, score
    return best


# What starts a formula in some program, also in full width, and behind blanks or line breaks that it drops (OWASP, CSV
# injection).
_STARTS_FORMULA = re.compile(r"[\t\r\n]|\s*[=+\-@\uff1d\uff0b\uff0d\uff20]")


def harmless(text: str) -> str:
    """A text that no program reading it takes for a formula: an apostrophe goes before signs that would start one."""
    return f"'{text}" if _STARTS_FORMULA.match(text) else text


def dumps(table: list[list[str]]) -> str:
    """Rows of fields as RFC 4180 writes them: CRLF, quotes only where needed."""
    buffer = io.StringIO(newline="")
    csv.writer(buffer, lineterminator="\r\n").writerows(table)
    return buffer.getvalue()
