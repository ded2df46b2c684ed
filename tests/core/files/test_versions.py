"""Earlier versions: what a file held is kept once, a few of them, the newest and the oldest always."""

import os
from datetime import datetime
from itertools import pairwise
from pathlib import Path

import pytest

from kavlet.core.files import versions
from kavlet.core.values.errors import KavletError


def saved(path: Path, content: bytes, when: float) -> None:
    path.write_bytes(content)
    os.utime(path, (when, when))


def test_what_a_file_held_is_kept_with_the_time_it_was_saved(tmp_path: Path) -> None:
    path = tmp_path / "a.kavlet"
    versions.keep(path)  # nothing is there yet
    assert versions.versions(path) == []
    saved(path, b"one", 1000.5)
    versions.keep(path)
    versions.keep(path)  # the same content is kept once
    saved(path, b"two", 2000.0)
    versions.keep(path)
    held = versions.versions(path)
    assert [(one.when.timestamp(), one.file.read_bytes()) for one in held] == [(2000.0, b"two"), (1000.5, b"one")]
    assert versions.versions(tmp_path / "b.kavlet") == []
    assert held[0].file.parent.stat().st_mode & 0o077 == 0
    with pytest.raises(KavletError):
        _ = held[0].document  # it is none


def test_of_many_those_far_apart_stay(tmp_path: Path) -> None:
    path = tmp_path / "a.kavlet"
    for number in range(30):
        saved(path, b"%d" % number, 1000.0 + number**2)
        versions.keep(path)
    held = [datetime.timestamp(one.when) - 1000 for one in versions.versions(path)]
    assert len(held) == versions.MAX_VERSIONS
    assert (held[0], held[-1]) == (29.0**2, 0.0)
    gaps = [one - other for one, other in pairwise(held)]
    assert max(gaps) < 6 * min(gaps)


def test_a_folder_that_cannot_be_made_is_one_sentence(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "a.kavlet"
    path.write_bytes(b"x")
    (tmp_path / "file").write_bytes(b"")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))
    with pytest.raises(KavletError, match="not a directory"):
        versions.keep(path)
