"""What pages are made of in ODF 1.3: styles made once, paragraphs, tables, pictures, charts as objects."""

from collections.abc import Callable, Sequence

from kavlet.core.files import svg
from kavlet.core.office.odf import Element, Package, add, dumps, meta, points, put, root
from kavlet.core.office.odf_chart import Differs, odf_chart, text_properties
from kavlet.core.office.package import SHARP, STAND_IN
from kavlet.core.office.worksheets import sheets_for
from kavlet.core.office.writing_options import WritingOptions
from kavlet.core.office_model.chart_model import ChartModel, Stroke, TextProperties
from kavlet.core.office_model.page_model import TableCell, TablePart, TextParagraph, TextRun
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.colour import Colour

ALIGNED = {"start": "start", "middle": "center", "end": "end"}


class OdfParts:
    """A document's content on its way: the body, styles, and the package around them."""

    def __init__(self, media_type: str, tables: Sequence[Table], options: WritingOptions) -> None:
        self.package = Package(media_type)
        self.tables, self.manner = tables, options
        self.content = root("office:document-content")
        self.automatic = add(self.content, "office:automatic-styles")
        self.styles = root("office:document-styles")
        self.differs: Differs = {}
        self._made: dict[tuple[object, ...], str] = {}

    def style(self, family: str, key: tuple[object, ...], fill: Callable[[Element], None], **more: object) -> str:
        """The name of an automatic style; one of the same key is made once."""
        whole = (family, key)
        if whole not in self._made:
            self._made[whole] = f"{family[:2]}{len(self._made) + 1}"
            made = add(self.automatic, "style:style")
            put(made, style_name=self._made[whole], style_family=family, **more)
            fill(made)
        return self._made[whole]

    def paragraph(self, parent: Element, one: TextParagraph, short: str = "text:p", **more: object) -> Element:
        """A paragraph with its runs."""

        def aligned(style: Element) -> None:
            put(add(style, "style:paragraph-properties"), fo_text__align=ALIGNED[one.align])

        made = add(parent, short, text_style__name=self.style("paragraph", (one.align,), aligned))
        put(made, **more)
        for run in one.runs:
            name_ = self.style("text", (run.look,), lambda style, look=run.look: text_properties(style, look))  # type: ignore[misc]
            self._spanned(made, run.text, name_)
        return made

    def _spanned(self, parent: Element, text: str, style: str) -> None:
        """A text in a span; runs of spaces and tabs as the standard writes them (ODF 1.3, part 3, 6.1.3)."""
        span = add(parent, "text:span", text_style__name=style)
        span.text = ""
        last: Element | None = None
        previous = ""
        for sign in text:
            if sign == "\t":
                last = add(span, "text:tab")
            elif sign == " " and previous in (" ", ""):
                last = add(span, "text:s")
            elif sign >= " ":
                if last is None:
                    span.text += sign
                else:
                    last.tail = (last.tail or "") + sign
            previous = sign

    def table(self, parent: Element, part: TablePart) -> None:
        """A table with its rules and grounds."""
        made = add(parent, "table:table")
        for wide in part.widths:
            column = self.style(
                "table-column", (round(wide, 2),),
                lambda style, wide=wide: put(  # type: ignore[misc]
                    add(style, "style:table-column-properties"), style_column__width=points(wide)
                ),
            )  # fmt: skip
            add(made, "table:table-column", table_style__name=column)
        tall = self.style(
            "table-row", (part.row_height,),
            lambda style: put(add(style, "style:table-row-properties"), style_min__row__height=points(part.row_height)),
        )  # fmt: skip
        for number, row in enumerate(part.rows):
            home = add(made, "table:table-header-rows") if number == 0 and part.header else made
            line = add(home, "table:table-row", table_style__name=tall)
            for cell in row:
                self._cell(line, cell, part.lines[number])

    def _cell(self, row: Element, cell: TableCell, below: Colour | None) -> None:
        def look(style: Element) -> None:
            made = add(style, "style:table-cell-properties")
            put(made, fo_padding="1.5pt", fo_border="none", style_vertical__align="middle",
                fo_background__color=cell.fill.hex[:7] if cell.fill is not None else "transparent")  # fmt: skip
            if below is not None:
                put(made, fo_border__bottom=f"0.5pt solid {below.hex[:7]}")

        key = (cell.fill.hex if cell.fill else "", below.hex if below else "")
        made = add(row, "table:table-cell", office_value__type="string")
        put(made, table_style__name=self.style("table-cell", key, look))
        runs = (TextRun(cell.text, cell.look),) if cell.text else ()
        self.paragraph(made, TextParagraph(runs, "end" if cell.right else "start"))

    def graphic(self, fill: Colour | None, line: Stroke | None, **more: object) -> str:
        """A graphic style with fill and line."""

        def look(style: Element) -> None:
            made = add(style, "style:graphic-properties")
            put(made, draw_fill="solid" if fill is not None else "none",
                draw_fill__color=fill.hex[:7] if fill is not None else None,
                draw_opacity=f"{round(100 * fill.alpha)}%" if fill is not None and fill.alpha < 1 else None,
                draw_stroke="solid" if line is not None else "none",
                svg_stroke__color=line.colour.hex[:7] if line is not None else None,
                svg_stroke__width=points(line.width) if line is not None else None, **more)  # fmt: skip

        return self.style("graphic", (fill, line, *sorted(more.items())), look)

    def chart(self, frame: Element, chart: ChartModel, scene: Scene) -> None:
        """A chart as an object, and its picture for who can't show it."""
        worksheets = sheets_for(self.tables, [chart])
        document = odf_chart(chart, worksheets, self.manner.paint)
        self.differs[chart.workings.id] = document.differs
        held = self.package.object(document.parts, self.manner.paint(scene, STAND_IN))
        linked = {"xlink_type": "simple", "xlink_show": "embed", "xlink_actuate": "onLoad"}
        add(frame, "draw:object", xlink_href=f"./{held}", **linked)
        add(frame, "draw:image", xlink_href=f"./ObjectReplacements/{held}", **linked)

    def picture(self, frame: Element, scene: Scene) -> None:
        """A picture as SVG, and as PNG for who can't show that."""
        for ending, content in (("svg", svg.dumps(scene, True).encode()), ("png", self.manner.paint(scene, SHARP))):
            part = self.package.picture(content, ending)
            add(frame, "draw:image", xlink_href=part, xlink_type="simple", xlink_show="embed", xlink_actuate="onLoad")

    def about(self, frame: Element, title: str, alt: str) -> None:
        """Title and alternative text of a frame."""
        if title:
            add(frame, "svg:title", title)
        if alt:
            add(frame, "svg:desc", alt)

    def save(self) -> bytes:
        """The package's bytes."""
        if not len(self.automatic):
            self.content.remove(self.automatic)
        self.package.put("content.xml", dumps(self.content))
        self.package.put("styles.xml", dumps(self.styles))
        self.package.put("meta.xml", meta(self.manner.title, self.manner.language))
        return self.package.save()


FAMILIES = ("graphic", "paragraph", "text", "table", "table-column", "table-row", "table-cell")


def default_styles(common: Element, look: TextProperties) -> None:
    """The default style of each family that pages use; texts are set as `look` says."""
    for family in FAMILIES:
        made = add(common, "style:default-style", style_family=family)
        if family in ("graphic", "paragraph", "text"):
            text_properties(made, look)
