"""Comma-separated values (RFC 4180), with the separators, encodings and decimal signs people really use."""

import codecs
import csv
import io
import re
from collections import Counter
from pathlib import Path

from msgspec import Struct

from kavlet.core.figures.cells import Cell, Formula, is_number, plain_value, text_of
from kavlet.core.figures.typed import read_field
from kavlet.core.files import atomic
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError

SUFFIXES = (".csv", ".tsv", ".txt")
MOST_BYTES = 100_000_000
_BOMS = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF32_LE, "utf-32"),
    (codecs.BOM_UTF32_BE, "utf-32"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)
_CONTROL = re.compile(r"[\x00-\x08\x0e-\x1f]")
_COMMA_NUMBER = re.compile(r"[+-]?(?:\d+|\d{1,3}(?:\.\d{3})+),\d+\s*%?")
_POINT_NUMBER = re.compile(r"[+-]?(?:\d+|\d{1,3}(?:,\d{3})+)\.\d+\s*%?")


class Manner(Struct, frozen=True):
    """How a text is to be read: its encoding, the separator of fields, and the decimal sign of numbers."""

    encoding: str
    separator: str
    decimal: str

    @property
    def group(self) -> str:
        """What groups the digits of its numbers."""
        return "," if self.decimal == "." else "."


def content(path: Path) -> bytes:
    """The bytes of a file. Raises KavletError when it can't be read or is too large."""
    return atomic.read(path, MOST_BYTES)


def read(path: Path) -> list[list[Cell]]:
    """The cells of a file, each where it stands, its manner guessed."""
    held = content(path)
    return grid(held, path.name, guess(held, path.name))


def guess(content: bytes, name: str) -> Manner:
    """Guess how to read a file. Raises KavletError when it is not text or holds nothing."""
    encoding = _encoding(content, name)
    text = content.decode(encoding)
    if _CONTROL.search(text):
        raise KavletError(say("{file} is not a text file.", file=name))
    if not text.strip():
        raise KavletError(say("{file} is empty.", file=name))
    separator = _separator(text)
    fields = [field.strip() for row in rows(text, separator, name)[:500] for field in row]
    commas = sum(bool(_COMMA_NUMBER.fullmatch(field)) for field in fields)
    points = sum(bool(_POINT_NUMBER.fullmatch(field)) for field in fields)
    return Manner(encoding, separator, "," if commas > points and separator != "," else ".")


def grid(content: bytes, name: str, manner: Manner) -> list[list[Cell]]:
    """Rows of cells, each where it stands in the file."""
    try:
        text = content.decode(manner.encoding)
    except (UnicodeDecodeError, LookupError):
        raise KavletError(say("{file} is not written in {encoding}.", file=name, encoding=manner.encoding)) from None
    found = rows(text, manner.separator, name)
    while found and not any(field.strip() for field in found[-1]):
        found.pop()
    return [[read_field(field, manner.decimal, manner.group) for field in row] for row in found]


def with_names(found: list[list[Cell]]) -> list[list[Cell]]:
    """The rows with a first row of names: the one they have, or “Column 1”, … where the first row holds figures.

    Whole numbers from 1900 to 2100 in the first row are taken for years that name their columns.
    """
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
    """The fields of a text (RFC 4180, section 2; line breaks may be LF, CRLF or CR). Empty lines are passed over."""
    csv.field_size_limit(1_000_000)
    try:
        return [row for row in csv.reader(io.StringIO(text, newline=""), delimiter=separator) if row]
    except csv.Error:
        raise KavletError(say("{file} can’t be read as a table.", file=name)) from None


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


def harmless(text: str) -> str:
    """A text that no program reading it takes for a formula: an apostrophe goes before signs that would start one."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def dumps(table: list[list[str]]) -> str:
    """Rows of fields as RFC 4180 writes them: CRLF, quotes only where needed."""
    buffer = io.StringIO(newline="")
    csv.writer(buffer, lineterminator="\r\n").writerows(table)
    return buffer.getvalue()
