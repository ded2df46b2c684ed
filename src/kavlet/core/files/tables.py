"""Tables from files, by their endings."""

import hashlib
from pathlib import Path

import msgspec

from kavlet.core.files import atomic, csv
from kavlet.core.files.formats import TABLES, by_ending, endings
from kavlet.core.files.untrusted_input import untrusted
from kavlet.core.files.worksheet import Worksheet
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.table import Source
from kavlet.core.values.errors import KavletError

MAX_BYTES = 100_000_000


def read(path: Path, sheet: str | None = None, part: str | None = None) -> Worksheet:
    """The cells of a table file, each where it stands. Raises KavletError when it can't be read.

    `sheet` and `part` (such as ``A1:C9``) choose from a workbook.
    """
    found = by_ending(TABLES, path.suffix)
    if found is None or found.reads is None:
        raise KavletError(
            say("{file} is no table Kavlet can read.", file=path.name),
            remedy=say("It reads {endings}.", endings=" ".join(endings(TABLES))),
        )
    with untrusted(path.name):
        return found.reads(path, sheet, part)


def read_source(source: Source, decimal: str = ".") -> Worksheet:
    """The cells of the file a table follows, read as its source says, the first row being names.

    `decimal` is the usual sign where neither the source nor the figures tell it.
    """
    path = Path(source.path)
    if path.suffix.lower() in csv.SUFFIXES:
        content = csv.content(path)
        guess = csv.guess(content, path.name, decimal)
        dialect = csv.CsvDialect(
            source.encoding or guess.encoding,
            source.separator or guess.separator,
            source.decimal or guess.decimal,
            source.accounts,
        )
        found = Worksheet(csv.grid(content, path.name, dialect))
    else:
        found = read(path, source.sheet, source.part)
    return Worksheet(named(found), found.notes)


def stamp(path: Path) -> str:
    """What tells one content of a file from another. Raises KavletError when it can't be read."""
    return hashlib.sha256(atomic.read(path, MAX_BYTES)).hexdigest()[:16]


def seen(source: Source) -> Source:
    """The source, its file's content noted as taken over."""
    return msgspec.structs.replace(source, seen=stamp(Path(source.path)))


def sheets(path: Path) -> list[str]:
    """The names of a workbook's sheets; none for other files."""
    found = by_ending(TABLES, path.suffix)
    with untrusted(path.name):
        return found.sheets(path) if found is not None and found.sheets is not None else []


def named(found: Worksheet) -> list[list[Cell]]:
    """The sheet's rows with a first row of names, as a table of a document has them.

    Where names have to be made up, the formulas move down with their row.
    """
    return csv.with_names(found.cells)
