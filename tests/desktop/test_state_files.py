"""What is kept between runs, and that losing it hinders nothing."""

from pathlib import Path

import pytest
from platformdirs import user_state_path

from kavlet.desktop.state_files import read_state, write_state


def test_what_was_kept_is_there_again() -> None:
    assert read_state("things") is None
    write_state("things", {"one": ["a", "ä"]})
    assert read_state("things") == {"one": ["a", "ä"]}
    write_state("things", [])
    assert read_state("things") == []


@pytest.mark.parametrize("content", [b"", b"{", b"\xff\xfe", b"[" * 100_000])
def test_what_can_not_be_read_is_nothing(content: bytes) -> None:
    write_state("things", [1])
    (user_state_path("kavlet", appauthor=False) / "things.json").write_bytes(content)
    assert read_state("things") is None


def test_a_folder_that_can_not_be_written_loses_it(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "file").write_text("in the way")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))
    write_state("things", [1])
    assert read_state("things") is None
