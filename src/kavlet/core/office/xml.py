"""Building XML of the standards' vocabularies with short names: ``tree.add(parent, "c:val", val="1")``."""

from typing import Any

from lxml import etree

from kavlet.core.values.xml_text import xml_text

SPACES = {
    "a": "http://schemas.openxmlformats.org/drawingml/2006/main",
    "c": "http://schemas.openxmlformats.org/drawingml/2006/chart",
    "cdr": "http://schemas.openxmlformats.org/drawingml/2006/chartDrawing",
    "r": "http://schemas.openxmlformats.org/officeDocument/2006/relationships",
    "p": "http://schemas.openxmlformats.org/presentationml/2006/main",
}
RELATION = "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
EMU = 12_700  # English metric units in a point (ISO/IEC 29500-1, 20.1.10.16)

Element = Any


def name(short: str, spaces: dict[str, str] | None = None) -> str:
    """The full name of a short one: ``c:val``; without a prefix it stays."""
    prefix, _, local = short.rpartition(":")
    return f"{{{(spaces or SPACES)[prefix]}}}{local}" if prefix else local


def root(short: str, prefixes: tuple[str, ...]) -> Element:
    """A root element that declares those prefixes."""
    return etree.Element(name(short), nsmap={one: SPACES[one] for one in prefixes})


def add(parent: Element, short: str, text: str | None = None, /, **attributes: object) -> Element:
    """A child element; attributes are written as text, ``r_id`` as ``r:id``, truths as 1 and 0."""
    made = etree.SubElement(parent, name(short))
    for key, value in attributes.items():
        if value is not None:
            made.set(name(key.replace("r_", "r:", 1)) if key.startswith("r_") else key, _text(value))
    if text is not None:
        made.text = xml_text(text)
    return made


def _text(value: object) -> str:
    if isinstance(value, bool):
        return "1" if value else "0"
    return f"{value:.15g}" if isinstance(value, float) else xml_text(str(value))


def dumps(element: Element) -> bytes:
    """The document as bytes."""
    return bytes(etree.tostring(element, xml_declaration=True, encoding="UTF-8", standalone=True))
