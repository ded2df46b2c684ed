"""How clean the type of all recipes is: charts of many tables and sizes, looked over by a reader's rules.

    tools/typeset.py [--only RECIPE] [--show RULE] [--to FOLDER]

prints the share of charts without a fault, and how often each rule of `tests/typesetting.py` is broken, by recipe and
by kind of table. With --show, the charts that break a rule; with --to, these are written as SVG.
"""

import argparse
import sys
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.typeset_cases import Case, cases, drawn, names
from tests.typesetting import faults

from kavlet.core.files import svg


def looked_at(case: Case, to: Path | None = None) -> Counter[str] | None:
    """The chart's faults; None where there is none. Written to a folder where one is named."""
    made = drawn(case)
    if made is None:
        return None
    if to is not None:
        (to / f"{case.name}.svg").write_text(svg.dumps(made.scene), "utf-8")
    return faults(made, names(case))


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--only", default="")
    asked.add_argument("--show", default="")
    asked.add_argument("--to", type=Path)
    wish = asked.parse_args()
    if wish.to is not None:
        wish.to.mkdir(parents=True, exist_ok=True)
    todo = list(cases(wish.only))
    with ProcessPoolExecutor() as pool:
        done = list(pool.map(looked_at, todo, chunksize=8))
    looked = [(case, found) for case, found in zip(todo, done, strict=True) if found is not None]
    clean = sum(not found for _, found in looked)
    print(f"{clean} of {len(looked)} charts are clean: {clean / max(1, len(looked)):.1%}")
    for head, key in (("recipe", "recipe"), ("kind", "kind"), ("size", "size"), ("rows", "rows")):
        groups: dict[object, list[Counter[str]]] = {}
        for case, found in looked:
            groups.setdefault(getattr(case, key), []).append(found)
        print(f"\nby {head}")
        for group, held in groups.items():
            rules = Counter(rule for found in held for rule in found)
            said = ", ".join(f"{rule} {count}" for rule, count in rules.most_common())
            print(f"  {group!s:16} {sum(not found for found in held):4} of {len(held):4}  {said}")
    print("\nall", dict(Counter(rule for _, found in looked for rule in found).most_common()))
    for case, found in looked:
        if found and (wish.show in found or wish.show == "all"):
            print(case.name, dict(found))
            if wish.to is not None:
                looked_at(case, wish.to)


if __name__ == "__main__":
    main()
