"""A scene as SVG 2: text as text with its face embedded as a subset, or as outlines.

The same scene gives the same bytes. All text from tables is escaped.
"""

import base64
from functools import lru_cache
from html import escape

import uharfbuzz as hb

from kavlet.core.scene.path import Path
from kavlet.core.scene.pens import SvgPen, number
from kavlet.core.scene.primitives import MarkId, Scene, Shape, Writing
from kavlet.core.text.faces import FACES, font
from kavlet.core.text.shaping import outline
from kavlet.core.values.colour import Colour


def dumps(scene: Scene, outlines: bool = False) -> str:
    """The SVG text of a scene. With `outlines`, texts become paths that need no font."""
    width, height = number(scene.size.width), number(scene.size.height)
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}pt" height="{height}pt" '
        f'viewBox="0 0 {width} {height}" role="img" aria-labelledby="title desc">',
        f'<title id="title">{_text(scene.title)}</title>',
        f'<desc id="desc">{_text(scene.description)}</desc>',
    ]
    writings = [item for item in scene.items if isinstance(item, Writing)]
    if writings and not outlines:
        parts.append(f"<style>{_fonts(writings)}</style>")
    if scene.ground is not None:
        parts.append(f'<rect width="{width}" height="{height}"{_fill(scene.ground)}/>')
    for item in scene.items:
        if isinstance(item, Shape):
            parts.append(_shape(item))
        else:
            parts.append(_outlined(item) if outlines else _writing(item))
    parts.append("</svg>\n")
    return "\n".join(parts)


def _shape(shape: Shape) -> str:
    attributes = _mark(shape.mark) + _fill(shape.fill)
    if shape.edge is not None:
        attributes += _paint("stroke", shape.edge) + f' stroke-width="{number(shape.edge_width)}"'
    body = f"<title>{_text(shape.title)}</title>" if shape.title else ""
    tag, geometry = _geometry(shape.path)
    return f"<{tag}{geometry}{attributes}>{body}</{tag}>" if body else f"<{tag}{geometry}{attributes}/>"


def _geometry(path: Path) -> tuple[str, str]:
    """A rect where the path is an upright rectangle drawn from its top left corner, else a path."""
    c = path.coordinates
    if path.verbs == "MLLLZ" and c[0] == c[6] and c[1] == c[3] and c[2] == c[4] and c[5] == c[7]:
        left, right = sorted((c[0], c[2]))
        top, bottom = sorted((c[1], c[5]))
        size = f' width="{number(right - left)}" height="{number(bottom - top)}"'
        return "rect", f' x="{number(left)}" y="{number(top)}"' + size
    pen = SvgPen()
    path.draw(pen)
    return "path", f' d="{pen.text}"'


def _writing(item: Writing) -> str:
    face = FACES[item.face]
    style = (' font-weight="700"' if face.weight == 700 else "") + (' font-style="italic"' if face.italic else "")
    return (
        f'<text x="{number(item.x)}" y="{number(item.y)}" font-family="{face.css_family}" '
        f'font-size="{number(item.size)}"{style} textLength="{number(item.width)}" lengthAdjust="spacingAndGlyphs"'
        f' xml:space="preserve"{_mark(item.mark)}{_fill(item.colour)}>{_text(item.text)}</text>'
    )


def _outlined(item: Writing) -> str:
    pen = SvgPen()
    outline(item.text, item.face, item.size, item.x, item.y, pen)
    return f'<path d="{pen.text}" role="img" aria-label={_attribute(item.text)}{_mark(item.mark)}{_fill(item.colour)}/>'


def _mark(mark: MarkId | None) -> str:
    return f' data-layer={_attribute(mark.layer)} data-row="{mark.row}"' if mark else ""


def _fill(colour: Colour | None) -> str:
    return ' fill="none"' if colour is None else _paint("fill", colour)


def _paint(name: str, colour: Colour) -> str:
    solid = colour.faded(1.0).hex
    opacity = f' {name}-opacity="{number(colour.alpha)}"' if colour.alpha < 1 else ""
    return f' {name}="{solid}"{opacity}'


def _fonts(writings: list[Writing]) -> str:
    """One @font-face for each face in use, holding the characters in use."""
    used: dict[str, set[str]] = {}
    for item in writings:
        used.setdefault(item.face, set()).update(item.text)
    rules = []
    for key in sorted(used):
        face = FACES[key]
        data = base64.b64encode(subset(key, "".join(sorted(used[key])))).decode()
        rules.append(
            f'@font-face{{font-family:"{face.css_family}";font-weight:{face.weight};'
            f"font-style:{'italic' if face.italic else 'normal'};"
            f'src:url("data:font/ttf;base64,{data}") format("truetype")}}'
        )
    return "".join(rules)


@lru_cache(maxsize=256)
def subset(face: str, characters: str) -> bytes:
    """The face's font file with the glyphs of these characters only; layout features stay."""
    wanted = hb.SubsetInput()
    wanted.sets(hb.SubsetInputSets.UNICODE).update({ord(character) for character in characters})
    data: bytes = hb.subset(font(face).face, wanted).blob.data
    return data


def _text(text: str) -> str:
    return escape(_printable(text), quote=False)


def _attribute(text: str) -> str:
    return f'"{escape(_printable(text))}"'


def _printable(text: str) -> str:
    """The text without characters that XML 1.0 cannot hold (section 2.2, production Char)."""
    return "".join(
        c for c in text if c in "\t\n\r" or " " <= c <= "\ud7ff" or "\ue000" <= c <= "�" or c >= "\U00010000"
    )
