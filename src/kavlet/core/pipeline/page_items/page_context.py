"""What all items of a page are composed with, as one value, and what each of them becomes."""

from collections.abc import Callable
from datetime import date

import msgspec
from msgspec import Struct

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.layout.data import Raster
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.chart_inputs import pictures_of
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Primitive
from kavlet.core.shapes.symbol import Symbol, shelf
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.styling.style import Dress, Style, resolve
from kavlet.core.styling.theme import DEFAULT_THEME
from kavlet.core.values.geometry import Rect

Draws = Callable[[ChartEntry, str], Picture]


class PageContext(Struct, frozen=True, eq=False):
    """A page with the document's figures, its look, its number among the others, the day, and how its charts are drawn
    (an entry and the key it is kept by)."""

    document: Document
    values: Values
    page: Page
    style: Style
    number: int
    count: int
    today: date
    draws: Draws

    @property
    def home(self) -> str:
        """The table that references without a table's name belong to: the first."""
        return self.document.tables[0].id if self.document.tables else ""

    def picture(self, name: str) -> Symbol | Raster | None:
        """The symbol or picture of that name: the document's own, else the shelf's."""
        return pictures_of(self.document).get(name) or shelf().get(name)


class ComposedItem(Struct, frozen=True):
    """What an item draws; whether something of it `overflows` its box; formulas that `failed`; a sentence instead where
    it can't be drawn (`refused`); the chart's picture, where it is one; where all of a placed picture would lie
    (`whole`), with what its frame cuts off."""

    items: tuple[Primitive, ...] = ()
    overflows: bool = False
    failed: tuple[tuple[str, ErrorValue], ...] = ()
    refused: str = ""
    picture: Picture | None = None
    says: str = ""
    whole: Rect | None = None


def dress_of(document: Document, page: Page) -> Dress:
    """The look of a page: its own theme and ground, else those of the first chart on it."""
    entries = {chart.id: chart for chart in document.charts}
    first = next((entries[i.chart] for i in page.items if isinstance(i, ChartFrame) and i.chart in entries), None)
    base = first.dress if first is not None else Dress()
    made = Dress(
        theme=page.theme or base.theme or DEFAULT_THEME,
        dark=base.dark if page.dark is None else page.dark,
        overrides={"ground": page.ground} if page.ground else {},
    )
    return msgspec.structs.replace(made, family=base.family, palette=base.palette)


def style_of(document: Document, page: Page) -> Style:
    """The concrete look of a page. Raises KavletError for a theme or colour that there is not."""
    return resolve(dress_of(document, page), document.house)


def chart_box(box: Rect, caption: bool, style: Style) -> Rect:
    """Where a chart stands in its frame: below its caption, where it has one."""
    return box.inset(top=1.5 * style.text_size) if caption else box
