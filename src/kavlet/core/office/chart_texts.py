"""Texts over a DrawingML chart (ISO/IEC 29500-1, 21.3)."""

from kavlet.core.office import drawing
from kavlet.core.office.xml import add, dumps, root
from kavlet.core.office_model.chart_model import ChartText


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
        drawing.written(shape, "cdr:txBody", words.text, words.look, words.align)
    return dumps(space)
