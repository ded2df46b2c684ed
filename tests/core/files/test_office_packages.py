"""What is said where the packages of office files are not installed."""

from collections.abc import Iterator
from importlib.machinery import ModuleSpec
from pathlib import Path

import pytest

from kavlet.core.files import office_packages, tables
from kavlet.core.values.errors import KavletError
from kavlet.export.outgoing import Export
from kavlet.export.ways import ExportOptions, written
from tests.making import document, table


@pytest.fixture
def without_packages(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    def find(name: str) -> ModuleSpec | None:
        return None if name == "openpyxl" else ModuleSpec(name, None)

    monkeypatch.setattr(office_packages, "find_spec", find)
    office_packages._missing.cache_clear()
    yield
    office_packages._missing.cache_clear()


@pytest.mark.usefixtures("without_packages")
def test_what_to_install_is_said(tmp_path: Path) -> None:
    book = tmp_path / "gates.xlsx"
    book.write_bytes(b"PK")
    with pytest.raises(KavletError, match="not installed"):
        tables.read(book)
    one = document("columns", table(["gate", "guests"], ["North", "South"], [4.0, 2.0]))
    for ending in (".pptx", ".xlsx", ".odt"):
        with pytest.raises(KavletError, match=r"kavlet\[office\]"):
            written(Export(one, ("k1",)), ExportOptions(ending))


@pytest.mark.usefixtures("without_packages")
def test_other_files_need_none_of_them() -> None:
    one = document("columns", table(["gate", "guests"], ["North", "South"], [4.0, 2.0]))
    assert written(Export(one, ("k1",)), ExportOptions(".svg")).content.startswith(b"<svg")
