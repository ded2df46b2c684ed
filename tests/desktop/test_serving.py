"""The window is served while it works: in no step of the main jobs does its event loop wait for 200 ms."""

import gc
import random
import sys
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QEventLoop, Qt, QTimer

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.desktop.background_edit import PATIENCE
from kavlet.desktop.main import TURNS, Window

MOST = 0.2  # seconds, on a machine of which one thread counts to COUNTED in COUNTS_IN; longer on a slower one
COUNTED, COUNTS_IN = 200_000, 0.011  # as measured on a processor of 2.5 GHz with nothing beside it
STOOD = 1.0  # seconds that it may stand still where it is not the program that works, but another beside it
WHILE, LONG = 1.0, 30.0  # seconds that a step is watched at most: once what it does is done, and until then
ROUNDS = 3  # another program may take the processor: only what is late each time is late
pytestmark = pytest.mark.at_rest


def slowness() -> float:
    """How many times longer than assumed the machine takes just now, at least 1: it may be shared with others."""
    began, counted = time.thread_time(), 0
    for one in range(COUNTED):
        counted += one
    return max(1.0, (time.thread_time() - began) / COUNTS_IN)


class Watch:
    """Hears its own clock tick in the event loop, and what the window's thread did where it did not tick."""

    def __init__(self) -> None:
        self.longest, self.what = 0.0, ""
        self._last, self._worked = time.perf_counter(), time.process_time()
        self._seen: list[tuple[float, str]] = []
        self._timer = QTimer()
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self._tick)
        self._timer.start(5)
        self._window_thread, self._ends = threading.get_ident(), threading.Event()
        threading.Thread(target=self._look, daemon=True).start()

    def _tick(self) -> None:
        now, worked = time.perf_counter(), time.process_time()
        waited = now - self._last
        late = waited if waited > STOOD else min(waited, worked - self._worked)
        if late > self.longest:
            self.longest = late
            during = Counter(what for at, what in self._seen if at > self._last)
            self.what = "; ".join(f"{count} × {what}" for what, count in during.most_common(4))
        self._last, self._worked, self._seen = now, worked, []

    def _look(self) -> None:
        while not self._ends.wait(0.01):
            frame: Any = sys._current_frames().get(self._window_thread)
            names = []
            while frame is not None and len(names) < 5:
                if "kavlet" in frame.f_code.co_filename:
                    names.append(f"{Path(frame.f_code.co_filename).stem}.{frame.f_code.co_name}")
                frame = frame.f_back
            self._seen.append((time.perf_counter(), " < ".join(names)))

    def done(self) -> float:
        """The longest time without a tick, in seconds."""
        self._timer.stop()
        self._timer.timeout.disconnect()  # no circle is left for another thread to collect
        self._ends.set()
        return self.longest


@pytest.fixture
def in_use(window: Window) -> Iterator[Window]:
    """The window as an author has it: what takes long is not waited for."""
    before = sys.getswitchinterval()
    sys.setswitchinterval(TURNS)
    window.worker.patience = window.store.attended.patience = PATIENCE
    window.store.history.saved()
    gc.disable()  # which the application does when it starts, and looks for garbage at rest
    gc.freeze()
    yield window
    gc.enable()
    sys.setswitchinterval(before)


def table_of(rows: int, folder: Path) -> Path:
    chance = random.Random(7)
    path = folder / f"gates {rows}.csv"
    lines = [
        f"Gate {i},{chance.random() * 90:.1f},{chance.random() * 80:.1f},{chance.randint(1, 99)}" for i in range(rows)
    ]
    path.write_text("gate,spring,summer,autumn\n" + "\n".join(lines) + "\n", "utf-8")
    return path


def watched(window: Window, do: Callable[[], object], settled: Callable[[], bool]) -> Watch:
    """Do something in the event loop, and watch until all that follows from it is done, or for a while."""
    watch, loop, began = Watch(), QEventLoop(), time.perf_counter()
    quiet, calm = QTimer(), [0]

    def look() -> None:
        busy = window.worker.working or window.store.attended.working or not settled()
        calm[0] = 0 if busy else calm[0] + 1
        if calm[0] > 3 or time.perf_counter() - began > (WHILE if settled() else LONG):
            loop.quit()

    quiet.timeout.connect(look)
    QTimer.singleShot(0, do)
    quiet.start(20)
    loop.exec()
    quiet.stop()
    quiet.timeout.disconnect()
    watch.done()
    assert settled()
    return watch


class Jobs:
    """The main jobs, each as steps that are watched."""

    def __init__(self, window: Window, path: Path, rows: int) -> None:
        self._window, self._store, self._path, self._rows = window, window.store, path, rows
        self.late: dict[str, str] = {}

    def _step(self, name: str, do: Callable[[], object], settled: Callable[[], bool] = lambda: True) -> None:
        before = slowness()
        found = watched(self._window, do, settled)
        if found.longest > MOST * max(before, slowness()):
            self.late[name] = f"{found.longest * 1000:.0f} ms: {found.what}"

    def _edit(self, name: str, change: Callable[[Document, str], Document]) -> None:
        store = self._store
        self._step(name, lambda: store.edit(say("x"), lambda document: change(document, store.table.id)))

    def do(self) -> None:
        """All of them, one after the other."""
        window, store, rows = self._window, self._store, self._rows
        self.late = {}
        store.history.saved()
        store.name = ""
        self._step("open a table", lambda: window.files.open_path(self._path), lambda: store.name == self._path.stem)
        self._step("close the wall", window.places.show_stage)
        number = random.Random(len(store.name)).uniform(1, 9)
        self._edit("type a figure", lambda d, table: edits.set_cells(d, table, {(1, rows // 2): number}))
        self._edit("insert a row", lambda d, table: edits.insert_rows(d, table, rows // 2))
        self._step("undo", store.undo)
        self._step("open the wall", window.places.show_wall)
        self._step("choose a recipe", lambda: window.wall.chosen.emit("highlight-bars"))
        self._step("send it to a page", window.actions_by_name["send_to_page"].trigger)
        self._step("show the pages", window.places.show_pages)
        self._edit("type a figure, pages in view", lambda d, table: edits.set_cells(d, table, {(1, 2): number}))
        self._step("undo, pages in view", store.undo)
        self._step("back to the table", window.places.show_stage)


@pytest.mark.parametrize("rows", [8, 500, 5000])
def test_no_step_of_the_main_jobs_keeps_the_window_waiting(rows: int, in_use: Window, tmp_path: Path) -> None:
    watched(in_use, lambda: None, lambda: True)  # the window has come up
    jobs = Jobs(in_use, table_of(rows, tmp_path), rows)
    late: dict[str, str] = {}
    for turn in range(ROUNDS):
        jobs.do()
        late = {name: said for name, said in jobs.late.items() if not turn or name in late}
        if not late:
            return
    assert late == {}
