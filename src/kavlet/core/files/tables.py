"""Tables from files, by their endings."""

from pathlib import Path

from kavlet.core.figures.cells import Cell
from kavlet.core.files import csv
from kavlet.core.values.errors import KavletError

READERS = dict.fromkeys(csv.SUFFIXES, csv.read)


def read(path: Path) -> list[list[Cell]]:
    """The cells of a table file, the first row being names. Raises KavletError when it can't be read."""
    reader = READERS.get(path.suffix.lower())
    if reader is None:
        raise KavletError(f"{path.name} is no table Kavlet can read.", remedy=f"It reads {' '.join(READERS)}.")
    return reader(path)
