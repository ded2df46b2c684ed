"""The shape of the code, where import contracts cannot say it, and a guard for the pinned Qt."""

import ast
import gc
import importlib
import pkgutil
import re
import sys
from functools import lru_cache
from graphlib import TopologicalSorter
from pathlib import Path

import pytest

import kavlet
import kavlet.core
from kavlet.core.charts.overrides import layer_types
from kavlet.core.layout.kinds import kinds
from kavlet.core.recipes.registry import RECIPES

SOURCE = Path(kavlet.__file__).parent


@lru_cache(maxsize=1)
def trees() -> dict[str, ast.Module]:
    """Every file of the program, as it is parsed."""
    return {str(file.relative_to(SOURCE)): ast.parse(file.read_text("utf-8")) for file in SOURCE.rglob("*.py")}


def imports(folder: str) -> set[str]:
    found: set[str] = set()
    for tree in (tree for file, tree in trees().items() if file.startswith(f"{folder}/")):
        for node in ast.walk(tree):
            if isinstance(node, ast.Import):
                found.update(alias.name for alias in node.names)
            elif isinstance(node, ast.ImportFrom) and node.module:
                found.add(node.module)
    return found


def test_painting_knows_no_widgets() -> None:
    assert "PySide6.QtGui" in imports("paint")
    assert "PySide6.QtWidgets" not in imports("paint")


@pytest.mark.parametrize("module", [one.name for one in pkgutil.walk_packages(kavlet.core.__path__, "kavlet.core.")])
def test_each_core_module_says_what_it_is(module: str) -> None:
    assert (importlib.import_module(module).__doc__ or "").strip()


def test_qt_keeps_its_references_to_none() -> None:
    """Some Qt bindings lose a reference to None in each call that returns nothing; the pinned ones must not."""
    from PySide6.QtCore import QObject

    one = QObject()
    gc.collect()
    before = sys.getrefcount(None)
    for _ in range(5_000):
        one.setObjectName("x")
    gc.collect()
    assert abs(sys.getrefcount(None) - before) < 1_000


def test_no_file_is_two_subjects_long() -> None:
    long = [file.name for file in SOURCE.rglob("*.py") if len(file.read_text(encoding="utf-8").splitlines()) > 450]
    assert long == []


LAYER_TYPES = {one.__name__ for one in layer_types()}
OF_KINDS = ("core/charts", "core/layout/marks", "core/office_model/layers")


def named_in(node: ast.AST) -> set[str]:
    return {one.id for one in ast.walk(node) if isinstance(one, ast.Name)} | {
        one.attr for one in ast.walk(node) if isinstance(one, ast.Attribute)
    }


def type_checks(tree: ast.AST) -> list[int]:
    """The lines that test what type something is, by a layer's type or its name as text."""
    return [node.lineno for node in ast.walk(tree) if isinstance(node, ast.expr | ast.pattern) and asks_type(node)]


def asks_type(node: ast.AST) -> bool:
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in ("isinstance", "issubclass"):
        return bool(named_in(node.args[1]) & LAYER_TYPES)
    if isinstance(node, ast.MatchClass):
        return bool(named_in(node.cls) & LAYER_TYPES)
    if not isinstance(node, ast.Compare):
        return False
    sides = [node.left, *node.comparators]
    texts = {one.value for side in sides for one in ast.walk(side) if isinstance(one, ast.Constant)}
    names = named_in(node)
    by_text = (
        bool(texts & LAYER_TYPES) or ("__name__" in names and "__main__" not in texts) or {"kind", "name"} <= names
    )
    return by_text or any(isinstance(side, ast.Name) and side.id in LAYER_TYPES for side in sides)


def test_only_kinds_know_layer_types() -> None:
    elsewhere = {file: tree for file, tree in trees().items() if not file.startswith(OF_KINDS)}
    assert {f"{file}:{line}" for file, tree in elsewhere.items() for line in type_checks(tree)} == set()


def test_a_name_of_a_type_has_one_meaning() -> None:
    """No two modules have public types of one name; but for the chart of those who use the package, which is theirs."""
    found: dict[str, list[str]] = {}
    for file, tree in trees().items():
        for node in tree.body:
            if isinstance(node, ast.ClassDef) and not node.name.startswith("_") and file != "interface.py":
                found.setdefault(node.name, []).append(file)
    assert len(found) > 400
    assert {name: files for name, files in found.items() if len(files) > 1} == {}


@pytest.mark.parametrize(
    "broken",
    [
        "isinstance(layer, Bars | Line)",
        "isinstance(layer, charts.Bars)",
        "type(layer) is Wedges",
        'type(layer).__name__ != "Flanks"',
        'mark.kind.name == "bar"',
        "match layer:\n    case Needle():\n        pass",
    ],
)
def test_the_check_of_layer_types_would_notice(broken: str) -> None:
    assert type_checks(ast.parse(broken)) == [2 if "match" in broken else 1]


def test_every_layer_type_has_its_kind_and_its_file() -> None:
    assert {kind.spec for kind in kinds()} == set(layer_types())
    for kind in kinds():
        file = Path(str(importlib.import_module(type(kind).__module__).__file__))
        assert file.parent.name == "marks"
        assert callable(importlib.import_module(f"kavlet.core.office_model.layers.{file.stem}").tell)
        assert file.stem == Path(str(importlib.import_module(kind.spec.__module__).__file__)).stem


def compared_recipes(tree: ast.AST) -> list[int]:
    """The lines that compare a recipe's name with one that is written out."""
    found = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare):
            sides = [node.left, *node.comparators]
            texts = {one.value for side in sides for one in ast.walk(side) if isinstance(one, ast.Constant)}
            if texts & set(RECIPES) and any("recipe" in name for name in named_in(node)):
                found.append(node.lineno)
    return found


def test_no_file_compares_the_name_of_a_recipe() -> None:
    assert {file: lines for file, tree in trees().items() if (lines := compared_recipes(tree))} == {}
    assert compared_recipes(ast.parse('chart.recipe == "funnel"')) == [1]
    assert compared_recipes(ast.parse('recipe in ("gauge", "pie")')) == [1]


def test_paths_of_looks_are_put_together_and_taken_apart_in_one_place() -> None:
    written = [
        f"{file}:{node.lineno}"
        for file, tree in trees().items()
        if Path(file).name not in ("looks.py", "overrides.py", "cli.py")
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
        and node.value.startswith(("layers.", ".rows"))
    ]  # fmt: skip
    assert written == []


def imported(file: str, tree: ast.Module, modules: set[str]) -> set[str]:
    """The modules of the program that a file imports, for the checker of types too."""
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.ImportFrom) and node.module:
            names = [f"{node.module}.{alias.name}" for alias in node.names]
            found |= {name if name in modules else node.module for name in names}
        elif isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
    return (found & modules) - {file}


def test_no_module_imports_itself_through_others() -> None:
    named = {"kavlet." + file.removesuffix(".py").removesuffix("/__init__").replace("/", "."): tree
             for file, tree in trees().items()}  # fmt: skip
    graph = {name: imported(name, tree, set(named)) for name, tree in named.items()}
    assert "kavlet.desktop.shell" in graph["kavlet.desktop.main"]
    order = [*TopologicalSorter(graph).static_order()]  # raises CycleError where there is no order
    assert order.index("kavlet.desktop.shell") < order.index("kavlet.desktop.command_registry")


BARE = set(
    """
    one held made found of at was told kept own known gone coming seen fit shown given taken left said drawn asked worn
    written read put got laid cut sent stood wanted needed meant chosen named called moved placed turned added removed
    changed mine
    """.split()  # noqa: SIM905 - as a list it would take forty lines
)


def bare_names(function: ast.FunctionDef) -> set[str]:
    """The arguments and variables of a function, and of those inside it, whose names say no thing."""
    names = {node.arg for node in ast.walk(function) if isinstance(node, ast.arg)}
    names |= {node.id for node in ast.walk(function) if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store)}
    return names & BARE - ({"left"} if "right" in names else set())


def test_a_function_of_several_variables_names_what_they_hold() -> None:
    """A participle alone ("held", "made") tells how something came, not what it is; two are the most in a function."""
    riddles = {
        f"{file}:{node.lineno}": names
        for file, tree in trees().items()
        for node in ast.walk(tree)
        if isinstance(node, ast.FunctionDef) and len(names := bare_names(node)) > 2
    }
    assert riddles == {}
    assert len(bare_names(ast.parse("def f(held):\n    made = [one for one in held]\n").body[0])) == 3  # type: ignore[arg-type]


def glossary() -> dict[str, Path]:
    """The terms of docs/architecture.md, with the file each is defined in."""
    text = (SOURCE.parent.parent / "docs" / "architecture.md").read_text(encoding="utf-8")
    section = text.split("## Words of the code", 1)[1].split("\n## ", 1)[0]
    rows = [re.split(r" *[|] *", line.strip("| ")) for line in section.splitlines() if line.startswith("| ")][2:]
    assert len({row[0] for row in rows}) == len(rows), "a term has one meaning"
    return {row[0]: SOURCE / row[2].strip("`") for row in rows}


def test_terms_stand_where_the_glossary_says() -> None:
    """Each term is a type, a function or a file of the place it is said to be in."""
    terms = glossary()
    assert len(terms) > 40
    lost = []
    for term, file in terms.items():
        text, joined = file.read_text(encoding="utf-8"), term.replace(" ", "")
        named_so = joined in text.replace("_", "").casefold() or file.stem.replace("_", "").startswith(joined)
        if not named_so and term not in text.casefold():
            lost.append(term)
    assert lost == []
