"""The demo's pages: the reserve's yearly report, and a dark set of slides. All names and figures are invented."""

from typing import Any

from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Paragraph, Run, Words, plain
from kavlet.core.pages.page import AnyItem
from kavlet.core.values.geometry import Rect
from kavlet.core.values.sizes import MM

WIDE, TALL = 595.2755905511812, 841.8897637795276
LEFT, RIGHT, TOP = 20 * MM, 20 * MM, 21 * MM
INNER = WIDE - LEFT - RIGHT
FOOT = "Mirefen reserve, yearly report 2025. {source} and own counts\t{page}"
MARGINS = (LEFT, TOP, RIGHT, 20 * MM)


class Report:
    """Pages as they are put together, one after the other."""

    def __init__(self, document: Document) -> None:
        self.document = document
        self.charts = {chart.name: chart.id for chart in document.charts}
        self._page = ""

    def page(self, name: str, size: str = "A4", **changes: Any) -> None:
        """A new page, onto which all that follows goes."""
        held: dict[str, Any] = {"margins": MARGINS, "footer": FOOT, **changes} if size == "A4" else changes
        self.document, self._page = page_edits.add_page(self.document, size, name=name, **held)

    def put(self, item: AnyItem, x: float, y: float, width: float, height: float) -> None:
        """An item at a place, in points."""
        self.document, _ = page_edits.put(self.document, self._page, item, Rect(x, y, width, height))

    def chart(self, name: str, x: float, y: float, width: float, height: float, **looks: object) -> None:
        """A chart by its name."""
        self.put(ChartFrame("", chart=self.charts[name], **looks), x, y, width, height)  # type: ignore[arg-type]

    def head(self, title: str, lead: str) -> None:
        """A page's heading, and the sentence below it that says what it shows."""
        self.put(Words("", paragraphs=plain(title), style="title"), LEFT, TOP, INNER, 42)
        self.put(Words("", paragraphs=plain(lead), size=13.5, spacing=1.4), LEFT, TOP + 46, INNER, 60)

    def table(self, name: str) -> str:
        """The id of a table."""
        return next(table.id for table in self.document.tables if table.name == name)


def with_pages(document: Document) -> Document:
    """The document with its report and slides."""
    report = Report(document)
    _cover(report)
    _figures(report)
    _visitors(report)
    _ponds(report)
    _birds(report)
    _money(report)
    _land(report)
    _people(report)
    _slides(report)
    return report.document


def _cover(report: Report) -> None:
    report.page("Cover", footer="")
    report.put(DrawnShape("", form="rectangle", fill="tone1", name="ground"), 0, 0, WIDE, 560)
    report.put(PlacedPicture("", picture="bird", colour="ground", alt="A bird"), LEFT, 84, 128, 128)
    report.put(Words("", paragraphs=plain("A year\nat Mirefen"), style="title", size=58, colour="ground", spacing=1.08,
                     after=0), LEFT, 300, INNER, 150)  # fmt: skip
    report.put(Words("", paragraphs=plain("Yearly report 2025"), size=20, colour="ground"), LEFT, 450, INNER, 40)
    lead = "Reeds, ponds and twelve kilometres of boardwalk, looked after by people who count what they see."
    report.put(Words("", paragraphs=plain(lead), size=15, spacing=1.45), LEFT, 596, 330, 80)
    report.put(
        Words("", paragraphs=plain("Mirefen reserve\nOld pump house, Reed Ditch"), style="small"), LEFT, 748, 300, 40
    )


def _figures(report: Report) -> None:
    report.page("The year in figures")
    report.head("The year in figures", "More people came, more birds stayed, and the fund grew for the third year.")
    third = (INNER - 2 * 24) / 3
    for number, (value, caption, how, against) in enumerate((
        ("='Visitor path'!B2", "visits at the three gates", "#,##0", ""),
        ("=SUM('Two summers'!C2:C6)", "pairs and flights counted in summer", "#,##0", "=SUM('Two summers'!B2:B6)"),
        ("='Visitor path'!B6", "new members by the end of the year", "#,##0", ""),
    )):  # fmt: skip
        figure = KeyFigure("", value=value, caption=caption, number=how, against=against, size=46)
        report.put(figure, LEFT + number * (third + 24), 184, third, 110)
    report.put(DrawnShape("", form="line", edge="line", edge_width=0.75), LEFT, 310, INNER, 2)
    report.chart("Visitors through the year", LEFT, 332, INNER, 250)
    half = (INNER - 24) / 2
    report.chart("Visitors by gate", LEFT, 604, half, 160)
    report.put(Words("", paragraphs=(
        Paragraph((Run("What stands out", bold=True),)),
        Paragraph((Run("Of "), Run("{='Visitor path'!B2 | #,##0}", bold=True), Run(" visits, every "),
                   Run("{=ROUND('Visitor path'!B2/'Visitor path'!B6;0) | 0}th", bold=True),
                   Run(" made a new member. Most came between April and September, by the gate at the old mill."))),
    ), size=12), LEFT + half + 24, 612, half, 150)  # fmt: skip


def _visitors(report: Report) -> None:
    report.page("Visitors")
    report.head("From the gate to the members’ list", "Every step loses people; the guided walks lose the fewest.")
    report.chart("Visitor path", LEFT, 180, INNER, 270)
    report.chart("Café and rain", LEFT, 474, INNER, 280)


def _ponds(report: Report) -> None:
    chart = next(chart.id for chart in report.document.charts if chart.name == "Water clarity")
    report.page("Ponds", arrangement="small multiples", grid=(2, 2), margins=(LEFT, 176, RIGHT, 260))
    for row, name in enumerate(_names(report, "Water clarity"), 1):
        frame = ChartFrame("", chart=chart, row=row, title=False, legend=False, caption=name)
        report.document, _ = page_edits.put(report.document, report.document.pages[-1].id, frame)
    report.head("Four ponds, one scale", "Clarity in centimetres of the white disc seen below the surface.")
    report.chart("Water level", LEFT, 604, INNER, 178)


def _names(report: Report, table: str) -> list[str]:
    held = next(one for one in report.document.tables if one.name == table)
    return [str(cell) for cell in held.columns[0].cells[1:]]


def _birds(report: Report) -> None:
    report.page("Birds")
    report.head(
        "Counted at dawn", "Each symbol stands for the same number of nesting pairs; half a symbol for half of it."
    )
    report.chart("Nesting pairs", LEFT, 180, INNER, 250)
    report.chart("Two summers", LEFT, 454, INNER, 200)
    report.chart("Dawn and dusk", LEFT, 662, INNER, 122, title=False, caption="Seen at dawn")


def _money(report: Report) -> None:
    report.page("Money")
    report.head(
        "Where the fund stands", "What came in, what went out, and what the appeal for the boardwalk still needs."
    )
    report.chart("Reserve fund", LEFT, 180, INNER, 250)
    half = (INNER - 30) / 2
    report.chart("Boardwalk appeal", LEFT, 456, half, 310)
    table = report.table("Boardwalk appeal")
    left = LEFT + half + 30
    report.put(Words("", paragraphs=plain("Who gave"), style="text", size=14), left, 470, half, 24)
    report.put(Excerpt("", table=table, rules="lines"), left, 500, half, 140)
    given = "=SUM('Boardwalk appeal'!B2:B6)"
    report.put(
        KeyFigure("", value=given, number="#,##0", caption="crowns given for the boardwalk"), left, 664, half, 90
    )


def _land(report: Report) -> None:
    report.page("Land", silenced={"labels-lost": "The legend beside it names the habitats, in the same colours."})
    report.head("What the land is made of", "Reed, water, meadow and wood, and how one walks through them.")
    report.chart("Habitat cover", LEFT, 166, INNER * 0.5, 276)
    report.chart(
        "Species by habitat",
        LEFT + INNER * 0.5 + 12,
        166,
        INNER * 0.5 - 12,
        276,
        title=False,
        caption="Species by family and habitat",
    )
    report.chart("Path surfaces", LEFT, 456, INNER, 160, legend=False)
    report.put(SharedLegend("", charts=(report.charts["Path surfaces"],)), LEFT, 622, INNER, 22)
    report.chart("Trees planted", LEFT, 660, INNER, 124, title=False, caption="Trees planted in a year")


def _people(report: Report) -> None:
    report.page("People")
    report.head("Who does the work", "Helpers gave more days than ever, most of them on the paths.")
    half = (INNER - 24) / 2
    report.chart("Helpers’ days", LEFT, 180, INNER, 220)
    report.chart("Hours by task", LEFT, 424, half, 240)
    report.chart("Ages of members", LEFT + half + 24, 424, half, 240, title=False, caption="Members by age")
    report.put(DrawnShape("", form="rounded", fill="track", radius=10), LEFT, 692, INNER, 84)
    report.put(Words("", paragraphs=(
        Paragraph((Run("Come along. ", bold=True), Run("Walks start at the pump house on the first Sunday of each "
                                                       "month. Waders are lent, tea is hot."))),
    ), size=12.5, inset=18, upright="middle"), LEFT, 692, INNER, 84)  # fmt: skip


def _slides(report: Report) -> None:
    wide, tall = 960.0, 540.0
    look = {"dark": True, "theme": "harbour", "footer": "{source} and own counts"}
    report.page(
        "Slide: title",
        "Slide 16:9",
        **look,
        speaker="Welcome. Ask how many of them were in the reserve this year before the first figure comes.",
    )
    report.put(DrawnShape("", form="rectangle", fill="tone1"), 0, 0, 22, tall)
    report.put(Words("", paragraphs=plain("Mirefen, 2025"), style="title", size=54), 80, 188, 800, 76)
    report.put(
        Words("", paragraphs=plain("What we counted, and what it tells us"), size=24, colour="quiet"), 80, 268, 800, 50
    )
    report.page(
        "Slide: visitors",
        "Slide 16:9",
        **look,
        speaker="Boats and bicycles are new; walkers came as before.\nAsk what that means for the boardwalk.",
    )
    report.put(Words("", paragraphs=plain("Summer carries the year"), style="title", size=34), 48, 36, 860, 52)
    report.put(
        KeyFigure("", value="='Visitor path'!B2", number="#,##0", caption="visits at three gates"), 48, 130, 220, 150
    )
    report.put(KeyFigure("", value="='Visitor path'!B6", number="#,##0", caption="new members"), 48, 310, 220, 150)
    report.chart("Visitors through the year", 300, 116, 612, 380, title=False)
    report.page(
        "Slide: counts",
        "Slide 16:9",
        **look,
        speaker="Go through the months. Let them guess when the warblers leave.\nA click on a bar changes its count.",
    )
    report.put(Words("", paragraphs=plain("Month by month"), style="title", size=34), 48, 36, 860, 52)
    report.chart("Monthly counts", 48, 110, 864, 326, title=False)
    report.put(StepControl(""), 48, 448, 864, 56)
    report.page(
        "Slide: next",
        "Slide 16:9",
        **look,
        speaker="End with the fund: what is missing is one bench’s worth of planks.",
    )
    report.put(Words("", paragraphs=plain("What comes next"), style="title", size=34), 48, 36, 860, 52)
    report.put(Words("", paragraphs=tuple(Paragraph((Run(text),), listing="dots") for text in (
        "Boards for the last stretch of the northern path",
        "A second hide, with a ramp",
        "Counting swallows with the school",
    )), size=22, spacing=1.5, after=0.6), 48, 128, 420, 330)  # fmt: skip
    report.chart("Boardwalk appeal", wide - 420, 110, 372, 390, title=False)
