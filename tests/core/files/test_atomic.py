"""Files are written whole or not at all."""

import errno
import os
from pathlib import Path

import pytest

from kavlet.core.files import atomic
from kavlet.core.values.errors import KavletError


def test_of_several_files_all_are_written_or_none(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    first, second = tmp_path / "a.svg", tmp_path / "b.svg"
    first.write_bytes(b"old")
    real = os.fsync
    left = [1]

    def full(handle: int) -> None:
        if not left[0]:
            raise OSError(errno.ENOSPC, "No space left on device")
        left[0] -= 1
        real(handle)

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(KavletError, match="no space left"):
        atomic.write_all([(first, b"new"), (second, b"new")])
    assert first.read_bytes() == b"old"
    assert sorted(one.name for one in tmp_path.iterdir()) == ["a.svg"]
    left[0] = 2
    atomic.write_all([(first, b"new"), (second, b"new")])
    assert (first.read_bytes(), second.read_bytes()) == (b"new", b"new")
    assert len(list(tmp_path.iterdir())) == 2
