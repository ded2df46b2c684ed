"""How well the tests hold the code: breaks one line at a time in a copy of the sources, and counts what is noticed.

    tools/mutants.py 40 src/kavlet/core/touch/drags.py:tests/core/touch,tests/desktop/stage …

breaks each file at up to so many places, chosen evenly, and runs its tests against each break. Prints the share that
was noticed, and the breaks that were not.
"""

import ast
import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path

ROOT = Path(__file__).parent.parent
COMPARES: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip
SUMS: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult,
}  # fmt: skip


def breaks(tree: ast.AST) -> Iterator[tuple[int, str]]:
    """Breaks a tree in place, one after the other; each is mended before the next. Gives line and what was done."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare) and type(node.ops[0]) in COMPARES:
            held = node.ops[0]
            node.ops[0] = COMPARES[type(held)]()
            yield node.lineno, f"{type(held).__name__} → {type(node.ops[0]).__name__}"
            node.ops[0] = held
        elif isinstance(node, ast.BinOp) and type(node.op) in SUMS:
            kept = node.op
            node.op = SUMS[type(kept)]()
            yield node.lineno, f"{type(kept).__name__} → {type(node.op).__name__}"
            node.op = kept
        elif isinstance(node, ast.BoolOp):
            both = node.op
            node.op = ast.Or() if isinstance(both, ast.And) else ast.And()
            yield node.lineno, "and ↔ or"
            node.op = both
        elif isinstance(node, ast.If | ast.IfExp) and not _of_types(node.test):
            test = node.test
            node.test = ast.copy_location(ast.UnaryOp(ast.Not(), test), test)
            ast.fix_missing_locations(node)
            yield node.lineno, "not"
            node.test = test
        elif isinstance(node, ast.Constant) and type(node.value) in (int, float) and node.value in (0, 1, 2, 100):
            value = node.value
            node.value = value + 1
            yield node.lineno, f"{value} → {node.value}"
            node.value = value


def _of_types(test: ast.expr) -> bool:
    """Whether a condition only concerns the checker of types, and so nothing that runs."""
    return isinstance(test, ast.Name) and test.id == "TYPE_CHECKING"


def noticed(file: Path, tests: list[str], text: str) -> bool:
    """Whether the tests fail with this text in the place of a file, in a copy of the project."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder)
        shutil.copytree(ROOT / "src", copy / "src", ignore=shutil.ignore_patterns("__pycache__"))
        for name in ("tests", "docs", "pyproject.toml", "tools"):
            (copy / name).symlink_to(ROOT / name)
        (copy / file).write_text(text, "utf-8")
        environment = {**os.environ, "PYTHONPATH": str(copy / "src"), "QT_QPA_PLATFORM": "offscreen",
                       "PYTHONDONTWRITEBYTECODE": "1"}  # fmt: skip
        plain = ["-p", "no:pytest-qt"] if "KAVLET_NO_QT" in os.environ else []  # quicker, for tests of the core
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-n", "0", "-p", "no:cacheprovider", *plain, *tests]
        try:
            ran = subprocess.run(command, cwd=copy, env=environment, capture_output=True, timeout=240, check=False)
        except subprocess.TimeoutExpired:
            return True
        return ran.returncode != 0


def main() -> None:
    """Break the files named on the command line."""
    most, killed, all_of_them = int(sys.argv[1]), 0, 0
    for wanted in sys.argv[2:]:
        name, _, tests = wanted.partition(":")
        file = Path(name)
        source = (ROOT / file).read_text("utf-8")
        tree = ast.parse(source)
        if noticed(file, tests.split(","), source):
            sys.exit(f"{tests} does not pass with {file} as it is")
        made = [(line, what, ast.unparse(tree)) for line, what in breaks(tree)]
        chosen = made[:: max(1, len(made) // most)][:most]
        with ThreadPoolExecutor(os.cpu_count()) as pool:
            found = list(pool.map(partial(noticed, file, tests.split(",")), [text for _, _, text in chosen]))
        killed, all_of_them = killed + sum(found), all_of_them + len(found)
        print(f"{file}: {sum(found)} of {len(found)} noticed")
        for (line, what, _), seen in zip(chosen, found, strict=True):
            if not seen:
                print(f"  line {line}: {what}")
    print(f"{killed} of {all_of_them} noticed: {killed / max(1, all_of_them):.0%}")


if __name__ == "__main__":
    main()
