"""Office packages (ISO/IEC 29500-2) as parts by name: read from bytes, changed, and written with fixed times."""

import io
import zipfile
from collections.abc import Callable

from lxml import etree

from kavlet.core.office.chart_part import BOOK_ID, SHAPES_ID, WrittenChart, chart_part
from kavlet.core.office.worksheets import Worksheets
from kavlet.core.office.xml import RELATION
from kavlet.core.office_model.chart_model import ChartModel, PictureModel
from kavlet.core.scene.primitives import Scene

TYPES = "[Content_Types].xml"
_TYPES_SPACE = "http://schemas.openxmlformats.org/package/2006/content-types"
_RELATIONS_SPACE = "http://schemas.openxmlformats.org/package/2006/relationships"
SHAPES_TYPE = "application/vnd.openxmlformats-officedocument.drawingml.chartshapes+xml"
MOMENT = (1980, 1, 1, 0, 0, 0)  # of every member, so that the same document gives the same bytes
Paint = Callable[[Scene, float], bytes]  # a scene as PNG, at so many pixels per point
Relations = list[tuple[str, str, str]]  # identity, the type's last word, target
STAND_IN = 1.5  # of pictures for who can't show a chart
SHARP = 3.0  # pixels per point of pictures that fill parts


def parts_of(content: bytes) -> dict[str, bytes]:
    """All parts of a package, by their names, in their order."""
    with zipfile.ZipFile(io.BytesIO(content)) as held:
        return {name: held.read(name) for name in held.namelist()}


def packed(parts: dict[str, bytes], stored: tuple[str, ...] = ()) -> bytes:
    """The package of some parts, those `stored` uncompressed."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as made:
        for name, content in parts.items():
            entry = zipfile.ZipInfo(name, MOMENT)
            entry.compress_type = zipfile.ZIP_STORED if name in stored else zipfile.ZIP_DEFLATED
            entry.external_attr = 0o600 << 16
            made.writestr(entry, content)
    return buffer.getvalue()


def declare(parts: dict[str, bytes], endings: dict[str, str], overrides: dict[str, str]) -> None:
    """Add types of parts by their ending, and by their names."""
    tree = etree.fromstring(parts[TYPES])
    extensions = {entry.get("Extension") for entry in tree if entry.get("Extension")}
    for ending, kind in endings.items():
        if ending not in extensions:
            element = etree.Element(f"{{{_TYPES_SPACE}}}Default", Extension=ending, ContentType=kind)
            tree.insert(0, element)
    for name, kind in overrides.items():
        etree.SubElement(tree, f"{{{_TYPES_SPACE}}}Override", PartName=f"/{name}", ContentType=kind)
    parts[TYPES] = etree.tostring(tree, xml_declaration=True, encoding="UTF-8", standalone=True)


def relations(of: Relations) -> bytes:
    """A relations part from identity, type's last word and target."""
    tree = etree.Element(f"{{{_RELATIONS_SPACE}}}Relationships", nsmap={None: _RELATIONS_SPACE})
    for id_, kind, target in of:
        etree.SubElement(tree, f"{{{_RELATIONS_SPACE}}}Relationship", Id=id_, Type=f"{RELATION}/{kind}", Target=target)
    return bytes(etree.tostring(tree, xml_declaration=True, encoding="UTF-8", standalone=True))


def picture_bytes(picture: PictureModel, paint: Paint) -> tuple[str, bytes]:
    """A picture's ending and bytes."""
    if isinstance(picture.what, Scene):
        return "png", paint(picture.what, SHARP)
    return ("jpeg" if picture.what[:2] == b"\xff\xd8" else "png"), picture.what


def chart_parts(
    part: WrittenChart, folder: str, name: str, paint: Paint
) -> tuple[dict[str, bytes], list[tuple[str, str, str]]]:
    """The parts that a chart brings along (pictures, texts drawn over it) in a folder such as ``xl``, and the chart's
    relations to them."""
    made: dict[str, bytes] = {}
    related: Relations = []
    if part.shapes is not None:
        made[f"{folder}/drawings/over-{name}.xml"] = part.shapes
        related.append((SHAPES_ID, "chartUserShapes", f"../drawings/over-{name}.xml"))
    for number, (id_, picture) in enumerate(part.pictures):
        ending, content = picture_bytes(picture, paint)
        made[f"{folder}/media/{name}-{number + 1}.{ending}"] = content
        related.append((id_, "image", f"../media/{name}-{number + 1}.{ending}"))
    return made, related


BOOK_TYPE = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
CHART_TYPE = "application/vnd.openxmlformats-officedocument.drawingml.chart+xml"


class ChartStore:
    """The charts of a package on their way into it, each with a workbook of its own."""

    def __init__(self, folder: str, language: str, paint: Paint) -> None:
        self.folder, self.language, self.paint = folder, language, paint
        self._parts: dict[str, bytes] = {}
        self._types: dict[str, str] = {}
        self.count = 0

    def add(self, chart: ChartModel, worksheets: Worksheets, book: bytes) -> bytes:
        """The XML of the next chart; what it needs beside is kept until `finish`."""
        self.count += 1
        name = f"chart{self.count}"
        part = chart_part(chart, worksheets, self.language, linked=True)
        more, related = chart_parts(part, self.folder, name, self.paint)
        self._parts |= more
        self._types |= {one: SHAPES_TYPE for one in more if one.endswith(".xml")}
        self._parts[f"{self.folder}/embeddings/{name}.xlsx"] = book
        related.append((BOOK_ID, "package", f"../embeddings/{name}.xlsx"))
        self._parts[f"{self.folder}/charts/_rels/{name}.xml.rels"] = relations(related)
        return part.xml

    def finish(self, content: bytes, more: dict[str, bytes] | None = None) -> bytes:
        """The package with all that the charts need, and more parts in the place of those of the same names."""
        parts = parts_of(content)
        parts |= self._parts | (more or {})
        declare(
            parts,
            {"png": "image/png", "jpeg": "image/jpeg", "svg": "image/svg+xml", "xlsx": BOOK_TYPE},
            self._types,
        )
        return packed(parts)
