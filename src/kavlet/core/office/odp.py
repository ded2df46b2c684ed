"""ODP: pages as slides of true size, their parts as native objects, charts as chart objects."""

from collections.abc import Sequence

from kavlet.core.office.odf import Element, add, points, put
from kavlet.core.office.odf_chart import Differs
from kavlet.core.office.odf_parts import OdfParts, default_styles
from kavlet.core.office.writing_options import INK, WritingOptions, with_pictures
from kavlet.core.office_model.chart_model import Stroke, TextProperties
from kavlet.core.office_model.page_model import (
    AnyPart,
    ChartPart,
    PageModel,
    PicturePart,
    ShapePart,
    TablePart,
    TextPart,
)
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.geometry import Rect

TYPE = "application/vnd.oasis.opendocument.presentation"


def presentation(pages: Sequence[PageModel], tables: Sequence[Table], options: WritingOptions) -> tuple[bytes, Differs]:
    """The presentation's bytes, a slide for each page, and what is different there."""
    made = OdfParts(TYPE, tables, options)
    _master(made, pages[0])
    body = add(add(made.content, "office:body"), "office:presentation")
    number = 0
    for page in pages:
        for one in with_pictures(page):
            number += 1
            _slide(made, body, one, number)
    return made.save(), made.differs


def _master(made: OdfParts, page: PageModel) -> None:
    """The page layout and the master page that all slides have."""
    common = add(made.styles, "office:styles")
    default_styles(common, TextProperties(12.0, INK, family=page.family))
    add(common, "draw:marker", draw_name="arrow", svg_viewBox="0 0 20 30", svg_d="M10 0 L0 30 L20 30 Z")
    automatic = add(made.styles, "office:automatic-styles")
    layout = add(automatic, "style:page-layout", style_name="layout")
    put(
        add(layout, "style:page-layout-properties"),
        fo_page__width=points(page.size.width),
        fo_page__height=points(page.size.height),
        fo_margin="0pt",
        style_print__orientation="landscape" if page.size.width >= page.size.height else "portrait",
    )
    masters = add(made.styles, "office:master-styles")
    add(masters, "style:master-page", style_name="plain", style_page__layout__name="layout")


def _slide(made: OdfParts, body: Element, page: PageModel, number: int) -> None:
    def ground(style: Element) -> None:
        put(
            add(style, "style:drawing-page-properties"),
            draw_fill="solid",
            draw_fill__color=page.ground.hex[:7],
            presentation_visibility="hidden" if page.skipped else "visible",
            presentation_display__header=False,
        )

    style = made.style("drawing-page", (page.ground, page.skipped), ground)
    slide = add(body, "draw:page", draw_name=f"{number} {page.name}".strip(), draw_style__name=style)
    put(slide, draw_master__page__name="plain")
    texts = [one for one in page.parts if isinstance(one, TextPart)]
    title = next((one for one in texts if one.role in ("title", "heading")), None)
    counts: dict[str, int] = {}
    for part in page.parts:
        if part.group:
            counts[part.group] = counts.get(part.group, 0) + 1
    groups: dict[str, Element] = {}
    for part in page.parts:
        home = slide
        # A table or object is no part of a group there (ODF 1.3, part 3, 10.3.15 lists shapes and frames)
        if counts.get(part.group, 0) > 1:
            if part.group not in groups:
                groups[part.group] = add(slide, "draw:g")
            home = groups[part.group]
        _part(made, home, part, is_title=part is title)
    if page.speaker:
        notes = add(slide, "presentation:notes")
        frame = _frame(notes, Rect(57.0, 400.0, 480.0, 340.0))
        put(frame, presentation_class="notes")
        box = add(frame, "draw:text-box")
        for line in page.speaker.split("\n"):
            add(box, "text:p", line)


def _frame(parent: Element, box: Rect, name: str = "") -> Element:
    made = add(
        parent, "draw:frame", svg_x=points(box.x), svg_y=points(box.y), svg_width=points(box.width),
        svg_height=points(box.height),
    )  # fmt: skip
    put(made, draw_name=name or None)
    return made


def _part(made: OdfParts, home: Element, part: AnyPart, is_title: bool) -> None:
    match part:
        case TextPart():
            _text(made, home, part, is_title)
        case TablePart():
            frame = _frame(home, part.box, part.name)
            made.table(frame, part)
            made.about(frame, part.name, part.alt_text)
        case ChartPart():
            for chart in part.charts:
                box = Rect(
                    part.box.x + chart.box.x * part.box.width, part.box.y + chart.box.y * part.box.height,
                    chart.box.width * part.box.width, chart.box.height * part.box.height,
                )  # fmt: skip
                frame = _frame(home, box, part.name)
                made.chart(frame, chart, part.scene)
                made.about(frame, part.title, chart.alt_text or part.alt_text)
        case PicturePart():
            frame = _frame(home, part.box, part.name)
            made.picture(frame, part.scene)
            made.about(frame, part.name, part.alt_text)
        case ShapePart():
            _shape(made, home, part)


def _text(made: OdfParts, home: Element, part: TextPart, is_title: bool) -> None:
    frame = _frame(home, part.box, part.name)
    edge = Stroke(part.edge, 0.75) if part.edge is not None else None
    style = made.graphic(
        part.fill, edge, fo_padding=points(part.inset), draw_textarea__vertical__align=part.upright,
        draw_auto__grow__height=False,
    )  # fmt: skip
    put(frame, draw_style__name=style)
    if is_title:
        put(frame, presentation_class="title")
    box = add(frame, "draw:text-box")
    listed: Element | None = None
    kind = ""
    for one in part.paragraphs:
        if not one.listing:
            listed = None
            made.paragraph(box, one)
            continue
        if listed is None or kind != one.listing:
            kind = one.listing
            listed = add(box, "text:list", text_style__name=list_style(made, one.listing))
        made.paragraph(add(listed, "text:list-item"), one)


def list_style(made: OdfParts, kind: str) -> str:
    """The style of a list with dots or numbers."""
    held = f"list-{kind}"
    if not any(child.get("{urn:oasis:names:tc:opendocument:xmlns:style:1.0}name") == held for child in made.automatic):
        style = add(made.automatic, "text:list-style", style_name=held)
        if kind == "dots":
            level = add(style, "text:list-level-style-bullet", text_level=1, text_bullet__char="•")
        else:
            level = add(
                style, "text:list-level-style-number", text_level=1, style_num__format="1", style_num__suffix="."
            )
        put(add(level, "style:list-level-properties"), text_min__label__width="14pt")
    return held


def _shape(made: OdfParts, home: Element, part: ShapePart) -> None:
    box = part.box
    line = Stroke(part.edge, part.edge_width) if part.edge is not None else None
    if part.line is not None:
        (x1, y1), (x2, y2) = part.line
        more = {"draw_marker__end": "arrow", "draw_marker__end__width": "8pt"} if part.form == "arrow" else {}
        add(
            home, "draw:line", draw_style__name=made.graphic(None, line, **more), svg_x1=points(x1),
            svg_y1=points(y1), svg_x2=points(x2), svg_y2=points(y2),
        )  # fmt: skip
        return
    shade = (
        {"draw_shadow": "visible", "draw_shadow__offset__x": "0pt", "draw_shadow__offset__y": "2pt",
         "draw_shadow__color": "#000000", "draw_shadow__opacity": "20%"} if part.shadow else {}
    )  # fmt: skip
    style = made.graphic(part.fill, line, **shade)
    place = {
        "svg_x": points(box.x), "svg_y": points(box.y), "svg_width": points(box.width), "svg_height": points(box.height)
    }  # fmt: skip
    if part.form == "ellipse":
        add(home, "draw:ellipse", draw_style__name=style, **place)
    else:
        radius = points(part.radius) if part.form == "rounded" else None
        add(home, "draw:rect", draw_style__name=style, draw_corner__radius=radius, **place)
