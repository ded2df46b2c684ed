"""XLSX with real charts: each table on its sheet with its formulas, its charts beside it."""

import io
from collections.abc import Sequence
from typing import Any

from msgspec import Struct

from kavlet.core.files import xlsx
from kavlet.core.files.formats import As
from kavlet.core.office.chart_part import chart_part
from kavlet.core.office.package import SHAPES_TYPE, SHARP, Paint, chart_parts, declare, packed, parts_of, relations
from kavlet.core.office.worksheets import Worksheets
from kavlet.core.office_model.chart_model import ChartModel
from kavlet.core.scene.primitives import Scene

ROW = 15.0  # points; how tall a row is
PIXEL = 0.75  # points in a pixel
GAP_ROWS = 2  # rows between charts of one sheet
SPARE = 1  # columns between the table and its charts


class AnchoredChart(Struct, frozen=True):
    """A chart, its panels in plain terms, its picture, and the id of the table it stands beside."""

    table: str
    name: str
    alt_text: str
    charts: tuple[ChartModel, ...]
    scene: Scene
    as_: As = "chart"

    @property
    def can_be_told(self) -> bool:
        """Whether there is a real chart of it at all."""
        return all(chart.groups for chart in self.charts)


def workbook(worksheets: Worksheets, beside: Sequence[AnchoredChart], language: str, paint: Paint) -> bytes:
    """The workbook's bytes; the same input gives the same bytes. A picture stands in the chart's place, or below it."""
    placed: list[ChartModel] = []
    content = xlsx.dumps_with(
        [(table, worksheets.values) for table in worksheets.tables],
        worksheets.names,
        lambda book, pages: _Places(book, pages, worksheets, paint).put(beside, placed),
    )
    parts = parts_of(content)
    overrides: dict[str, str] = {}
    for number, chart in enumerate(placed, 1):
        part = chart_part(chart, worksheets, language, linked=False)
        parts[f"xl/charts/chart{number}.xml"] = part.xml
        more, related = chart_parts(part, "xl", f"chart{number}", paint)
        parts |= more
        overrides |= {name: SHAPES_TYPE for name in more if name.endswith(".xml")}
        if related:
            parts[f"xl/charts/_rels/chart{number}.xml.rels"] = relations(related)
    declare(parts, {"png": "image/png", "jpeg": "image/jpeg"}, overrides)
    return packed(parts)


class _Places:
    """Places for charts beside their tables, one below the other; the charts' parts are written afterwards."""

    def __init__(self, book: Any, pages: dict[str, Any], worksheets: Worksheets, paint: Paint) -> None:
        self.book, self.pages, self.sheets, self.paint = book, pages, worksheets, paint
        self._next: dict[str, int] = {}

    def put(self, beside: Sequence[AnchoredChart], placed: list[ChartModel]) -> None:
        """All charts, as charts or pictures; those that get a part are added to `placed`."""
        for one in beside:
            table = next(table for table in self.sheets.tables if table.id == one.table)
            page, column = self.pages[one.table], len(table.columns) + SPARE
            real = one.as_ != "picture" and one.can_be_told
            if real:
                for chart in one.charts:
                    self._chart(page, column, one, chart)
                    placed.append(chart)
                self._down(one)
            if one.as_ != "chart" or not real:
                picture = io.BytesIO(self.paint(one.scene, SHARP))
                scale = 96 / (72 * SHARP)  # from the picture's pixels to those of a sheet
                page.insert_image(
                    self._next.get(one.table, 0), column, f"{one.name}.png",
                    {"image_data": picture, "description": one.alt_text, "x_scale": scale, "y_scale": scale,
                     "object_position": 3},
                )  # fmt: skip
                self._down(one)

    def _down(self, one: AnchoredChart) -> None:
        self._next[one.table] = self._next.get(one.table, 0) + int(one.scene.size.height / ROW) + 1 + GAP_ROWS

    def _chart(self, page: Any, column: int, one: AnchoredChart, chart: ChartModel) -> None:
        held = self.book.add_chart({"type": "column"})
        held.add_series({"values": [self.sheets.sheet(one.table), 0, 0, 0, 0]})
        held.set_size({"width": round(chart.size.width / PIXEL), "height": round(chart.size.height / PIXEL)})
        whole = one.scene.size
        page.insert_chart(
            self._next.get(one.table, 0), column, held,
            {
                "object_position": 3, "description": chart.alt_text or one.alt_text or one.name,
                "x_offset": round(chart.box.x * whole.width / PIXEL),
                "y_offset": round(chart.box.y * whole.height / PIXEL),
            },
        )  # fmt: skip
