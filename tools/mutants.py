"""How well the tests hold the code: breaks one line at a time in a copy of the sources, and counts what is noticed.

    tools/mutants.py 40 src/kavlet/core/interaction/drags.py:tests/core/interaction,tests/desktop/stage …

breaks each file at up to so many places, chosen evenly, and runs against each break those of its tests that reach the
broken line, the most particular first. Prints the share that was noticed, and the breaks that were not. What reaches
what is found by one run of all the tests; `--reach FOLDER` keeps it, and takes it from there the next time.
"""

import argparse
import ast
import os
import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import coverage

ROOT = Path(__file__).parent.parent
OFFSCREEN = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}
PLAIN = ["-p", "no:pytest-qt"] if "KAVLET_NO_QT" in os.environ else []  # quicker, for tests of the core
CHOSEN = """
from pathlib import Path

def pytest_collection_modifyitems(items):
    order = {name: at for at, name in enumerate(Path("chosen.txt").read_text("utf-8").splitlines())}
    items[:] = sorted((one for one in items if one.nodeid.partition("[")[0] in order),
                      key=lambda one: order[one.nodeid.partition("[")[0]])
"""  # what a plugin says, so that only these tests run, in this order
PICTURES = "tests/core/pipeline/test_pictures.py"
LONGEST = 600  # seconds after which tests count as failing
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
        (copy / "chosen_tests.py").write_text(CHOSEN, "utf-8")
        (copy / "chosen.txt").write_text("\n".join(tests), "utf-8")
        environment = {**OFFSCREEN, "PYTHONPATH": f"{copy / 'src'}{os.pathsep}{copy}"}
        files = dict.fromkeys(one.partition("::")[0] for one in tests)
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-n", "0", "-p", "chosen_tests", *PLAIN, *files]
        try:
            ran = subprocess.run(command, cwd=copy, env=environment, capture_output=True, timeout=LONGEST, check=False)
        except subprocess.TimeoutExpired:
            return True
        return ran.returncode != 0


def run_reached(tests: str, data: Path) -> None:
    """Run tests, and note in a data file of coverage which of them reach which lines."""
    rules = data.with_suffix(".rc")
    rules.write_text(f"[run]\ndynamic_context = test_function\nsource = {ROOT / 'src'}\ndata_file = {data}\n", "utf-8")
    run = ["-m", "coverage", "run", f"--rcfile={rules}", "-m", "pytest", "-q", "-n", "0", *PLAIN, tests]
    ran = subprocess.run([sys.executable, *run], cwd=ROOT, env=OFFSCREEN, capture_output=True, check=False)
    if ran.returncode:
        sys.exit(f"{tests} does not pass")


def reach(folder: Path, tests: set[str]) -> dict[str, dict[int, list[str]]]:
    """By file and line, the tests that reach it: those that reach the fewest lines first."""
    files = {one: folder / f"{one.replace('/', '-')}.data" for one in sorted(tests)}
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        list(pool.map(lambda one: run_reached(*one), [one for one in files.items() if not one[1].exists()]))
    found: dict[str, dict[int, list[str]]] = {}
    weights: Counter[str] = Counter()
    for data in map(coverage.CoverageData, map(str, files.values())):
        data.read()
        for file in data.measured_files():
            lines = found.setdefault(str(Path(file).relative_to(ROOT)), {})
            for line, contexts in data.contexts_by_lineno(file).items():
                own = [one for one in contexts if one.startswith("tests.")]  # and not what runs tests of random cases
                lines.setdefault(line, []).extend(own)
                weights.update(own)
    return {
        file: {line: sorted(set(held), key=weights.__getitem__) for line, held in lines.items()}
        for file, lines in found.items()
    }


def of_line(tree: ast.AST, lines: dict[int, list[str]], line: int) -> list[str]:
    """The tests that reach a line, or the statement that it is a part of; all of the file where it is only reached as
    the file is read."""
    if lines.get(line):
        return lines[line]
    parts = [one for one in ast.walk(tree) if isinstance(one, ast.stmt) and one.lineno <= line <= (one.end_lineno or 0)]
    innermost = max(parts, key=lambda one: one.lineno)
    held = {test for near in range(innermost.lineno, line) for test in lines.get(near, [])}
    inside = any(isinstance(one, ast.FunctionDef) and one.lineno < line for one in parts)
    every = list(dict.fromkeys(test for tests in lines.values() for test in tests))
    return [one for one in every if one in held] if held or inside else every


def node(context: str) -> str:
    """A test as pytest names it, from its name as coverage has it."""
    parts = context.split(".")
    (deep, *_) = (n for n in range(len(parts), 0, -1) if (ROOT / "/".join(parts[:n])).with_suffix(".py").exists())
    return "::".join(["/".join(parts[:deep]) + ".py", *parts[deep:]])


def most_particular(tests: list[str], most: int) -> list[str]:
    """The first tests, and those that look at whole pictures."""
    return [one for at, one in enumerate(tests) if at < most or one.startswith(PICTURES)]


def main() -> None:
    """Break the files named on the command line."""
    reader = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    reader.add_argument("most", type=int, help="breaks of each file at most")
    reader.add_argument("files", nargs="+", help="FILE:TESTS,TESTS")
    reader.add_argument(
        "--tests", type=int, default=10_000, help="tests against each break at most: quicker, and harder"
    )
    reader.add_argument("--reach", type=Path, help="folder in which it is kept which tests reach which lines")
    asked = reader.parse_args()
    wanted = {name: tests.split(",") for name, _, tests in (one.partition(":") for one in asked.files)}
    with tempfile.TemporaryDirectory() as folder:
        kept = asked.reach or Path(folder)
        kept.mkdir(parents=True, exist_ok=True)
        reached = reach(kept, {one for tests in wanted.values() for one in tests})
    killed = all_of_them = 0
    for name in wanted:
        file = Path(name)
        tree = ast.parse((ROOT / file).read_text("utf-8"))
        made = [(line, what, ast.unparse(tree)) for line, what in breaks(tree)]
        lines, step = reached.get(name, {}), max(1, len(made) // asked.most)
        chosen = [
            (line, what, most_particular(list(dict.fromkeys(map(node, of_line(tree, lines, line)))), asked.tests), text)
            for line, what, text in made[step // 2 :: step][: asked.most]
        ]

        def seen(one: tuple[int, str, list[str], str], file: Path = file) -> bool:
            return bool(one[2]) and noticed(file, one[2], one[3])

        with ThreadPoolExecutor(os.cpu_count()) as pool:
            found = list(pool.map(seen, chosen))
        killed, all_of_them = killed + sum(found), all_of_them + len(found)
        print(f"{file}: {sum(found)} of {len(found)} noticed")
        for (line, what, held, _), was in zip(chosen, found, strict=True):
            if not was:
                print(f"  line {line}: {what}" + ("" if held else ", which no test reaches"), flush=True)
    print(f"{killed} of {all_of_them} noticed: {killed / max(1, all_of_them):.0%}")


if __name__ == "__main__":
    main()
