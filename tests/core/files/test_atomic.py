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


def test_what_a_killed_write_left_goes_with_the_next(tmp_path: Path) -> None:
    target = tmp_path / "a[1].kavlet"
    left, young, other = (tmp_path / name for name in (".a[1].kavlet.x1.part", ".a[1].kavlet.x2.part", ".b.x3.part"))
    for one in (left, young, other):
        one.write_bytes(b"half")
    for one in (left, other):
        os.utime(one, (0, 0))
    atomic.write(target, b"new")
    assert sorted(tmp_path.iterdir()) == sorted((target, young, other))  # one that may be written now stays


def test_a_file_keeps_its_mode_owner_and_attributes_and_a_link_its_target(tmp_path: Path) -> None:
    target, link = tmp_path / "a", tmp_path / "link"
    target.write_bytes(b"old")
    target.chmod(0o2640)
    has_attributes = True
    try:
        os.setxattr(target, "user.kind", b"mine")
    except OSError:  # not every file system has them
        has_attributes = False
    if os.geteuid() == 0:
        os.chown(target, 12, 34)
        target.chmod(0o2640)
    before = target.stat()
    link.symlink_to(target)
    atomic.write(link, b"new")
    after = target.stat()
    assert (link.is_symlink(), target.read_bytes()) == (True, b"new")
    assert (after.st_mode, after.st_uid, after.st_gid) == (before.st_mode, before.st_uid, before.st_gid)
    if has_attributes:
        assert os.getxattr(target, "user.kind") == b"mine"


def test_odd_names_give_one_sentence(tmp_path: Path) -> None:
    itself = tmp_path / "itself"
    itself.symlink_to(itself)
    for odd in (itself, tmp_path / "a\0b", tmp_path / ("x" * 256), tmp_path / "no" / "folder"):
        with pytest.raises(KavletError):
            atomic.write(odd, b"x")
        with pytest.raises(KavletError):
            atomic.read(odd, 100)
    longest = tmp_path / ("ü" * 127)
    atomic.write(longest, b"x")
    assert atomic.read(longest, 100) == b"x"
    unread = Path(os.fsdecode(os.fsencode(tmp_path) + b"/\xff\xfe.csv"))
    atomic.write(unread, b"x")
    assert atomic.read(unread, 100) == b"x"


@pytest.mark.parametrize(("mask", "mode"), [(0o022, 0o644), (0o077, 0o600), (0o027, 0o640)])
def test_a_new_file_is_open_to_those_whom_its_owner_lets_in(tmp_path: Path, mask: int, mode: int) -> None:
    before = os.umask(mask)
    try:
        atomic.write(tmp_path / "new.csv", b"gate,guests\n")
    finally:
        os.umask(before)
    assert (tmp_path / "new.csv").stat().st_mode & 0o777 == mode
