"""What charts say in a sentence or two."""

from pathlib import Path

import msgspec
import numpy
import pytest

import kavlet
from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.pipeline.alt_text import headline_of, own_alt, told
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.recipes.facts import MAX_CHARACTERS, ShownFigures, fitting
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.recipes.sentences import correlation
from kavlet.core.values.errors import KavletError
from tests.making import document, draw, make, table

DEMO = Path(kavlet.__file__).parent / "assets" / "demo" / "mirefen.kavlet"
MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun"]


def said(recipe: str, *columns: list[object], heads: tuple[str, ...] = ("value",), **settings: object) -> str:
    names = MONTHS if settings.pop("timed", False) else ["Reed", "Mere", "Dyke", "Bank", "Carr", "Quay"]
    rows = table(["name", *heads], names[: len(columns[0])], *columns)
    return make(recipe, rows, **settings).figure.alt_text


@pytest.mark.parametrize(("text", "made"), [
    ("Highlight bars: value. Mere stands out with 90, 3 times the next, Dyke. The smallest is Reed with 12.",
     said("highlight-bars", [12, 90, 30])),
    ("Highlight bars: value. Mere is the largest of 3 with 90, before Dyke with 80. The smallest is Reed with 12.",
     said("highlight-bars", [12, 90, 80])),
    ("Columns: value. All 3 are 5.", said("columns", [5, 5, 5])),
    ("Pie: value. Mere is the largest of 3 parts with 50% (50). Dyke follows with 30%. The smallest is Reed with 20%.",
     said("pie", [20, 50, 30])),
    ("Lines: value. value rises steadily from 10 in Jan to 40 in Apr, by 300%.",
     said("lines", [10, 20, 30, 40], timed=True)),
    ("Lines: value. value falls from 40 in Jan to 20 in Apr, by 50%. The lowest is 10 in Mar.",
     said("lines", [40, 30, 10, 20], timed=True)),
    ("Lines: value. The highest is 90 in Mar. value is 20 in May as in Jan.",
     said("lines", [20, 40, 90, 30, 20], timed=True)),
    ("Growth bars: 2024, 2025. Dyke grows most, by +100%. Mere falls most, by −50%.",
     said("growth-bars", [10, 40, 20], [11, 20, 40], heads=("2024", "2025"))),
    ("Bridge: value. From 200 (Reed) to 180: −20. The largest step is Dyke with −70.",
     said("bridge", [200, 50, -70, 180])),
    ("Funnel: value. 90 of 900 reach Dyke, 10%. Most are lost before Dyke: 30% get there.",
     said("funnel", [900, 300, 90])),
    ("Points: x, y. The more x, the more y (correlation 1.00). Bank has the largest y, 8.",
     said("points", [1, 2, 3, 4], [2, 4, 6, 8], heads=("x", "y"))),
    ("Mirrored bars: women, men. The largest figure is 9: men, Dyke. "
     "In all, men has most with 21, women least with 15.",
     said("mirrored-bars", [4, 5, 6], [5, 7, 9], heads=("women", "men"))),
])  # fmt: skip
def test_messages(text: str, made: str) -> None:
    assert made == text


def test_a_stated_whole_is_what_shares_are_of() -> None:
    made = said("pie", [960, 540, 300], whole=2400.0)
    assert "Reed is the largest of 3 parts with 40% (960)" in made


@pytest.mark.parametrize("locale", ["en", "de_DE"])
def test_alt_texts_of_the_demo_are_messages_and_short(locale: str) -> None:
    held = msgspec.structs.replace(kavlet_file.load(DEMO), locale=locale)
    pictures = Pictures()
    for chart in held.charts:
        figure = pictures.picture(held, chart.id).figure
        assert 30 < len(figure.alt_text) <= MAX_CHARACTERS, chart.name
        assert figure.alt_text.endswith(".")
        assert any(digit in figure.alt_text for digit in "123456789"), chart.name
        assert len(figure.long_text) >= 20


@pytest.mark.parametrize("recipe", list(RECIPES))
def test_long_names_are_cut_and_no_figures_are_said(recipe: str) -> None:
    long = "A reach of the river that has a very long name indeed, as such places do, number "
    rows = table(
        ["n", "a", "b", "g"], [f"{long}{i}" for i in range(6)], [9, 8, 7, 6, 5, 4], [3, 5, 2, 6, 4, 7], list("xxyyzz")
    )
    try:
        made = make(recipe, rows)
    except KavletError:
        return
    assert len(made.figure.alt_text) <= MAX_CHARACTERS


def test_as_many_sentences_as_fit_are_said() -> None:
    assert fitting(["One.", "x" * 300, "Three."]) == "One."
    assert fitting(["y" * 300]) == "y" * 249 + "…"
    assert fitting([]) == ""


def test_correlation_is_pearson_s() -> None:
    """Against numpy.corrcoef."""
    chance = numpy.random.default_rng(4)
    for _ in range(50):
        x, y = chance.normal(size=8), chance.normal(size=8)
        theirs = float(numpy.corrcoef(x, y)[0, 1])
        assert correlation(list(zip(x.tolist(), y.tolist(), strict=True))) == pytest.approx(theirs, abs=1e-12)
    assert correlation([(1e308, 1.0), (1e308, 2.0)]) != correlation([(1.0, 1.0), (2.0, 2.0)])


def test_an_alt_text_of_the_author_s_own_is_kept_until_it_is_emptied() -> None:
    of = document("columns", table(["a", "v"], ["x", "y"], [3, 5]))
    mine = edits.change_chart(of, "k1", alt=own_alt("  Mine,  of two lines ", "said"))
    assert draw(mine).figure.alt_text == "Mine, of two lines"
    assert own_alt("   ", "said") is None
    with pytest.raises(KavletError, match="at most 250 characters; this one has 251"):
        own_alt("x" * 251, "said")


def test_a_chart_of_layers_of_its_own_says_what_it_shows() -> None:
    of = document("columns", table(["a", "v"], ["x", "y", "z"], [3, 5, 20]))
    loose = chart_edits.cut_loose(of, "k1", draw(of).build.chart)
    figure = draw(loose).figure
    assert figure.alt_text == "Chart: v. z stands out with 20, 4 times the next, y. The smallest is x with 3."
    assert figure.long_text == "v: x 3, y 5, z 20."
    moved = edits.set_cells(loose, "t1", {(1, 1): 90.0})
    assert "x stands out with 90" in draw(moved).figure.alt_text


def test_nothing_is_said_of_no_figures() -> None:
    empty = ShownFigures("Columns", "", (), (), False, "en")
    assert told(empty) == "Columns. It holds no figures."
    assert headline_of(empty) == ""
