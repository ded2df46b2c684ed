"""Office files against the standards' schemas (openxml-audit: ISO/IEC 29500 and ISO/IEC 26300), read back by libraries
of their formats, and recalculated by another engine.

One rule of the validator is left out: it takes the name of an object's own document (ODF 1.3 part 2, 3.1: a folder of
the package) for a file's, and finds none.
"""

import io
import posixpath
import tempfile
import zipfile
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path
from typing import Any

import msgspec
import odfdo
import openpyxl
import pptx
import pytest
from lxml import etree
from openpyxl.chart.chartspace import ChartSpace
from openpyxl.chart.reader import read_chart
from openxml_audit import OdfValidator, OpenXmlValidator
from openxml_audit.schema.validator import SchemaValidator

import formulas
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import xlsx as xlsx_tables
from kavlet.core.office import docx, odp, ods, odt, xlsx
from kavlet.core.office import pptx as slides
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office.writing_options import WritingOptions
from kavlet.core.office_model.convert_pages import chart_page
from kavlet.core.office_model.page_model import ChartPart, PageModel, PicturePart, TablePart, TextPart
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.recalculate import recalculate
from tests import typeset_cases
from tests.office import C, Made, agree, cached, cells, made, names, pages, paint, part, val, workbook

DEMO = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
SUBDOCUMENT = "which is not present in the package"
ROWS = (1, 5, 40)


@lru_cache(maxsize=1)
def document_of_demo() -> Document:
    return kavlet_file.load(DEMO)


@lru_cache
def drawn(chart: str) -> Made:
    """A chart of the demo."""
    return made(document_of_demo(), chart)


@lru_cache
def book_of(chart: str) -> bytes:
    """Its workbook."""
    return workbook(drawn(chart))


class EachPartOnce(SchemaValidator):
    """Passes over parts that were right in another file: themes, styles and layouts are the same in all of them."""

    def __init__(self) -> None:
        super().__init__()
        self._right: set[bytes] = set()

    def validate_part(self, part: Any, context: Any) -> Any:
        content = b"" if part.xml is None else etree.tostring(part.xml)
        if content in self._right:
            return context.errors
        before = len(context.errors)
        found = super().validate_part(part, context)
        if len(found) == before:
            self._right.add(content)
        return found


@lru_cache(maxsize=2)
def validator(is_open: bool) -> Any:
    if is_open:
        return OdfValidator()
    made = OpenXmlValidator()
    made._schema_validator = EachPartOnce()
    return made


@pytest.fixture(scope="module")
def demo() -> Document:
    return document_of_demo()


def wrongs(content: bytes, ending: str) -> list[str]:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / f"file{ending}"
        path.write_bytes(content)
        found = validator(ending.startswith(".od")).validate(str(path)).errors
        return [str(one) for one in found if SUBDOCUMENT not in str(one)]


def charts() -> list[str]:
    return [chart.id for chart in document_of_demo().charts]


def open_workbook(one: Made) -> bytes:
    entry = one.picture.build.entry
    beside = xlsx.AnchoredChart(entry.table, entry.name, one.picture.figure.alt_text, one.charts, one.picture.scene)
    return ods.workbook(sheets_for(one.document.tables, one.charts, more=[entry.table]), [beside], "en-US", paint)[0]


def test_the_validator_finds_what_is_wrong() -> None:
    content = book_of("k8")
    broken = content_with(content, "xl/charts/chart1.xml", b'<c:gapWidth val="45"/>', b'<c:gapWidth val="700"/>')
    assert any("gapWidth" in one for one in wrongs(broken, ".xlsx"))


def content_with(content: bytes, name: str, old: bytes, new: bytes) -> bytes:
    from kavlet.core.office.package import packed, parts_of

    parts = parts_of(content)
    assert old in parts[name]
    parts[name] = parts[name].replace(old, new)
    return packed(parts)


@pytest.mark.parametrize("chart", charts())
def test_every_chart_of_the_demo_is_valid_in_every_format(demo: Document, chart: str) -> None:
    one = drawn(chart)
    manner = WritingOptions(paint)
    page = [chart_page(demo, one.values, one.picture)]
    assert wrongs(book_of(chart), ".xlsx") == []
    assert wrongs(slides.presentation(page, demo.tables, manner), ".pptx") == []
    assert wrongs(docx.report(page, demo.tables, manner), ".docx") == []
    assert wrongs(open_workbook(one), ".ods") == []
    assert wrongs(odp.presentation(page, demo.tables, manner)[0], ".odp") == []
    assert wrongs(odt.report(page, demo.tables, manner)[0], ".odt") == []


def wished(page: PageModel, as_: Any) -> PageModel:
    parts = [msgspec.structs.replace(one, as_=as_) if isinstance(one, ChartPart) else one for one in page.parts]
    return msgspec.structs.replace(page, parts=tuple(parts))


@pytest.mark.parametrize("as_", ["chart", "picture", "both"])
def test_every_page_of_the_demo_is_valid_in_every_format(demo: Document, as_: Any) -> None:
    manner, held = WritingOptions(paint), [wished(page, as_) for page in pages(demo)]
    assert wrongs(slides.presentation(held, demo.tables, manner), ".pptx") == []
    assert wrongs(docx.report(held, demo.tables, manner), ".docx") == []
    assert wrongs(odp.presentation(held, demo.tables, manner)[0], ".odp") == []
    assert wrongs(odt.report(held, demo.tables, manner)[0], ".odt") == []


def cases() -> Iterator[tuple[str, int]]:
    for recipe in RECIPES:
        for rows in ROWS:
            if (recipe, rows) != ("funnel", 1):  # which is refused: a path has two stages at least
                yield recipe, rows


@pytest.mark.parametrize(("recipe", "rows"), list(cases()))
def test_every_recipe_is_valid_with_few_and_many_rows(recipe: str, rows: int) -> None:
    case = typeset_cases.Case(recipe, rows, "long", "own", False)
    one = made(*typeset_cases.document(case))
    content = workbook(one)
    assert wrongs(content, ".xlsx") == []
    assert wrongs(open_workbook(one), ".ods") == []
    told(content, one)


def told(content: bytes, one: Made) -> None:
    """Every reference leads to cells that hold what the chart keeps of them."""
    book = openpyxl.load_workbook(io.BytesIO(content), data_only=True)
    seen = 0
    for name in names(content, "xl/charts/chart"):
        for reference in part(content, name).iter(f"{C}strRef", f"{C}numRef"):
            sheet, column, first, last = cells(reference.find(f"{C}f").text)
            held = [book[sheet].cell(row + 1, column + 1).value for row in range(first, last + 1)]
            kept = cached(reference)
            assert len(kept) == len(held)
            if reference.tag == f"{C}numRef":
                held = [value if isinstance(value, int | float) else None for value in held]
            assert all(agree(text, value) for text, value in zip(kept, held, strict=True)), (name, kept, held)
            seen += 1
    assert seen or not any(chart.groups for chart in one.charts)


@pytest.mark.parametrize("chart", charts())
def test_references_lead_to_cells_that_hold_what_the_chart_keeps(chart: str) -> None:
    told(book_of(chart), drawn(chart))


@pytest.mark.parametrize("chart", charts())
def test_charts_are_read_back_by_another_library(chart: str) -> None:
    content = book_of(chart)
    space = ChartSpace.from_tree(part(content, "xl/charts/chart1.xml"))
    assert read_chart(space).series


@pytest.mark.parametrize("chart", charts())
def test_formulas_give_the_same_when_read_again(demo: Document, chart: str, tmp_path: Path) -> None:
    one = drawn(chart)
    path = tmp_path / "book.xlsx"
    path.write_bytes(book_of(chart))
    sheets = sheets_for(demo.tables, one.charts)
    document = Document()
    for table in sheets.tables:
        held = xlsx_tables.read(path, sheets.names[table.name])
        notes = [str(note) for note in held.notes if "another sheet" not in str(note)]
        assert notes == []
        document, _ = edits.add_table(document, table.name, held.cells)
    again = recalculate(document.tables)
    for table, other in zip(sheets.tables, document.tables, strict=True):
        for place, column in enumerate(sheets.values.of(table.id)):
            for row, value in enumerate(column.values):
                if row >= other.height:
                    continue
                new = again.of(other.id)[place].values[row] if place < len(other.columns) else None
                if isinstance(value, float):
                    assert new == pytest.approx(value, rel=1e-9), (table.name, place, row)
                elif isinstance(value, str) and value:
                    assert new == value


@pytest.mark.parametrize("chart", ["k1", "k3", "k4", "k8", "k9", "k14", "k17"])
def test_formulas_give_the_same_in_another_engine(demo: Document, chart: str, tmp_path: Path) -> None:
    one = drawn(chart)
    path = tmp_path / "book.xlsx"
    path.write_bytes(book_of(chart))
    model = formulas.ExcelModel().loads(str(path)).finish()
    found = model.calculate()
    sheets = sheets_for(demo.tables, one.charts)
    compared = 0
    for table in sheets.tables:
        sheet = sheets.names[table.name].upper()
        for place, column in enumerate(table.columns):
            for row, cell in enumerate(column.cells):
                if not hasattr(cell, "text"):
                    continue
                key = f"'[book.xlsx]{sheet}'!{openpyxl.utils.get_column_letter(place + 1)}{row + 1}"
                value = sheets.values.of(table.id)[place].values[row]
                if key not in found or isinstance(value, ErrorValue | None):
                    continue
                other = found[key].value[0, 0]
                if isinstance(value, float):
                    assert float(other) == pytest.approx(value, rel=1e-9, abs=1e-12), key
                else:
                    assert str(other) == str(value) or (value == "" and str(other) in ("", "empty")), key
                compared += 1
    assert compared > 3


def test_a_changed_cell_changes_the_chart_as_it_would_here(demo: Document, tmp_path: Path) -> None:
    """The written workbook with another figure, read again, plots what a chart of that figure plots."""
    one = drawn("k1")
    path = tmp_path / "book.xlsx"
    path.write_bytes(book_of("k1"))
    book = openpyxl.load_workbook(path)
    sheet = book.worksheets[0]
    sheet["B3"] = 9000
    book.save(path)
    held = xlsx_tables.read(path, sheet.title)
    document, table = edits.add_table(Document(), "again", held.cells)
    shown = recalculate(document.tables).of(table)
    changed = edits.set_cells(demo, one.picture.build.entry.table, {(1, 2): 9000.0})
    here = made(changed, "k1")
    mine = here.values.of(here.picture.build.entry.table)
    series = here.charts[0].groups[0].series
    for wanted in {cells_.column for cells_ in (one_.values for one_ in series)}:
        assert list(shown[wanted].numbers) == pytest.approx(list(mine[wanted].numbers), nan_ok=True)


def chart_xml(chart: str) -> Any:
    return part(book_of(chart), "xl/charts/chart1.xml")


def test_gaps_overlaps_holes_and_angles_are_those_of_the_chart() -> None:
    bars = chart_xml("k8").find(f".//{C}barChart")
    assert (val(bars, "gapWidth"), val(bars, "overlap"), val(bars, "grouping")) == ("45", "100", "stacked")
    target = chart_xml("k7").find(f".//{C}barChart")
    assert (val(target, "gapWidth"), val(target, "overlap")) == ("45", "100")
    ring = chart_xml("k14").find(f".//{C}doughnutChart")
    assert (val(ring, "holeSize"), val(ring, "firstSliceAng")) == ("56", "0")
    dial = chart_xml("k3").find(f".//{C}doughnutChart")
    assert (val(dial, "holeSize"), val(dial, "firstSliceAng")) == ("66", "270")


def test_helpers_are_series_without_fill_line_label_and_entry() -> None:
    series = chart_xml("k1").findall(f".//{C}barChart/{C}ser")
    hidden = series[0]
    look = hidden.find(f"{C}spPr")
    assert [one.tag.rpartition("}")[2] for one in look] == ["noFill", "ln"]
    assert look.find(".//{*}ln/{*}noFill") is not None
    assert hidden.find(f"{C}dLbls") is None
    assert [value is not None for value in cached(hidden.find(f"{C}val"))] == [True] * 5


def test_the_needle_stands_where_the_cell_says() -> None:
    from math import cos, radians, sin

    one = drawn("k3")
    needle = next(layer for layer in one.picture.build.chart.layers if layer.key == "needle")
    angle = radians(float(one.picture.build.panels[0].data.column(needle.values)[0]))
    scatter = chart_xml("k3").find(f".//{C}scatterChart/{C}ser")
    x, y = (float(cached(scatter.find(f"{C}{axis}"))[1] or 0) for axis in ("xVal", "yVal"))
    assert (x, y) == pytest.approx((0.86 * sin(angle), 0.86 * cos(angle)))
    for axis in chart_xml("k3").iter(f"{C}valAx"):
        scaling = axis.find(f"{C}scaling")
        assert (val(scaling, "min"), val(scaling, "max"), val(axis, "delete")) == ("-1", "1", "1")


def test_a_waffle_has_one_whole_cell_at_each_place() -> None:
    one = drawn("k4")
    chart = chart_xml("k4")
    columns = [0.0] * 10
    for series in chart.findall(f".//{C}barChart/{C}ser"):
        for place, text in enumerate(cached(series.find(f"{C}val"))):
            columns[place] += float(text or 0)
    assert columns == pytest.approx([10.0] * 10)
    counts: dict[str, float] = {}
    for series in chart.findall(f".//{C}barChart/{C}ser"):
        name = cached(series.find(f"{C}tx"))[0] or ""
        counts[name] = counts.get(name, 0) + sum(float(text or 0) for text in cached(series.find(f"{C}val")))
    build = one.picture.build
    layer = build.chart.layers[0]
    data = build.panels[0].data
    for name, figure in zip(data.names(build.chart.names), data.column(layer.values), strict=True):
        assert counts[name] == pytest.approx(float(figure))


def test_locked_scales_keep_their_ends_and_others_are_free() -> None:
    def ends(chart: str) -> tuple[str | None, str | None]:
        axis = chart_xml(chart).find(f".//{C}valAx/{C}scaling")
        return val(axis, "min"), val(axis, "max")

    assert ends("k25") == ("-73", "73")
    assert ends("k20") == (None, None)


def test_a_title_bound_to_cells_refers_to_one(demo: Document) -> None:
    entry = demo.chart("k20")
    bound = edits.change_chart(demo, "k20", title='="Most days: "&MAX(B2:B9)')
    title = part(workbook(made(bound, "k20")), "xl/charts/chart1.xml").find(f".//{C}title")
    sheet, _, _, _ = cells(title.find(f".//{C}f").text)
    assert "workings" in sheet
    biggest = max(float(one) for one in recalculate(demo.tables).numbers(entry.table, 1))
    assert cached(title)[0] == f"Most days: {biggest:g}"


def test_solids_are_solid_there() -> None:
    chart = chart_xml("k27")
    solid = drawn("k27").picture.build.chart.as_solid
    assert solid is not None
    view = chart.find(f".//{C}view3D")
    assert float(val(view, "rotX") or 0) == pytest.approx(solid.tilt, abs=0.5)
    assert chart.find(f".//{C}bar3DChart") is not None


def test_alternative_texts_go_along(demo: Document) -> None:
    one = drawn("k8")
    deck = pptx.Presentation(io.BytesIO(
        slides.presentation([chart_page(demo, one.values, one.picture)], demo.tables, WritingOptions(paint))
    ))  # fmt: skip
    frame = next(shape for shape in deck.slides[0].shapes if shape.has_chart)
    said = frame._element.nvGraphicFramePr.cNvPr.get("descr")
    assert said == one.charts[0].alt_text
    assert one.charts[0].alt_text
    drawing = part(book_of("k8"), "xl/drawings/drawing1.xml")
    assert one.charts[0].alt_text in [element.get("descr") for element in drawing.iter("{*}cNvPr")]


def test_slides_hold_the_pages_words_tables_charts_and_notes(demo: Document) -> None:
    held = pages(demo)
    deck = pptx.Presentation(io.BytesIO(slides.presentation(held, demo.tables, WritingOptions(paint))))
    assert len(deck.slides) == len(demo.pages)
    assert deck.slide_width == round(demo.pages[0].width * 12_700)
    for slide, page, source in zip(deck.slides, held, demo.pages, strict=True):
        text = "\n".join(shape.text_frame.text for shape in slide.shapes if shape.has_text_frame)
        for one in page.parts:
            if isinstance(one, TextPart) and not one.group:
                assert all(line.text.replace("\t", "    ") in text for line in one.paragraphs)
        assert sum(shape.has_chart for shape in _all(slide.shapes)) == sum(
            len(one.charts) for one in page.parts if isinstance(one, ChartPart)
        )
        assert sum(shape.has_table for shape in _all(slide.shapes)) == sum(
            isinstance(one, TablePart) for one in page.parts
        )
        if source.speaker:
            assert slide.notes_slide.notes_text_frame.text == source.speaker


def test_pictures_stand_as_vectors_beside_their_rasters(demo: Document) -> None:
    held = [wished(page, "picture") for page in pages(demo)]
    drawn = {
        "ppt/slides/": slides.presentation(held, demo.tables, WritingOptions(paint)),
        "word/document": docx.report(held, demo.tables, WritingOptions(paint)),
    }
    for start, content in drawn.items():
        found = 0
        with zipfile.ZipFile(io.BytesIO(content)) as opened:
            for name in opened.namelist():
                if not name.startswith(start) or not name.endswith(".xml"):
                    continue
                folder, _, base = name.rpartition("/")
                targets = {
                    one.get("Id"): one.get("Target")
                    for one in etree.fromstring(opened.read(f"{folder}/_rels/{base}.rels"))
                }
                for vector in etree.fromstring(opened.read(name)).iter("{*}svgBlip"):
                    target = targets[next(iter(vector.attrib.values()))]
                    assert opened.read(posixpath.normpath(f"{folder}/{target}")).startswith(b"<svg")
                    found += 1
        assert found >= sum(isinstance(one, PicturePart | ChartPart) for page in held for one in page.parts)


def _all(shapes: Any) -> Iterator[Any]:
    for shape in shapes:
        if shape.shape_type == 6:
            yield from _all(shape.shapes)
        else:
            yield shape


def test_the_workbook_in_a_slide_holds_the_cells_of_its_chart(demo: Document) -> None:
    one = drawn("k8")
    deck = pptx.Presentation(io.BytesIO(
        slides.presentation([chart_page(demo, one.values, one.picture)], demo.tables, WritingOptions(paint))
    ))  # fmt: skip
    chart = next(shape for shape in deck.slides[0].shapes if shape.has_chart).chart
    book = openpyxl.load_workbook(io.BytesIO(chart.part.chart_workbook.xlsx_part.blob))
    values = chart.plots[0].series[2].values
    reference = chart._chartSpace.findall(f".//{C}ser/{C}val//{C}f")[2].text
    sheet, column, first, last = cells(reference)
    formulas_ = [book[sheet].cell(row + 1, column + 1).value for row in range(first, last + 1)]
    assert all(isinstance(one_, str) and one_.startswith("=") for one_ in formulas_)
    assert len(values) == last - first + 1


def test_open_documents_are_read_back(demo: Document) -> None:
    held = pages(demo)
    deck = odfdo.Document(io.BytesIO(odp.presentation(held, demo.tables, WritingOptions(paint))[0]))
    assert len(deck.body.get_elements("//draw:page")) == len(demo.pages)
    text = odfdo.Document(io.BytesIO(odt.report(held, demo.tables, WritingOptions(paint))[0])).get_formatted_text()
    for page in held:
        for one in page.parts:
            if isinstance(one, TextPart) and one.role == "title":
                assert one.paragraphs[0].text in text


def test_open_charts_refer_to_cells_of_the_sheet() -> None:
    one = drawn("k8")
    content = open_workbook(one)
    chart = part(content, "Object 1/content.xml")
    space = "{urn:oasis:names:tc:opendocument:xmlns:chart:1.0}"
    addresses = [series.get(f"{space}values-cell-range-address") for series in chart.iter(f"{space}series")]
    assert addresses[0] == "'Reserve fund'.$F$2:.$F$9"
    assert any("workings" in one_ for one_ in addresses)
    plot = next(chart.iter(f"{space}plot-area"))
    style = {one_.get("{urn:oasis:names:tc:opendocument:xmlns:style:1.0}name"): one_ for one_ in chart.iter("{*}style")}
    properties = style[plot.get(f"{space}style-name")].find("{*}chart-properties")
    assert properties.get(f"{space}stacked") == "true"


def test_the_same_document_gives_the_same_bytes(demo: Document) -> None:
    one = drawn("k8")
    page = [chart_page(demo, one.values, one.picture)]
    for write in (
        lambda: workbook(one), lambda: open_workbook(one),
        lambda: slides.presentation(page, demo.tables, WritingOptions(paint)),
        lambda: docx.report(page, demo.tables, WritingOptions(paint)),
        lambda: odp.presentation(page, demo.tables, WritingOptions(paint))[0],
        lambda: odt.report(page, demo.tables, WritingOptions(paint))[0],
    ):  # fmt: skip
        assert write() == write()


def test_a_chart_with_errors_and_gaps_is_written() -> None:
    document, table = edits.add_table(Document(), "Odd 'names' & <signs>: a/b", [
        ["name", "value"], ["a & b", 3.0], ["<c>", 0.0], ["\u0001 control", None], ["“é”", -2.0],
    ])  # type: ignore[arg-type]  # fmt: skip
    document, chart = edits.add_chart(document, table, "columns", {"name": ("c1",), "value": ("c2",)})
    one = made(document, chart)
    content = workbook(one)
    assert wrongs(content, ".xlsx") == []
    assert wrongs(open_workbook(one), ".ods") == []
    told(content, one)
    assert wrongs(workbook(one, "both"), ".xlsx") == []


def test_two_hundred_rows_are_written() -> None:
    rows: list[list[Any]] = [["name", "value"], *([f"Row {i}", float(i % 17)] for i in range(200))]
    document, table = edits.add_table(Document(), "Many", rows)
    document, chart = edits.add_chart(document, table, "columns", {"name": ("c1",), "value": ("c2",)})
    one = made(document, chart)
    assert wrongs(workbook(one), ".xlsx") == []


def test_documents_hold_headings_words_tables_charts_and_captions(demo: Document) -> None:
    import docx as reader

    held = pages(demo)
    document = reader.Document(io.BytesIO(docx.report(held, demo.tables, WritingOptions(paint))))
    text = "\n".join(paragraph.text for paragraph in document.paragraphs)
    parts = [one for page in held for one in page.parts]
    heads = [paragraph.text for paragraph in document.paragraphs if paragraph.style.name.startswith("Heading")]
    for one in parts:
        if isinstance(one, TextPart) and one.role != "margin":
            assert all(line.text in text for line in one.paragraphs if line.text.strip())
        if isinstance(one, TextPart) and one.role == "title":
            assert one.paragraphs[0].text in heads
    assert len(document.tables) == sum(isinstance(one, TablePart) for one in parts)
    charts_ = [one for one in parts if isinstance(one, ChartPart)]
    drawn = document.element.body.findall(f".//{C}chart")
    assert len(drawn) == sum(len(one.charts) for one in charts_)
    captions = [paragraph.text for paragraph in document.paragraphs if paragraph.style.name == "Caption"]
    assert all(one.title in captions for one in charts_)
    said = [element.get("descr") for element in document.element.body.iter("{*}docPr")]
    assert all(chart.alt_text in said for one in charts_ for chart in one.charts)


def test_native_objects_stand_where_the_page_has_them(demo: Document) -> None:
    held = pages(demo)
    deck = pptx.Presentation(io.BytesIO(slides.presentation(held, demo.tables, WritingOptions(paint))))
    for slide, page in zip(deck.slides, held, strict=True):
        places = {(shape.left, shape.top, shape.width, shape.height) for shape in _all(slide.shapes)}
        for one in page.parts:
            if isinstance(one, TextPart | PicturePart) or (isinstance(one, ChartPart) and len(one.charts) == 1):
                box = tuple(round(side * 12_700) for side in (one.box.x, one.box.y, one.box.width, one.box.height))
                assert any(max(abs(a - b) for a, b in zip(box, place, strict=True)) <= 1 for place in places), one.name


@pytest.mark.parametrize(
    ("chart", "layer"), [("k20", "series 1"), ("k12", "others"), ("k8", "above"), ("k17", "series 2")]
)
def test_kept_values_are_those_of_the_record(chart: str, layer: str) -> None:
    one = drawn(chart)
    marks = [mark for mark in one.picture.figure.marks if mark.key == layer]
    name = marks[0].layer
    series = [held for held in chart_xml(chart).iter(f"{C}ser") if (cached(held.find(f"{C}tx")) or [""])[0] == name]
    values = [[float(text) for text in cached(held.find(f"{C}val")) if text not in (None, "0")] for held in series]
    wanted = [mark.value for mark in marks if mark.value]
    assert any(found == pytest.approx(wanted) for found in values)
