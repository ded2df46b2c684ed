"""Tables as JSON records: a list of objects, one per row, or an object of lists, one per column (RFC 8259)."""

from pathlib import Path

import msgspec

from kavlet.core.files import atomic
from kavlet.core.messages import say
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Value
from kavlet.core.spreadsheet.table import check_extent
from kavlet.core.values.errors import KavletError

SUFFIX = ".json"
MAX_BYTES = 50_000_000


def read(path: Path) -> list[list[Cell]]:
    """The cells of a file, the first row being the records' keys. Raises KavletError when it holds no records."""
    try:
        held = msgspec.json.decode(atomic.read(path, MAX_BYTES))
    except (msgspec.DecodeError, RecursionError):
        raise KavletError(say("{file} is not JSON.", file=path.name)) from None
    if isinstance(held, dict):
        lists = [held[key] for key in held if isinstance(held[key], list)]
        if len(lists) == 1 and lists[0] and all(isinstance(one, dict) for one in lists[0]):
            held = lists[0]
        elif lists and len(lists) == len(held) and len({len(one) for one in lists}) == 1:
            held = [dict(zip(held, row, strict=True)) for row in zip(*lists, strict=True)]
    if not isinstance(held, list) or not held or not all(isinstance(one, dict) for one in held):
        raise KavletError(
            say("{file} holds no records.", file=path.name), remedy=say("It should be a list of objects, one per row.")
        )
    keys = list(dict.fromkeys(key for one in held for key in one))
    check_extent(len(held) + 1, len(keys))
    return [list(keys), *([_cell(one.get(key)) for key in keys] for one in held)]


def plain(value: Value) -> object:
    """A cell's value as JSON has it: numbers, texts and logical values; an error as its code."""
    return value.value if isinstance(value, ErrorValue) else value


def _cell(value: object) -> Cell:
    """A scalar as it is; lists and objects as their JSON text."""
    if value is None or isinstance(value, bool | str):
        return value
    if isinstance(value, int | float):
        return float(value)
    return msgspec.json.encode(value).decode()
