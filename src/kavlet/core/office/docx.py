"""DOCX: pages as a flowing report, in reading order: headings, words, tables, real charts inline with captions."""

import io
from collections.abc import Sequence
from typing import Any

from lxml import etree

from kavlet.core.files import svg
from kavlet.core.office.package import CHART_TYPE, SHARP, ChartStore, parts_of
from kavlet.core.office.theme import themed
from kavlet.core.office.vector_picture import add_vector
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office.writing_options import (
    LEVELS,
    LONGEST_TITLE,
    HeadingLevels,
    WritingOptions,
    readable,
    reading_order,
    with_pictures,
)
from kavlet.core.office.xlsx import workbook
from kavlet.core.office.xml import EMU, RELATION, SPACES, add
from kavlet.core.office_model.chart_model import TextProperties
from kavlet.core.office_model.page_model import ChartPart, PageModel, PicturePart, TablePart, TextParagraph, TextPart
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

W = "http://schemas.openxmlformats.org/wordprocessingml/2006/main"
WP = "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"
SHEET, MARGIN = Size(595.28, 841.89), 56.7  # points: A4, 20 mm


class _Report:
    """A document on its way."""

    def __init__(self, tables: Sequence[Table], options: WritingOptions, family: str, size: Size) -> None:
        import docx
        from docx.shared import Emu, Pt

        self.tables, self.manner = tables, options
        self.document: Any = docx.Document()
        owner = self.document.part
        for id_, one in list(owner.rels.items()):
            if one.reltype.endswith("/stylesWithEffects"):  # the template's copy of its styles, which would differ
                del owner.rels[id_]
        self.store = ChartStore("word", options.language, options.paint)
        self.drawn = 0
        self.outline = HeadingLevels()
        upright = size.height >= size.width
        sheet = size if upright and 400 < size.width < 900 else SHEET
        section = self.document.sections[0]
        section.page_width, section.page_height = Emu(round(sheet.width * EMU)), Emu(round(sheet.height * EMU))
        for side in ("left_margin", "right_margin", "top_margin", "bottom_margin"):
            setattr(section, side, Emu(round(MARGIN * EMU)))
        self.width = sheet.width - 2 * MARGIN
        self.height = sheet.height - 2 * MARGIN
        plain = self.document.styles["Normal"]
        plain.font.size = Pt(10.5)
        for name in ("Normal", "Heading 1", "Heading 2", "Heading 3", "Caption"):
            self._faced(self.document.styles[name], family)
        self.document.core_properties.title = options.title[:LONGEST_TITLE]
        self.document.core_properties.language = options.language
        self.document.core_properties.comments = ""
        self.document.core_properties.author = ""

    def _faced(self, style: Any, family: str) -> None:
        """A style in the document's face and in ink, instead of the template's own."""
        from docx.shared import RGBColor

        if family:
            style.font.name = family
            fonts = style.element.rPr.rFonts
            for key in list(fonts.attrib):
                if "Theme" in key:
                    del fonts.attrib[key]
            for key in ("ascii", "hAnsi", "cs", "eastAsia"):
                fonts.set(f"{{{W}}}{key}", family)
        style.font.color.rgb = RGBColor(0x1F, 0x29, 0x33)

    def page(self, page: PageModel, first: bool) -> None:
        """A page's parts, one below the other; each page begins on a new one."""
        parts = reading_order(page.parts)
        headed = any(isinstance(one, TextPart) and one.role in ("title", "heading") for one in parts)
        if not first:
            self.document.add_page_break()
        if not headed and page.name:
            self.document.add_heading(page.name, self.outline.level(1))
        for part in parts:
            match part:
                case TextPart() if part.role != "margin":
                    self._text(part)
                case TablePart():
                    self._table(part)
                case ChartPart():
                    self._charts(part)
                case PicturePart():
                    self._picture(part)
                case _:
                    pass  # shapes set things apart on a page; in a flow they have nothing to do

    def _text(self, part: TextPart) -> None:
        for number, one in enumerate(part.paragraphs):
            if not one.text.strip():
                continue
            heads = part.role in LEVELS and number == 0
            style = "Normal"
            if heads:
                style = f"Heading {self.outline.level(LEVELS[part.role])}"
            elif one.listing:
                style = "List Bullet" if one.listing == "dots" else "List Number"
            self._runs(self.document.add_paragraph(style=style), one, styled=heads)

    def _runs(self, paragraph: Any, one: TextParagraph, styled: bool) -> None:
        from docx.enum.text import WD_ALIGN_PARAGRAPH

        paragraph.alignment = {
            "start": WD_ALIGN_PARAGRAPH.LEFT, "middle": WD_ALIGN_PARAGRAPH.CENTER, "end": WD_ALIGN_PARAGRAPH.RIGHT
        }[one.align]  # fmt: skip
        for run in one.runs:
            self._run(paragraph, run.text, run.look, styled)

    def _run(self, paragraph: Any, text: str, look: TextProperties, styled: bool = False) -> None:
        from docx.shared import Pt, RGBColor

        made = paragraph.add_run(text)
        made.italic = look.italic or None
        if styled:
            return
        made.bold = look.bold or None
        made.font.size = Pt(round(2 * look.size) / 2)
        made.font.color.rgb = RGBColor(*(round(255 * part) for part in readable(look.colour).rgb))
        if look.family:
            made.font.name = look.family

    def _table(self, part: TablePart) -> None:
        from docx.enum.text import WD_ALIGN_PARAGRAPH
        from docx.shared import Pt

        if not part.rows:
            return
        table = self.document.add_table(len(part.rows), len(part.widths))
        table.autofit = True
        for number, row in enumerate(part.rows):
            for place, cell in enumerate(row):
                held = table.cell(number, place)
                paragraph = held.paragraphs[0]
                paragraph.paragraph_format.space_after = Pt(2)
                paragraph.alignment = WD_ALIGN_PARAGRAPH.RIGHT if cell.right else WD_ALIGN_PARAGRAPH.LEFT
                self._run(paragraph, cell.text, cell.look)
                _below(held, part.lines[number])
        if part.header:
            row = table.rows[0]._tr.get_or_add_trPr()
            etree.SubElement(row, f"{{{W}}}tblHeader")
        self._caption(part.alt_text)

    def _caption(self, text: str) -> None:
        if text:
            self.document.add_paragraph(text, style="Caption")

    def _charts(self, part: ChartPart) -> None:
        from docx.opc.packuri import PackURI
        from docx.opc.part import Part

        for chart in part.charts:
            worksheets = sheets_for(self.tables, [chart])
            book = workbook(worksheets, (), self.manner.language, self.manner.paint)
            xml = self.store.add(chart, worksheets, book)
            name = PackURI(f"/word/charts/chart{self.store.count}.xml")
            owner = self.document.part
            related = owner.relate_to(Part(name, CHART_TYPE, xml, owner.package), f"{RELATION}/chart")
            box = Rect(0, 0, chart.box.width * part.box.width, chart.box.height * part.box.height)
            graphic = self._inline(box, part.title, chart.alt_text or part.alt_text)
            data = add(add(graphic, "a:graphic"), "a:graphicData", uri=SPACES["c"])
            add(data, "c:chart", r_id=related)
        self._caption(part.title)

    def _inline(self, box: Rect, title: str, alt: str) -> Any:
        """A paragraph that holds a drawing of its own, no broader than the text, with its alternative text."""
        scale = min(1.0, self.width / max(1.0, box.width), self.height / max(1.0, box.height))
        run = self.document.add_paragraph().add_run()
        self.drawn += 1
        drawing = etree.SubElement(run._r, f"{{{W}}}drawing")
        inline = etree.SubElement(drawing, f"{{{WP}}}inline", nsmap={"wp": WP})
        for side in "TBLR":
            inline.set(f"dist{side}", "0")
        extent = etree.SubElement(inline, f"{{{WP}}}extent")
        extent.set("cx", str(round(box.width * scale * EMU)))
        extent.set("cy", str(round(box.height * scale * EMU)))
        about = etree.SubElement(inline, f"{{{WP}}}docPr")
        about.set("id", str(self.drawn))
        about.set("name", title or f"Chart {self.drawn}")
        about.set("descr", alt)
        return inline

    def _picture(self, part: PicturePart) -> None:
        """A PNG inline, with the same as SVG for who can show it."""
        from docx.opc.packuri import PackURI
        from docx.opc.part import Part
        from docx.shared import Emu

        scale = min(1.0, self.width / max(1.0, part.box.width), self.height / max(1.0, part.box.height))
        run = self.document.add_paragraph().add_run()
        png = io.BytesIO(self.manner.paint(part.scene, SHARP))
        made = run.add_picture(png, Emu(round(part.box.width * scale * EMU)), Emu(round(part.box.height * scale * EMU)))
        self.drawn += 1
        about = made._inline.docPr
        about.set("id", str(self.drawn))
        about.set("descr", part.alt_text)
        about.set("name", part.name or f"Picture {self.drawn}")
        owner = self.document.part
        held = Part(
            PackURI(f"/word/media/sharp{self.drawn}.svg"), "image/svg+xml", svg.dumps(part.scene, True).encode(),
            owner.package,
        )  # fmt: skip
        related = owner.relate_to(held, f"{RELATION}/image")
        add_vector(made._inline.find(".//{*}blip"), related)


def _below(cell: Any, line: Colour | None) -> None:
    """The rule below a cell."""
    look = cell._tc.get_or_add_tcPr()
    borders = etree.SubElement(look, f"{{{W}}}tcBorders")
    edge = etree.SubElement(borders, f"{{{W}}}bottom")
    edge.set(f"{{{W}}}val", "single" if line is not None else "nil")
    if line is not None:
        edge.set(f"{{{W}}}sz", "4")
        edge.set(f"{{{W}}}color", line.hex[1:7].upper())


def report(pages: Sequence[PageModel], tables: Sequence[Table], options: WritingOptions) -> bytes:
    """The document's bytes, page after page; the same input gives the same bytes."""
    report = _Report(tables, options, pages[0].family, pages[0].size)
    pages_told = [one for page in pages for one in with_pictures(page)]
    for number, page in enumerate(pages_told):
        report.page(page, number == 0)
    buffer = io.BytesIO()
    report.document.save(buffer)
    content = buffer.getvalue()
    name = next((one for one in parts_of(content) if one.startswith("word/theme/")), "")
    more = {name: themed(parts_of(content)[name], pages[0].family, pages[0].accents)} if name else {}
    return report.store.finish(content, more)
