"""Where checks of pages begin to speak, and what exactly their remedies do."""

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Paragraph, Run, Words, plain
from kavlet.core.pages.page import AnyItem
from kavlet.core.proof.proofreading import proofread
from kavlet.core.spreadsheet.table import Source
from tests.core.proof.proofed import after, remedy
from tests.core.proof.test_pages import charts, found, frames, on_page
from tests.making import table


def words(text: str, x: float, y: float, width: float = 200.0, height: float = 60.0) -> Words:
    return Words("", x=x, y=y, width=width, height=height, paragraphs=plain(text))


def two_scales(*, second: str = "columns", recipe: str = "columns", width: float = 400.0) -> Document:
    """Two charts of a column called the same, of other figures."""
    held, name = edits.add_table(charts((recipe, "c2")), "Others", table(["a", "2024"], ["x", "y"], [300, 90]))
    held, chart = edits.add_chart(held, name, second)
    held = edits.change_chart(held, chart, title="What it says", source="Source: own counts")
    first, other = frames(2)
    return on_page(held, first, msgspec.structs.replace(other, width=width))


def test_scales_are_compared_where_lengths_are() -> None:
    (one,) = found(two_scales(), "scales-differ")
    assert one.figure == pytest.approx((300 - 30) / 300, abs=0.02)
    assert one.severity == "warning"
    assert found(two_scales(width=345.0), "scales-differ")
    assert not found(two_scales(width=335.0), "scales-differ")  # of other sizes, for other purposes
    assert not found(two_scales(second="lines"), "scales-differ")
    assert not found(two_scales(second="pie", recipe="pie"), "scales-differ")


def test_pies_of_other_tables_each_become_bars() -> None:
    held, name = edits.add_table(
        charts(("pie", "c2")), "Others", table(["p", "v"], ["Reed", "Mere", "Dyke"], [3, 2, 1])
    )
    held, chart = edits.add_chart(held, name, "pie")
    held = edits.change_chart(held, chart, title="What it says", source="Source: own counts")
    of = on_page(held, *frames(2))
    (one,) = found(of, "pies-compared")
    assert [held.key for held in one.remedies] == ["bars"]
    assert [made.recipe for made in after(of, one.remedies[0]).charts] == ["bars", "bars"]


def test_three_pies_become_bars_side_by_side() -> None:
    rows = table(["part", "a", "b", "c"], ["Reed", "Mere", "Dyke"], [30, 20, 10], [25, 20, 30], [3, 2, 1])
    document, name = edits.add_table(Document(), "Habitats", rows)
    for column in ("c2", "c3", "c4"):
        document, chart = edits.add_chart(document, name, "pie", {"name": ("c1",), "value": (column,)})
        document = edits.change_chart(document, chart, title="What it says", source="Source: own counts")
    of = on_page(document, *frames(3))
    (one,) = found(of, "pies-compared")
    assert one.figure == 3
    assert [held.key for held in one.remedies] == ["bars beside"]
    beside = after(of, one.remedies[0])
    assert beside.charts[0].roles["value"] == ("c2", "c3", "c4")
    assert len(beside.pages[0].items) == 1
    twice = [msgspec.structs.replace(frame, chart="k1") for frame in frames(2)]
    assert not found(on_page(document, *twice), "pies-compared")  # the same one, shown again


def test_seams_may_touch_and_shapes_may_lie_anywhere() -> None:
    def overlaps(*items: AnyItem) -> int:
        return len(found(on_page(charts(("columns", "c2")), *items), "overlap"))

    assert overlaps(words("One", 60, 60), words("Two", 60, 119)) == 0
    assert overlaps(words("One", 60, 60), words("Two", 60, 117)) == 1
    assert overlaps(words("One", 60, 60), DrawnShape("", x=50, y=50, width=300, height=200)) == 0
    assert (
        overlaps(words("One", 60, 60), PlacedPicture("", x=60, y=60, width=90, height=90, picture="bird", alt="b")) == 0
    )
    assert overlaps(DrawnShape("", x=-20, y=-20, width=300, height=200)) == 0


def test_what_is_larger_than_the_page_is_made_to_fit() -> None:
    of = on_page(charts(("columns", "c2")), words("Off", -50, 90, width=900))
    (one,) = found(of, "overlap")
    item = after(of, remedy(one, "move")).pages[0].items[0]
    assert (item.x, item.width) == (0, of.pages[0].width)
    assert item.y == 90
    inside = on_page(charts(("columns", "c2")), words("On the edge", -0.5, 90))
    assert not found(inside, "overlap")


def test_only_type_that_is_too_small_is_made_larger() -> None:
    runs = (Run("small ", size=6.0), Run("large", size=12.0), Run("as the box"))
    said = Words("", x=60, y=60, width=300, height=60, size=9.0, paragraphs=(Paragraph(runs),))
    of = on_page(charts(("columns", "c2")), said)
    (one,) = found(of, "small-text")
    assert one.figure == 6
    assert "on paper, 7 pt" in str(one.message)
    item = after(of, remedy(one, "larger text")).pages[0].items[0]
    assert isinstance(item, Words)
    assert [run.size for run in item.paragraphs[0].runs] == [7.0, 12.0, None]
    assert item.size == 9.0


def test_words_at_the_lower_edge_get_smaller_type() -> None:
    text = " ".join(["The reeds stand high and the water is clear."] * 6)
    low = Words("", x=60, y=760, width=200, height=81, size=14, paragraphs=plain(text))
    (one,) = [
        held for held in found(on_page(charts(("columns", "c2")), low), "overlap") if "hold all" in str(held.message)
    ]
    assert [held.key for held in one.remedies] == ["smaller type"]
    small = msgspec.structs.replace(low, size=8.0)
    held = [
        one for one in found(on_page(charts(("columns", "c2")), small), "overlap") if "hold all" in str(one.message)
    ]
    assert all(not one.remedies for one in held)


@pytest.mark.parametrize(
    ("text", "bound"),
    [
        ("Reed has 50 % of it.", "Reed has {=Habitats!B2/SUM(Habitats!B2:B4) | 0 %} of it."),
        ("A sum of 60!", "A sum of {=SUM(Habitats!B2:B4) | #,##0}!"),
        ("About 31 pairs", "About {=Habitats!B2 | #,##0} pairs"),
    ],
)
def test_words_are_bound_to_cells_sums_and_shares(text: str, bound: str) -> None:
    of = on_page(charts(("columns", "c2")), *frames(1), words(text, 60, 400, width=300))
    one = found(of, "typed-number")[0]
    item = after(of, remedy(one, "bind")).pages[0].items[1]
    assert isinstance(item, Words)
    assert item.text == bound


def test_figures_of_charts_elsewhere_are_none_of_a_page() -> None:
    alone = on_page(charts(("columns", "c2")), words("Reed has 30.", 60, 400, width=300))
    assert not found(alone, "typed-number")


def test_a_source_is_said_by_a_chart_a_footer_or_words() -> None:
    bare = charts(("columns", "c2"), source="")
    assert found(on_page(bare, *frames(1)), "title-missing")
    assert not found(on_page(charts(("columns", "c2")), *frames(1)), "title-missing")
    assert not found(on_page(bare, *frames(1), footer="Source: the wardens"), "title-missing")
    assert found(on_page(bare, *frames(1), footer="A source of joy"), "title-missing")
    assert not found(on_page(bare, words("No chart here", 60, 60)), "title-missing")
    hidden = ChartFrame("", x=60, y=60, width=400, height=300, chart="k1", title=False)
    (one,) = found(on_page(charts(("columns", "c2")), hidden, footer="{page}"), "title-missing")
    assert not one.remedies  # the margin is taken


def test_scales_below_zero_are_compared_at_both_ends() -> None:
    held = Document()
    for name, figures in (("One", [-30, 20]), ("Two", [-100, 20])):
        held, made = edits.add_table(held, name, table(["a", "change"], ["x", "y"], figures))
        held, chart = edits.add_chart(held, made, "columns")
        held = edits.change_chart(held, chart, title="What it says", source="Source: own counts")
    of = on_page(held, *frames(2))
    (one,) = found(of, "scales-differ")
    mended = after(of, remedy(one, "same scale")).pages[0].items
    assert len({(item.low, item.high) for item in mended}) == 1  # type: ignore[union-attr]
    low, high = mended[0].low, mended[0].high  # type: ignore[union-attr]
    assert low is not None
    assert high is not None
    assert low <= -100
    assert 20 <= high <= 50
    assert one.figure == pytest.approx((-30 - low) / (high - low), abs=0.1)


def test_a_file_that_is_lost_is_not_one_that_changed() -> None:
    of = charts(("columns", "c2"))
    linked = msgspec.structs.replace(of.tables[0], source=Source("/data/habitats.csv", seen="x"))
    of = msgspec.structs.replace(of, tables=(linked,))
    said = {state: str(proofread(of, sources={"t1": state}).papers[0].message) for state in ("changed", "lost")}
    assert "habitats.csv has changed" in said["changed"]
    assert "not there any more" in said["lost"]
    assert not proofread(of, sources={"t1": "same"}).papers
