"""Fills, lines and texts in DrawingML (ISO/IEC 29500-1, 20.1 and 21.1)."""

from kavlet.core.office.xml import EMU, Element, add, dumps, root
from kavlet.core.office_model.chart_model import (
    ChartText,
    FillModel,
    Gradient,
    Pattern,
    PictureModel,
    Stroke,
    TextProperties,
)
from kavlet.core.values.colour import Colour

PATTERNS = {"lines": "wdUpDiag", "cross": "diagCross", "dots": "pct25"}
SLOPES = ((22.5, "narHorz"), (67.5, "wdDnDiag"), (112.5, "narVert"), (157.5, "wdUpDiag"), (180.1, "narHorz"))
DASHES = {"solid": "solid", "dash": "dash", "dot": "sysDot"}


def colour(parent: Element, of: Colour) -> None:
    """A colour, with its opacity."""
    made = add(parent, "a:srgbClr", val=of.hex[1:7].upper())
    if of.alpha < 1:
        add(made, "a:alpha", val=round(100_000 * max(0.0, of.alpha)))


def fill(parent: Element, fill_model: FillModel | None, picture: str = "") -> None:
    """A fill; None is no fill. `picture` is the relation of a picture's part."""
    match fill_model:
        case None:
            add(parent, "a:noFill")
        case Colour() if fill_model.alpha <= 0:
            add(parent, "a:noFill")
        case Colour():
            colour(add(parent, "a:solidFill"), fill_model)
        case Gradient():
            element = add(parent, "a:gradFill", rotWithShape=True)
            stops = add(element, "a:gsLst")
            for position, stop_colour in fill_model.stops:
                colour(add(stops, "a:gs", pos=round(100_000 * position)), stop_colour)
            if fill_model.angle is None:
                way = add(element, "a:path", path="circle")
                add(way, "a:fillToRect", l=50_000, t=50_000, r=50_000, b=50_000)
            else:
                add(element, "a:lin", ang=round(60_000 * (fill_model.angle % 360)) % 21_600_000, scaled=False)
        case Pattern():
            kind = (
                next(name for most, name in SLOPES if fill_model.angle % 180 <= most)
                if fill_model.kind == "lines"
                else ""
            )
            element = add(parent, "a:pattFill", prst=kind or PATTERNS.get(fill_model.kind, "diagCross"))
            colour(add(element, "a:fgClr"), fill_model.colour)
            colour(add(element, "a:bgClr"), fill_model.ground)
        case PictureModel():
            element = add(parent, "a:blipFill")
            add(element, "a:blip", r_embed=picture)
            add(add(element, "a:stretch"), "a:fillRect")


def line(parent: Element, of: Stroke | None) -> None:
    """A line; None is none."""
    if of is None:
        add(add(parent, "a:ln"), "a:noFill")
        return
    made = add(parent, "a:ln", w=max(1, round(of.width * EMU)))
    fill(made, of.colour)
    if of.dash != "solid":
        add(made, "a:prstDash", val=DASHES[of.dash])
    add(made, "a:round")


def look(parent: Element, short: str, of: TextProperties, language: str | None = None) -> Element:
    """The properties of a run of text."""
    size = round(100 * max(1.0, min(4000.0, of.size)))
    made = add(parent, short, lang=language, sz=size, b=of.bold, i=of.italic)
    fill(made, of.colour)
    if of.family:
        for face in ("a:latin", "a:ea", "a:cs"):
            add(made, face, typeface=of.family)
    return made


def text_body(parent: Element, short: str, of: TextProperties, angle: float | None = None) -> None:
    """How all text of a part is set."""
    made = add(parent, short)
    turn = of.angle if angle is None else angle
    add(made, "a:bodyPr", rot=round(60_000 * max(-90.0, min(90.0, turn))) if turn else None)
    add(made, "a:lstStyle")
    paragraph = add(made, "a:p")
    look(add(paragraph, "a:pPr"), "a:defRPr", of)
    add(paragraph, "a:endParaRPr", lang="en-US")


def written(parent: Element, short: str, text: str, of: TextProperties, align: str = "start") -> None:
    """A text with its lines as paragraphs."""
    made = add(parent, short)
    add(made, "a:bodyPr", wrap="none", lIns=0, tIns=0, rIns=0, bIns=0, anchor="t")
    add(made, "a:lstStyle")
    for part in text.split("\n"):
        paragraph = add(made, "a:p")
        add(paragraph, "a:pPr", algn={"start": "l", "middle": "ctr", "end": "r"}[align])
        run = add(paragraph, "a:r")
        look(run, "a:rPr", of)
        add(run, "a:t", part)


def texts_over(texts: tuple[ChartText, ...]) -> bytes | None:
    """The texts over a chart (ISO/IEC 29500-1, 21.3)."""
    if not texts:
        return None
    space = root("c:userShapes", ("c", "a", "cdr", "r"))
    for number, words in enumerate(texts):
        anchor = add(space, "cdr:relSizeAnchor")
        box = words.box
        for short, x, y in (("cdr:from", box.x, box.y), ("cdr:to", box.right, box.bottom)):
            end = add(anchor, short)
            add(end, "cdr:x", f"{max(0.0, min(1.0, x)):.5f}")
            add(end, "cdr:y", f"{max(0.0, min(1.0, y)):.5f}")
        shape = add(anchor, "cdr:sp")
        about = add(shape, "cdr:nvSpPr")
        add(about, "cdr:cNvPr", id=number + 2, name=f"Text {number + 1}")
        add(about, "cdr:cNvSpPr", txBox=True)
        look = add(shape, "cdr:spPr")
        form = add(look, "a:prstGeom", prst="rect")
        add(form, "a:avLst")
        add(look, "a:noFill")
        written(shape, "cdr:txBody", words.text, words.look, words.align)
    return dumps(space)
