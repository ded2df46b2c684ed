"""The immutable document: all that is saved in one file."""

from collections.abc import Iterable
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.texts import Note
from kavlet.core.messages import say
from kavlet.core.pages.page import Page
from kavlet.core.recipes.own_recipe import OwnRecipe
from kavlet.core.recipes.recipe import Setting
from kavlet.core.spreadsheet.table import Table
from kavlet.core.styling.palettes import Palette
from kavlet.core.styling.style import Dress, House
from kavlet.core.styling.theme import Theme
from kavlet.core.text.numbers import DEFAULT_LOCALE
from kavlet.core.values.errors import KavletError


class EarlierSettings(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """The columns and settings a chart had by a recipe before it got another, for the way back."""

    roles: dict[str, tuple[str, ...]] = {}
    settings: dict[str, Setting] = {}


class DataDirection(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A chart's figures read across a row of a table: which table and columns (by id), and which row, from 0.

    `down` holds the columns and settings it had down the columns, `looks` its rows' looks, for the way back.
    """

    table: str
    columns: tuple[str, ...]
    row: int = 0
    down: EarlierSettings = EarlierSettings()
    looks: dict[str, Any] = {}


class AltText(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A chart's alt text as its author wrote it, and the message (in English) that its figures had then."""

    text: str
    message: str = ""


class ChartEntry(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A chart as the author set it up: a recipe on a table, its settings, its texts and its dress.

    `roles` names the columns (by id) of each role. `settings` holds only what differs from the recipe's defaults.
    `layers` and `notes` (free texts) were added to the recipe's own; a chart cut loose from its recipe has none, and
    its specification in `free`. `repeat` makes one for each of the table's rows; `totals` says
    whether a total row counts among the others, None leaves it to the recipe. `past` holds what it was by other recipes
    it has been. `reading` says what is read across a row; `table` is the helper table then. Texts that begin
    with ``=`` are formulas. `alt` is an alt text of the author's own. `silenced` holds the checks whose
    findings are to be left as they are, with the reason. `width` and `height` are points.
    """

    id: str
    name: str
    table: str
    recipe: str
    roles: dict[str, tuple[str, ...]] = {}
    settings: dict[str, Setting] = {}
    past: dict[str, EarlierSettings] = {}
    layers: tuple[AnyLayer, ...] = ()
    notes: tuple[Note, ...] = ()
    free: Chart | None = None
    repeat: bool = False
    totals: bool | None = None
    reading: DataDirection | None = None
    title: str = ""
    subtitle: str = ""
    source: str = ""
    alt: AltText | None = None
    silenced: dict[str, str] = {}
    dress: Dress = Dress()
    width: float = 640.0
    height: float = 360.0


NO_CHART = ChartEntry("", "", "", "")  # stands where there is no chart


class PictureFile(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A symbol or picture of the document: SVG path data, or a PNG or JPEG with its size in pixels.

    `parts` are a symbol's shapes with the colours they have in its file; with `own_colours` it is drawn in these, else
    in one colour.
    """

    name: str
    outline: str = ""
    content: bytes = b""
    width: int = 0
    height: int = 0
    parts: tuple[tuple[str, str], ...] = ()
    own_colours: bool = False


class Document(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Tables, charts, pages, pictures and recipes of its own, its own theme and palettes where it has some, and the
    locale its numbers are written in. `palette` is that of charts without one of their own; `silenced` holds the
    checks whose findings are left as they are, with the reason."""

    tables: tuple[Table, ...] = ()
    charts: tuple[ChartEntry, ...] = ()
    pictures: tuple[PictureFile, ...] = ()
    recipes: tuple[OwnRecipe, ...] = ()
    theme: Theme | None = None
    palette: str | tuple[str, ...] | None = None
    palettes: tuple[Palette, ...] = ()
    pages: tuple[Page, ...] = ()
    locale: str = DEFAULT_LOCALE
    silenced: dict[str, str] = {}

    @property
    def house(self) -> House:
        """What its charts' looks share."""
        return House(self.theme, self.palette, self.palettes)

    def table(self, table: str) -> Table:
        """The table of that id. Raises KavletError when there is none."""
        for one in self.tables:
            if one.id == table:
                return one
        raise KavletError(say("The table is not in this document."), where=table)

    def page(self, page: str) -> Page:
        """The page of that id. Raises KavletError when there is none."""
        for page_ in self.pages:
            if page_.id == page:
                return page_
        raise KavletError(say("The page is not in this document."), where=page)

    def chart(self, chart: str) -> ChartEntry:
        """The chart of that id. Raises KavletError when there is none."""
        for entry in self.charts:
            if entry.id == chart:
                return entry
        raise KavletError(say("The chart is not in this document."), where=chart)


def with_table(document: Document, table: Table) -> Document:
    """The document with the table of the same id replaced."""
    tables = tuple(table if one.id == table.id else one for one in document.tables)
    return msgspec.structs.replace(document, tables=tables)


def with_chart(document: Document, chart: ChartEntry) -> Document:
    """The document with the chart of the same id replaced."""
    charts = tuple(chart if entry.id == chart.id else entry for entry in document.charts)
    return msgspec.structs.replace(document, charts=charts)


def with_page(document: Document, page: Page) -> Document:
    """The document with the page of the same id replaced."""
    pages = tuple(page if page_.id == page.id else page_ for page_ in document.pages)
    return msgspec.structs.replace(document, pages=pages)


def with_picture(document: Document, picture: PictureFile) -> Document:
    """The document with a picture on its shelf, in place of one of the same name."""
    others = tuple(one for one in document.pictures if one.name != picture.name)
    return msgspec.structs.replace(document, pictures=(*others, picture))


def fresh_id(prefix: str, taken: Iterable[str]) -> str:
    """The first of prefix1, prefix2, … that is not taken."""
    used = set(taken)
    number = 1
    while f"{prefix}{number}" in used:
        number += 1
    return f"{prefix}{number}"


def fresh_name(name: str, taken: Iterable[str]) -> str:
    """The name, or the name with the first free number after it."""
    used = set(taken)
    if name not in used:
        return name
    number = 2
    while f"{name} {number}" in used:
        number += 1
    return f"{name} {number}"
