"""All formats that tables are read from and written to: one entry each. Dialogs, the command line and docs read it.

Pictures of charts are in `kavlet.export`, since some of them need Qt.
"""

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.files import csv
from kavlet.core.files.office_packages import check_office_packages
from kavlet.core.files.table_texts import field, unrounded
from kavlet.core.files.worksheet import Worksheet
from kavlet.core.messages import Message, say
from kavlet.core.scene.readers import Reader
from kavlet.core.spreadsheet.cells import Value
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.values.errors import KavletError

Of = Literal["table"]
Tables = list[tuple[Table, Values]]


As = Literal["chart", "picture", "both"]


class AnimationOptions(Struct, frozen=True):
    """How an animation goes: seconds each step is held, seconds from one to the next, pictures a second, whether it
    goes evenly or softly, and whether it begins again at its end."""

    hold: float = 1.2
    move: float = 0.8
    rate: int = 20
    soft: bool = True
    again: bool = True


class ExportOptions(Struct, frozen=True):
    """How something is to leave: the ending of the file, pixels per point for pictures, texts as outlines for SVG.

    `as_` chooses real charts or pictures in office formats, `as_of` for some charts by their ids; `ground` False leaves
    the ground out; `width` and `height` are a chart's size in points where it is not its own. `motion` is that of
    animations, `to`, `subject` and `words` those of a mail; with `raw`, texts of tables stay as they are. Pictures are
    drawn as a `reader` sees them.
    """

    ending: str
    scale: float = 2.0
    outlines: bool = False
    as_: As = "chart"
    ground: bool = True
    width: float | None = None
    height: float | None = None
    motion: AnimationOptions = AnimationOptions()
    to: tuple[str, ...] = ()
    subject: str = ""
    words: str = ""
    as_of: dict[str, As] = {}
    raw: bool = False
    reader: Reader = "everyone"


class Format(Struct, frozen=True):
    """One format: its endings, what it is called, and what it can do with a chart or a table.

    `reads` gives the cells of a file, `sheets` the names of its sheets where it has some to choose among; `writes`
    makes the bytes of tables, `raw` the same with texts as they are where `writes` keeps other programs from running
    them.
    """

    endings: tuple[str, ...]
    title: str
    reads: Callable[[Path, str | None, str | None], Worksheet] | None = None
    sheets: Callable[[Path], list[str]] | None = None
    writes: Callable[[Tables], bytes] | None = None
    raw: Callable[[Tables], bytes] | None = None


def _without_sheets(path: Path, sheet: str | None, part: str | None) -> None:
    if sheet is not None or part is not None:
        raise KavletError(say("{file} has no sheets to choose from.", file=path.name))


def _read_csv(path: Path, sheet: str | None, part: str | None) -> Worksheet:
    _without_sheets(path, sheet, part)
    return Worksheet(csv.read(path))


def _read_json(path: Path, sheet: str | None, part: str | None) -> Worksheet:
    from kavlet.core.files import json_records

    _without_sheets(path, sheet, part)
    return Worksheet(json_records.read(path))


def _rows(tables: Tables) -> list[list[Value]]:
    """The values of the first table, row by row."""
    table, values = tables[0]
    columns = values.of(table.id)
    return [[column.values[row] for column in columns] for row in range(table.height)]


def _csv(tables: Tables) -> bytes:
    """Values as text; text from the table stays text in any program."""
    return csv.dumps([[field(one) for one in row] for row in _rows(tables)]).encode()


def _raw_csv(tables: Tables) -> bytes:
    """Values as text, texts as they are."""
    return csv.dumps([[unrounded(one) for one in row] for row in _rows(tables)]).encode()


def _json(tables: Tables) -> bytes:
    """One object per row of figures, by the names in the first row."""
    from kavlet.core.files import json_records

    rows = _rows(tables)
    keys = [unrounded(one) for one in rows[0]] if rows else []
    held = [dict(zip(keys, map(json_records.plain, row), strict=True)) for row in rows[HEADER:]]
    return msgspec.json.format(msgspec.json.encode(held), indent=1) + b"\n"


def _read_xlsx(path: Path, sheet: str | None, part: str | None) -> Worksheet:
    check_office_packages()
    from kavlet.core.files import xlsx

    return xlsx.read(path, sheet, part)


def _xlsx_sheets(path: Path) -> list[str]:
    check_office_packages()
    from kavlet.core.files import xlsx

    return xlsx.sheets(path)


def _xlsx(tables: Tables) -> bytes:
    check_office_packages()
    from kavlet.core.files import xlsx

    return xlsx.dumps(tables)


def _read_ods(path: Path, sheet: str | None, part: str | None) -> Worksheet:
    check_office_packages()
    from kavlet.core.files import ods

    return ods.read(path, sheet, part)


def _ods_sheets(path: Path) -> list[str]:
    check_office_packages()
    from kavlet.core.files import ods

    return ods.sheets(path)


def _ods(tables: Tables) -> bytes:
    check_office_packages()
    from kavlet.core.files import ods

    return ods.dumps(tables)


TABLES: tuple[Format, ...] = (
    Format(csv.SUFFIXES, "CSV", _read_csv, writes=_csv, raw=_raw_csv),
    Format((".xlsx",), "XLSX", _read_xlsx, _xlsx_sheets, _xlsx),
    Format((".ods",), "ODS", _read_ods, _ods_sheets, _ods),
    Format((".json",), "JSON", _read_json, writes=_json),
)


def endings(formats: Iterable[Format], purpose: Of | None = None) -> tuple[str, ...]:
    """The endings of formats: of those that something can be written in, or of all that are read."""
    able = [
        format_ for format_ in formats if (format_.reads is not None if purpose is None else format_.writes is not None)
    ]
    return tuple(ending for format_ in able for ending in format_.endings)


def by_ending(formats: Iterable[Format], ending: str) -> Format | None:
    """The format of an ending."""
    return next((format_ for format_ in formats if ending.lower() in format_.endings), None)


def patterns(formats: Iterable[Format], of: Of | None = None) -> str:
    """Patterns for a file dialog: *.csv *.xlsx …"""
    return " ".join(f"*{ending}" for ending in endings(formats, of))


def renamings(tables: Tables, ending: str) -> tuple[Message, ...]:
    """What is said of tables that can't keep their name as a sheet of that format."""
    found = by_ending(TABLES, ending)
    if found is None or found.sheets is None:
        return ()
    from kavlet.core.files import workbook

    named = workbook.titles(table for table, _ in tables)
    return tuple(
        say("The table “{table}” is the sheet “{sheet}” there.", table=table, sheet=sheet)
        for table, sheet in named.items()
        if sheet != table
    )


def table_content(tables: Tables, ending: str, raw: bool = False) -> bytes:
    """Tables as the bytes of a file; with `raw`, texts that other programs may run as formulas stay as they are.

    Raises KavletError for an ending that tables can't be written with.
    """
    found = by_ending(TABLES, ending)
    if found is None or found.writes is None:
        raise KavletError(
            say("A table can’t be written as {ending}.", ending=ending),
            remedy=say("There are {endings}.", endings=" ".join(endings(TABLES, "table"))),
        )
    return (found.raw if raw and found.raw is not None else found.writes)(tables)
