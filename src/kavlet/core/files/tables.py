"""Tables from files, by their endings."""

import hashlib
from pathlib import Path

import msgspec

from kavlet.core.figures.cells import Cell
from kavlet.core.figures.table import Source
from kavlet.core.files import atomic, csv, json_records, ods, xlsx
from kavlet.core.files.sheet import ReadSheet
from kavlet.core.values.errors import KavletError

MOST_BYTES = 100_000_000
SUFFIXES = (*csv.SUFFIXES, xlsx.SUFFIX, ods.SUFFIX, json_records.SUFFIX)


def read(path: Path, sheet: str | None = None, part: str | None = None) -> ReadSheet:
    """The cells of a table file, each where it stands. Raises KavletError when it can't be read.

    `sheet` and `part` (such as ``A1:C9``) choose from a workbook.
    """
    ending = path.suffix.lower()
    if ending == xlsx.SUFFIX:
        return xlsx.read(path, sheet, part)
    if ending == ods.SUFFIX:
        return ods.read(path, sheet, part)
    if sheet is not None or part is not None:
        raise KavletError(f"{path.name} has no sheets to choose from.")
    if ending in csv.SUFFIXES:
        return ReadSheet(csv.read(path))
    if ending == json_records.SUFFIX:
        return ReadSheet(json_records.read(path))
    raise KavletError(f"{path.name} is no table Kavlet can read.", remedy=f"It reads {' '.join(SUFFIXES)}.")


def read_source(source: Source) -> ReadSheet:
    """The cells of the file a table follows, read as its source says, the first row being names."""
    path = Path(source.path)
    if path.suffix.lower() in csv.SUFFIXES:
        content = csv.content(path)
        guess = csv.guess(content, path.name)
        manner = csv.Manner(
            source.encoding or guess.encoding, source.separator or guess.separator, source.decimal or guess.decimal
        )
        found = ReadSheet(csv.grid(content, path.name, manner))
    else:
        found = read(path, source.sheet, source.part)
    return ReadSheet(named(found), found.notes)


def stamp(path: Path) -> str:
    """What tells one content of a file from another. Raises KavletError when it can't be read."""
    return hashlib.sha256(atomic.read(path, MOST_BYTES)).hexdigest()[:16]


def seen(source: Source) -> Source:
    """The source, its file's content noted as taken over."""
    return msgspec.structs.replace(source, seen=stamp(Path(source.path)))


def sheets(path: Path) -> list[str]:
    """The names of a workbook's sheets; none for other files."""
    ending = path.suffix.lower()
    return xlsx.sheets(path) if ending == xlsx.SUFFIX else ods.sheets(path) if ending == ods.SUFFIX else []


def named(found: ReadSheet) -> list[list[Cell]]:
    """The sheet's rows with a first row of names, as a table of a document has them.

    Where names have to be made up, the formulas move down with their row.
    """
    return csv.with_names(found.cells)
