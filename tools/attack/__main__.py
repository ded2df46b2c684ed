"""Attacks Kavlet from outside, seeded: `python -m tools.attack [WHAT] [COUNT] [SEED]`, all of it where nothing is said.

files   rotten files for every reader, by mutation and by grammar     (10,000)
kills   kill -9 at random moments of editing and saving               (500)
faults  a fault at every system call of a save and a journal write    (all; needs strace)
edits   random edits by all commands of the window                    (1,000)
names   hostile names through every way out                           (all)

Prints what did not hold, and ends with 1 where there was anything.
"""

import os
import sys
from importlib import import_module

MOST = {"files": 10_000, "kills": 500, "faults": 0, "edits": 1_000, "names": 0}


def main() -> None:
    """Attack, and say what did not hold."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    asked = sys.argv[1:2] or list(MOST)
    wrong = 0
    for what in asked:
        count = int(sys.argv[2]) if len(sys.argv) > 2 else MOST[what]
        seed = int(sys.argv[3]) if len(sys.argv) > 3 else 1
        print(f"{what}:", flush=True)
        found: list[str] = import_module(f"tools.attack.{what}").attack(count, seed)
        for line in found:
            print(f"  {line}")
        print(f"  {len(found)} did not hold", flush=True)
        wrong += len(found)
    sys.exit(bool(wrong))


if __name__ == "__main__":
    main()
