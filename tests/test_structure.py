"""The shape of the code, where import contracts cannot say it, and a guard for the pinned Qt."""

import ast
import gc
import importlib
import pkgutil
import sys
from pathlib import Path

import pytest

import kavlet
import kavlet.core

SOURCE = Path(kavlet.__file__).parent


def imports(folder: Path) -> set[str]:
    found: set[str] = set()
    for file in folder.rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Import):
                found.update(alias.name for alias in node.names)
            elif isinstance(node, ast.ImportFrom) and node.module:
                found.add(node.module)
    return found


def test_painting_knows_no_widgets() -> None:
    assert "PySide6.QtGui" in imports(SOURCE / "paint")
    assert "PySide6.QtWidgets" not in imports(SOURCE / "paint")


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
