"""Rotten files for every reader. Says what did not hold, and how long it took.

Files are real ones that were cut, overwritten, doubled and spliced, and texts made by a small grammar of what formats
expect. One rule: a wrong file gives one sentence (a KavletError) within two seconds and under 300 MB.
"""

import io
import random
import resource
import tempfile
import time
import traceback
import zipfile
from collections import Counter
from collections.abc import Callable
from pathlib import Path

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import journal, palette, tables
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import pictures as picture_files
from kavlet.core.files.formats import table_content
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from tools.attack import grammar

DEMO = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
MAX_SECONDS, MAX_BYTES = 2.0, 300_000_000
PIECES = (
    b"\x00", b"\xff\xfe", b"PK\x03\x04", b"<!DOCTYPE x [<!ENTITY a 'b'>]>", b"9" * 400, b"[" * 3000, b'{"', b"\n=1+",
    b'"', b"<svg>", b"1e999", b"NaN", b"\xf0\x9f\x98\x80", b"../", b'text:c="1000000000"',
    b"ZZZZZZZ9999999",
)  # fmt: skip


def seeds(folder: Path) -> dict[str, bytes]:
    """One sound file of each kind."""
    document = kavlet_file.load(DEMO)
    values = recalculate(document.tables)
    held = [(table, values) for table in document.tables[:3]]
    found = {ending: table_content(held, ending) for ending in (".csv", ".xlsx", ".ods", ".json")}
    found[".kavlet"] = DEMO.read_bytes()
    found[".gpl"] = b"GIMP Palette\nName: x\n#\n 10 20 30\tone\n200 100 0\ttwo\n"
    found[".svg"] = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><path d="M0 0L10 0L5 9Z"/></svg>'
    kept = journal.Journal(None, "x", folder)
    changed, _ = edits.add_table(Document(), "T", [["a"], [1.0]])
    from kavlet.core.document.history import History
    from kavlet.core.messages import say

    history = History(document)
    history.apply(say("edit"), changed)
    kept.follow(history.steps, history.place, None, None)
    kept.close(keep=True)
    found[journal.SUFFIX] = kept.file.read_bytes()
    return found


def rotten(content: bytes, chance: random.Random) -> bytes:
    """A sound file with something wrong."""
    made = bytearray(content)
    for _ in range(chance.choice((1, 1, 2, 5, 20))):
        at = chance.randrange(len(made) + 1)
        match chance.randrange(7):
            case 0:
                del made[at:]
            case 1:
                del made[at : at + chance.choice((1, 10, 1000))]
            case 2:
                made[at : at + 1] = bytes([chance.randrange(256)])
            case 3:
                made[at:at] = chance.choice(PIECES)
            case 4:
                made[at:at] = made[: chance.randrange(len(made) + 1)]
            case 5:
                other = chance.randrange(len(made) + 1)
                made[at:] = made[other:]
            case 6:
                made[at : at + 4] = chance.randrange(1 << 32).to_bytes(4, "little")
    return bytes(made[:3_000_000])


READERS: dict[str, Callable[[Path], object]] = {
    ".csv": tables.read, ".xlsx": tables.read, ".ods": tables.read, ".json": tables.read, ".kavlet": kavlet_file.load,
    ".gpl": palette.load, ".svg": picture_files.load, journal.SUFFIX: journal.read,
}  # fmt: skip


def grown(sound: dict[str, bytes], ending: str, chance: random.Random) -> bytes:
    """A file by its format's own grammar: well formed as a rule, and filled with what nobody writes."""
    text = grammar.text_of(ending, chance)
    if ending not in grammar.INSIDE:
        return text
    inside = grammar.INSIDE[ending]
    made = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(sound[ending])) as old, zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as new:
        names = old.namelist()
        first = next(name for name in names if name.startswith(inside))
        for name in names:
            new.writestr(name, text if name == first else old.read(name))
    return made.getvalue()


def _highest() -> int:
    """The most memory there has been, in bytes."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024


def attack(count: int, seed: int) -> list[str]:
    """Attack every reader with that many files; what did not hold, a line each, and at last what it took."""
    chance = random.Random(seed)
    wrong: Counter[str] = Counter()
    slowest, before = 0.0, _highest()
    with tempfile.TemporaryDirectory() as folder:
        sound = seeds(Path(folder))
        for number in range(count):
            ending = chance.choice(list(sound))
            grows = ending in grammar.RULES and chance.random() < 0.4
            content = grown(sound, ending, chance) if grows else rotten(sound[ending], chance)
            path = Path(folder) / f"rotten{ending}"
            path.write_bytes(content)
            start = time.perf_counter()
            try:
                READERS[ending](path)
            except KavletError:
                pass
            except BaseException as error:
                where = traceback.extract_tb(error.__traceback__)[-1]
                wrong[f"{ending}: {type(error).__name__} at {where.filename.rpartition('/')[2]}:{where.lineno}"] += 1
            taken = time.perf_counter() - start
            slowest = max(slowest, taken)
            if taken > MAX_SECONDS:
                wrong[f"{ending}: {taken:.1f} s, file {number}"] += 1
    memory = _highest() - before
    if memory > MAX_BYTES:
        wrong[f"{memory / 1e6:.0f} MB"] += 1
    print(f"{count} files; the slowest took {slowest:.2f} s; {memory / 1e6:.0f} MB more than at the start")
    return [f"{times} × {what}" for what, times in wrong.most_common()]
