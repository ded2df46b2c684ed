"""XLSX with real charts: each table on its sheet with its formulas, its charts beside it."""

from collections.abc import Sequence

from msgspec import Struct

from kavlet.core.files import xlsx
from kavlet.core.office.chart_part import chart_part
from kavlet.core.office.package import SHAPES_TYPE, Paint, chart_parts, declare, packed, parts_of, relations
from kavlet.core.office.sheets import Sheets
from kavlet.core.plain.model import PlainChart
from kavlet.core.scene.primitives import Scene

ROW = 15.0  # points; how tall a row is
PIXEL = 0.75  # points in a pixel
GAP_ROWS = 2  # rows between charts of one sheet
SPARE = 1  # columns between the table and its charts


class Beside(Struct, frozen=True):
    """A chart, its panels in plain terms, its picture, and the id of the table it stands beside."""

    table: str
    name: str
    alt_text: str
    charts: tuple[PlainChart, ...]
    scene: Scene


def workbook(sheets: Sheets, beside: Sequence[Beside], language: str, paint: Paint) -> bytes:
    """The workbook's bytes; the same input gives the same bytes."""
    placed: list[PlainChart] = []
    content = xlsx.dumps_with(
        [(table, sheets.values) for table in sheets.tables],
        sheets.names,
        lambda book, pages: _places(book, pages, sheets, beside, placed),
    )
    parts = parts_of(content)
    overrides: dict[str, str] = {}
    for number, chart in enumerate(placed, 1):
        part = chart_part(chart, sheets, language, linked=False)
        parts[f"xl/charts/chart{number}.xml"] = part.xml
        more, related = chart_parts(part, "xl", f"chart{number}", paint)
        parts |= more
        overrides |= {name: SHAPES_TYPE for name in more if name.endswith(".xml")}
        if related:
            parts[f"xl/charts/_rels/chart{number}.xml.rels"] = relations(related)
    declare(parts, {"png": "image/png", "jpeg": "image/jpeg"}, overrides)
    return packed(parts)


def _places(
    book: object, pages: dict[str, object], sheets: Sheets, beside: Sequence[Beside], placed: list[PlainChart]
) -> None:
    """Put a place for each chart on its table's sheet, one below the other; their parts are written afterwards."""
    next_row: dict[str, int] = {}
    for one in beside:
        page = pages[one.table]
        width = len(next(table for table in sheets.tables if table.id == one.table).columns)
        row = next_row.get(one.table, 0)
        tall = max(chart.size.height for chart in one.charts)
        for chart in one.charts:
            held = book.add_chart({"type": "column"})  # type: ignore[attr-defined]
            name = sheets.names[next(table.name for table in sheets.tables if table.id == one.table)]
            held.add_series({"values": [name, 0, 0, 0, 0]})
            held.set_size({"width": round(chart.size.width / PIXEL), "height": round(chart.size.height / PIXEL)})
            whole_width = chart.size.width / max(1e-9, chart.box.width) / PIXEL
            whole_height = chart.size.height / max(1e-9, chart.box.height) / PIXEL
            page.insert_chart(  # type: ignore[attr-defined]
                row, width + SPARE, held,
                {
                    "object_position": 3, "description": chart.alt_text or one.alt_text or one.name,
                    "x_offset": round(chart.box.x * whole_width), "y_offset": round(chart.box.y * whole_height),
                },
            )  # fmt: skip
            placed.append(chart)
            tall = max(tall, whole_height * PIXEL)
        next_row[one.table] = row + int(tall / ROW) + 1 + GAP_ROWS
