"""Pages in plain terms: what stands on them as texts, tables, charts, pictures and shapes."""

from collections.abc import Callable, Sequence
from datetime import date
from typing import Any

import msgspec

from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import item_name
from kavlet.core.office_model.chart_model import TextProperties
from kavlet.core.office_model.convert import plain_charts
from kavlet.core.office_model.page_model import (
    AnyPart,
    ChartPart,
    PageModel,
    PicturePart,
    Role,
    ShapePart,
    TableCell,
    TablePart,
    TextParagraph,
    TextPart,
    TextRun,
)
from kavlet.core.pages.arrangements import places
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape, line_ends
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.words import Words
from kavlet.core.pages.page import AnyItem
from kavlet.core.pipeline.framed_values import framed_values
from kavlet.core.pipeline.page_items import excerpt
from kavlet.core.pipeline.page_items.chart_frame import framed
from kavlet.core.pipeline.page_items.page_context import ComposedItem, Draws, PageContext, chart_box
from kavlet.core.pipeline.page_items.page_picture import composed, margin_lines, sheet_of
from kavlet.core.pipeline.page_items.words import set_runs
from kavlet.core.pipeline.stages import Picture
from kavlet.core.scene.primitives import Group, Primitive, Scene, Writing
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import Table
from kavlet.core.text.faces import face_of, named_face
from kavlet.core.values.affine import moved
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.xml_text import xml_text

Telling = Callable[[Any, ComposedItem, Rect, PageContext], Sequence[AnyPart]]
ROLES: dict[str, Role] = {"title": "title", "heading": "heading", "text": "text", "small": "small"}


def plain_page(document: Document, values: Values, page: str, draws: Draws, today: date | None = None) -> PageModel:
    """A page in plain terms. Raises KavletError where it has a size or look that there is not."""
    context = sheet_of(document, values, page, draws, today)
    boxes = places(context.page)
    parts: list[AnyPart] = []
    for item in context.page.items:
        composed_item, box = composed(item, boxes[item.id], context), boxes[item.id]
        parts_told = (
            [_refused(composed_item.refused, box, context)]
            if composed_item.refused
            else _told(item, composed_item, box, context)
        )
        name = item_name(document, item)
        parts += [
            msgspec.structs.replace(part, name=xml_text(part.name or name), group=item.group) for part in parts_told
        ]
    for line, box in margin_lines(context):
        parts += [msgspec.structs.replace(part, role="margin") for part in _words(line, ComposedItem(), box, context)]
    style = context.style
    return PageModel(
        name=xml_text(context.page.name),
        size=context.page.size,
        ground=style.ground,
        parts=tuple(parts),
        accents=style.palette,
        family=face_of(style.face).css_family,
        speaker=xml_text(context.page.speaker),
        skipped=context.page.skipped,
    )


def chart_page(document: Document, values: Values, picture: Picture) -> PageModel:
    """A page of a chart's own size that holds it alone."""
    size, style = picture.figure.size, picture.figure.ground
    part = chart_part_of(document, values, picture, Rect(0.0, 0.0, size.width, size.height))
    return PageModel(name=xml_text(picture.build.entry.name), size=size, ground=style, parts=(part,))


def chart_part_of(
    document: Document, values: Values, picture: Picture, box: Rect, own: tuple[Table, ...] = ()
) -> ChartPart:
    """A chart in its box; `own` are its tables where they differ from the document's."""
    entry = picture.build.entry
    charts = plain_charts(document, values, picture)
    return ChartPart(
        box=box,
        name=xml_text(entry.name),
        chart=entry.id,
        table=entry.table,
        charts=tuple(msgspec.structs.replace(chart, tables=own) for chart in charts) if own else charts,
        scene=picture.scene,
        title=xml_text(picture.figure.title or entry.name),
        alt_text=xml_text(picture.figure.alt_text),
    )


def _run(text: str, look: TextProperties) -> TextRun:
    return TextRun(xml_text(text), look)


def _lettered(face: str, size: float, colour: Colour) -> TextProperties:
    bold, italic = named_face(face)
    return TextProperties(size, colour, bold, italic, face_of(face).css_family)


def _refused(sentence: str, box: Rect, context: PageContext) -> TextPart:
    style = context.style
    run = _run(sentence, _lettered(style.face, style.small_size, style.quiet))
    return TextPart(box=box, paragraphs=(TextParagraph((run,), "middle"),), upright="middle", edge=style.line)


def _told(item: AnyItem, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[AnyPart]:
    return TELL.get(type(item), _picture)(item, composed_item, box, context)


def _words(item: Words, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[TextPart]:
    del composed_item
    style = context.style
    paragraphs = tuple(
        TextParagraph(
            tuple(_run(run.text, _lettered(run.face, run.size, run.colour)) for run in runs if run.text),
            paragraph.align,
            paragraph.listing,
        )
        for paragraph, runs in zip(item.paragraphs, set_runs(item, context), strict=True)
    )
    size = max((run.look.size for one in paragraphs for run in one.runs), default=style.text_size)
    return [
        TextPart(
            box=box,
            paragraphs=paragraphs,
            role=ROLES[item.style],
            inset=item.inset,
            upright=item.upright,
            fill=style.colour(item.fill) if item.fill else None,
            edge=style.colour(item.edge) if item.edge else None,
            spacing=item.spacing,
            after=item.after * size,
        )
    ]


def _key_figure(item: KeyFigure, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[TextPart]:
    """The figure, its caption and its change as paragraphs of one text; the arrow is a sign there."""
    del context
    lines = [writing for writing in composed_item.items if isinstance(writing, Writing)]
    has_change = len(composed_item.items) > len(lines)
    paragraphs = []
    for number, line in enumerate(lines):
        text = line.text
        if has_change and number == len(lines) - 1:
            text = f"{'▼' if text.startswith('−') else '▲'} {text}"
        look = _lettered(line.face, line.size, line.colour)
        paragraphs.append(TextParagraph((_run(text, look),), item.align))
    return [TextPart(box=box, paragraphs=tuple(paragraphs), role="figure", spacing=1.12)]


def _table(item: Excerpt, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[TablePart]:
    style = context.style
    table = context.document.table(item.table)
    excerpt_layout = excerpt.arranged(item, table, box, context)
    rows: list[tuple[TableCell, ...]] = []
    lines: list[Colour | None] = []
    if item.header:
        head = _lettered(style.bold, excerpt_layout.size, style.ink)
        rows.append(
            tuple(
                TableCell(xml_text(excerpt_column.head), head, excerpt_column.figures)
                for excerpt_column in excerpt_layout.columns
            )
        )
        lines.append(style.ink)
    row_count = min(excerpt_layout.count, excerpt_layout.fits)
    for row in range(row_count):
        last = item.total and row == excerpt_layout.count - 1
        band = style.named["track"] if item.rules == "bands" and row % 2 else None
        rows.append(tuple(
            TableCell(
                xml_text(excerpt_column.texts[row]),
                _lettered(
                    style.bold if last else style.face,
                    excerpt_layout.size,
                    excerpt.ink_of(item, excerpt_column, row, context),
                ),
                excerpt_column.figures,
                band,
            )
            for excerpt_column in excerpt_layout.columns
        ))  # fmt: skip
        above_total = item.total and row == excerpt_layout.count - 2
        lines.append(
            style.ink if above_total else style.line if item.rules == "lines" and row < row_count - 1 else None
        )
    gaps = [
        *(b - a for a, b in zip(excerpt_layout.lefts, excerpt_layout.lefts[1:], strict=False)),
        excerpt_layout.wides[-1],
    ]
    return [
        TablePart(
            box=box,
            rows=tuple(rows),
            widths=tuple(gaps),
            row_height=excerpt_layout.pitch,
            header=item.header,
            lines=tuple(lines),
            alt_text=xml_text(composed_item.says),
        )
    ]


def _chart(item: ChartFrame, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[AnyPart]:
    picture = composed_item.picture
    if picture is None:
        return _picture(item, composed_item, box, context)
    caption = [writing for writing in composed_item.items if isinstance(writing, Writing)]
    parts: list[AnyPart] = []
    if caption:
        line = caption[0]
        run = _run(line.text, _lettered(line.face, line.size, line.colour))
        head = Rect(box.x, box.y, box.width, 1.5 * line.size)
        parts.append(TextPart(box=head, paragraphs=(TextParagraph((run,)),), role="caption"))
    area = chart_box(box, bool(caption), context.style)
    entry = framed(item, area, context.document, context.page)
    document, values = framed_values(context.document, context.values, entry)
    own_tables = () if document is context.document else (document.table(entry.table),)
    parts.append(chart_part_of(document, values, picture, area, own_tables))
    return parts


def _shape(item: DrawnShape, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[ShapePart]:
    del composed_item
    style = context.style
    line = item.form in ("line", "arrow")
    edge = style.colour(item.edge) if item.edge else style.ink if line else None
    return [
        ShapePart(
            box=box,
            form=item.form,
            fill=style.colour(item.fill) if item.fill and not line else None,
            edge=edge,
            edge_width=item.edge_width,
            radius=item.radius,
            line=line_ends(item, box) if line else None,
            shadow=item.shadow and not line,
        )
    ]


def _picture(item: AnyItem, composed_item: ComposedItem, box: Rect, context: PageContext) -> Sequence[PicturePart]:
    """What has no plain form, as a picture of what it draws."""
    del context
    alt = item.alt if isinstance(item, PlacedPicture) else composed_item.says
    return [PicturePart(box=box, scene=cut_out(composed_item.items, box), alt_text=xml_text(alt))]


def cut_out(items: Sequence[Primitive], box: Rect) -> Scene:
    """A scene of a box's size that shows what lies in it."""
    return Scene(Size(box.width, box.height), None, (Group(tuple(items), moved(-box.x, -box.y)),))


TELL: dict[type, Telling] = {
    Words: _words,
    KeyFigure: _key_figure,
    Excerpt: _table,
    ChartFrame: _chart,
    DrawnShape: _shape,
}
