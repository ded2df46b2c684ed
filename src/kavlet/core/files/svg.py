"""A scene as SVG 2: text as text with its face embedded as a subset, or as outlines.

The same scene gives the same bytes. All text from tables is escaped.
"""

import base64
from functools import lru_cache
from html import escape

import uharfbuzz as hb

from kavlet.core.scene.hatching import tile
from kavlet.core.scene.paints import Hatch, LinearGradient, Paint, RadialGradient, Stops
from kavlet.core.scene.path import Path
from kavlet.core.scene.pens import SvgPen, number
from kavlet.core.scene.primitives import Group, Image, MarkId, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.text.faces import FACES, face_of, font
from kavlet.core.text.shaping import outline
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.xml_text import xml_text

Used = dict[str, set[str]]  # the characters in use of each face
TABULAR = ' style="font-variant-numeric:tabular-nums"'
FONTS = "<!--faces-->"  # stands where faces are to be embedded


def dumps(scene: Scene, outlines: bool = False) -> str:
    """The SVG text of a scene. With `outlines`, texts become paths that need no font.

    All ids in it begin with the scene's name, so that charts beside each other in one page do not clash.
    """
    used: Used = {}
    made = inline(scene, used, outlines)
    return made.replace(f"{FONTS}\n", f"<style>{fonts(used)}</style>\n" if used and not outlines else "", 1)


def inline(scene: Scene, used: Used, outlines: bool = False) -> str:
    """The same without its faces, for a page that holds those of several: the characters in use of each are added to
    `used`, and `FONTS` stands in their place."""
    width, height = number(scene.size.width), number(scene.size.height)
    prefix = f"{_name(scene.name)}-" if scene.name else ""
    shared = _Shared(prefix, outlines, used)
    body = [_item(item, shared) for item in scene.items]
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}pt" height="{height}pt" '
        f'viewBox="0 0 {width} {height}" role="img" aria-labelledby="{prefix}title {prefix}desc">',
        f'<title id="{prefix}title">{_text(scene.title)}</title>',
        f'<desc id="{prefix}desc">{_text(scene.description)}</desc>',
        FONTS,
    ]
    if shared.parts:
        parts += ["<defs>", *shared.parts, "</defs>"]
    if scene.ground is not None:
        parts.append(f'<rect width="{width}" height="{height}"{_paint("fill", scene.ground)}/>')
    return "\n".join([*parts, *body, "</svg>\n"])


def _name(text: str) -> str:
    """A name as part of an id."""
    return "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "_" for c in text)


class _Shared:
    """What items refer to: gradients, hatches, clips, symbols and pictures, each written once, named in their order."""

    def __init__(self, prefix: str, outlines: bool, used: Used) -> None:
        self.parts: list[str] = []
        self.used = used
        self.outlines = outlines
        self._prefix = prefix
        self._names: dict[object, str] = {}

    def name(self, key: object, letter: str, text: str) -> str:
        """The id of a shared part; `text` is its markup with the id left as `{}`."""
        if key not in self._names:
            made = f"{self._prefix}{letter}{len(self._names) + 1}"
            self._names[key] = made
            self.parts.append(text.replace("{}", made, 1))
        return self._names[key]


def _item(item: Primitive, shared: _Shared) -> str:
    match item:
        case Shape():
            return _shape(item, shared)
        case Stamp():
            return _stamp(item, shared)
        case Image():
            return _image(item, shared)
        case Writing():
            if shared.outlines:
                return _outlined(item)
            shared.used.setdefault(face_of(item.face).stem, set()).update(item.text)
            return _writing(item)
        case Group():
            return _group(item, shared)


def _group(item: Group, shared: _Shared) -> str:
    inner = [f"<title>{_text(item.title)}</title>"] if item.title else []
    inner += [_item(one, shared) for one in item.items]
    place = "" if item.place == Affine() else f' transform="{_matrix(item.place)}"'
    made = "\n".join([f"<g{_mark(item.mark)}{place}>", *inner, "</g>"])
    return f"<g{_clip(item.clip, shared)}>{made}</g>" if item.clip is not None else made


def _shape(shape: Shape, shared: _Shared) -> str:
    attributes = _mark(shape.mark) + _fill(shape.fill, shared) + _stroke(shape)
    tag, geometry = _geometry(shape.path)
    if shape.place is not None:
        return _clipped(
            f'<{tag}{geometry} transform="{_matrix(shape.place)}"{attributes}', shape.title, tag, shape.clip, shared
        )
    attributes += _clip(shape.clip, shared)
    body = f"<title>{_text(shape.title)}</title>" if shape.title else ""
    return f"<{tag}{geometry}{attributes}>{body}</{tag}>" if body else f"<{tag}{geometry}{attributes}/>"


def _stroke(shape: Shape) -> str:
    """The edge; joins and caps are written where they differ from SVG's own, and where there are any."""
    if shape.edge is None:
        return ""
    made = _paint("stroke", shape.edge) + f' stroke-width="{number(shape.edge_width)}"'
    verbs = shape.path.verbs
    if shape.join == "round" and len(verbs) > 2:
        made += ' stroke-linejoin="round"'
    if shape.cap == "round" and (shape.dash or verbs.count("M") > verbs.count("Z")):
        made += ' stroke-linecap="round"'
    if shape.dash:
        made += f' stroke-dasharray="{" ".join(map(number, shape.dash))}"'
    return made


def _stamp(item: Stamp, shared: _Shared) -> str:
    data = _data(item.outline)
    name = shared.name(("stamp", item.outline), "s", f'<path id="{{}}" d="{data}"/>')
    use = f'<use href="#{name}" transform="{_matrix(item.place)}"{_mark(item.mark)}{_paint("fill", item.fill)}'
    return _clipped(use, item.title, "use", item.clip, shared)


def _image(item: Image, shared: _Shared) -> str:
    kind = "png" if item.content.startswith(b"\x89PNG") else "jpeg"
    data = base64.b64encode(item.content).decode()
    name = shared.name(
        ("image", item.content), "p",
        f'<image id="{{}}" width="1" height="1" preserveAspectRatio="none" href="data:image/{kind};base64,{data}"/>',
    )  # fmt: skip
    use = f'<use href="#{name}" transform="{_matrix(item.place)}"{_mark(item.mark)}'
    return _clipped(use, item.title, "use", item.clip, shared)


def _clipped(start: str, title: str, tag: str, clip: Path | None, shared: _Shared) -> str:
    """An element that is moved by a transform: its clip lies around it, in the chart's own points."""
    body = f"<title>{_text(title)}</title>" if title else ""
    made = f"{start}>{body}</{tag}>" if body else f"{start}/>"
    return f"<g{_clip(clip, shared)}>{made}</g>" if clip is not None else made


def _clip(clip: Path | None, shared: _Shared) -> str:
    if clip is None:
        return ""
    tag, geometry = _geometry(clip)
    name = shared.name(("clip", clip), "c", f'<clipPath id="{{}}"><{tag}{geometry}/></clipPath>')
    return f' clip-path="url(#{name})"'


def _matrix(place: Affine) -> str:
    parts = (place.a, place.b, place.c, place.d)
    return f"matrix({' '.join(_fine(part) for part in parts)} {number(place.e)} {number(place.f)})"


def _fine(value: float) -> str:
    """A factor: five decimals, since it is multiplied by up to some hundred points."""
    text = f"{value:.5f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


@lru_cache(maxsize=512)
def _data(path: Path) -> str:
    """Path data of a shared outline, in fractions of its box."""
    return path.data(4)


def _geometry(path: Path) -> tuple[str, str]:
    """A rect where the path is an upright rectangle drawn from its top left corner, else a path."""
    c = path.coordinates
    if path.verbs == "MLLLZ" and c[0] == c[6] and c[1] == c[3] and c[2] == c[4] and c[5] == c[7]:
        left, right = sorted((c[0], c[2]))
        top, bottom = sorted((c[1], c[5]))
        size = f' width="{number(right - left)}" height="{number(bottom - top)}"'
        return "rect", f' x="{number(left)}" y="{number(top)}"' + size
    return "path", f' d="{path.data()}"'


def _writing(item: Writing) -> str:
    face = face_of(item.face)
    style = (' font-weight="700"' if face.weight == 700 else "") + (' font-style="italic"' if face.italic else "")
    style += TABULAR if face.tabular else ""
    turn = f' transform="rotate({number(item.angle)} {number(item.x)} {number(item.y)})"' if item.angle else ""
    return (
        f'<text x="{number(item.x)}" y="{number(item.y)}" font-family="{face.css_family}" '
        f'font-size="{number(item.size)}"{style} textLength="{number(item.width)}" lengthAdjust="spacingAndGlyphs"'
        f' xml:space="preserve"{turn}{_mark(item.mark)}{_paint("fill", item.colour)}>{_text(item.text)}</text>'
    )


def _outlined(item: Writing) -> str:
    pen = SvgPen()
    outline(item.text, item.face, item.size, item.x, item.y, pen)
    turn = f' transform="rotate({number(item.angle)} {number(item.x)} {number(item.y)})"' if item.angle else ""
    return (
        f'<path d="{pen.text}" role="img" aria-label={_attribute(item.text)}{turn}{_mark(item.mark)}'
        f"{_paint('fill', item.colour)}/>"
    )


def _mark(mark: MarkId | None) -> str:
    return f' data-layer={_attribute(mark.layer)} data-row="{mark.row}"' if mark else ""


def _fill(paint: Paint | None, shared: _Shared) -> str:
    match paint:
        case None:
            return ' fill="none"'
        case Colour():
            return _paint("fill", paint)
        case LinearGradient():
            ends = f'x1="{number(paint.x1)}" y1="{number(paint.y1)}" x2="{number(paint.x2)}" y2="{number(paint.y2)}"'
            return f' fill="url(#{shared.name(paint, "g", _gradient("linear", ends, paint.stops))})"'
        case RadialGradient():
            place = f'cx="{number(paint.x)}" cy="{number(paint.y)}" r="{number(paint.radius)}"'
            return f' fill="url(#{shared.name(paint, "g", _gradient("radial", place, paint.stops))})"'
        case Hatch():
            return f' fill="url(#{shared.name(paint, "h", _hatch(paint))})"'


def _gradient(kind: str, place: str, stops: Stops) -> str:
    return f'<{kind}Gradient id="{{}}" gradientUnits="userSpaceOnUse" {place}>{_stops(stops)}</{kind}Gradient>'


@lru_cache(maxsize=256)
def _stops(stops: Stops) -> str:
    made = []
    for offset, colour in stops:
        alpha = f' stop-opacity="{number(colour.alpha)}"' if colour.alpha < 1 else ""
        made.append(f'<stop offset="{number(offset)}" stop-color="{colour.faded(1.0).hex}"{alpha}/>')
    return "".join(made)


def _hatch(paint: Hatch) -> str:
    """The hatch's tile as a pattern."""
    one = tile(paint)
    wide, tall = number(one.width), number(one.height)
    data = "".join(f"M0 {number(y)}H{wide}" for y in one.across) + "".join(f"M{number(x)} 0V{tall}" for x in one.down)
    data += "".join(f"M{number(x1)} {number(y1)}L{number(x2)} {number(y2)}" for x1, y1, x2, y2 in one.dashes)
    shape = "".join(
        f'<circle cx="{number(x)}" cy="{number(y)}" r="{number(paint.width / 2)}"{_paint("fill", paint.colour)}/>'
        for x, y in one.dots
    )
    if data:
        shape += f'<path d="{data}"{_paint("stroke", paint.colour)} stroke-width="{number(paint.width)}" fill="none"/>'
    ground = f'<rect width="{wide}" height="{tall}"{_paint("fill", paint.ground)}/>' if paint.ground is not None else ""
    return (
        f'<pattern id="{{}}" width="{wide}" height="{tall}" patternUnits="userSpaceOnUse" '
        f'patternTransform="rotate({number(paint.angle)})">{ground}{shape}</pattern>'
    )


@lru_cache(maxsize=4096)
def _paint(name: str, colour: Colour) -> str:
    solid = colour.faded(1.0).hex
    opacity = f' {name}-opacity="{number(colour.alpha)}"' if colour.alpha < 1 else ""
    return f' {name}="{solid}"{opacity}'


def fonts(used: Used) -> str:
    """One @font-face for each face in use, holding the characters in use."""
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
    return escape(xml_text(text), quote=False)


def _attribute(text: str) -> str:
    return f'"{escape(xml_text(text))}"'
