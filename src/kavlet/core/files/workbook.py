"""What XLSX and ODS have in common: sheets by name, values, and the choice of sheet and range."""

import io
from pathlib import Path

from kavlet.core.files import atomic
from kavlet.core.files.sheet import FilledArea, ReadSheet, area, sheet
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MOST_BYTES = 100_000_000
Formulas = dict[tuple[int, int], str]


def content_of(path: Path) -> bytes:
    """The bytes of a workbook file. Raises KavletError when it can't be read."""
    return atomic.read(path, MOST_BYTES)


def values(content: bytes, name: str) -> dict[str, list[list[object]]]:
    """The values of every sheet, by the sheets' names, from the top left cell on."""
    from python_calamine import CalamineError, CalamineWorkbook

    try:
        book = CalamineWorkbook.from_filelike(io.BytesIO(content))
        return {
            title: [list(row) for row in book.get_sheet_by_name(title).to_python(skip_empty_area=False)]
            for title in book.sheet_names
        }
    except (CalamineError, ValueError, OSError, OverflowError):
        raise KavletError(say("{file} is no workbook, or it is damaged.", file=name)) from None


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


def built(held: list[list[object]], formulas: Formulas, title: str, part: str | None, name: str) -> ReadSheet:
    """The chosen part of a sheet. Raises KavletError when nothing is in it."""
    chosen: FilledArea | None = area(part) if part else None
    made = sheet(held, formulas, title, chosen)
    if not made.cells:
        raise KavletError(
            say("{file}: the sheet “{title}” is empty there.", file=name, title=title)
            if part
            else say("{file}: the sheet “{title}” is empty.", file=name, title=title)
        )
    return made
