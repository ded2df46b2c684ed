"""What an author can set of a page and its items, declared: for the fields beside the page."""

from kavlet.core.charts.fields import Choices, Field, choices
from kavlet.core.messages import Message, named, say
from kavlet.core.pages.arrangements import ARRANGEMENTS
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape, ShapeForm
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Upright, Words
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.text.faces import Family
from kavlet.core.values.sizes import MM

POSITIONS: Choices = (("start", named("left")), ("middle", named("middle")), ("end", named("right")))
FACES: Choices = (("", named("automatic")), *choices(Family))
FAR = (-20_000.0, 20_000.0)
CUT = "How much of it is cut off there, in %."
MARGIN = "How far items in bays stand from the page’s side."
LINE = "A line in the margin; may hold {page}, {pages}, {name}, {date}, {source} and cells such as {=B2}."


def _mm(group: str, label: str, path: str, span: tuple[float, float], does: str) -> Field:
    return Field(group, label, path, "number", unit="mm", times=1 / MM, span=span, does=does)


PLACE = (
    _mm("Place", "Left", "x", FAR, "How far its left side is from the page’s."),
    _mm("Place", "Top", "y", FAR, "How far its upper side is from the page’s."),
    _mm("Place", "Width", "width", (1, FAR[1]), "How wide it is."),
    _mm("Place", "Height", "height", (1, FAR[1]), "How high it is."),
    Field("Place", "Locked", "locked", "flag", does="It stays where it is; what it shows stays live."),
)  # fmt: skip
OF_KIND: dict[type, tuple[Field, ...]] = {
    ChartFrame: (
        Field("Chart", "Shows", "chart", "choice", does="Which chart of the document stands here."),
        Field("Chart", "Caption", "caption", "text", does="A line over the chart; may hold fields such as {=B2}."),
        Field("Chart", "Title and source", "title", "flag", does="The chart’s own title, subtitle and source line."),
        Field("Chart", "Legend", "legend", "flag", does="The chart’s own legend."),
        Field("Chart", "Own theme", "pinned", "flag", does="It keeps its own theme and ground, not the page’s."),
        Field("Chart", "Row", "row", "number", optional=True, span=(1, 10_000),
              does="Only this row, series or period of it, counted from 1; all where empty."),
        Field("Chart", "Scale from", "low", "number", optional=True, does="The lower end of its scale, for this page."),
        Field("Chart", "Scale to", "high", "number", optional=True, does="The upper end of its scale, for this page."),
    ),
    Words: (
        Field("Words", "Kind", "style", "choice", choices((), only=("text", "title", "heading", "small")),
              does="Running text, a title, a heading, or small print, as the theme sets them."),
        Field("Words", "Size", "size", "number", unit="pt", optional=True, span=(4, 400),
              does="The size of the type, in points; the theme’s where empty."),
        Field("Words", "Face", "family", "choice", FACES, does="The face of the type."),
        Field("Words", "Colour", "colour", "colour", does="The colour of the type; one that can be read where empty."),
        Field("Words", "Line spacing", "spacing", "number", span=(0.7, 4),
              does="From line to line, in sizes of the type."),
        Field("Words", "After paragraphs", "after", "number", span=(0, 10),
              does="Free space after each paragraph, in sizes of the type."),
        Field("Words", "Upright", "upright", "choice", choices(Upright), does="Where the words stand in a high box."),
        Field("Box", "Fill", "fill", "colour", does="The colour behind the words."),
        Field("Box", "Edge", "edge", "colour", does="The line around the words."),
        Field("Box", "Inset", "inset", "number", unit="pt", span=(0, 400),
              does="Free space between the box and the words, in points."),
    ),
    KeyFigure: (
        Field("Key figure", "Value", "value", "text", does="The figure: a cell such as =B7, a formula, or a text."),
        Field("Key figure", "Written as", "number", "text", does="How it is written, such as 0.0 % or #,##0."),
        Field("Key figure", "Caption", "caption", "text", does="What it says; may hold fields such as {=A7}."),
        Field("Key figure", "Against", "against", "text", does="The cell it is held against, such as =B6."),
        Field("Key figure", "Change", "change", "choice", choices((), only=("percent", "difference", "none")),
              does="How it differs from what it is held against."),
        Field("Key figure", "Better", "better", "choice", choices((), only=("up", "down", "neither")),
              does="Which way is good: its colour says so."),
        Field("Key figure", "Size", "size", "number", unit="pt", optional=True, span=(4, 400),
              does="The size of the figure, in points; what fits where empty."),
        Field("Key figure", "Colour", "colour", "colour", does="The colour of the figure."),
        Field("Key figure", "Position", "align", "choice", POSITIONS, does="Where it stands in its box."),
    ),
    Excerpt: (
        Field("Table", "Shows", "table", "choice", does="Which table a part of is shown."),
        Field("Table", "Which columns", "columns", "text",
              does="Which columns, by their names or letters, parted by commas; all where empty."),
        Field("Table", "From row", "first", "number", span=(1, 100_000), does="The first row, counted from 1."),
        Field("Table", "To row", "last", "number", optional=True, span=(1, 100_000),
              does="The last row; that of the table where empty."),
        Field("Table", "Header", "header", "flag", does="The names of the columns."),
        Field("Table", "Rules", "rules", "choice", choices((), only=("lines", "bands", "none")),
              does="What parts the rows."),
        Field("Table", "Total last", "total", "flag", does="The last row is a total, and set apart."),
        Field("Table", "Highlights", "highlights", "rules", does="Figures in a colour, by rules: above 100: #b3372f."),
        Field("Table", "Size", "size", "number", unit="pt", optional=True, span=(4, 100),
              does="The size of the type, in points; the theme’s where empty."),
    ),
    SharedLegend: (
        Field("Legend", "Of", "charts", "choice", does="Whose entries are listed."),
        Field("Legend", "Title", "title", "text", does="A word before the entries."),
        Field("Legend", "Size", "size", "number", unit="pt", optional=True, span=(4, 100),
              does="The size of the type, in points; the theme’s where empty."),
    ),
    PlacedPicture: (
        Field("Picture", "Picture", "picture", "symbol", does="Which picture or symbol it is."),
        Field("Picture", "Fit", "fit", "choice", choices((), only=("fit", "fill")),
              does="All of it inside the box, or as much as fills the box."),
        Field("Picture", "Colour", "colour", "colour", does="The colour of a symbol."),
        Field("Picture", "In words", "alt", "text", does="What it shows, for those who don’t see it."),
        *(Field("Picture", label, f"crop.{side}", "number", unit="%", times=100, span=(0, 95), does=CUT)
          for side, label in enumerate(("Cut at left", "Cut at top", "Cut at right", "Cut at bottom"))),
    ),
    DrawnShape: (
        Field("Shape", "Form", "form", "choice", choices(ShapeForm), does="What shape it is."),
        Field("Shape", "Fill", "fill", "colour", does="The colour inside; none where empty."),
        Field("Shape", "Edge", "edge", "colour", does="The colour of its line; none where empty."),
        Field("Shape", "Edge width", "edge_width", "number", unit="pt", span=(0, 60),
              does="How thick its line is, in points."),
        Field("Shape", "Corner", "radius", "number", unit="pt", span=(0, 400),
              does="How far the corners of a rounded one are rounded, in points."),
        Field("Shape", "Shadow", "shadow", "flag", does="A soft shadow below it."),
        Field("Shape", "Rising", "rising", "flag", does="A line or arrow runs upward."),
    ),
    StepControl: (
        Field("Steps", "Of", "charts", "choice", does="Which charts it drives."),
        Field("Steps", "Slider", "slider", "flag", does="A line with a knob where the period stands."),
        Field("Steps", "Buttons", "buttons", "flag", does="Two arrows, one period back and on."),
    ),
}  # fmt: skip
OF_PAGE = (
    Field("Page", "Name", "name", "text", does="What the page is called, in the strip, the list and bookmarks."),
    _mm("Page", "Width", "width", (10, 5_000), "How wide the page is."),
    _mm("Page", "Height", "height", (10, 5_000), "How high the page is."),
    Field("Page", "Arrangement", "arrangement", "choice", tuple((one, named(one)) for one in ARRANGEMENTS),
          does="How the page is divided into bays for its items."),
    Field("Page", "Bays down", "grid.0", "number", span=(1, 20), does="How many bays stand above each other."),
    Field("Page", "Bays across", "grid.1", "number", span=(1, 20), does="How many bays stand beside each other."),
    *(_mm("Margins", label, f"margins.{side}", (0, 2_000), MARGIN)
      for side, label in enumerate(("Left", "Top", "Right", "Bottom"))),
    _mm("Margins", "Gutter", "gutter", (0, 200), "Free space between two bays."),
    Field("Look of the page", "Dark ground", "dark", "flag", does="The dark side of its theme."),
    Field("Look of the page", "Ground", "ground", "colour", does="The colour of the page; the theme’s where empty."),
    Field("Lines", "Header", "header", "text", does=LINE),
    Field("Lines", "Footer", "footer", "text", does=LINE),
    Field("Presenting", "Skipped", "skipped", "flag", does="Left out when presenting."),
    Field("Presenting", "Speaker’s words", "speaker", "prose", does="What you want to say: only the speaker sees it."),
)  # fmt: skip


NAMES: dict[type, Message] = {
    ChartFrame: say("Chart"), Words: say("Words"), KeyFigure: say("Key figure"), Excerpt: say("Table"),
    SharedLegend: say("Legend"), PlacedPicture: say("Picture"), DrawnShape: say("Shape"), StepControl: say("Steps"),
}  # fmt: skip


def called(item: AnyItem) -> Message:
    """What an item is, in words for people."""
    return NAMES[type(item)]


def of_item(item: AnyItem) -> tuple[Field, ...]:
    """The fields of an item."""
    return (*OF_KIND[type(item)], *PLACE)


def of_page(page: Page) -> tuple[Field, ...]:
    """The fields of a page; rows and columns where it is arranged in small multiples."""
    return tuple(one for one in OF_PAGE if page.arrangement == "small multiples" or not one.path.startswith("grid"))


def value(of: AnyItem | Page, field: Field) -> object:
    """What an item or a page holds for a field."""
    name, _, number = field.path.partition(".")
    held = getattr(of, name)
    if name == "charts":
        return held[0] if len(held) == 1 else ""
    return held[int(number)] if number else held


def changes(of: AnyItem | Page, field: Field, new: object) -> dict[str, object]:
    """The fields of an item or a page changed by a new value of one; None is what there is from the start."""
    name, _, number = field.path.partition(".")
    if number:
        held = list(getattr(of, name))
        held[int(number)] = new if not isinstance(held[int(number)], int) else int(float(str(new)))
        return {name: tuple(held)}
    if new is None:
        default = getattr(type(of)("", "") if isinstance(of, Page) else type(of)(""), name)
        return {name: default}
    if name == "charts":
        return {name: (str(new),) if new else ()}
    if isinstance(of, Excerpt) and name == "table":
        return {name: new, "columns": (), "first": 1, "last": None}
    if name in ("row", "first", "last"):
        return {name: int(float(str(new)))}
    if name == "family":
        return {name: new or None}
    return {name: new}
