"""A small table from a larger one, whose cells go on reading it: some rows and columns, one period, or groups added up.

gate     month  visitors        gate     visitors
Mill     Jan         410        =T!A2    =SUMIF(T!A$2:A$5;A2;T!C$2:C$5)
Ferry    Jan         120   ───▶ =T!A3    =SUMIF(T!A$2:A$5;A3;T!C$2:C$5)
Mill     Feb         380
"""

from typing import Literal

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document, with_table
from kavlet.core.document.edits import add_table
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.messages import named, say
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber, Formula, text_of
from kavlet.core.spreadsheet.references import column_letters, quoted
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError

How = Literal["sum", "mean", "count"]
HOWS: tuple[How, ...] = ("sum", "mean", "count")
_FUNCTIONS: dict[How, str] = {"sum": "SUMIFS", "mean": "AVERAGEIFS", "count": "COUNTIFS"}


class SmallTableChoice(Struct, frozen=True, kw_only=True):
    """What goes into a small table: columns (by id; all of the table's own when none are named), rows (from 0; all when
    None), or the rows where the column `where` says `equals`. With `by`, one row for each of that column's entries, the
    others added up, averaged, or its rows counted."""

    columns: tuple[str, ...] = ()
    rows: tuple[int, ...] | None = None
    where: str = ""
    equals: str = ""
    by: str = ""
    how: How = "sum"


def small_table(document: Document, table_id: str, pick: SmallTableChoice) -> tuple[Document, str]:
    """The document with the small table behind the one it reads, and its id. Raises KavletError where it would be
    empty."""
    table = document.table(table_id)
    own_columns = [column.id for column in table.columns if column.helper is None]
    columns = tuple(entry for entry in pick.columns or own_columns if entry in own_columns)
    rows = _rows(document, table, pick)
    if not rows or not columns:
        raise KavletError(say("The small table would be empty."), remedy=say("Choose rows and columns to go into it."))
    lines = _gathered(document, table, pick, columns, rows) if pick.by else _picked(table, columns, rows)
    name = say("{table}, small", table=table.name).said_in(document.locale)
    document, table_name = add_table(document, name, lines)
    rank = [entry.id for entry in document.tables].index(table_id) + 1
    others = [entry for entry in document.tables if entry.id != table_name]
    document = msgspec.structs.replace(document, tables=(*others[:rank], document.table(table_name), *others[rank:]))
    return _written_alike(document, table_name, table, _sources(pick, columns)), table_name


def entries(document: Document, table_id: str, column: str) -> list[str]:
    """What a column's cells say, each once, in order of first appearance."""
    table = settled(document, table_id)
    cells = table.columns[table.place(column)].cells[HEADER:]
    return list(dict.fromkeys(text for cell in cells if (text := _said(cell, document.locale))))


def _rows(document: Document, table: Table, pick: SmallTableChoice) -> list[int]:
    rows = list(range(table.rows)) if pick.rows is None else [row for row in pick.rows if 0 <= row < table.rows]
    if not pick.where:
        return rows
    held = settled(document, table.id)
    cells = held.columns[held.place(pick.where)].cells[HEADER:]
    return [row for row in rows if _said(cells[row], document.locale) == pick.equals]


def _said(cell: Cell, locale: str) -> str:
    if isinstance(cell, FormattedNumber):
        return written(cell.value, cell.number, locale)
    return "" if isinstance(cell, Formula) else text_of(cell).strip()


def _head(table: Table, column: str) -> str:
    at = table.place(column)
    return table.columns[at].name or column_letters(at)


def _picked(table: Table, columns: tuple[str, ...], rows: list[int]) -> list[list[Cell]]:
    """Each cell as a reference to the one it stands for."""
    sheet = f"={quoted(table.name)}!"
    places = [column_letters(table.place(column)) for column in columns]
    lines: list[list[Cell]] = [[_head(table, column) for column in columns]]
    return lines + [[Formula(f"{sheet}{letters}{row + HEADER + 1}") for letters in places] for row in rows]


def _gathered(
    document: Document, table: Table, pick: SmallTableChoice, columns: tuple[str, ...], rows: list[int]
) -> list[list[Cell]]:  # fmt: skip
    """One row for each entry of the grouping column, in the order of first appearance."""
    held = settled(document, table.id)
    names = held.columns[held.place(pick.by)].cells[HEADER:]
    first: dict[str, int] = {}
    for row in rows:
        first.setdefault(_said(names[row], document.locale), row)
    first.pop("", None)
    sheet = quoted(table.name)
    span = (HEADER + 1, table.height) if pick.rows is None else (min(rows) + HEADER + 1, max(rows) + HEADER + 1)

    def whole(column: str) -> str:
        letters = column_letters(table.place(column))
        return f"{sheet}!{letters}${span[0]}:{letters}${span[1]}"

    only = f";{whole(pick.where)};{_cell(sheet, table, pick.where, rows[0])}" if pick.where else ""
    values = [] if pick.how == "count" else [one for one in columns if one != pick.by]
    heads: list[Cell] = [_head(table, pick.by)]
    heads += [_head(table, one) for one in values] or [named("count").said_in(document.locale)]
    lines: list[list[Cell]] = [heads]
    for i, row in enumerate(first.values()):
        name = f"A{i + HEADER + 1}"
        line: list[Cell] = [Formula(f"={_cell(sheet, table, pick.by, row)}")]
        for one in values:
            formula = f"{_FUNCTIONS[pick.how]}({whole(one)};{whole(pick.by)};{name}{only})"
            line.append(Formula(f'=IFERROR({formula};"")' if pick.how == "mean" else f"={formula}"))
        if pick.how == "count":
            line.append(Formula(f"=COUNTIFS({whole(pick.by)};{name}{only})"))
        lines.append(line)
    return lines


def _cell(sheet: str, table: Table, column: str, row: int) -> str:
    return f"{sheet}!{column_letters(table.place(column))}${row + HEADER + 1}"


def _sources(pick: SmallTableChoice, columns: tuple[str, ...]) -> tuple[str, ...]:
    """The column each of the small table's columns is written like."""
    if not pick.by:
        return columns
    return (pick.by, *(() if pick.how == "count" else (one for one in columns if one != pick.by)))


def _written_alike(document: Document, new_table_id: str, like: Table, columns: tuple[str, ...]) -> Document:
    """The small table's numbers written as they are where they come from."""
    table = document.table(new_table_id)
    looks = [like.columns[like.place(column_id)].writes for column_id in columns]
    new_columns = tuple(
        msgspec.structs.replace(column, number=look) if look is not None else column
        for column, look in zip(table.columns, [*looks, None], strict=False)
    )
    return with_table(
        document, msgspec.structs.replace(table, columns=(*new_columns, *table.columns[len(new_columns) :]))
    )
