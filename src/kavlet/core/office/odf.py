"""Packages of ISO/IEC 26300 (ODF 1.3): names, measures, and how their parts are held together."""

import hashlib
from typing import Any

from lxml import etree

from kavlet.core.office.package import Paint, packed, picture_bytes
from kavlet.core.office_model.chart_model import PictureModel
from kavlet.core.values.xml_text import xml_text

SPACES = {
    "office": "urn:oasis:names:tc:opendocument:xmlns:office:1.0",
    "style": "urn:oasis:names:tc:opendocument:xmlns:style:1.0",
    "text": "urn:oasis:names:tc:opendocument:xmlns:text:1.0",
    "table": "urn:oasis:names:tc:opendocument:xmlns:table:1.0",
    "draw": "urn:oasis:names:tc:opendocument:xmlns:drawing:1.0",
    "presentation": "urn:oasis:names:tc:opendocument:xmlns:presentation:1.0",
    "fo": "urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0",
    "svg": "urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0",
    "chart": "urn:oasis:names:tc:opendocument:xmlns:chart:1.0",
    "dr3d": "urn:oasis:names:tc:opendocument:xmlns:dr3d:1.0",
    "number": "urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0",
    "meta": "urn:oasis:names:tc:opendocument:xmlns:meta:1.0",
    "manifest": "urn:oasis:names:tc:opendocument:xmlns:manifest:1.0",
    "xlink": "http://www.w3.org/1999/xlink",
    "dc": "http://purl.org/dc/elements/1.1/",
}
VERSION = "1.3"
CHART_TYPE = "application/vnd.oasis.opendocument.chart"
Element = Any


def name(short: str) -> str:
    """The full name of a short one: ``text:p``."""
    prefix, _, local = short.partition(":")
    return f"{{{SPACES[prefix]}}}{local}"


def root(short: str) -> Element:
    """A root element of a part, of the standard's version."""
    made = etree.Element(name(short), nsmap={key: value for key, value in SPACES.items() if key != "manifest"})
    made.set(name("office:version"), VERSION)
    return made


def add(parent: Element, short: str, text: str | None = None, /, **attributes: object) -> Element:
    """A child element; attributes as ``svg_width``, a second underline standing for a hyphen: ``fo_font__size``."""
    made = etree.SubElement(parent, name(short))
    put(made, **attributes)
    if text is not None:
        made.text = xml_text(text)
    return made


def put(element: Element, **attributes: object) -> None:
    """Set attributes, those that are None left out."""
    for key, value in attributes.items():
        if value is not None:
            prefix, _, local = key.partition("_")
            element.set(name(f"{prefix}:{local.replace('__', '-')}"), _text(value))


def _text(value: object) -> str:
    if isinstance(value, bool):
        return "true" if value else "false"
    return f"{value:.12g}" if isinstance(value, float) else xml_text(str(value))


def points(length: float) -> str:
    """A length as the standard writes it."""
    return f"{round(length, 3):g}pt"


def paragraphs(parent: Element, text: str, style: str | None = None) -> None:
    """A text, a paragraph for each of its lines."""
    for line in text.split("\n"):
        add(parent, "text:p", line, text_style__name=style)


def dumps(element: Element) -> bytes:
    """The part's bytes."""
    return bytes(etree.tostring(element, xml_declaration=True, encoding="UTF-8"))


class Package:
    """Parts by name with their media types; `save` adds the manifest."""

    def __init__(self, media_type: str) -> None:
        self.media_type = media_type
        self.parts: dict[str, bytes] = {}
        self.types: dict[str, str] = {}
        self.objects = 0

    def put(self, part: str, content: bytes, media_type: str = "text/xml") -> None:
        """A part."""
        self.parts[part] = content
        self.types[part] = media_type

    def object(self, parts: dict[str, tuple[bytes, str]], replacement: bytes) -> str:
        """An object of parts of its own, and a picture for who can't show it; gives its name."""
        self.objects += 1
        held = f"Object {self.objects}"
        self.types[f"{held}/"] = CHART_TYPE
        for part, (content, media_type) in parts.items():
            self.put(f"{held}/{part}", content, media_type)
        self.put(f"ObjectReplacements/{held}", replacement, "image/png")
        return held

    def picture(self, content: bytes, ending: str) -> str:
        """A picture, kept once; gives its name."""
        part = f"Pictures/{hashlib.sha256(content).hexdigest()[:24]}.{ending}"
        self.put(part, content, {"svg": "image/svg+xml", "png": "image/png", "jpeg": "image/jpeg"}[ending])
        return part

    def save(self) -> bytes:
        """The package's bytes: the media type first and uncompressed (ODF 1.3, part 2, 3.3), fixed times."""
        manifest = etree.Element(name("manifest:manifest"), nsmap={"manifest": SPACES["manifest"]})
        manifest.set(name("manifest:version"), VERSION)
        for part, kind in (("/", self.media_type), *self.types.items()):
            entry = etree.SubElement(manifest, name("manifest:file-entry"))
            put(entry, manifest_full__path=part, manifest_media__type=kind)
            if part == "/" or part.endswith("/"):
                put(entry, manifest_version=VERSION)
        made = {"mimetype": self.media_type.encode(), **self.parts, "META-INF/manifest.xml": dumps(manifest)}
        return packed(made, stored=("mimetype",))


def meta(title: str, language: str) -> bytes:
    """The part that says what a document is."""
    made = root("office:document-meta")
    held = add(made, "office:meta")
    add(held, "meta:generator", "Kavlet")
    if title:
        add(held, "dc:title", title)
    add(held, "dc:language", language)
    return dumps(made)


def filled_pictures(pictures: list[PictureModel], paint: Paint) -> dict[str, tuple[bytes, str]]:
    """The parts of pictures that fill things, in the order of their numbers."""
    found: dict[str, tuple[bytes, str]] = {}
    for number, picture in enumerate(pictures, 1):
        ending, content = picture_bytes(picture, paint)
        found[f"Pictures/fill{number}.{ending}"] = content, f"image/{ending}"
    return found
