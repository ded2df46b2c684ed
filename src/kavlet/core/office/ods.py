"""ODS with real charts: each table on its sheet with its formulas, its charts beside it."""

from collections.abc import Sequence

from lxml import etree

from kavlet.core.files import ods, svg
from kavlet.core.office.odf import VERSION, Element, Package, add, dumps, meta, name, points, put, root
from kavlet.core.office.odf_chart import Differs, odf_chart
from kavlet.core.office.odf_parts import default_styles
from kavlet.core.office.package import SHARP, STAND_IN, Paint, parts_of
from kavlet.core.office.worksheets import Worksheets
from kavlet.core.office.xlsx import GAP_ROWS, AnchoredChart
from kavlet.core.office_model.chart_model import CellRange, TextProperties
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

TYPE = "application/vnd.oasis.opendocument.spreadsheet"
LINK = {"xlink_type": "simple", "xlink_show": "embed", "xlink_actuate": "onLoad"}
COLUMN, ROW = 64.0, 12.8  # points; how wide a column and how tall a row usually is


def where(worksheets: Worksheets, cells: CellRange) -> str:
    """The address of cells (ODF 1.3, part 3, 18.3.2): ``'My table'.$B$2:.$B$9``."""
    sheet = worksheets.sheet(cells.table).replace("'", "''")
    letters, first = column_letters(cells.column), cells.first + 1
    return f"'{sheet}'.${letters}${first}:.${letters}${first + cells.count - 1}"


def workbook(
    worksheets: Worksheets, beside: Sequence[AnchoredChart], language: str, paint: Paint
) -> tuple[bytes, Differs]:
    """The workbook's bytes, and what is different there; the same input gives the same bytes. A picture stands in the
    chart's place, or below it."""
    package = Package(TYPE)
    ods_parts = parts_of(ods.dumps_with([(table, worksheets.values) for table in worksheets.tables], worksheets.names))
    tree = etree.fromstring(ods_parts["content.xml"])
    tables = {anchored.get(name("table:name")): anchored for anchored in tree.iter(name("table:table"))}
    differs: Differs = {}
    next_row: dict[str, float] = {}
    for anchored in beside:
        table = next(table for table in worksheets.tables if table.id == anchored.table)
        page = tables[worksheets.names[table.name]]
        left_edge = (len(table.columns) + 1) * COLUMN
        top = next_row.get(anchored.table, 0.0)
        shapes = page.find(name("table:shapes"))
        if shapes is None:
            shapes = etree.Element(name("table:shapes"))
            page.insert(0, shapes)
        size = anchored.scene.size
        real = anchored.as_ != "picture" and anchored.can_be_told
        if real:
            for chart in anchored.charts:
                document = odf_chart(chart, worksheets, paint, lambda cells: where(worksheets, cells))
                differs[chart.workings.id] = document.differs
                object_ = package.object(document.parts, paint(anchored.scene, STAND_IN))
                rect = Rect(left_edge + chart.box.x * size.width, top + chart.box.y * size.height,
                          chart.size.width, chart.size.height)  # fmt: skip
                frame = _frame(shapes, chart.name, rect)
                embedded = add(frame, "draw:object", xlink_href=f"./{object_}", **LINK)
                addresses = " ".join(where(worksheets, cells) for cells in chart.cells)
                put(embedded, draw_notify__on__update__of__ranges=addresses)
                add(frame, "draw:image", xlink_href=f"./ObjectReplacements/{object_}", **LINK)
                add(frame, "svg:title", chart.name)
                add(frame, "svg:desc", chart.alt_text or anchored.alt_text)
            top += size.height + GAP_ROWS * ROW
        if anchored.as_ != "chart" or not real:
            frame = _frame(shapes, anchored.name, Rect(left_edge, top, size.width, size.height))
            for ending, content in (
                ("svg", svg.dumps(anchored.scene, True).encode()),
                ("png", paint(anchored.scene, SHARP)),
            ):
                add(frame, "draw:image", xlink_href=package.picture(content, ending), **LINK)
            add(frame, "svg:title", anchored.name)
            add(frame, "svg:desc", anchored.alt_text)
            top += size.height + GAP_ROWS * ROW
        next_row[anchored.table] = top
    _cleaned(tree)
    ods_parts["content.xml"] = etree.tostring(tree, xml_declaration=True, encoding="UTF-8")
    package.put("content.xml", ods_parts["content.xml"])
    styles = root("office:document-styles")
    default_styles(add(styles, "office:styles"), TextProperties(10.0, Colour(0.0, 0.0, 0.0)))
    package.put("styles.xml", dumps(styles))
    package.put("meta.xml", meta("", language))
    return package.save(), differs


def _frame(shapes: Element, called: str, at: Rect) -> Element:
    return add(
        shapes, "draw:frame", draw_name=called, svg_x=points(at.x), svg_y=points(at.y), svg_width=points(at.width),
        svg_height=points(at.height),
    )  # fmt: skip


def _cleaned(tree: Element) -> None:
    """Without the template's faces and the automatic styles that nothing is set in; of this standard's version."""
    tree.set(name("office:version"), VERSION)
    for faces in list(tree.iter(name("office:font-face-decls"))):
        tree.remove(faces)
    used = {value for one in tree.iter() for key, value in one.attrib.items() if key.endswith("style-name")}
    for styles in tree.iter(name("office:automatic-styles")):
        for one in list(styles):
            if one.get(name("style:name")) not in used:
                styles.remove(one)
