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


def _mm(label: str, path: str, least: float | None = None) -> Field:
    return Field(
        "Place", label, path, "number", unit="mm", times=1 / MM, span=(FAR[0] if least is None else least, FAR[1])
    )


PLACE = (
    _mm("Left", "x"), _mm("Top", "y"), _mm("Width", "width", 1), _mm("Height", "height", 1),
    Field("Place", "Locked", "locked", "flag"),
)  # fmt: skip
OF_KIND: dict[type, tuple[Field, ...]] = {
    ChartFrame: (
        Field("Chart", "Caption", "caption", "text"),
        Field("Chart", "Title and source", "title", "flag"),
        Field("Chart", "Legend", "legend", "flag"),
        Field("Chart", "Own theme", "pinned", "flag"),
        Field("Chart", "Row", "row", "number", optional=True, span=(1, 10_000)),
        Field("Chart", "Scale from", "low", "number", optional=True),
        Field("Chart", "Scale to", "high", "number", optional=True),
    ),
    Words: (
        Field("Words", "Kind", "style", "choice", choices(("text", "title", "heading", "small"),
              only=("text", "title", "heading", "small"))),
        Field("Words", "Size", "size", "number", unit="pt", optional=True, span=(4, 400)),
        Field("Words", "Face", "family", "choice", FACES),
        Field("Words", "Colour", "colour", "colour"),
        Field("Words", "Line spacing", "spacing", "number", span=(0.7, 4)),
        Field("Words", "After paragraphs", "after", "number", span=(0, 10)),
        Field("Words", "Upright", "upright", "choice", choices(Upright)),
        Field("Box", "Fill", "fill", "colour"),
        Field("Box", "Edge", "edge", "colour"),
        Field("Box", "Inset", "inset", "number", unit="pt", span=(0, 400)),
    ),
    KeyFigure: (
        Field("Key figure", "Value", "value", "text"),
        Field("Key figure", "Written as", "number", "text"),
        Field("Key figure", "Caption", "caption", "text"),
        Field("Key figure", "Against", "against", "text"),
        Field("Key figure", "Change", "change", "choice", choices((), only=("percent", "difference", "none"))),
        Field("Key figure", "Better", "better", "choice", choices((), only=("up", "down", "neither"))),
        Field("Key figure", "Size", "size", "number", unit="pt", optional=True, span=(4, 400)),
        Field("Key figure", "Colour", "colour", "colour"),
        Field("Key figure", "Position", "align", "choice", POSITIONS),
    ),
    Excerpt: (
        Field("Table", "From row", "first", "number", span=(1, 100_000)),
        Field("Table", "To row", "last", "number", optional=True, span=(1, 100_000)),
        Field("Table", "Header", "header", "flag"),
        Field("Table", "Rules", "rules", "choice", choices((), only=("lines", "bands", "none"))),
        Field("Table", "Total last", "total", "flag"),
        Field("Table", "Highlights", "highlights", "rules"),
        Field("Table", "Size", "size", "number", unit="pt", optional=True, span=(4, 100)),
    ),
    SharedLegend: (
        Field("Legend", "Title", "title", "text"),
        Field("Legend", "Size", "size", "number", unit="pt", optional=True, span=(4, 100)),
    ),
    PlacedPicture: (
        Field("Picture", "Picture", "picture", "symbol"),
        Field("Picture", "Fit", "fit", "choice", choices((), only=("fit", "fill"))),
        Field("Picture", "Colour", "colour", "colour"),
        Field("Picture", "In words", "alt", "text"),
        Field("Picture", "Cut at left", "crop.0", "number", unit="%", times=100, span=(0, 95)),
        Field("Picture", "Cut at top", "crop.1", "number", unit="%", times=100, span=(0, 95)),
        Field("Picture", "Cut at right", "crop.2", "number", unit="%", times=100, span=(0, 95)),
        Field("Picture", "Cut at bottom", "crop.3", "number", unit="%", times=100, span=(0, 95)),
    ),
    DrawnShape: (
        Field("Shape", "Form", "form", "choice", choices(ShapeForm)),
        Field("Shape", "Fill", "fill", "colour"),
        Field("Shape", "Edge", "edge", "colour"),
        Field("Shape", "Edge width", "edge_width", "number", unit="pt", span=(0, 60)),
        Field("Shape", "Corner", "radius", "number", unit="pt", span=(0, 400)),
        Field("Shape", "Rising", "rising", "flag"),
    ),
    StepControl: (
        Field("Steps", "Slider", "slider", "flag"),
        Field("Steps", "Buttons", "buttons", "flag"),
    ),
}  # fmt: skip
OF_PAGE = (
    Field("Page", "Name", "name", "text"),
    Field("Page", "Width", "width", "number", unit="mm", times=1 / MM, span=(10, 5_000)),
    Field("Page", "Height", "height", "number", unit="mm", times=1 / MM, span=(10, 5_000)),
    Field("Page", "Arrangement", "arrangement", "choice", tuple((one, named(one)) for one in ARRANGEMENTS)),
    Field("Page", "Rows", "grid.0", "number", span=(1, 20)),
    Field("Page", "Columns", "grid.1", "number", span=(1, 20)),
    Field("Margins", "Left", "margins.0", "number", unit="mm", times=1 / MM, span=(0, 2_000)),
    Field("Margins", "Top", "margins.1", "number", unit="mm", times=1 / MM, span=(0, 2_000)),
    Field("Margins", "Right", "margins.2", "number", unit="mm", times=1 / MM, span=(0, 2_000)),
    Field("Margins", "Bottom", "margins.3", "number", unit="mm", times=1 / MM, span=(0, 2_000)),
    Field("Margins", "Gutter", "gutter", "number", unit="mm", times=1 / MM, span=(0, 200)),
    Field("Look of the page", "Dark ground", "dark", "flag"),
    Field("Look of the page", "Ground", "ground", "colour"),
    Field("Lines", "Header", "header", "text"),
    Field("Lines", "Footer", "footer", "text"),
    Field("Presenting", "Skipped", "skipped", "flag"),
    Field("Presenting", "Speaker’s words", "speaker", "prose"),
)


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
    if name in ("row", "first", "last"):
        return {name: int(float(str(new)))}
    if name == "family":
        return {name: new or None}
    return {name: new}
