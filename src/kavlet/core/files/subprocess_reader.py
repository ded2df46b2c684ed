"""A library that may end its whole process runs in another one: what it reads comes back, or one sentence does.

The library behind workbooks is compiled, and what it can't do with a rotten file ends the process it runs in, which no
handler here could catch. So it has a process of its own, begun when the first workbook is read, ended with this one,
and begun anew after it broke. Both speak in messages of msgpack behind their length.
"""

import atexit
import io
import subprocess
import sys
import threading
from collections.abc import Callable
from datetime import date, datetime, time, timedelta
from typing import IO, Any

import msgspec

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MAX_MEMORY = 2_000_000_000  # bytes of address space, where the system can limit it
MAX_SECONDS = 60.0
_LENGTH = 8  # bytes before each message
_KINDS: tuple[tuple[type, Callable[[Any], str], Callable[[str], object]], ...] = (
    (datetime, datetime.isoformat, datetime.fromisoformat),
    (date, date.isoformat, date.fromisoformat),
    (time, time.isoformat, time.fromisoformat),
    (timedelta, lambda held: repr(held.total_seconds()), lambda text: timedelta(seconds=float(text))),
)


class _Process:
    """The other process: one request at a time."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._running: subprocess.Popen[bytes] | None = None

    def ask(self, what: str, content: bytes, name: str) -> Any:
        """What it answers. Raises KavletError where it says that it can't, breaks, or takes too long."""
        with self._lock:
            running = self._begun()
            assert running.stdin is not None
            assert running.stdout is not None
            late = threading.Timer(MAX_SECONDS, running.kill)
            late.start()
            try:
                _put(running.stdin, [what, content])
                answer = _take(running.stdout)
            except (OSError, EOFError, msgspec.DecodeError):
                answer = None
                self.end()
            finally:
                late.cancel()
        if answer is None or answer[0] != "is":
            raise KavletError(say("{file} is no workbook, or it is damaged.", file=name))
        return answer[1]

    def _begun(self) -> "subprocess.Popen[bytes]":
        if self._running is None or self._running.poll() is not None:
            self.end()
            self._running = subprocess.Popen(
                [sys.executable, "-m", "kavlet.core.files.subprocess_reader"],
                stdin=subprocess.PIPE, stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
            )  # fmt: skip
        return self._running

    def end(self) -> None:
        """End the process, if there is one."""
        running, self._running = self._running, None
        if running is not None:
            running.kill()
            running.communicate()


_PROCESS = _Process()
atexit.register(_PROCESS.end)


def names(content: bytes, name: str) -> list[str]:
    """The names of a workbook's sheets. Raises KavletError for what is no workbook."""
    return list(_PROCESS.ask("names", content, name))


def values(content: bytes, title: str, name: str) -> list[list[object]]:
    """The values of a sheet, from its top left cell on. Its area must have been measured. Raises KavletError for what
    is no workbook."""
    return list(_PROCESS.ask(f"={title}", content, name))


def _put(to: IO[bytes], message: object) -> None:
    held = msgspec.msgpack.encode(message)
    to.write(len(held).to_bytes(_LENGTH, "big"))
    to.write(held)
    to.flush()


def _take(of: IO[bytes]) -> Any:
    length = of.read(_LENGTH)
    if len(length) < _LENGTH:
        raise EOFError
    return msgspec.msgpack.decode(of.read(int.from_bytes(length, "big")), ext_hook=_untold)


def _told(value: object) -> object:
    """A value as a message can hold it, with its kind."""
    for code, (kind, tell, _) in enumerate(_KINDS):
        if type(value) is kind:
            return msgspec.msgpack.Ext(code, tell(value).encode())
    return value


def _untold(code: int, held: memoryview) -> object:
    return _KINDS[code][2](bytes(held).decode())


def _answered(what: str, content: bytes) -> list[object]:
    """Names of sheets, or the values of one whose name stands behind an equals sign."""
    from python_calamine import CalamineWorkbook

    book = CalamineWorkbook.from_filelike(io.BytesIO(content))
    if what == "names":
        return list(book.sheet_names)
    rows = book.get_sheet_by_name(what[1:]).to_python(skip_empty_area=False)
    return [[_told(value) for value in row] for row in rows]


def main() -> None:
    """Answer until nobody asks any more."""
    try:
        import resource

        resource.setrlimit(resource.RLIMIT_AS, (MAX_MEMORY, MAX_MEMORY))
        resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    except (ImportError, ValueError, OSError):
        pass  # where the system knows no limits
    while True:
        try:
            what, content = _take(sys.stdin.buffer)
        except EOFError:
            return
        answer: tuple[str, object]
        try:
            answer = ("is", _answered(what, content))
        except (KeyboardInterrupt, SystemExit):
            raise
        except BaseException:  # what the library raises where it panics is no ordinary exception
            answer = ("no", None)
        _put(sys.stdout.buffer, answer)


if __name__ == "__main__":
    main()
