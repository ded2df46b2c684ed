"""The attacks of `tools/attack`, each with a few cases; the long runs are a command of their own."""

from pathlib import Path

import pytest
from tools.attack import files as rotten_files
from tools.attack import grammar, names

from kavlet.core.files.formats import ExportOptions
from kavlet.core.values.errors import KavletError
from kavlet.export.outgoing import Export
from kavlet.export.ways import files, formats_for


def test_files_by_grammar_are_read_or_refused() -> None:
    assert rotten_files.attack(120, 3) == []


@pytest.mark.parametrize("ending", grammar.RULES)
def test_a_grammar_makes_something_else_each_time(ending: str) -> None:
    import random

    assert len({grammar.text_of(ending, random.Random(seed)) for seed in range(30)}) > 15


@pytest.mark.parametrize(
    "text", [names.NAMES[0], names.NAMES[2], "x" * 5_000, "\x00\x01\ud800", "👩‍👩‍👧‍👦" * 40, "\n=A1"]
)
def test_hostile_names_leave_by_every_way(text: str, tmp_path: Path) -> None:
    document = names.hostile(text)
    chart = next(one.id for one in document.charts if one.recipe == "funnel")
    for way in formats_for(pages=False):
        if way.steps or way.raster:
            continue
        try:
            for put in files(
                Export(document, (chart,), title=text), ExportOptions(way.ending), tmp_path / f"{{name}}{way.ending}"
            ):
                assert put.path.parent == tmp_path
                assert names.unsound(put.content, way.ending) == "", way.ending
        except KavletError:
            pass


def test_a_file_with_a_name_as_an_element_is_told_apart() -> None:
    assert names.unsound(f"<svg><{names.MARK}/></svg>".encode(), ".svg")
    assert names.unsound(b'a,"=1+1"\r\n', ".csv")
    assert names.unsound(b"To: a\r\nBcc: kvx@x\r\n\r\nx", ".eml")
