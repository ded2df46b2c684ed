"""PDF files of pages, read back by general-purpose libraries (pikepdf, pdfminer.six) against ISO 32000-1."""

import io

import pikepdf
import pytest
from pdfminer.high_level import extract_pages
from pdfminer.layout import LTChar, LTTextContainer

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pages.page import named_size
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.desktop.main import application
from kavlet.export.pictures import pdf_of


def report() -> Document:
    """Three pages of different sizes, with words in two faces and a chart."""
    rows = [["Gate", "Guests"], ["North", 40.0], ["South", 25.0], ["East", 10.0]]
    document, table = edits.add_table(Document(), "Gates", rows)  # type: ignore[arg-type]
    document, chart = edits.add_chart(document, table, "funnel", {"name": ("c1",), "value": ("c2",)})
    for size, name in (("A4", "Überblick"), ("Letter lying", "Gates"), ("Slide 16:9", "Thanks")):
        document, page = page_edits.add_page(document, size, name=name, footer="{page} of {pages}")
        document, _ = page_edits.put(document, page, Words("", paragraphs=plain(f"About {name}"), width=300, height=50))
        if name == "Gates":
            document, _, _ = page_edits.send_to_page(document, chart, page)
            document, _ = page_edits.put(
                document, page, KeyFigure("", value="=SUM(Gates!B2:B4)", caption="guests in all")
            )
    return document


def pictures(document: Document) -> list[PagePicture]:
    kept = Pictures()
    return [kept.page(document, page.id) for page in document.pages]


@pytest.fixture(scope="module")
def content() -> bytes:
    application()
    return pdf_of([one.scene for one in pictures(report())], "Yearly report")


def test_pdf_pages_have_their_exact_sizes(content: bytes) -> None:
    with pikepdf.open(io.BytesIO(content)) as pdf:
        boxes = [[float(side) for side in page.mediabox] for page in pdf.pages]
    for box, name in zip(boxes, ("A4", "Letter lying", "Slide 16:9"), strict=True):
        size = named_size(name)
        assert (box[2] - box[0], box[3] - box[1]) == pytest.approx((size.width, size.height), abs=0.01)


def test_pdf_bookmarks_lead_to_the_pages_by_name(content: bytes) -> None:
    with pikepdf.open(io.BytesIO(content)) as pdf, pdf.open_outline() as outline:
        assert [item.title for item in outline.root] == ["Überblick", "Gates", "Thanks"]
        targets = [item.destination[0] if item.destination else item.action.D[0] for item in outline.root]
        pages = [page.obj.objgen for page in pdf.pages]
        assert [target.objgen for target in targets] == pages


def test_pdf_pages_are_labelled_from_one(content: bytes) -> None:
    """ISO 32000-1, 12.4.2: page labels are a number tree of styles."""
    with pikepdf.open(io.BytesIO(content)) as pdf:
        assert [page.label for page in pdf.pages] == ["1", "2", "3"]


def test_pdf_text_can_be_read_as_it_was_written(content: bytes) -> None:
    texts = [" ".join(box.get_text().split()) for page in extract_pages(io.BytesIO(content)) for box in page
             if isinstance(box, LTTextContainer)]  # fmt: skip
    whole = " ".join(texts)
    for sought in ("About Überblick", "1 of 3", "2 of 3", "guests in all", "75", "North", "South"):
        assert sought in whole, sought


def test_pdf_embeds_all_its_faces(content: bytes) -> None:
    """ISO 32000-1, 9.9: an embedded font has a file in its descriptor."""
    found: dict[str, bool] = {}
    with pikepdf.open(io.BytesIO(content)) as pdf:
        for page in pdf.pages:
            for font in page.resources.get("/Font", {}).values():
                for inner in font.get("/DescendantFonts", [font]):
                    descriptor = inner.get("/FontDescriptor", {})
                    found[str(inner.BaseFont)] = any(
                        key in descriptor for key in ("/FontFile", "/FontFile2", "/FontFile3")
                    )
    assert len(found) >= 2
    assert all(found.values()), found
    faces = {char.fontname for page in extract_pages(io.BytesIO(content)) for box in page
             if isinstance(box, LTTextContainer) for line in box for char in line
             if isinstance(char, LTChar)}  # type: ignore[attr-defined]  # fmt: skip
    assert any("Bold" in face or "Semi" in face for face in faces), faces
