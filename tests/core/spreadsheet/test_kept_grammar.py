"""What is kept of the grammar between runs is read only where nobody else can have written it."""

import os
import pickle
import subprocess
import sys
from pathlib import Path

import pytest

PARSE = "from kavlet.core.spreadsheet.syntax import parse, printed; print(printed(parse('=a1+2')))"


class Evil:
    """Runs a command when it is unpickled."""

    def __init__(self, mark: Path) -> None:
        self.mark = mark

    def __reduce__(self) -> tuple[object, tuple[str]]:
        return os.system, (f"touch '{self.mark}'",)


def parsed(cache: Path) -> str:
    environment = os.environ | {"XDG_CACHE_HOME": str(cache)}
    done = subprocess.run(
        [sys.executable, "-c", PARSE], env=environment, capture_output=True, text=True, check=True, timeout=60
    )
    return done.stdout.strip()


@pytest.mark.parametrize("mode", [0o777, 0o775, 0o757])
def test_a_folder_open_to_others_is_not_trusted(tmp_path: Path, mode: int) -> None:
    folder, mark = tmp_path / "kavlet", tmp_path / "was-run"
    folder.mkdir()
    kept = folder / "formula.parser"
    kept.write_bytes(b"x\n" + pickle.dumps(Evil(mark)) + pickle.dumps(Evil(mark)))
    folder.chmod(mode)
    assert parsed(tmp_path) == "A1+2"
    assert not mark.exists()
    assert folder.stat().st_mode & 0o077 == 0


def test_a_folder_that_is_a_link_is_not_trusted(tmp_path: Path) -> None:
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir(mode=0o700)
    (tmp_path / "kavlet").symlink_to(elsewhere)
    assert parsed(tmp_path) == "A1+2"
    assert list(elsewhere.iterdir()) == []


def test_the_grammar_is_kept_in_a_folder_of_its_own(tmp_path: Path) -> None:
    assert parsed(tmp_path) == "A1+2"
    assert (tmp_path / "kavlet" / "formula.parser").stat().st_size > 1000
    assert parsed(tmp_path) == "A1+2"
