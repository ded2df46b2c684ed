"""What all tests share: no display, no settings of this machine, and the core without Qt on request."""

import gc
import importlib.abc
import os
import sys
from itertools import count
from pathlib import Path

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ["PYTEST_QT_API"] = "pyside6"
os.environ["LANGUAGE"] = "en"  # whatever the machine speaks


class _NoQt(importlib.abc.MetaPathFinder):
    """Refuses PySide6, as on a machine where it is not installed."""

    def find_spec(self, name: str, path: object = None, target: object = None) -> None:  # noqa: ARG002 - importlib's
        if name.partition(".")[0] in ("PySide6", "shiboken6"):
            raise ModuleNotFoundError(f"No module named {name!r}", name=name)


if os.environ.get("KAVLET_NO_QT"):
    sys.meta_path.insert(0, _NoQt())


def pytest_collection_finish() -> None:
    """What the tests themselves are made of is not looked through for garbage again and again."""
    gc.collect()
    gc.freeze()


VISITOR_PATH = [
    ["stage", "people"],
    ["Visits", 18400.0],
    ["Guided walks", 6900.0],
    ["Newsletter", 2760.0],
    ["Donations", 1035.0],
    ["Members", 310.0],
]


_HOMES = count()


@pytest.fixture(autouse=True)
def _own_folders(tmp_path_factory: pytest.TempPathFactory, monkeypatch: pytest.MonkeyPatch) -> None:
    home = tmp_path_factory.getbasetemp() / "homes" / str(next(_HOMES))  # made by whoever keeps something there
    monkeypatch.setenv("XDG_STATE_HOME", str(home / "state"))
    monkeypatch.setenv("XDG_CACHE_HOME", str(home.parent / "cache"))
    monkeypatch.setenv("XDG_CONFIG_HOME", str(home / "config"))


@pytest.fixture(scope="session", autouse=True)
def _one_application() -> None:
    """Whatever of Qt is tested first: Qt takes one application, and windows need more of it than painting does."""
    if "KAVLET_NO_QT" not in os.environ:
        from PySide6.QtWidgets import QApplication

        from kavlet.paint.application import add_faces

        _ONE.append(QApplication.instance() or QApplication(sys.argv[:1]))
        add_faces()


_ONE: list[object] = []  # which ends with the process


@pytest.fixture
def funnel() -> Document:
    """A document with the visitor path and its funnel: table t1, chart k1."""
    document, table = edits.add_table(Document(), "Visitor path", [list(row) for row in VISITOR_PATH])
    return edits.add_chart(document, table, "funnel")[0]


@pytest.fixture
def visitor_csv(tmp_path: Path) -> Path:
    """The visitor path as a CSV file."""
    path = tmp_path / "visitor_path.csv"
    lines = [",".join(f"{cell:g}" if isinstance(cell, float) else str(cell) for cell in row) for row in VISITOR_PATH]
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return path
