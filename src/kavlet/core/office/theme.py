"""The theme part of slides and documents (ISO/IEC 29500-1, 14.2.7): the page's faces and colours."""

from collections.abc import Sequence

from lxml import etree

from kavlet.core.office.xml import SPACES
from kavlet.core.values.colour import Colour

ACCENTS = 6
A = f"{{{SPACES['a']}}}"


def themed(content: bytes, family: str, accents: Sequence[Colour]) -> bytes:
    """A theme with the family as its faces, and the colours as its accents."""
    tree = etree.fromstring(content)
    for latin in tree.iter(f"{A}latin"):
        parent = latin.getparent()
        if family and parent is not None and parent.tag in (f"{A}majorFont", f"{A}minorFont"):
            latin.set("typeface", family)
    for number in range(min(ACCENTS, len(accents))):
        for slot in tree.iter(f"{A}accent{number + 1}"):
            for child in list(slot):
                slot.remove(child)
            etree.SubElement(slot, f"{A}srgbClr", val=accents[number].hex[1:7].upper())
    return bytes(etree.tostring(tree, xml_declaration=True, encoding="UTF-8", standalone=True))
