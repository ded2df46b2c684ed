"""Kavlet from Python: rows in any shape, one call, and what it gives; the examples of its documentation run."""

import doctest
import re
import subprocess
import sys
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from defusedxml import ElementTree

import kavlet
from kavlet.core.values.errors import KavletError
from kavlet.interface import cells_of

ROWS: list[list[Any]] = [["stage", "visits"], ["Gate", 18_400], ["Walks", 6_900], ["Members", 1_240]]
PAGE = Path(__file__).parent.parent / "docs" / "python.md"


def test_a_chart_is_made_dressed_and_written(tmp_path: Path) -> None:
    chart = kavlet.make("funnel", ROWS, gap=40).titled("Visitor path", source="Source: visitor desk")
    wide = (
        chart.sized("800x300").dressed(dark=True, palette_of="#0e7c86 #7a2e5d").looking("layers.value.fill", "#112233")
    )
    assert [helper["values"] for helper in wide.record()["helpers"] if helper["name"] == "step"] == [
        [None, 0.375, 1240 / 6900]
    ]
    root = ElementTree.fromstring(wide._repr_svg_())
    assert root.get("viewBox") == "0 0 800 300"
    assert "Visitor path" in "".join(root.itertext())
    assert "#112233" in wide.svg()
    assert "#112233" not in chart.svg()  # a chart never changes
    assert "18,400" in chart.alt_text
    assert chart.png(1.0)[:8] == b"\x89PNG\r\n\x1a\n"
    for name in ("chart.svg", "chart.pdf", "chart.json", "chart.kavlet"):
        wide.save(tmp_path / name)
        assert (tmp_path / name).stat().st_size > 500


class Frame:
    """A data frame as far as Kavlet knows them: named columns that give their values, and an index or none."""

    def __init__(self, columns: dict[str, list[Any]]) -> None:
        self._held = columns
        self.columns = list(columns)

    def __getitem__(self, name: str) -> "Frame":
        made = Frame({})
        made.to_list = lambda: self._held[name]  # type: ignore[attr-defined]
        return made


@pytest.mark.parametrize(
    "rows",
    [
        ROWS,
        [{"stage": name, "visits": visits} for name, visits in ROWS[1:]],
        {"stage": ["Gate", "Walks", "Members"], "visits": [18_400, 6_900, 1_240]},
        {"stage": ["Gate", "Walks", "Members"], "visits": np.array([18_400, 6_900, 1_240])},
        Frame({"stage": ["Gate", "Walks", "Members"], "visits": [18_400, 6_900, 1_240]}),
    ],
)
def test_rows_come_in_any_shape(rows: Any) -> None:
    assert kavlet.make("funnel", rows).svg() == kavlet.make("funnel", ROWS).svg()


def test_cells_keep_what_they_are() -> None:
    import datetime

    cells = cells_of([["a", "b"], [np.float64("nan"), True], [datetime.date(2026, 3, 1), "=A2+1"]])
    assert cells[1] == [None, True]
    assert cells[2][0].value == 46082.0  # type: ignore[union-attr]  # days since 30 December 1899 (ISO/IEC 29500)
    assert cells[2][1].text == "=A2+1"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("call", "said"),
    [
        (lambda: kavlet.make("spiral", ROWS), "no recipe “spiral”"),
        (lambda: kavlet.make("funnel", ROWS, mood=3), "no setting “mood”"),
        (lambda: kavlet.make("funnel", ROWS, gap=-1), "gap can’t be −1"),
        (lambda: kavlet.make("funnel", ROWS, roles={"weight": "visits"}), "no role “weight”"),
        (lambda: kavlet.make("funnel", ROWS, roles={"value": "visitors"}), "no column “visitors”"),
        (lambda: kavlet.make("funnel", [["a"], [object()]]), "can’t hold a object"),
        (lambda: kavlet.make("funnel", {"a": [1.0], "b": [1.0, 2.0]}), "differ in length"),
        (lambda: kavlet.make("funnel", ROWS).looking("layers.mood.fill", "#112233"), "leads nowhere"),
        (lambda: kavlet.make("funnel", ROWS).repeated(), "shows all rows"),
    ],
)
def test_what_does_not_fit_is_said_at_once(call: Any, said: str) -> None:
    with pytest.raises(KavletError, match=said):
        call()


def test_the_version_alone_loads_nothing() -> None:
    code = "import kavlet, sys; kavlet.__version__; print('numpy' in sys.modules, 'PySide6' in sys.modules)"
    said = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
    assert said.split() == ["False", "False"]


def test_without_qt_charts_are_made_and_pixels_say_what_they_need() -> None:
    code = (
        "import sys; sys.modules['PySide6'] = None\n"
        "import kavlet\n"
        "from kavlet.core.values.errors import KavletError\n"
        "chart = kavlet.make('pie', [['a', 'b'], ['x', 1], ['y', 2]])\n"
        "assert chart.svg() and chart.record()\n"
        "try: chart.png()\n"
        "except KavletError as error: print(error)\n"
    )
    said = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
    assert "need Qt" in said


def test_the_examples_of_the_documentation_run(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.chdir(tmp_path)
    text = PAGE.read_text("utf-8")
    blocks = re.findall(r"```python\n(.*?)```", text, re.DOTALL)
    assert len(blocks) >= 3
    runner = doctest.DocTestRunner(optionflags=doctest.ELLIPSIS | doctest.NORMALIZE_WHITESPACE)
    for number, block in enumerate(blocks):
        test = doctest.DocTestParser().get_doctest(block, {}, f"example {number + 1}", str(PAGE), 0)
        assert test.examples
        assert runner.run(test).failed == 0, test.name
