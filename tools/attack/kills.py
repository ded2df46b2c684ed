"""A real window killed at random moments of editing and saving: at most two seconds are lost, its file is whole.

Each window types the numbers 1, 2, 3 … into one cell and saves now and then; it writes down what it is about to do and
when. After the kill, what its file and its journal hold is compared with that.
"""

import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from kavlet.core.document.document import Document
from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.values.errors import KavletError

ALLOWED = 2.0  # seconds that may be lost
AT_ONCE = 2
SCRIPT = """
import sys, time
from pathlib import Path
from PySide6.QtCore import QTimer
from kavlet.core.document import edits
from kavlet.core.messages import say
from kavlet.desktop import main
real, file, log = main.open_window, Path(sys.argv[1]), open(sys.argv[2], "a", buffering=1)
def opened(*given):
    window = real(file)
    number = [0]
    def one():
        if window.store.path != file:
            return
        number[0] += 1
        table = window.store.document.tables[0].id
        window.store.edit(say("type"), lambda d: edits.set_cells(d, table, {(1, 2): float(number[0])}))
        log.write(f"{time.time()} typed {number[0]}\\n")
        if number[0] % 9 == 0:
            log.write(f"{time.time()} saves {number[0]}\\n")
            window.files.save()
    timer = QTimer(window)
    timer.timeout.connect(one)
    timer.start(15)
    return window
main.open_window = opened
main.run()
"""


def _number(document: Document) -> int:
    held = document.tables[0].columns[1].cells[2]
    return int(held) if isinstance(held, float) else -1


def _killed(start: Path, after: float, folder: Path) -> str:
    """Kill one window some seconds after its first edit; what did not hold, empty where all did."""
    file, log, state = folder / "work.kavlet", folder / "log", folder / "state"
    file.write_bytes(start.read_bytes())
    log.touch()
    homes = {name: str(state) for name in ("XDG_STATE_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME")}
    made = subprocess.Popen([sys.executable, "-c", SCRIPT, str(file), str(log)], env={**os.environ, **homes},
                            stderr=subprocess.DEVNULL)  # fmt: skip
    began = time.time()
    while not log.stat().st_size and time.time() - began < 60:
        time.sleep(0.02)
    time.sleep(after)
    killed = time.time()
    made.send_signal(signal.SIGKILL)
    made.wait()
    lines = [line.split() for line in log.read_text().splitlines() if line.count(" ") == 2]
    due = max((int(n) for at, what, n in lines if what == "typed" and float(at) < killed - ALLOWED), default=0)
    saves = {int(n) for _, what, n in lines if what == "saves"}
    try:
        saved = _number(kavlet_file.load(file))
    except KavletError as error:
        return f"after {after:.3f} s the file is broken: {error}"
    first = _number(kavlet_file.load(start))
    if saved != first and saved not in saves:
        return f"after {after:.3f} s the file holds {saved}, which was not saved"
    kept = [one for one in (journal.read(path) for path in state.rglob(f"*{journal.SUFFIX}")) if one is not None]
    found = max([saved if saved in saves else 0, *(_number(one.document) for one in kept)])
    return "" if found >= due else f"after {after:.3f} s {found} is kept, {due} was typed two seconds before"


def attack(count: int, seed: int) -> list[str]:
    """Kill that many windows; what did not hold, a line each."""
    chance = random.Random(seed)
    start = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
    with tempfile.TemporaryDirectory() as home, ThreadPoolExecutor(AT_ONCE) as pool:

        def one(number: int, after: float) -> str:
            folder = Path(home) / str(number)
            folder.mkdir()
            return _killed(start, after, folder)

        return [said for said in pool.map(one, range(count), [chance.uniform(0.0, 3.5) for _ in range(count)]) if said]
