"""A vector picture beside the raster one of slides and documents, for programs that can show it.

The element that names it is taken from a slide that holds one, so that it stands exactly as others write it.
"""

import copy
import zipfile
from functools import cache
from importlib.resources import as_file, files

from lxml import etree

from kavlet.core.office.xml import RELATION, Element, add


@cache
def _pattern() -> Element:
    with (
        as_file(files("kavlet") / "assets" / "office" / "vector_picture.pptx") as path,
        zipfile.ZipFile(path) as held,
    ):
        slide = etree.fromstring(held.read("ppt/slides/slide1.xml"))
    return next(slide.iter("{*}extLst"))[-1]


def add_vector(blip: Element, relation: str) -> None:
    """Name the SVG picture behind a relation in an ``a:blip`` element."""
    extension = copy.deepcopy(_pattern())
    extension[0].set(f"{{{RELATION}}}embed", relation)
    add(blip, "a:extLst").append(extension)
