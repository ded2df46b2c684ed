"""Shaping, wrapping, and outlines."""

import pytest
from fontTools.ttLib import TTFont
from hypothesis import given
from hypothesis import strategies as st
from uniseg.linebreak import line_break_units

from kavlet.core.scene.path import recorded
from kavlet.core.text.faces import FACES, FONT_FOLDER, face, font_bytes, metrics, tabular
from kavlet.core.text.shaping import outline, shape, width
from kavlet.core.text.wrapping import pieces, shortened, wrapped

TEXT = "FiraSans-Regular"


@pytest.mark.parametrize("key", FACES)
def test_each_face_ships_with_its_licence(key: str) -> None:
    assert font_bytes(key)[:4] == b"\0\1\0\0"
    assert any("OFL" in entry.name for entry in FONT_FOLDER.iterdir())
    assert 0.5 < metrics(key).cap_height < 0.8


def test_families() -> None:
    assert face("text", bold=True, italic=True) == "FiraSans-BoldItalic"
    assert face("easy", italic=True) == "AtkinsonHyperlegible-Regular"


def test_width_is_the_sum_of_advances_where_nothing_kerns() -> None:
    font = TTFont(FONT_FOLDER / f"{TEXT}.ttf")
    advances = font["hmtx"].metrics
    glyph = font.getBestCmap()[ord("H")]
    assert width("HHH", TEXT, 10) == pytest.approx(3 * advances[glyph][0] / font["head"].unitsPerEm * 10)


def test_kerning_is_applied() -> None:
    assert width("AV", TEXT, 10) < width("A", TEXT, 10) + width("V", TEXT, 10)


def test_a_missing_character_is_noted() -> None:
    assert shape("Visits", TEXT).complete
    assert not shape("訪問", TEXT).complete


def test_outlines_lie_where_the_text_stands() -> None:
    path = recorded(lambda pen: outline("H", TEXT, 100, 30, 200, pen))
    assert 30 < path.bounds.x < 45
    assert path.bounds.bottom == pytest.approx(200, abs=0.5)
    assert path.bounds.height == pytest.approx(100 * metrics(TEXT).cap_height, abs=1)


@given(st.lists(st.text("abÉ19…", min_size=1, max_size=5), min_size=1, max_size=4).map(" ".join))
def test_plain_words_break_where_unicode_lets_them(text: str) -> None:
    """Against uniseg's reading of Unicode Standard Annex 14, which is asked for all but plain words."""
    assert pieces(text) == tuple(line_break_units(text))


def test_wrapping_keeps_lines_within_the_width() -> None:
    lines = wrapped("Newsletter subscribers who opened at least one letter", TEXT, 12, 120, 3)
    assert 2 <= len(lines) <= 3
    assert all(width(line, TEXT, 12) <= 120 for line in lines)
    assert wrapped("", TEXT, 12, 120, 2) == ()
    assert wrapped("one\ntwo", TEXT, 12, 500, 3) == ("one", "two")
    assert wrapped("about 3 %", TEXT, 12, 20, 3)[1:] == ("3 %",)


def test_shortening_ends_in_an_ellipsis() -> None:
    line = shortened("Newsletter subscribers", TEXT, 12, 60)
    assert line.endswith("…")
    assert width(line, TEXT, 12) <= 60
    assert shortened("W", TEXT, 12, 1) in ("W…", "W")


def test_figures_that_stand_below_each_other_have_one_width() -> None:
    for key in FACES:
        plain, even = (
            {width(digit, key, 10) for digit in "0123456789"},
            {round(width(digit, tabular(key), 10), 6) for digit in "0123456789"},
        )
        assert len(even) == 1
        assert min(plain) <= next(iter(even)) + 1e-6
        assert tabular(tabular(key)) == tabular(key)
        assert width("wide", tabular(key), 10) == width("wide", key, 10)


@pytest.mark.parametrize("key", FACES)
def test_thin_spaces_are_thin_in_every_face(key: str) -> None:
    wide, thin = shape("12 kg".replace(" ", "\u00a0"), key), shape("12\u202fkg", key)
    assert thin.complete
    assert 0.0 < wide.width - thin.width < 0.2
    assert len(thin.glyphs) == 5
    assert thin.texts == ("1", "2", "\u202f", "k", "g")
