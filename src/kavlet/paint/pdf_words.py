"""What the glyphs of a PDF stand for, so that words copied from it, searched or read aloud are those that were written.

Qt 6.11 finds a glyph's character by looking it up in the font, backward: a space may come out as a tab, a ligature as a
sign of its own or not at all. The text that was shaped knows better (ISO 32000-1, 9.10.3, ToUnicode CMaps).
"""

import re
from collections.abc import Iterable, Iterator
from io import BytesIO

from pypdf import PdfWriter
from pypdf.generic import DictionaryObject, NameObject, NullObject, RectangleObject, StreamObject

from kavlet.core.scene.primitives import Group, Primitive, Scene, Writing
from kavlet.core.text.faces import face_of
from kavlet.core.text.shaping import shape

MAX_LINES = 100  # of one block of a CMap
_HEAD = """/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CIDSystemInfo << /Registry (Kavlet) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Kavlet-Words def
/CMapType 2 def
1 begincodespacerange
<0000> <FFFF>
endcodespacerange
"""
_FOOT = """endcmap
CMapName currentdict /CMap defineresource pop
end
end
"""
_RANGE = re.compile(r"^<[0-9A-F]{4}> <([0-9A-F]{4})> [\[<]", re.MULTILINE)


def with_words(content: bytes, scene: Scene) -> bytes:
    """The PDF that Qt painted of a scene, with the words of the scene for its glyphs."""
    found = glyph_texts(scene)
    writer = PdfWriter(clone_from=BytesIO(content))
    for font in _fonts(writer):
        texts = found.get(str(font.get("/BaseFont", "")).removeprefix("/"))
        map_object = font.get("/ToUnicode")
        if texts is None or map_object is None:
            continue
        # Qt numbers the glyphs of a font in the order they are first painted, from 1.
        if _last_code(map_object.get_object().get_data().decode("ascii", "replace")) != len(texts):
            continue
        stream = StreamObject()
        stream.set_data(_map(texts).encode("ascii"))
        font[NameObject("/ToUnicode")] = writer._add_object(stream.flate_encode())
    for page in writer.pages:  # Qt rounds a page to whole points
        top = float(page.mediabox.top)
        page.mediabox = RectangleObject((0.0, top - scene.size.height, scene.size.width, top))
    _without_moment(writer)
    out = BytesIO()
    writer.write(out)
    return out.getvalue()


def _without_moment(writer: PdfWriter) -> None:
    """Leave out when a file was made, and what identifies it by chance, so that the same scene gives the same bytes;
    all of it is optional (ISO 32000-1, 14.3.3 and 14.4)."""
    described = writer.root_object.pop("/Metadata", None)
    if described is not None:
        writer._replace_object(described.indirect_reference, NullObject())
    held: dict[str, object] = dict(writer.metadata or {})
    writer.metadata = {key: held[key] for key in ("/Title", "/Creator", "/Producer") if key in held}
    writer._ID = None


def glyph_texts(scene: Scene) -> dict[str, list[str]]:
    """By face: what each glyph stands for, in the order the glyphs are first painted."""
    seen: dict[str, dict[int, str]] = {}
    for writing in _writings(scene.items):
        run = shape(writing.text, writing.face)
        if not run.complete:
            continue  # the system's fonts stand in
        of_face = seen.setdefault(face_of(writing.face).stem, {})
        for glyph, text in zip(run.glyphs, run.texts, strict=True):
            of_face.setdefault(glyph, " " if text.isspace() else text)
    return {face: list(texts.values()) for face, texts in seen.items()}


def _writings(items: Iterable[Primitive]) -> Iterator[Writing]:
    for item in items:
        if isinstance(item, Writing):
            yield item
        elif isinstance(item, Group):
            yield from _writings(item.items)


def _fonts(writer: PdfWriter) -> Iterator[DictionaryObject]:
    for page in writer.pages:
        resources = page.get("/Resources", DictionaryObject()).get_object()
        for font in resources.get("/Font", DictionaryObject()).get_object().values():
            yield font.get_object()


def _last_code(cmap: str) -> int:
    return max((int(end, 16) for end in _RANGE.findall(cmap)), default=0)


def _map(texts: list[str]) -> str:
    lines = [f"<{i:04X}> <{text.encode('utf-16-be').hex().upper()}>" for i, text in enumerate(texts, 1) if text]
    blocks = [lines[at : at + MAX_LINES] for at in range(0, len(lines), MAX_LINES)]
    body = "".join("{} beginbfchar\n{}\nendbfchar\n".format(len(block), "\n".join(block)) for block in blocks)
    return _HEAD + body + _FOOT
