"""Charts and items of pages brought into another document."""

import msgspec

from kavlet.core.document import edits
from kavlet.core.document.charts import data_direction
from kavlet.core.document.copy_between import CopiedParts, copied_parts, pasted_document
from kavlet.core.document.document import Document, PictureFile
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables import table_edits
from kavlet.core.files import svg
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.table import Source
from kavlet.core.styling.palettes import Palette

ROWS = [["Gate", "Guests"], ["North", 40.0], ["South", 25.0], ["East", 10.0]]


def made(name: str = "Gates", rows: list[list[object]] | None = None, recipe: str = "funnel") -> Document:
    document, table = edits.add_table(Document(), name, rows or ROWS)  # type: ignore[arg-type]
    document, _ = edits.add_chart(document, table, recipe, {"name": ("c1",), "value": ("c2",)})
    return document


def drawn(document: Document, chart: str) -> str:
    """The chart's SVG, whoever it belongs to."""
    return svg.dumps(Pictures().picture(document, chart).scene, outlines=True).replace(f"{chart}-", "")


def over_the_clipboard(load: CopiedParts) -> CopiedParts:
    """As another window gets it."""
    return msgspec.json.decode(msgspec.json.encode(load), type=CopiedParts)


def test_a_chart_looks_the_same_in_another_document() -> None:
    here = made()
    here = look_edits.set_looks(here, "k1", {"layers.funnel.fill": "#884422"})
    there = made("Walks", [["Walk", "Number"], ["Short", 3.0], ["Long", 9.0]])
    result = pasted_document(there, over_the_clipboard(copied_parts(here, ["k1"])))
    (new,) = result.charts
    assert new != "k1"
    assert [table.name for table in result.document.tables] == ["Walks", "Gates"]
    assert drawn(result.document, new) == drawn(here, "k1")
    assert drawn(result.document, "k1") == drawn(there, "k1")


def test_helpers_belong_to_the_new_chart() -> None:
    here = made(recipe="gauge", rows=[["Goal", "Share"], ["Paths", 0.4]])
    result = pasted_document(made(), copied_parts(here, ["k1"]))
    (new,) = result.charts
    table = result.document.table(result.document.chart(new).table)
    owners = {column.helper.chart for column in table.columns if column.helper is not None}
    assert owners == {new}


def test_a_table_of_the_same_name_that_differs_gets_another_name_and_formulas_follow() -> None:
    here, _ = edits.add_table(made(), "Doubles", [["Gate", "Twice"], ["North", None]])
    here = edits.set_cells(here, "t2", {(1, 1): Formula("=2*Gates!B2")})
    here, _ = edits.add_chart(here, "t2", "columns", {"name": ("c1",), "value": ("c2",)})
    there = made(rows=[["Gate", "Guests"], ["North", 7.0], ["South", 5.0]])
    result = pasted_document(there, copied_parts(here, ["k2"]))
    names = [table.name for table in result.document.tables]
    assert names == ["Gates", "Gates 2", "Doubles"]
    values = Pictures().values(result.document)
    assert values.of(result.document.tables[2].id)[1].values[1] == 80.0


def test_what_is_there_already_is_not_doubled() -> None:
    here = made()
    here, page = page_edits.add_page(here)
    here, _, item = page_edits.send_to_page(here, "k1", page)
    here, second = page_edits.add_page(here)
    result = pasted_document(here, copied_parts(here, [], here.page(page).items), second)
    assert result.document.tables == here.tables
    assert result.document.charts == here.charts
    (copy,) = result.items
    frame = result.document.page(second).item(copy)
    assert isinstance(frame, ChartFrame)
    assert frame.chart == "k1"
    assert frame.box == here.page(page).item(item).box


def test_items_bring_their_tables_pictures_and_figures_along() -> None:
    here = made()
    here = msgspec.structs.replace(here, pictures=(PictureFile("crest", "M 0 0 L 10 0 L 5 10 Z"),))
    here, page = page_edits.add_page(here)
    for item in (
        Excerpt("", table="t1"), KeyFigure("", value="=B2"), PlacedPicture("", picture="crest"),
        Words("", paragraphs=plain("North had {=B2} guests")),
    ):  # fmt: skip
        here, _ = page_edits.put(here, page, item)
    there = made("Walks", [["Walk", "Number"], ["Short", 3.0]])
    there = msgspec.structs.replace(there, pictures=(PictureFile("crest", "M 0 0 L 1 0 L 1 1 Z"),))
    there, other = page_edits.add_page(there)
    result = pasted_document(there, over_the_clipboard(copied_parts(here, [], here.page(page).items)), other)
    before, after = Pictures().page(here, page), Pictures().page(result.document, other)
    assert [one.says for one in before.made.values()] == [one.says for one in after.made.values()]
    assert [one.name for one in result.document.pictures] == ["crest", "crest 2"]
    assert not any(one.refused for one in after.made.values())


def test_the_link_to_the_source_comes_along() -> None:
    here = made()
    linked = msgspec.structs.replace(here.tables[0], source=Source("gates.csv", seen="x"))
    here = msgspec.structs.replace(here, tables=(linked,))
    result = pasted_document(made("Walks"), copied_parts(here, ["k1"]))
    assert result.document.tables[1].source == linked.source


def test_a_chart_that_reads_across_brings_both_tables() -> None:
    here = made(rows=[["Gate", "March", "April"], ["North", 4.0, 5.0], ["South", 6.0, 7.0]], recipe="columns")
    here = data_direction.read_across(here, "k1", 1, ("c2", "c3"))
    there = made("Walks")
    result = pasted_document(there, over_the_clipboard(copied_parts(here, ["k1"])))
    (new,) = result.charts
    chart = result.document.chart(new)
    assert chart.reading is not None
    helper = result.document.table(chart.table).helper
    assert helper is not None
    assert helper.chart == new
    assert drawn(result.document, new) == drawn(here, "k1")


def test_palettes_and_the_house_palette_come_along() -> None:
    here = made(recipe="columns")
    mine = Palette("moor", "Moor", "qualitative", ("#123456", "#654321"))
    here = msgspec.structs.replace(here, palettes=(mine,), palette="moor")
    other = Palette("moor", "Moor", "qualitative", ("#ffffff", "#000000"))
    there = msgspec.structs.replace(made("Walks"), palettes=(other,))
    result = pasted_document(there, copied_parts(here, ["k1"]))
    (new,) = result.charts
    assert result.document.chart(new).dress.palette == "moor 2"
    assert drawn(result.document, new) == drawn(here, "k1")


def test_brought_twice_is_named_apart() -> None:
    here, there = made(), made("Walks")
    load = copied_parts(here, ["k1"])
    once = pasted_document(there, load)
    twice = pasted_document(once.document, load)
    assert len({chart.name for chart in twice.document.charts}) == 3
    assert [table.name for table in twice.document.tables] == ["Walks", "Gates"]
    assert table_edits.readers(twice.document, twice.document.tables[1].id)
