"""Writes the told pictures of `tests/pictures` anew, after a change of looks that was wanted and looked at.

    tools/pictures.py

Prints which charts differ from before; `git diff tests/pictures` shows where.
"""

import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.picturing import FOLDER, cases, held, told


def main() -> None:
    """Tell all pictures and write them."""
    before, files = held(), dict[str, list[str]]()
    for file, name, make in cases():
        lines = told(make())
        files.setdefault(file, []).append("\n".join([f"# {name}", *lines]))
        if before.get((file, name)) != lines:
            print(f"{file}: {name}")
    FOLDER.mkdir(exist_ok=True)
    for old in FOLDER.glob("*.txt"):
        old.unlink()
    for file, told_ in files.items():
        (FOLDER / f"{file}.txt").write_text("\n\n".join(told_) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
