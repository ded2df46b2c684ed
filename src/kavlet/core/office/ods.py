"""ODS with real charts: each table on its sheet with its formulas, its charts beside it."""

from collections.abc import Sequence

from lxml import etree

from kavlet.core.figures.references import column_letters
from kavlet.core.files import ods
from kavlet.core.messages import Message
from kavlet.core.office.odf import VERSION, Element, Package, add, dumps, meta, name, points, put, root
from kavlet.core.office.odf_chart import odf_chart
from kavlet.core.office.odf_parts import default_styles
from kavlet.core.office.package import SHARP, Paint, parts_of
from kavlet.core.office.sheets import Sheets
from kavlet.core.office.xlsx import GAP_ROWS, Beside
from kavlet.core.plain.model import Cells, Lettered
from kavlet.core.values.colour import Colour

TYPE = "application/vnd.oasis.opendocument.spreadsheet"
COLUMN, ROW = 64.0, 12.8  # points; how wide a column and how tall a row usually is


def where(sheets: Sheets, cells: Cells) -> str:
    """The address of cells (ODF 1.3, part 3, 18.3.2): ``'My table'.$B$2:.$B$9``."""
    sheet = sheets.sheet(cells.table).replace("'", "''")
    letters, first = column_letters(cells.column), cells.first + 1
    return f"'{sheet}'.${letters}${first}:.${letters}${first + cells.count - 1}"


def workbook(
    sheets: Sheets, beside: Sequence[Beside], language: str, paint: Paint
) -> tuple[bytes, tuple[Message, ...]]:
    """The workbook's bytes, and what is different there; the same input gives the same bytes."""
    made = Package(TYPE)
    held = parts_of(ods.dumps_with([(table, sheets.values) for table in sheets.tables], sheets.names))
    tree = etree.fromstring(held["content.xml"])
    tables = {one.get(name("table:name")): one for one in tree.iter(name("table:table"))}
    differs: list[Message] = []
    next_row: dict[str, float] = {}
    for one in beside:
        table = next(table for table in sheets.tables if table.id == one.table)
        page = tables[sheets.names[table.name]]
        left = (len(table.columns) + 1) * COLUMN
        top = next_row.get(one.table, 0.0)
        shapes = page.find(name("table:shapes"))
        if shapes is None:
            shapes = etree.Element(name("table:shapes"))
            page.insert(0, shapes)
        tall = 0.0
        for chart in one.charts:
            document = odf_chart(chart, sheets, paint, lambda cells: where(sheets, cells))
            differs += [what for what in document.differs if what not in differs]
            object_ = made.object(document.parts, paint(one.scene, SHARP))
            whole_width, whole_height = chart.size.width / chart.box.width, chart.size.height / chart.box.height
            frame = add(
                shapes, "draw:frame", draw_name=chart.name, svg_x=points(left + chart.box.x * whole_width),
                svg_y=points(top + chart.box.y * whole_height), svg_width=points(chart.size.width),
                svg_height=points(chart.size.height),
            )  # fmt: skip
            embedded = add(
                frame, "draw:object", xlink_href=f"./{object_}", xlink_type="simple", xlink_show="embed",
                xlink_actuate="onLoad",
            )  # fmt: skip
            put(embedded, draw_notify__on__update__of__ranges=" ".join(where(sheets, cells) for cells in chart.cells))
            add(frame, "draw:image", xlink_href=f"./ObjectReplacements/{object_}", xlink_type="simple",
                xlink_show="embed", xlink_actuate="onLoad")  # fmt: skip
            add(frame, "svg:title", chart.name)
            add(frame, "svg:desc", chart.alt_text or one.alt_text)
            tall = max(tall, whole_height)
        next_row[one.table] = top + tall + GAP_ROWS * ROW
    _cleaned(tree)
    held["content.xml"] = etree.tostring(tree, xml_declaration=True, encoding="UTF-8")
    made.put("content.xml", held["content.xml"])
    styles = root("office:document-styles")
    default_styles(add(styles, "office:styles"), Lettered(10.0, Colour(0.0, 0.0, 0.0)))
    made.put("styles.xml", dumps(styles))
    made.put("meta.xml", meta("", language))
    return made.save(), tuple(differs)


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
