"""What XLSX and ODS have in common: sheets by name, values, and the choice of sheet and range."""

import re
from collections.abc import Iterable, Mapping
from pathlib import Path

import msgspec

from kavlet.core.files import atomic
from kavlet.core.files.worksheet import FilledArea, Worksheet, area, sheet
from kavlet.core.messages import say
from kavlet.core.spreadsheet.references import rewritten
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.xml_text import xml_text

MAX_BYTES = 100_000_000
LONGEST = 31  # characters of a sheet's name
Formulas = dict[tuple[int, int], str]


def content_of(path: Path) -> bytes:
    """The bytes of a workbook file. Raises KavletError when it can't be read."""
    return atomic.read(path, MAX_BYTES)


FORBIDDEN = re.compile(r"[\[\]:*?/\\\x00-\x1f]")


def titles(tables: Iterable[Table]) -> dict[str, str]:
    """What tables are called as sheets, by their own names: without signs that sheets may not have, and apart.

    ISO/IEC 29500-1, 18.2.19, and what programs take for ODF: at most 31 characters, none of ``[]:*?/\\``, no
    apostrophe at either end.
    """
    found: dict[str, str] = {}
    for table in tables:
        bare = _cut(" ".join(FORBIDDEN.sub(" ", xml_text(table.name)).split()).strip("' "), LONGEST) or "Table"
        name, number = bare, 2
        while name.casefold() in {one.casefold() for one in found.values()}:
            name = f"{_cut(bare, LONGEST - len(str(number)) - 1)} {number}"
            number += 1
        found[table.name] = name
    return found


def _cut(name: str, most: int) -> str:
    """The beginning of a name, by the units of UTF-16 that programs count."""
    return name.encode("utf-16-le")[: 2 * most].decode("utf-16-le", "ignore").strip("' ")


def renamed(formula: str, titles: Mapping[str, str]) -> str:
    """A formula with the sheets' names in the place of the tables'."""
    if "!" not in formula:
        return formula
    return rewritten(formula, lambda old: msgspec.structs.replace(old, table=titles.get(old.table, old.table)))


def pick(names: list[str], wanted: str | None, name: str) -> str:
    """The sheet that was asked for, else the first. Raises KavletError when there is none of that name."""
    if not names:
        raise KavletError(say("{file} has no sheets.", file=name))
    if wanted is None:
        return names[0]
    if wanted not in names:
        raise KavletError(
            say("{file} has no sheet “{wanted}”.", file=name, wanted=wanted),
            remedy=say("It has {names}.", names=list(names)),
        )
    return wanted


def built(sheet_rows: list[list[object]], formulas: Formulas, title: str, part: str | None, name: str) -> Worksheet:
    """The chosen part of a sheet. Raises KavletError when nothing is in it."""
    chosen_area: FilledArea | None = area(part) if part else None
    worksheet = sheet(sheet_rows, formulas, title, chosen_area)
    if not worksheet.cells:
        raise KavletError(
            say("{file}: the sheet “{title}” is empty there.", file=name, title=title)
            if part
            else say("{file}: the sheet “{title}” is empty.", file=name, title=title)
        )
    return worksheet
