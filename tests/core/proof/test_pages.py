"""What is found on pages, in their frames, and in the document as a whole."""

import io

import msgspec
import pytest
from PIL import Image

from kavlet.core.document import edits
from kavlet.core.document.document import Document, PictureFile
from kavlet.core.document.pages import page_edits
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pages.page import AnyItem
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.proofreading import Proofreader, proofread
from kavlet.core.spreadsheet.table import Source
from tests.core.proof.proofed import after, remedy
from tests.making import table

YEARS = table(["part", "2024", "2025"], ["Reed", "Mere", "Dyke"], [30, 20, 10], [25, 20, 30])
SOURCED = {"source": "Source: own counts"}


def on_page(document: Document, *items: AnyItem, size: str = "A4", **page: object) -> Document:
    """A document with a page of items where they say."""
    document, made = page_edits.add_page(document, size, name="Page", **page)
    for item in items:
        document, _ = page_edits.put(document, made, item, item.box)
    return document


def charts(*recipes: tuple[str, str], **changes: str) -> Document:
    """Charts of one table's columns: a recipe and a column's id each."""
    document, name = edits.add_table(Document(), "Habitats", YEARS)
    for recipe, column in recipes:
        document, chart = edits.add_chart(document, name, recipe, {"name": ("c1",), "value": (column,)})
        document = edits.change_chart(document, chart, title="What it says", **(SOURCED | changes))
    return document


def frames(count: int, **changes: float) -> list[AnyItem]:
    return [
        ChartFrame("", x=60.0, y=60.0 + 250 * i, width=400.0, height=220.0, chart=f"k{i + 1}", **changes)  # type: ignore[arg-type]
        for i in range(count)
    ]


def found(document: Document, check: str) -> list[Finding]:
    return [one for one in proofread(document).all if one.check == check and one.place.page]


def test_pies_of_the_same_parts_are_compared_by_lengths() -> None:
    of = on_page(charts(("pie", "c2"), ("pie", "c3")), *frames(2))
    (finding,) = found(of, "pies-compared")
    assert finding.figure == 2
    growth = after(of, remedy(finding, "growth bars"))
    assert growth.charts[0].recipe == "growth-bars"
    assert (growth.charts[0].roles["before"], growth.charts[0].roles["after"]) == (("c2",), ("c3",))
    assert len(growth.pages[0].items) == 1
    beside = after(of, remedy(finding, "bars beside"))
    assert beside.charts[0].roles["value"] == ("c2", "c3")
    assert not found(growth, "pies-compared") + found(beside, "pies-compared")
    assert not found(on_page(charts(("pie", "c2"), ("bars", "c3")), *frames(2)), "pies-compared")


def test_charts_of_one_measure_get_one_scale() -> None:
    held, name = edits.add_table(charts(("columns", "c2")), "Others", table(["a", "2024"], ["x", "y"], [300, 90]))
    held, chart = edits.add_chart(held, name, "columns")
    held = edits.change_chart(held, chart, title="What it says", source="Source: own counts")
    of = on_page(held, *frames(2))
    (finding,) = found(of, "scales-differ")
    mended = after(of, remedy(finding, "same scale"))
    assert not found(mended, "scales-differ")
    ends = [(one.low, one.high) for one in mended.pages[0].items if isinstance(one, ChartFrame)]
    assert ends[0] == ends[1]
    assert ends[0][0] == 0.0


def test_a_frame_whose_ends_cut_bars_is_told_and_given_back() -> None:
    of = on_page(charts(("columns", "c2")), *frames(1, low=5.0, high=40.0))
    (finding,) = found(of, "cut-axis")
    assert finding.figure == pytest.approx(5.0)
    mended = after(of, remedy(finding, "begin at zero"))
    assert not found(mended, "cut-axis")
    assert mended.pages[0].items[0].low is None  # type: ignore[union-attr]


def test_items_over_each_other_are_arranged_and_those_off_the_page_moved() -> None:
    words = Words("", x=80, y=90, width=300, height=100, paragraphs=plain("Over the chart"))
    of = on_page(charts(("columns", "c2")), *frames(1), words)
    (finding,) = found(of, "overlap")
    assert not found(after(of, remedy(finding, "arrange")), "overlap")
    off = on_page(charts(("columns", "c2")), Words("", x=540, y=90, width=200, height=60, paragraphs=plain("Off")))
    (finding,) = found(off, "overlap")
    mended = after(off, remedy(finding, "move"))
    assert not found(mended, "overlap")
    assert mended.pages[0].items[0].x == pytest.approx(mended.pages[0].width - 200)


def test_words_that_overflow_get_a_taller_box_or_smaller_type() -> None:
    text = " ".join(["The reeds stand high and the water is clear."] * 6)
    of = on_page(
        charts(("columns", "c2")), Words("", x=60, y=60, width=200, height=80, size=14, paragraphs=plain(text))
    )
    (finding,) = found(of, "overlap")
    assert {one.key for one in finding.remedies} == {"taller", "smaller type"}
    taller = of
    for _ in range(4):
        held = found(taller, "overlap")
        taller = after(taller, remedy(held[0], "taller")) if held else taller
    assert not found(taller, "overlap")


def test_type_on_slides_is_larger_than_on_paper() -> None:
    small = Words("", x=60, y=60, width=500, height=60, size=11, paragraphs=plain("Read from afar"))
    paper = on_page(charts(("columns", "c2")), small)
    slide = on_page(charts(("columns", "c2")), small, size="Slide 16:9")
    assert not found(paper, "small-text")
    (finding,) = found(slide, "small-text")
    assert finding.figure == 11
    assert not found(after(slide, remedy(finding, "larger text")), "small-text")
    framed = on_page(charts(("columns", "c2")), *frames(1), size="Slide 16:9")
    assert not found(framed, "small-text")  # charts on slides are set larger by themselves


def test_a_page_says_where_its_figures_come_from() -> None:
    bare = on_page(charts(("columns", "c2"), source=""), *frames(1))
    (finding,) = found(bare, "title-missing")
    assert not finding.remedies  # nobody knows
    hidden = on_page(
        charts(("columns", "c2")), ChartFrame("", x=60, y=60, width=400, height=300, chart="k1", title=False)
    )
    (finding,) = found(hidden, "title-missing")
    mended = after(hidden, remedy(finding, "source line"))
    assert mended.pages[0].footer == "{source}"
    assert not found(mended, "title-missing")
    said = Words("", x=60, y=500, width=300, height=30, paragraphs=plain("Quelle: eigene Zählung"))
    assert not found(on_page(charts(("columns", "c2"), source=""), *frames(1), said), "title-missing")


def test_a_picture_without_words_is_named() -> None:
    of = on_page(charts(("columns", "c2")), PlacedPicture("", x=60, y=60, width=60, height=60, picture="bird"))
    (finding,) = found(of, "title-missing")
    assert after(of, remedy(finding, "name picture")).pages[0].items[0].alt == "bird"  # type: ignore[union-attr]


def test_a_coarse_picture_is_told_by_its_dots_to_an_inch() -> None:
    held = io.BytesIO()
    Image.new("RGB", (100, 50), "teal").save(held, "PNG")
    document = charts(("columns", "c2"))
    photo = PictureFile("pond", content=held.getvalue(), width=100, height=50)
    document = msgspec.structs.replace(document, pictures=(photo,))
    of = on_page(document, PlacedPicture("", x=60, y=60, width=144, height=72, picture="pond", alt="A pond"))
    (finding,) = found(of, "low-resolution")
    assert finding.figure == pytest.approx(50.0)  # 100 pixels over two inches
    mended = after(of, remedy(finding, "smaller"))
    item = mended.pages[0].items[0]
    assert (item.x, item.y, item.width, item.height) == pytest.approx((108, 84, 48, 24))  # about its middle
    for width, count in ((48.1, 0), (48.3, 1)):  # half a dot is nothing
        placed = PlacedPicture("", x=60, y=60, width=width, height=width / 2, picture="pond", alt="A pond")
        assert len(found(on_page(document, placed), "low-resolution")) == count
    assert not found(mended, "low-resolution")


def test_a_number_typed_into_words_is_bound_as_a_field() -> None:
    words = Words("", x=60, y=320, width=300, height=60, paragraphs=plain("Reed has 30, Mere 20."))
    of = on_page(charts(("columns", "c2")), *frames(1), words)
    (finding, *_) = found(of, "typed-number")
    mended = after(of, remedy(finding, "bind"))
    held = mended.pages[0].items[1]
    assert isinstance(held, Words)
    assert held.text == "Reed has {=Habitats!B2 | #,##0}, Mere 20."
    assert Pictures().page(mended, mended.pages[0].id).made[held.id].says.startswith("Reed has 30")


def test_a_formula_that_fails_on_a_page_is_told() -> None:
    of = on_page(charts(("columns", "c2")), KeyFigure("", x=60, y=60, width=200, height=90, value="=1/0"))
    (finding,) = found(of, "formula-error")
    assert finding.place.item


def test_a_followed_file_that_changed_can_be_compared_or_let_go() -> None:
    of = charts(("columns", "c2"))
    linked = msgspec.structs.replace(of.tables[0], source=Source("/data/habitats.csv", seen="x"))
    of = msgspec.structs.replace(of, tables=(linked,))
    for state, keys in (("changed", ["update", "stop following"]), ("lost", ["stop following"])):
        papers = proofread(of, sources={"t1": state}).papers
        assert [one.key for one in papers[0].remedies] == keys
        assert after(of, remedy(papers[0], "stop following")).tables[0].source is None
    assert not proofread(of).papers


def test_only_what_changed_is_read_again() -> None:
    of = on_page(charts(("columns", "c2"), ("pie", "c3")), *frames(2))
    for chart in ("k1", "k2"):
        of = edits.change_chart(of, chart, title="")  # of which something is found
    reader, pictures = Proofreader(), Pictures()
    first = reader.whole(of, pictures)
    again = reader.whole(of, pictures)
    assert all(again.charts[key] is held for key, held in first.charts.items())
    assert all(again.pages[key] is held for key, held in first.pages.items())
    renamed = edits.change_chart(of, "k1", subtitle="Another")
    third = reader.whole(renamed, pictures)
    assert third.charts["k2"] is first.charts["k2"]
    assert third.charts["k1"] is not first.charts["k1"]
