"""A fault at every system call of a save and of a journal write: the old content or the new, never a part.

The calls are refused one after the other by strace, which must be there. After each, the file is one of both documents,
no other file is left beside it but what the next save clears, and the error, where there is one, is a sentence.
"""

import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from pathlib import Path

from kavlet.core.files import journal
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.values.errors import KavletError

CALLS = (
    "openat",
    "write",
    "fsync",
    "rename",
    "chmod",
    "fchmodat",
    "unlink",
    "close",
    "ftruncate",
    "pwrite64",
    "lseek",
    "mkdir",
    "flock",
    "fcntl",
    "newfstatat",
    "chown",
    "fchownat",
)
FAULTS = ("ENOSPC", "EIO")
MAX_OF_ONE = 60  # times that one call is refused
SAVE = """
import os, sys, msgspec
from pathlib import Path
from kavlet.core.files import kavlet
from kavlet.core.values.errors import KavletError
path = Path(sys.argv[1])
document = msgspec.structs.replace(kavlet.load(path), locale="de-DE")
os.path.exists("/KAVLET-BEGINS")
try:
    kavlet.save(document, path)
except KavletError as error:
    print("said", error)
    sys.exit(3)
os._exit(0)
"""
KEEP = """
import os, sys, msgspec
from pathlib import Path
from kavlet.core.document.history import History
from kavlet.core.files import journal, kavlet
from kavlet.core.messages import say
home = Path(sys.argv[2])
document = kavlet.load(Path(sys.argv[1]))
history = History(document)
kept = journal.Journal(None, "x", home)
history.apply(say("one"), msgspec.structs.replace(document, locale="de-DE"))
kept.follow(history.steps, history.place, None, None)
os.path.exists("/KAVLET-BEGINS")
history.apply(say("two"), msgspec.structs.replace(document, locale="fr-FR"))
try:
    kept.follow(history.steps, history.place, None, None)
except OSError as error:
    history.apply(say("three"), msgspec.structs.replace(document, locale="nl-NL"))
    kept.follow(history.steps, history.place, None, None)
    os._exit(3)
os._exit(0)
"""


def _traced(script: str, arguments: list[str], *inject: str) -> tuple[int, str]:
    """Run a script under strace; its exit code, and the calls it made from its mark on."""
    with tempfile.NamedTemporaryFile("r", suffix=".strace") as log:
        calls = f"trace={','.join(f'?{call}' for call in CALLS)},access,stat"
        command = [
            "strace",
            "-f",
            "-qq",
            "-o",
            log.name,
            "-e",
            calls,
            *inject,
            sys.executable,
            "-c",
            script,
            *arguments,
        ]
        made = subprocess.run(command, capture_output=True, text=True, timeout=120, check=False)
        if made.returncode not in (0, 3):
            return made.returncode, made.stderr[-300:]
        return made.returncode, log.read()


def _counted(script: str, arguments: list[str]) -> dict[str, tuple[int, int]]:
    """How often each call is made before the mark, and in all."""
    _, log = _traced(script, arguments)
    before: Counter[str] = Counter()
    total: Counter[str] = Counter()
    begun = False
    for line in log.splitlines():
        call = line.split("(", 1)[0].split()[-1]
        begun |= "KAVLET-BEGINS" in line
        total[call] += 1
        if not begun:
            before[call] += 1
    return {call: (before[call], total[call]) for call in CALLS if total[call] > before[call]}


def attack(count: int, seed: int) -> list[str]:
    """Refuse each call of both once by each fault; what did not hold, a line each."""
    del count, seed
    if shutil.which("strace") is None:
        return ["strace is not there"]
    wrong: list[str] = []
    done = 0
    demo = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
    with tempfile.TemporaryDirectory() as name:
        home = Path(name)
        file, state = home / "work.kavlet", home / "journals"
        state.mkdir()
        for what, script in (("save", SAVE), ("journal", KEEP)):
            file.write_bytes(demo.read_bytes())
            for call, (before, total) in _counted(script, [str(file), str(state)]).items():
                for place in range(before + 1, min(total, before + MAX_OF_ONE) + 1):
                    for fault in FAULTS:
                        file.write_bytes(demo.read_bytes())
                        for left in state.iterdir():
                            left.unlink()
                        code, said = _traced(
                            script, [str(file), str(state)], "-e", f"inject={call}:error={fault}:when={place}"
                        )
                        done += 1
                        problem = _after(what, code, said, file, state)
                        if problem:
                            wrong.append(f"{what}, {call} {place - before} of {total - before}, {fault}: {problem}")
    print(f"  {done} faults")
    return wrong


def _after(what: str, code: int, said: str, file: Path, state: Path) -> str:
    """What does not hold after a fault; empty where all does."""
    if code not in (0, 3):
        return f"ended with {code}: {said.strip().splitlines()[-1] if said.strip() else ''}"
    try:
        held = kavlet_file.load(file).locale
    except KavletError as error:
        return f"the file is broken: {error}"
    if what == "save" and (held != "de-DE" if code == 0 else held == ""):
        return f"said to be saved, and holds {held}"
    if what == "journal":
        kept = [one for one in (journal.read(path) for path in state.glob(f"*{journal.SUFFIX}")) if one is not None]
        held_by_it = max((one.document.locale for one in kept), default="")
        if code == 0 and held_by_it != "fr-FR":
            return f"said to be kept, and holds {held_by_it}"
        if code == 3 and held_by_it != "nl-NL":
            return f"the edit after it is lost: {held_by_it}"
    return ""
