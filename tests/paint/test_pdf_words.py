"""Words copied from a PDF are those of the chart, read back by pypdf, which knows PDF and nothing of Kavlet."""

from io import BytesIO

import pytest
from pypdf import PdfReader

from kavlet.core.styling.style import Dress
from kavlet.core.styling.theme import themes
from kavlet.core.text.faces import FACES
from kavlet.core.text.shaping import shape
from kavlet.desktop.main import application
from kavlet.paint.pdf import pdf
from kavlet.paint.pdf_words import glyph_texts
from tests.making import document, draw, table

ROWS = table(
    ["stage", "people"], ["Office waffles", "Guided fjord flights", "Affinity – 5\u00a0%"], [18400, 6900, 2760]
)


@pytest.fixture(autouse=True)
def _faces(request: pytest.FixtureRequest) -> None:
    request.getfixturevalue("qapp")
    application()


def words(content: bytes) -> str:
    return " ".join(PdfReader(BytesIO(content)).pages[0].extract_text().split())


@pytest.mark.parametrize("theme", list(themes()))
def test_ligatures_and_spaces_are_letters_and_spaces(theme: str) -> None:
    picture = draw(
        document("funnel", ROWS),
        dress=Dress(theme=theme),
        title="First office of the fluffy affair",
        source="Fjord office",
    )
    said = words(pdf(picture.scene))
    for text in (
        "First office of the fluffy affair",
        "Office waffles",
        "Guided fjord flights",
        "Affinity – 5 %",
        "18,400",
    ):
        assert text in said
    assert said.endswith("Fjord office")  # words in the order they are read
    assert not any("\ufb00" <= letter <= "\ufb06" or letter in "\t\u00a0" for letter in said)


@pytest.mark.parametrize("look", [{}, {"solid.on": True, "solid.turn": 25.0}, {"title.size": 60.0}])
def test_words_of_all_kinds_of_charts_can_be_copied(look: dict[str, object]) -> None:
    for recipe in ("pie", "columns", "gauge", "waffle"):
        picture = draw(document(recipe, ROWS), look=look, title="Affinity of offices")
        said = words(pdf(picture.scene))
        for text in picture.figure.texts:
            if text.size < 40:  # larger letters are drawn as outlines
                assert all(" ".join(line.text.split()) in said for line in text.lines), (recipe, text.text)


def test_a_glyph_stands_for_what_was_shaped_to_it() -> None:
    for face in FACES:
        run = shape("office", face)
        assert "".join(run.texts) == "office"
        assert len(run.texts) == len(run.glyphs)


def test_glyphs_are_counted_as_they_are_painted() -> None:
    scene = draw(document("pie", table(["n", "v"], ["aba", "c"], [1, 2])), title="cab").scene
    bold = next(texts for face, texts in glyph_texts(scene).items() if face.endswith("Bold"))
    assert bold[:3] == ["c", "a", "b"]
