"""Pages composed: every item at its place, live, and in one clear state whatever happens to what it shows."""

from datetime import date

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.document import Document, PictureFile
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Paragraph, Run, Words, plain
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.pipeline.page_items.chart_frame import framed
from kavlet.core.pipeline.page_items.multiples import repeated, rows_of
from kavlet.core.pipeline.page_items.page_picture import NO_PAGE_PICTURE, PagePicture, record
from kavlet.core.pipeline.page_items.step_control import parts
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.scene.primitives import Group, Image, Primitive, Shape, Stamp, Writing
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect

ROWS = [["Gate", "Spring", "Summer"], ["North", 40.0, 60.0], ["South", 25.0, 35.0], ["East", 10.0, 5.0]]
DAY = date(2025, 3, 9)


def made(recipe: str = "columns", roles: dict[str, tuple[str, ...]] | None = None, locale: str = "en") -> Document:
    document, table = edits.add_table(Document(locale=locale), "Gates", ROWS)  # type: ignore[arg-type]
    roles = roles or {"name": ("c1",), "value": ("c2", "c3")}
    document, _ = edits.add_chart(document, table, recipe, roles)
    return document


def page_of(*items: AnyItem, document: Document | None = None, **page: object) -> tuple[Document, PagePicture]:
    document, new = page_edits.add_page(document or made(), **page)  # type: ignore[arg-type]
    for item in items:
        document, _ = page_edits.put(document, new, item, item.box)
    return document, Pictures().page(document, new, DAY)


def writings(items: tuple[Primitive, ...]) -> list[Writing]:
    found: list[Writing] = []
    for item in items:
        if isinstance(item, Writing):
            found.append(item)
        elif isinstance(item, Group):
            found += writings(item.items)
    return found


def texts(picture: PagePicture, item: str = "i1") -> list[str]:
    return [one.text for one in writings(picture.drawn[item])]


# Words and fields


def test_fields_are_filled() -> None:
    text = "{=Gates!B2 | 0.0} of {=SUM(Gates!B2:B4)} on {name}, {page}/{pages}, {date}. {unknown} {stays}"
    _, picture = page_of(Words("", paragraphs=plain(text), width=500, height=200), name="Here")
    said = " ".join(texts(picture))
    assert said.replace(" .", ".") == "40.0 of 75 on Here, 1/1, March 9, 2025. {unknown} {stays}"


def test_fields_are_written_as_the_document_writes() -> None:
    text = "{=1234.5 | #,##0.00} {=0.125 | 0.0 %} {date}"
    _, picture = page_of(Words("", paragraphs=plain(text), width=500, height=60), document=made(locale="de"))
    assert " ".join(texts(picture)).replace("\u202f", " ").replace("\xa0", " ") == "1.234,50 12,5 % 9. März 2025"


@pytest.mark.parametrize("formula", ["=Gates!B2+", "=Nowhere!B2", "=1/0", "=Gates!Z99999999"])
def test_a_field_that_fails_is_told_and_the_rest_stays(formula: str) -> None:
    _, picture = page_of(Words("", paragraphs=plain(f"before {{{formula}}} after"), width=400, height=60))
    assert " ".join(texts(picture)).split() == ["before", "…", "after"]
    assert [text for text, _ in picture.made["i1"].failed] == [formula]


def test_words_longer_than_their_box_are_told_and_not_shrunk() -> None:
    long = Words("", paragraphs=plain("word " * 200), width=120, height=40, size=10)
    _, picture = page_of(long)
    assert picture.overflowing == ["i1"]
    assert {one.size for one in writings(picture.drawn["i1"])} == {10}
    assert all(one.y <= 40 + 3 for one in writings(picture.drawn["i1"]))


def test_runs_keep_their_look_and_lists_their_marks() -> None:
    paragraphs = (
        Paragraph((Run("plain "), Run("bold", bold=True), Run(" red", colour="#cc0000"))),
        Paragraph((Run("first"),), listing="numbers"), Paragraph((Run("second"),), listing="numbers"),
        Paragraph((Run("right"),), align="end"),
    )  # fmt: skip
    _, picture = page_of(Words("", paragraphs=paragraphs, width=300, height=200))
    found = {one.text.strip(): one for one in writings(picture.drawn["i1"])}
    assert "Bold" in found["bold"].face or found["bold"].face != found["plain"].face
    assert found["red"].colour.hex == "#cc0000"
    assert {"1.", "2."} <= set(found)
    right = found["right"]
    assert right.x + right.width == pytest.approx(300, abs=0.5)


def test_an_empty_box_of_words_draws_nothing() -> None:
    _, picture = page_of(Words("", width=100, height=20))
    assert picture.drawn["i1"] == ()


# Key figures


@pytest.mark.parametrize(
    ("figure", "said"),
    [
        (KeyFigure("", value="=Gates!B2", caption="guests"), ["40", "guests"]),
        (KeyFigure("", value="=Gates!B2/100", number="0 %"), ["40\u202f%"]),
        (KeyFigure("", value="=Gates!C2", against="=Gates!B2"), ["60", "+50\u202f%"]),
        (KeyFigure("", value="=Gates!C4", against="=Gates!B4"), ["5", "−50\u202f%"]),
        (KeyFigure("", value="=Gates!C2", against="=Gates!B2", change="difference"), ["60", "+20"]),
        (KeyFigure("", value="=Gates!C2", against="=Gates!C2"), ["60", "no change"]),
        (KeyFigure("", value="=Gates!C2", against="=Gates!A2"), ["60"]),
        (KeyFigure("", value="by hand"), ["by hand"]),
        (KeyFigure("", value="=1/0", caption="fails"), ["–", "fails"]),
    ],
)
def test_key_figures(figure: KeyFigure, said: list[str]) -> None:
    _, picture = page_of(msgspec.structs.replace(figure, width=200, height=110))
    found = [one.replace("\xa0", "\u202f").replace(" %", "\u202f%").replace("%", "\u202f%") for one in texts(picture)]
    found = [one.replace("\u202f\u202f", "\u202f") for one in found]
    assert found == said


@pytest.mark.parametrize(("better", "rises", "good"), [("up", True, True), ("down", True, False), ("up", False, False)])
def test_the_colour_of_a_change_says_what_is_better(better: str, rises: bool, good: bool) -> None:
    value, against = ("=Gates!C2", "=Gates!B2") if rises else ("=Gates!B2", "=Gates!C2")
    figure = KeyFigure("", value=value, against=against, better=better, width=200, height=110)  # type: ignore[arg-type]
    _, picture = page_of(figure)
    change = writings(picture.drawn["i1"])[-1]
    assert change.colour == picture.style.named["rise" if good else "fall"]


def test_figures_agree_wherever_they_stand() -> None:
    """A figure in words, a key figure and a chart of the same cell show the same after an edit."""
    items = (
        Words("", paragraphs=plain("{=Gates!B2}"), width=100, height=30),
        KeyFigure("", value="=Gates!B2", y=50, width=100, height=60),
        ChartFrame("", chart="k1", y=150, width=300, height=200), Excerpt("", table="t1", y=400, width=300, height=120),
    )  # fmt: skip
    document, picture = page_of(*items)
    changed = edits.set_cells(document, "t1", {(1, 1): 71.0})
    after = Pictures().page(changed, picture.page.id)
    assert texts(after, "i1") == ["71"]
    assert texts(after, "i2") == ["71"]
    assert "71" in texts(after, "i4")
    drawn = after.made["i3"].picture
    assert drawn is not None
    assert 71.0 in [mark.value for mark in drawn.figure.marks]


# Charts


def test_a_chart_is_composed_anew_at_its_frame_not_scaled() -> None:
    document, page = page_edits.add_page(made())
    document, _ = page_edits.put(document, page, ChartFrame("", chart="k1"), Rect(0, 0, 240, 180))
    document, _ = page_edits.put(document, page, ChartFrame("", chart="k1"), Rect(0, 200, 520, 390))
    picture = Pictures().page(document, page)
    sizes = []
    for item in ("i1", "i2"):
        drawn = picture.made[item].picture
        assert drawn is not None
        assert (drawn.scene.size.width, drawn.scene.size.height) == (
            picture.boxes[item].width, picture.boxes[item].height,
        )  # fmt: skip
        sizes.append({round(text.size, 6) for text in drawn.figure.texts if text.kind == "name"})
    assert sizes[0] == sizes[1] != set()


def test_a_chart_takes_the_page_s_look_unless_it_is_pinned() -> None:
    frames = (ChartFrame("", chart="k1", width=200, height=150),
              ChartFrame("", chart="k1", y=200, width=200, height=150, pinned=True))  # fmt: skip
    document, picture = page_of(*frames, dark=True, theme="beacon")
    entries = [framed(item, Rect(0, 0, 200, 150), document, picture.page) for item in picture.page.items
               if isinstance(item, ChartFrame)]  # fmt: skip
    assert [(one.dress.theme, one.dress.dark) for one in entries] == [
        ("beacon", True), (document.chart("k1").dress.theme, document.chart("k1").dress.dark),
    ]  # fmt: skip


def test_colours_set_by_hand_survive_every_theme() -> None:
    document = look_edits.set_looks(made(), "k1", {"layers.series 1.fill": "#884422"})
    for theme in ("beacon", "letterpress"):
        _, picture = page_of(ChartFrame("", chart="k1", width=300, height=200), document=document, theme=theme)
        drawn = picture.made["i1"].picture
        assert drawn is not None
        mark = next(one for one in drawn.figure.marks if one.series == 0)
        assert mark.fill is not None
        assert mark.fill.hex == "#884422"


def test_labels_reach_to_the_frame_s_sides() -> None:
    """A chart on a page has no margin of its own; the shares at a funnel's right side stand at the frame's."""
    document = made("funnel", {"name": ("c1",), "value": ("c2",)})
    _, picture = page_of(ChartFrame("", chart="k1", width=480, height=270), document=document)
    drawn = picture.made["i1"].picture
    assert drawn is not None
    shares = [text for text in drawn.figure.texts if text.layer == "overall" and text.kind == "label"]
    assert len(shares) == 3
    assert (drawn.figure.dropped, drawn.figure.unnamed, drawn.figure.unlisted) == (0, 0, 0)


def test_title_and_legend_can_be_left_out() -> None:
    document = edits.change_chart(made(), "k1", title="Guests by gate", source="Counted")
    frames = (ChartFrame("", chart="k1", width=300, height=220),
              ChartFrame("", chart="k1", y=240, width=300, height=220, title=False, legend=False))  # fmt: skip
    _, picture = page_of(*frames, document=document)
    assert "Guests by gate" in texts(picture, "i1")
    assert not {"Guests by gate", "Counted", "Spring"} & set(texts(picture, "i2"))


def test_a_shared_legend_lists_each_entry_once() -> None:
    document, second = chart_edits.copy_chart(made(), "k1")
    items = (
        ChartFrame("", chart="k1", width=200, height=150, legend=False),
        ChartFrame("", chart=second, y=200, width=200, height=150, legend=False),
        SharedLegend("", y=400, width=300, height=20), SharedLegend("", y=450, width=60, height=60),
    )  # fmt: skip
    _, picture = page_of(*items, document=document)
    assert texts(picture, "i3") == ["Spring", "Summer"]
    assert len({one.y for one in writings(picture.drawn["i3"])}) == 1  # in a line where it is wide
    assert len({one.y for one in writings(picture.drawn["i4"])}) == 2  # below each other where not


# What is lost


@pytest.mark.parametrize(
    "item",
    [ChartFrame("", chart="gone"), Excerpt("", table="gone"), PlacedPicture("", picture="gone"), StepControl("")],
)
def test_what_shows_something_lost_says_so(item: AnyItem) -> None:
    _, picture = page_of(msgspec.structs.replace(item, width=220, height=80))
    assert picture.made["i1"].refused
    assert texts(picture)
    assert not picture.overflowing


def test_a_table_that_does_not_fit_its_recipe_says_so_in_its_frame() -> None:
    document = edits.set_cells(made("funnel", {"name": ("c1",), "value": ("c2",)}), "t1",
                               {(1, row): "none" for row in (1, 2, 3)})  # fmt: skip
    _, picture = page_of(ChartFrame("", chart="k1", width=240, height=160), document=document)
    assert picture.made["i1"].refused


def test_a_picture_is_fitted_or_fills_and_is_cropped() -> None:
    document = msgspec.structs.replace(made(), pictures=(PictureFile("bar", "M 0 0 H 20 V 10 H 0 Z"),))
    items = [
        PlacedPicture("", picture="bar", width=100, height=100),
        PlacedPicture("", picture="bar", y=120, width=100, height=100, fit="fill"),
        PlacedPicture("", picture="bar", y=240, width=100, height=100, fit="fill", crop=(0.5, 0, 0, 0)),
    ]
    _, picture = page_of(*items, document=document)
    wholes = [picture.made[one].whole for one in ("i1", "i2", "i3")]
    assert [(w.width, w.height) for w in wholes if w is not None] == [
        pytest.approx((100, 50)), pytest.approx((200, 100)), pytest.approx((200, 100)),
    ]  # fmt: skip
    assert all(isinstance(picture.drawn[one][0], Stamp | Image | Group) or picture.drawn[one] for one in ("i1", "i2"))


def test_pages_of_three_hundred_items_are_composed() -> None:
    document, page = page_edits.add_page(made())
    items = [DrawnShape("", x=float(i % 20) * 25, y=float(i // 20) * 40, width=20, height=30) for i in range(300)]
    for item in items:
        document, _ = page_edits.put(document, page, item, item.box)
    assert len(Pictures().page(document, page).drawn) == 301


# Small multiples


def test_series_can_be_repeated_on_one_scale() -> None:
    document = made("lines")
    pictures = Pictures()
    chart = document.chart("k1")
    rows = rows_of(document, pictures.values(document), chart)
    assert rows == {1: "Spring", 2: "Summer"}
    over = repeated(document, pictures.values(document), chart, lambda entry, key: pictures.drawn(document, entry, key))
    assert over.rows == rows
    assert over.ends is not None
    assert not over.legend  # each frame shows one series, named above it
    document, page = page_edits.page_of_all_rows(document, "k1", over)
    picture = Pictures().page(document, page)
    axes = []
    for item in picture.page.items:
        drawn = picture.made[item.id].picture
        if drawn is not None:
            axis = next(one for one in drawn.figure.axes if one.name in ("x", "y"))
            axes.append((axis.minimum, axis.maximum))
            assert len({mark.key for mark in drawn.figure.marks if not mark.helper}) == 1
    assert len(axes) == 2
    assert len(set(axes)) == 1


def test_one_series_alone_keeps_the_looks_set_on_it() -> None:
    document = look_edits.set_looks(
        made(), "k1", {"layers.series 2.fill": "#114477", "layers.series 1.fill": "#aa0000"}
    )
    item = ChartFrame("", chart="k1", row=2)
    entry = framed(item, Rect(0, 0, 300, 200), document, Page("", ""))
    assert entry.roles["value"] == ("c3",)
    assert entry.dress.overrides["layers.series 1.fill"] == "#114477"
    assert "layers.series 2.fill" not in entry.dress.overrides


def test_rows_of_one_figure_can_be_repeated() -> None:
    document = made("gauge", {"name": ("c1",), "value": ("c2",)})
    assert rows_of(document, Pictures().values(document), document.chart("k1")) == {1: "North", 2: "South", 3: "East"}


def test_a_chart_of_all_there_is_has_nothing_to_be_repeated_over() -> None:
    document = made("funnel", {"name": ("c1",), "value": ("c2",)})
    with pytest.raises(KavletError, match="repeated"):
        rows_of(document, Pictures().values(document), document.chart("k1"))


# As a whole


def test_the_record_tells_kinds_names_and_bounds() -> None:
    _, picture = page_of(Words("", paragraphs=plain("Heading\nmore"), x=10, y=20, width=100, height=60, name=""),
                         name="First")  # fmt: skip
    held = record(picture)
    assert (held["page"], held["number"]) == ("First", 1)
    assert held["items"][0]["kind"] == "words"
    assert held["items"][0]["name"] == "Heading"
    assert held["items"][0]["bounds"] == [10, 20, 100, 60]


def test_an_edit_recomposes_only_the_charts_it_touches() -> None:
    rows = [["Gate", "Guests"], ["North", 4.0], ["South", 6.0]]
    document, other = edits.add_table(made(), "Others", rows)  # type: ignore[arg-type]
    document, chart = edits.add_chart(document, other, "funnel", {"name": ("c1",), "value": ("c2",)})
    document, page = page_edits.add_page(document)
    for name in ("k1", chart):
        document, _, _ = page_edits.send_to_page(document, name, page)
    pictures = Pictures()
    before = pictures.page(document, page)
    after = pictures.page(edits.set_cells(document, other, {(1, 1): 9.0}), page)
    assert after.made["i1"].picture is before.made["i1"].picture
    assert after.made["i2"].picture is not before.made["i2"].picture


def test_a_page_without_change_is_the_same_object() -> None:
    document, page = page_edits.add_page(made())
    pictures = Pictures()
    assert pictures.page(document, page) is pictures.page(document, page)


def test_some_items_alone_and_all_but_some_make_the_whole() -> None:
    _, picture = page_of(
        DrawnShape("", width=10, height=10), DrawnShape("", x=50, width=10, height=10), footer="{page}"
    )
    some, rest = picture.scene_of({"i2"}), picture.scene_without({"i2"})
    assert sorted(map(repr, (*some.items, *rest.items))) == sorted(map(repr, picture.scene.items))
    assert some.ground is None


# Shapes and step controls


@pytest.mark.parametrize("form", ["rectangle", "rounded", "ellipse"])
def test_a_shadow_lies_below_the_shape_and_is_off_by_itself(form: str) -> None:
    item = DrawnShape("", form=form, x=50, y=50, width=80, height=40)  # type: ignore[arg-type]
    _, plain = page_of(item)
    _, picture = page_of(msgspec.structs.replace(item, shadow=True))
    assert len(plain.drawn["i1"]) == 1
    *soft, shape = picture.drawn["i1"]
    assert shape == plain.drawn["i1"][0]
    assert soft
    assert all(isinstance(one, Shape) and one.path.bounds.center[1] > 70.5 for one in soft)


@pytest.mark.parametrize(("slider", "buttons", "shapes"), [(True, True, 4), (True, False, 2), (False, True, 2)])
def test_a_step_control_has_the_parts_it_is_given(slider: bool, buttons: bool, shapes: int) -> None:
    rows = [["Gate", "Guests", "Year"], ["N", 1.0, "2023"], ["N", 3.0, "2024"], ["N", 9.0, "2025"]]
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    roles = {"name": ("c1",), "value": ("c2",), "period": ("c3",)}
    document, chart = edits.add_chart(document, table, "stepping", roles)
    control = StepControl("", y=300, width=300, height=40, slider=slider, buttons=buttons)
    _, picture = page_of(ChartFrame("", chart=chart, width=300, height=200), control, document=document)
    assert texts(picture, "i2") == ["2023"]
    assert sum(isinstance(one, Shape) for one in picture.drawn["i2"]) == shapes


def test_a_place_on_the_slider_is_a_period() -> None:
    where = parts(StepControl(""), Rect(100, 0, 312, 40), NO_PAGE_PICTURE.style)
    assert [where.period_at(x, 4) for x in (0, 106, 206, 306, 406, 999)] == [1, 1, 2, 3, 4, 4]


def test_long_names_in_an_excerpt_leave_short_columns_whole() -> None:
    rows = [["Name", "Word", "Number"], ["A very long name that finds no room at all in its column", "short", 1.0],
            ["Another very long name that finds no room either", "brief", 2.0]]  # fmt: skip
    document, table = edits.add_table(Document(), "T", rows)  # type: ignore[arg-type]
    _, picture = page_of(Excerpt("", table=table, width=240, height=120), document=document)
    said = texts(picture)
    assert {"Word", "short", "brief", "Number", "1", "2"} <= set(said)
    assert sum(one.endswith("…") for one in said) == 2
    assert all(one.x + one.width <= 240.5 for one in writings(picture.drawn["i1"]))
