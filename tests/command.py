"""The command line for tests: within this process, or, where that is what matters, in one of its own."""

import os
import subprocess
import sys
from contextlib import redirect_stderr, redirect_stdout
from io import BytesIO, TextIOWrapper
from typing import NamedTuple
from unittest.mock import patch

from kavlet.cli import main
from kavlet.core.messages import speak


class Done(NamedTuple):
    """How a command ended, what it said, and the bytes it wrote to standard output."""

    returncode: int
    stdout: str
    stderr: str
    content: bytes


def run(*given: object) -> Done:
    """A command as a user gives it."""
    said, woes = (TextIOWrapper(BytesIO(), "utf-8", write_through=True) for _ in range(2))
    code = 0
    try:
        with (
            patch.object(sys, "argv", ["kavlet", *map(str, given)]),
            redirect_stdout(said),
            redirect_stderr(woes),
        ):
            main()
    except SystemExit as end:
        code = int(end.code or 0)
    finally:
        speak("en")
    content, error = (one.detach().getvalue() for one in (said, woes))  # type: ignore[attr-defined]
    return Done(code, content.decode("utf-8", "replace"), error.decode(), content)


def run_alone(*given: object) -> Done:
    """The same as a program, on a machine without a display."""
    held = {name: value for name, value in os.environ.items() if name not in ("DISPLAY", "QT_QPA_PLATFORM")}
    done = subprocess.run(
        [sys.executable, "-m", "kavlet.cli", *map(str, given)], capture_output=True, env=held, check=False
    )
    return Done(done.returncode, done.stdout.decode("utf-8", "replace"), done.stderr.decode(), done.stdout)
