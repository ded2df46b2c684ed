"""Tables from files, by their endings."""

from pathlib import Path

from kavlet.core.figures.cells import Cell
from kavlet.core.files import csv, json_records, ods, xlsx
from kavlet.core.files.sheet import Sheet
from kavlet.core.values.errors import KavletError

SUFFIXES = (*csv.SUFFIXES, xlsx.SUFFIX, ods.SUFFIX, json_records.SUFFIX)


def read(path: Path, sheet: str | None = None, part: str | None = None) -> Sheet:
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
        return Sheet(csv.read(path))
    if ending == json_records.SUFFIX:
        return Sheet(json_records.read(path))
    raise KavletError(f"{path.name} is no table Kavlet can read.", remedy=f"It reads {' '.join(SUFFIXES)}.")


def named(found: Sheet) -> list[list[Cell]]:
    """The sheet's rows with a first row of names, as a table of a document has them.

    Where names have to be made up, the formulas move down with their row.
    """
    return csv.with_names(found.cells)
