"""ODT: pages as a flowing report, in reading order: headings, words, tables, charts with captions."""

from collections.abc import Sequence

import msgspec

from kavlet.core.office.odf import Element, add, points, put
from kavlet.core.office.odf_chart import Differs, text_properties
from kavlet.core.office.odf_parts import OdfParts, default_styles
from kavlet.core.office.odp import list_style
from kavlet.core.office.writing_options import (
    INK,
    LEVELS,
    HeadingLevels,
    WritingOptions,
    readable,
    reading_order,
    with_pictures,
)
from kavlet.core.office_model.chart_model import TextProperties
from kavlet.core.office_model.page_model import (
    ChartPart,
    PageModel,
    PicturePart,
    TablePart,
    TextParagraph,
    TextPart,
    TextRun,
)
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.colour import Colour

TYPE = "application/vnd.oasis.opendocument.text"
WIDE, TALL, MARGIN = 595.28, 841.89, 56.7  # points: A4, 20 mm


def report(pages: Sequence[PageModel], tables: Sequence[Table], options: WritingOptions) -> tuple[bytes, Differs]:
    """The document's bytes, page after page, and what is different there."""
    parts = OdfParts(TYPE, tables, options)
    _styles(parts, pages[0].family)
    body = add(add(parts.content, "office:body"), "office:text")
    pages_told = [one for page in pages for one in with_pictures(page)]
    outline = HeadingLevels()
    for number, page in enumerate(pages_told):
        _page(parts, body, page, number == 0, outline)
    return parts.save(), parts.differs


def _styles(made: OdfParts, family: str) -> None:
    common = add(made.styles, "office:styles")
    default_styles(common, TextProperties(10.5, INK, family=family))
    caption = add(common, "style:style", style_name="Caption", style_family="paragraph")
    put(add(caption, "style:paragraph-properties"), fo_margin__bottom="10pt")
    text_properties(caption, TextProperties(9.0, Colour(0.35, 0.4, 0.45), italic=True, family=family))
    for level, size in ((1, 20.0), (2, 15.0), (3, 11.5)):
        style = add(
            common, "style:style", style_name=f"Heading_20_{level}", style_display__name=f"Heading {level}",
            style_family="paragraph", style_default__outline__level=level,
        )  # fmt: skip
        put(add(style, "style:paragraph-properties"), fo_margin__top="10pt", fo_margin__bottom="6pt",
            fo_keep__with__next="always")  # fmt: skip
        text_properties(style, TextProperties(size, INK, bold=True, family=family))
    automatic = add(made.styles, "office:automatic-styles")
    layout = add(automatic, "style:page-layout", style_name="layout")
    put(add(layout, "style:page-layout-properties"), fo_page__width=points(WIDE), fo_page__height=points(TALL),
        fo_margin=points(MARGIN), style_print__orientation="portrait")  # fmt: skip
    masters = add(made.styles, "office:master-styles")
    add(masters, "style:master-page", style_name="Standard", style_page__layout__name="layout")


def _page(made: OdfParts, body: Element, page: PageModel, first: bool, outline: HeadingLevels) -> None:
    parts = reading_order(page.parts)
    headed = any(isinstance(one, TextPart) and one.role in ("title", "heading") for one in parts)
    if not first:
        style = made.style(
            "paragraph", ("break",),
            lambda one: put(add(one, "style:paragraph-properties"), fo_break__before="page"),
        )  # fmt: skip
        add(body, "text:p", text_style__name=style)
    if not headed and page.name:
        _heading(body, page.name, outline.level(1))
    for part in parts:
        match part:
            case TextPart() if part.role != "margin":
                _text(made, body, part, outline)
            case TablePart():
                made.table(body, part)
                _caption(body, part.alt_text)
            case ChartPart():
                for chart in part.charts:
                    frame = _frame(body, chart.size.width, chart.size.height)
                    made.chart(frame, chart, part.scene)
                    made.about(frame, part.title, chart.alt_text or part.alt_text)
                _caption(body, part.title)
            case PicturePart():
                frame = _frame(body, part.box.width, part.box.height)
                made.picture(frame, part.scene)
                made.about(frame, part.name, part.alt_text)
            case _:
                pass  # shapes set things apart on a page; in a flow they have nothing to do


def _heading(body: Element, text: str, level: int) -> None:
    add(body, "text:h", text, text_style__name=f"Heading_20_{level}", text_outline__level=level)


def _caption(body: Element, text: str) -> None:
    if text:
        add(body, "text:p", text, text_style__name="Caption")


def _frame(body: Element, wide: float, tall: float) -> Element:
    """A frame in a paragraph of its own, no larger than the page."""
    scale = min(1.0, (WIDE - 2 * MARGIN) / max(1.0, wide), (TALL - 2 * MARGIN) / max(1.0, tall))
    paragraph = add(body, "text:p")
    return add(
        paragraph, "draw:frame", text_anchor__type="as-char", svg_x="0pt", svg_y="0pt", svg_width=points(wide * scale),
        svg_height=points(tall * scale),
    )  # fmt: skip


def _text(made: OdfParts, body: Element, part: TextPart, outline: HeadingLevels) -> None:
    listed: Element | None = None
    for number, one in enumerate(part.paragraphs):
        if not one.text.strip():
            continue
        if part.role in LEVELS and number == 0:
            _heading(body, one.text, outline.level(LEVELS[part.role]))
        elif one.listing:
            if listed is None:
                listed = add(body, "text:list", text_style__name=list_style(made, one.listing))
            made.paragraph(add(listed, "text:list-item"), _readable(one))
        else:
            listed = None
            made.paragraph(body, _readable(one))


def _readable(one: TextParagraph) -> TextParagraph:
    """A paragraph in colours that can be read on white."""
    runs = tuple(
        TextRun(run.text, msgspec.structs.replace(run.look, colour=readable(run.look.colour))) for run in one.runs
    )
    return msgspec.structs.replace(one, runs=runs)
