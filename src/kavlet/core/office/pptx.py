"""PPTX: pages as slides of true size, their parts as native objects, charts as real charts."""

import io
from collections.abc import Sequence
from typing import Any
from xml.sax.saxutils import escape

from msgspec import Struct

from kavlet.core.files import svg
from kavlet.core.office import drawing
from kavlet.core.office.package import CHART_TYPE, SHARP, ChartStore, parts_of
from kavlet.core.office.theme import themed
from kavlet.core.office.vector_picture import add_vector
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office.writing_options import LONGEST_TITLE, WritingOptions, with_pictures
from kavlet.core.office.xlsx import workbook
from kavlet.core.office.xml import EMU, RELATION, Element, add
from kavlet.core.office_model.chart_model import Stroke
from kavlet.core.office_model.page_model import (
    AnyPart,
    ChartPart,
    PageModel,
    PicturePart,
    ShapePart,
    TablePart,
    TextParagraph,
    TextPart,
)
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

_QUOTES = {'"': "&quot;"}
TITLE_ONLY, BLANK = 5, 6  # layouts of the plain slide master
FORMS = {"rectangle": 1, "rounded": 5, "ellipse": 9}  # MSO_SHAPE numbers of the presets rect, roundRect, ellipse
MAX_SIDE = 51_206_400  # EMU; a slide is no larger (ISO/IEC 29500-1, 19.7.10)
MIN_SIDE = 914_400


class _Place(Struct, frozen=True):
    """Left, top, width and height in EMU."""

    x: int
    y: int
    width: int
    height: int


def _place(box: Rect) -> _Place:
    return _Place(*(round(one * EMU) for one in (box.x, box.y, max(0.0, box.width), max(0.0, box.height))))


class _Deck:
    """A presentation on its way."""

    def __init__(self, pages: Sequence[PageModel], tables: Sequence[Table], options: WritingOptions) -> None:
        import pptx
        from pptx.util import Emu

        self.tables, self.manner = tables, options
        self.deck = pptx.Presentation()
        size = pages[0].size
        self.deck.slide_width = Emu(max(MIN_SIDE, min(MAX_SIDE, round(size.width * EMU))))
        self.deck.slide_height = Emu(max(MIN_SIDE, min(MAX_SIDE, round(size.height * EMU))))
        self.deck.core_properties.title = (options.title or pages[0].name)[:LONGEST_TITLE]
        self.deck.core_properties.language = options.language
        self.store = ChartStore("ppt", options.language, options.paint)
        self.pictures = 0

    def slide(self, page: PageModel) -> None:
        """One page as a slide."""
        title = next(
            (one for one in page.parts if isinstance(one, TextPart) and one.role in ("title", "heading")), None
        )
        layout = self.deck.slide_layouts[TITLE_ONLY if title is not None else BLANK]
        slide = self.deck.slides.add_slide(layout)
        _ground(slide, page.ground)
        tree = slide.shapes._spTree
        heading = slide.shapes.title
        grouped: dict[str, list[Element]] = {}
        for part in page.parts:
            before = len(tree)
            if part is title and heading is not None:
                self._title(heading, title)
                element = heading._element
                tree.remove(element)
                tree.append(element)
                continue
            self._part(slide, part)
            if part.group:
                grouped.setdefault(part.group, []).extend(tree[before:])
        for members in grouped.values():
            if len(members) > 1:
                _group(slide, members)
        if page.speaker:
            slide.notes_slide.notes_text_frame.text = page.speaker
        if page.skipped:
            slide._element.set("show", "0")

    def _part(self, slide: Any, part: AnyPart) -> None:
        match part:
            case TextPart():
                at = _place(part.box)
                _text(slide.shapes.add_textbox(at.x, at.y, at.width, at.height), part)
            case TablePart():
                self._table(slide, part)
            case ChartPart():
                self._charts(slide, part)
            case PicturePart():
                self._picture(slide, part)
            case ShapePart():
                _shape(slide, part)

    def _title(self, heading: Any, part: TextPart) -> None:
        at = _place(part.box)
        heading.left, heading.top, heading.width, heading.height = at.x, at.y, at.width, at.height
        _text(heading, part)

    def _table(self, slide: Any, part: TablePart) -> None:
        if not part.rows:
            return
        at = _place(part.box)
        tall = round(part.row_height * EMU)
        frame = slide.shapes.add_table(len(part.rows), len(part.widths), at.x, at.y, at.width, tall * len(part.rows))
        frame.name = part.name or frame.name
        frame._element.nvGraphicFramePr.cNvPr.set("descr", part.alt_text)
        table = frame.table
        look = table._tbl.tblPr
        for child in list(look):
            look.remove(child)
        for key in list(look.attrib):
            del look.attrib[key]
        look.set("firstRow", "1" if part.header else "0")
        for column, wide in zip(table.columns, part.widths, strict=True):
            column.width = round(wide * EMU)
        for number, row in enumerate(part.rows):
            table.rows[number].height = tall
            for place, cell in enumerate(row):
                _cell(table.cell(number, place)._tc, cell, part.lines[number])

    def _charts(self, slide: Any, part: ChartPart) -> None:
        from pptx.opc.package import Part as PackagePart
        from pptx.opc.packuri import PackURI
        from pptx.oxml.shapes.graphfrm import CT_GraphicalObjectFrame

        for chart in part.charts:
            worksheets = sheets_for(self.tables, [chart])
            book = workbook(worksheets, (), self.manner.language, self.manner.paint)
            xml = self.store.add(chart, worksheets, book)
            package = slide.part.package
            package_part = PackagePart(PackURI(f"/ppt/charts/chart{self.store.count}.xml"), CHART_TYPE, package, xml)
            related = slide.part.relate_to(
                package_part, "http://schemas.openxmlformats.org/officeDocument/2006/relationships/chart"
            )
            box = Rect(
                part.box.x + chart.box.x * part.box.width, part.box.y + chart.box.y * part.box.height,
                chart.box.width * part.box.width, chart.box.height * part.box.height,
            )  # fmt: skip
            place = _place(box)
            number = max([shape.shape_id for shape in slide.shapes], default=1) + 1
            frame = CT_GraphicalObjectFrame.new_chart_graphicFrame(
                number, escape(part.name or chart.name, _QUOTES), related, place.x, place.y, place.width, place.height
            )
            frame.nvGraphicFramePr.cNvPr.set("descr", chart.alt_text or part.alt_text)
            frame.nvGraphicFramePr.cNvPr.set("title", part.title)
            slide.shapes._spTree.append(frame)

    def _picture(self, slide: Any, part: PicturePart) -> None:
        """A PNG, with the same as SVG for who can show it."""
        from pptx.opc.package import Part as PackagePart
        from pptx.opc.packuri import PackURI

        at = _place(part.box)
        png = self.manner.paint(part.scene, SHARP)
        shape = slide.shapes.add_picture(io.BytesIO(png), at.x, at.y, at.width, at.height)
        shape.name = part.name or shape.name
        shape._element.nvPicPr.cNvPr.set("descr", part.alt_text)
        self.pictures += 1
        name = PackURI(f"/ppt/media/sharp{self.pictures}.svg")
        held = PackagePart(name, "image/svg+xml", slide.part.package, svg.dumps(part.scene, True).encode())
        related = slide.part.relate_to(held, f"{RELATION}/image")
        add_vector(shape._element.blipFill.find(".//{*}blip"), related)


def _ground(slide: Any, ground: Colour) -> None:
    """The slide's own ground (ISO/IEC 29500-1, 19.3.1.2)."""
    holder = slide._element.cSld.get_or_add_bgPr()
    for child in list(holder):
        holder.remove(child)
    drawing.fill(holder, ground)
    add(holder, "a:effectLst")


def _text(shape: Any, part: TextPart) -> None:
    """Paragraphs into a shape's frame."""
    from pptx.enum.text import MSO_ANCHOR, MSO_AUTO_SIZE

    shape.name = part.name or shape.name
    frame = shape.text_frame
    frame.word_wrap = True
    frame.auto_size = MSO_AUTO_SIZE.NONE
    inset = round(part.inset * EMU)
    frame.margin_left = frame.margin_right = frame.margin_top = frame.margin_bottom = inset
    frame.vertical_anchor = {
        "top": MSO_ANCHOR.TOP, "middle": MSO_ANCHOR.MIDDLE, "bottom": MSO_ANCHOR.BOTTOM
    }[part.upright]  # fmt: skip
    for number, one in enumerate(part.paragraphs):
        paragraph = frame.paragraphs[0] if number == 0 else frame.add_paragraph()
        _paragraph(paragraph, one, part)
    look = shape._element.spPr
    if part.fill is not None:
        drawing.fill(look, part.fill)
    if part.edge is not None:
        drawing.line(look, Stroke(part.edge, 0.75))
    _tidy(look)


def _paragraph(paragraph: Any, one: TextParagraph, part: TextPart) -> None:
    from pptx.enum.text import PP_ALIGN
    from pptx.util import Pt

    paragraph.alignment = {"start": PP_ALIGN.LEFT, "middle": PP_ALIGN.CENTER, "end": PP_ALIGN.RIGHT}[one.align]
    paragraph.line_spacing = round(part.spacing / 1.2, 3)  # a face's own line is about 1.2 sizes of type
    paragraph.space_after = Pt(part.after)
    paragraph.space_before = Pt(0)
    look = paragraph._p.get_or_add_pPr()
    if one.listing:
        size = max((run.look.size for run in one.runs), default=12.0)
        look.set("marL", str(round(1.4 * size * EMU)))
        look.set("indent", str(-round(1.4 * size * EMU)))
        if one.listing == "numbers":
            add(look, "a:buAutoNum", type="arabicPeriod")
        else:
            add(look, "a:buChar", char="•")
    else:
        add(look, "a:buNone")
    for run in one.runs:
        made = paragraph.add_run()
        made.text = run.text.replace("\t", "    ")
        made_look = made._r.get_or_add_rPr()
        made._r.remove(made_look)
        made._r.insert(0, drawing.look(made._r, "a:rPr", run.look))


def _tidy(look: Element) -> None:
    """The parts of shape properties in the order the schema asks for."""
    ranks = ["xfrm", "custGeom", "prstGeom", "noFill", "solidFill", "gradFill", "blipFill", "pattFill", "grpFill", "ln",
             "effectLst"]  # fmt: skip
    children = sorted(look, key=lambda one: ranks.index(one.tag.rpartition("}")[2]))
    fills = [one for one in children if one.tag.rpartition("}")[2] in ranks[3:9]]
    for child in list(look):
        look.remove(child)
    for child in children:
        if child in fills[:-1]:
            continue
        look.append(child)


def _cell(element: Element, cell: Any, below: Any) -> None:
    body = element.find("{*}txBody")
    paragraph = body.find("{*}p")
    for child in list(paragraph):
        paragraph.remove(child)
    add(paragraph, "a:pPr", algn="r" if cell.right else "l")
    if cell.text:
        run = add(paragraph, "a:r")
        drawing.look(run, "a:rPr", cell.look)
        add(run, "a:t", cell.text)
    else:
        drawing.look(paragraph, "a:endParaRPr", cell.look)
    old = element.find("{*}tcPr")
    if old is not None:
        element.remove(old)
    look = add(element, "a:tcPr", marL=0, marR=45_720, marT=18_000, marB=18_000, anchor="ctr")
    for side in ("lnL", "lnR", "lnT"):
        add(add(look, f"a:{side}", w=0), "a:noFill")
    line = add(look, "a:lnB", w=6_350 if below is not None else 0)
    drawing.fill(line, below)
    drawing.fill(look, cell.fill)


def _shape(slide: Any, part: ShapePart) -> None:
    at = _place(part.box)
    if part.line is not None:
        from pptx.enum.shapes import MSO_CONNECTOR

        ends = [round(EMU * value) for end in part.line for value in end]
        made = slide.shapes.add_connector(MSO_CONNECTOR.STRAIGHT, *ends)
        look = made._element.spPr
        drawing.line(look, Stroke(part.edge, part.edge_width) if part.edge is not None else None)
        if part.form == "arrow":
            add(look.find("{*}ln"), "a:tailEnd", type="triangle")
        style = made._element.find("{*}style")
        if style is not None:
            made._element.remove(style)
        made.name = part.name or made.name
        return
    made = slide.shapes.add_shape(FORMS[part.form], at.x, at.y, at.width, at.height)
    made.name = part.name or made.name
    if part.form == "rounded":
        short = max(1e-6, min(part.box.width, part.box.height))
        made.adjustments[0] = min(0.5, part.radius / short)
    style = made._element.find("{*}style")
    if style is not None:
        made._element.remove(style)
    look = made._element.spPr
    drawing.fill(look, part.fill)
    drawing.line(look, Stroke(part.edge, part.edge_width) if part.edge is not None else None)
    if part.shadow:
        effects = add(look, "a:effectLst")
        shade = add(effects, "a:outerShdw", blurRad=50_800, dist=25_400, dir=5_400_000, algn="t", rotWithShape=False)
        add(add(shade, "a:srgbClr", val="000000"), "a:alpha", val=20_000)


def _group(slide: Any, members: list[Element]) -> None:
    """Some shapes as one group, which stands among the others where the last of them, the topmost, stood."""
    shapes = {shape._element: shape for shape in slide.shapes}
    above = members[-1].getnext()
    group = slide.shapes.add_group_shape([shapes[member] for member in members if member in shapes])
    group.name = "Group"
    if above is not None:
        above.addprevious(group._element)


def presentation(pages: Sequence[PageModel], tables: Sequence[Table], options: WritingOptions) -> bytes:
    """The presentation's bytes, a slide for each page in their order; the same input gives the same bytes.

    All slides have the first page's size.
    """
    made = _Deck(pages, tables, options)
    for page in pages:
        for one in with_pictures(page):
            made.slide(one)
    buffer = io.BytesIO()
    made.deck.save(buffer)
    content = buffer.getvalue()
    theme = parts_of(content)["ppt/theme/theme1.xml"]
    return made.store.finish(content, {"ppt/theme/theme1.xml": themed(theme, pages[0].family, pages[0].accents)})
