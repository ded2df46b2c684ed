"""Reading office files back: chart parts resolved against the cells they refer to."""

import io
import math
import re
import zipfile
from typing import Any

from lxml import etree
from msgspec import Struct
from PIL import Image

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.office import xlsx
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office_model.chart_model import ChartModel
from kavlet.core.office_model.convert import plain_charts
from kavlet.core.office_model.convert_pages import plain_page
from kavlet.core.office_model.page_model import PageModel
from kavlet.core.pipeline.stages import Picture, picture, with_view, without_view
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.spreadsheet.references import column_index

C = "{http://schemas.openxmlformats.org/drawingml/2006/chart}"
A = "{http://schemas.openxmlformats.org/drawingml/2006/main}"


def paint(scene: Scene, scale: float) -> bytes:
    """A stand-in for the painter, where Qt is not: a picture of the right size in one colour."""
    buffer = io.BytesIO()
    size = max(1, round(scene.size.width * scale)), max(1, round(scene.size.height * scale))
    Image.new("RGBA", (min(size[0], 40), min(size[1], 40)), (10, 120, 130, 255)).save(buffer, "PNG")
    return buffer.getvalue()


class Made(Struct, frozen=True):
    """A chart with its picture and its plain charts."""

    document: Document
    values: Values
    picture: Picture
    charts: tuple[ChartModel, ...]


def made(document: Document, chart: str) -> Made:
    values = recalculate(document.tables)
    drawn = picture(document, values, chart)
    return Made(document, values, drawn, plain_charts(document, values, drawn))


def workbook(one: Made, as_: Any = "chart") -> bytes:
    """The chart's workbook."""
    entry = one.picture.build.entry
    beside = xlsx.AnchoredChart(
        entry.table, entry.name, one.picture.figure.alt_text, one.charts, one.picture.scene, as_
    )
    return xlsx.workbook(sheets_for(one.document.tables, one.charts, more=[entry.table]), [beside], "en-US", paint)


def pages(document: Document) -> list[PageModel]:
    values = recalculate(document.tables)

    def draws(entry: ChartEntry, key: str) -> Picture:
        del key
        return with_view(without_view(document, values, entry, None), entry)

    return [plain_page(document, values, page.id, draws) for page in document.pages]


def part(content: bytes, name: str) -> Any:
    with zipfile.ZipFile(io.BytesIO(content)) as held:
        return etree.fromstring(held.read(name))


def names(content: bytes, begin: str) -> list[str]:
    with zipfile.ZipFile(io.BytesIO(content)) as held:
        return sorted(name for name in held.namelist() if name.startswith(begin))


def val(element: Any, name: str) -> str | None:
    found = element.find(f"{C}{name}")
    return None if found is None else found.get("val")


def cached(holder: Any) -> list[str | None]:
    """What a reference holds of its cells, by their order."""
    count = int(holder.find(f".//{C}ptCount").get("val"))
    found: list[str | None] = [None] * count
    for point in holder.iter(f"{C}pt"):
        found[int(point.get("idx"))] = point.find(f"{C}v").text
    return found


REFERENCE = re.compile(r"'((?:[^']|'')+)'!\$([A-Z]+)\$(\d+)(?::\$([A-Z]+)\$(\d+))?")


def cells(reference: str) -> tuple[str, int, int, int]:
    """The sheet, column, first and last row (from 0) of a reference to cells of one column."""
    found = REFERENCE.fullmatch(reference)
    assert found is not None, reference
    first, last = int(found[3]) - 1, int(found[5] or found[3]) - 1
    assert found[4] in (None, found[2])
    return found[1].replace("''", "'"), column_index(found[2]), first, last


def agree(text: str | None, value: object) -> bool:
    """Whether a cached text says the same as a cell's value."""
    if isinstance(value, ErrorValue | None) or value == "" or (isinstance(value, str) and value.startswith("#")):
        return text is None
    if isinstance(value, bool):
        return text in (str(int(value)), str(value).upper())
    if isinstance(value, int | float):
        if math.isnan(value):
            return text is None
        return text is not None and math.isclose(float(text), float(value), rel_tol=1e-9, abs_tol=1e-12)
    if isinstance(
        value, str
    ):  # ISO/IEC 29500-1, 22.4.2.4: signs that XML can't hold are written _xHHHH_; caches drop them
        value = re.sub(r"_x00[01][0-9A-F]_", "", value)
    return text is None or text == value  # a text among numbers is no number


def values_of(document: Document, table: str, column: int) -> list[Value]:
    return recalculate(document.tables).of(table)[column].values
