"""What office standards know of a page: texts, tables, charts, pictures and shapes, each in its box."""

from typing import Literal

from msgspec import Struct

from kavlet.core.files.formats import As
from kavlet.core.office_model.chart_model import ChartModel, TextProperties
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect, Size

Role = Literal["title", "heading", "text", "small", "caption", "figure", "margin"]


class TextRun(Struct, frozen=True):
    """Text of one look."""

    text: str
    look: TextProperties


class TextParagraph(Struct, frozen=True):
    """Runs after each other, aligned; in a list with dots or numbers."""

    runs: tuple[TextRun, ...]
    align: Literal["start", "middle", "end"] = "start"
    listing: Literal["", "dots", "numbers"] = ""

    @property
    def text(self) -> str:
        """Its text without looks."""
        return "".join(run.text for run in self.runs)


class PagePart(Struct, frozen=True, kw_only=True):
    """Anything on a page. Boxes are in points; those of one `group` belong together."""

    box: Rect
    name: str = ""
    group: str = ""


class TextPart(PagePart, frozen=True, kw_only=True):
    """Paragraphs in a box; `spacing` is from line to line in sizes of type, `after` between paragraphs in points."""

    paragraphs: tuple[TextParagraph, ...]
    role: Role = "text"
    inset: float = 0.0
    upright: Literal["top", "middle", "bottom"] = "top"
    fill: Colour | None = None
    edge: Colour | None = None
    spacing: float = 1.32
    after: float = 0.0

    @property
    def text(self) -> str:
        """All its text, a line for each paragraph."""
        return "\n".join(paragraph.text for paragraph in self.paragraphs)


class TableCell(Struct, frozen=True):
    """A cell: its text, how it is set, whether at the right, and its ground."""

    text: str
    look: TextProperties
    right: bool = False
    fill: Colour | None = None


class TablePart(PagePart, frozen=True, kw_only=True):
    """Rows of cells, the first a header where there is one; widths and the rows' height in points.

    `lines` are the colours of the rule below each row, None for none.
    """

    rows: tuple[tuple[TableCell, ...], ...]
    widths: tuple[float, ...]
    row_height: float
    header: bool
    lines: tuple[Colour | None, ...]
    alt_text: str = ""


class ChartPart(PagePart, frozen=True, kw_only=True):
    """A chart: in plain terms, and its picture; written as the one, the other, or both. `table` is the id of the table
    it stands on."""

    chart: str
    table: str
    charts: tuple[ChartModel, ...]
    scene: Scene
    title: str
    alt_text: str
    as_: As = "chart"

    @property
    def can_be_told(self) -> bool:
        """Whether there is a real chart of it at all."""
        return all(chart.groups for chart in self.charts)


class PicturePart(PagePart, frozen=True, kw_only=True):
    """A picture as a scene of the box's size."""

    scene: Scene
    alt_text: str = ""


class ShapePart(PagePart, frozen=True, kw_only=True):
    """A plain shape; `line` holds the ends of a line or an arrow, in points of the page."""

    form: Literal["rectangle", "rounded", "ellipse", "line", "arrow"]
    fill: Colour | None
    edge: Colour | None
    edge_width: float
    radius: float = 0.0
    line: tuple[Point, Point] | None = None
    shadow: bool = False


AnyPart = TextPart | TablePart | ChartPart | PicturePart | ShapePart


class PageModel(Struct, frozen=True, kw_only=True):
    """A page: its size in points, ground, parts back to front, what is said to it, and whether it is skipped."""

    name: str
    size: Size
    ground: Colour
    parts: tuple[AnyPart, ...]
    accents: tuple[Colour, ...] = ()
    family: str = ""
    speaker: str = ""
    skipped: bool = False
