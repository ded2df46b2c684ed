"""The library that reads workbooks breaks alone: a sentence here, and the next file is read."""

import io
import zipfile
from datetime import datetime, timedelta

import openpyxl
import pytest

from kavlet.core.files import subprocess_reader
from kavlet.core.values.errors import KavletError


def workbook(**cells: object) -> bytes:
    book = openpyxl.Workbook()
    for place, value in cells.items():
        book.active[place] = value
    held = io.BytesIO()
    book.save(held)
    return held.getvalue()


def test_values_come_back_as_they_were_read() -> None:
    held = workbook(A1="gate", B1=2.5, A2=True, B2=datetime(2026, 3, 4, 5, 6), A3=timedelta(hours=30), B3="x" * 40_000)
    assert subprocess_reader.names(held, "x.xlsx") == ["Sheet"]
    found = subprocess_reader.values(held, "Sheet", "x.xlsx")
    assert found[0] == ["gate", 2.5]
    assert found[1] == [True, datetime(2026, 3, 4, 5, 6)]
    assert found[2][1] == "x" * 32_767 or found[2][1] == "x" * 40_000


def test_what_ends_the_library_ends_no_more_than_that() -> None:
    held = workbook(A1=1.0, XFD1048576=2.0)  # 17 thousand million cells, asked for without being measured
    with pytest.raises(KavletError, match="far\\.xlsx is no workbook, or it is damaged"):
        subprocess_reader.values(held, "Sheet", "far.xlsx")
    assert subprocess_reader.values(workbook(A1=1.0), "Sheet", "x.xlsx") == [[1.0]]


def test_a_process_that_was_ended_is_begun_anew() -> None:
    assert subprocess_reader.names(workbook(A1=1.0), "x.xlsx") == ["Sheet"]
    running = subprocess_reader._PROCESS._running
    assert running is not None
    running.kill()
    running.wait()
    assert subprocess_reader.names(workbook(A1=1.0), "x.xlsx") == ["Sheet"]


def test_what_takes_too_long_is_ended(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(subprocess_reader, "MAX_SECONDS", 0.0)
    with pytest.raises(KavletError, match="damaged"):
        subprocess_reader.values(workbook(**{f"A{row}": "x" * 30 for row in range(1, 20_000)}), "Sheet", "x.xlsx")
    monkeypatch.undo()
    assert subprocess_reader.names(workbook(A1=1.0), "x.xlsx") == ["Sheet"]


@pytest.mark.parametrize("content", [b"", b"PK\x03\x04", b"x" * 1000])
def test_no_workbook_is_a_sentence(content: bytes) -> None:
    with pytest.raises(KavletError, match="no workbook"):
        subprocess_reader.names(content, "x.xlsx")
    empty = io.BytesIO()
    zipfile.ZipFile(empty, "w").close()
    with pytest.raises(KavletError, match="no workbook"):
        subprocess_reader.values(empty.getvalue(), "Sheet", "x.xlsx")
