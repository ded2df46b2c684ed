"""What is written from the program stands in the documentation as the program has it."""

import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent


@pytest.mark.parametrize("tool", ["proof_page", "recipe_pages"])
def test_pages_written_from_the_program_are_up_to_date(tool: str) -> None:
    command = [sys.executable, ROOT / "tools" / f"{tool}.py", "--check"]
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
