"""Palettes from outside: .gpl files, hex codes, names."""

from pathlib import Path

import pytest

from kavlet.core.files.palette import MAX_BYTES, asked, from_gpl, load
from kavlet.core.styling.palettes import MAX_COLOURS, palettes
from kavlet.core.values.errors import KavletError

GPL = "GIMP Palette\nName: Pond Life\nColumns: 2\n#\n 16  32  48\treed\n255   0 128\n16 32 48 again\n300 1 1 no\n"


def test_a_gpl_text_is_a_palette() -> None:
    made = from_gpl(GPL)
    assert (made.name, made.title) == ("pond life", "Pond Life")
    assert made.colours == ("#102030", "#ff0080")
    assert from_gpl("GIMP Palette\n1 2 3").colours == ("#010203",)
    assert from_gpl("  GIMP Palette V2\nName:\n1 2 3").title == "Palette"
    many = "GIMP Palette\n" + "\n".join(f"{i} 0 0" for i in range(MAX_COLOURS + 5))
    assert len(from_gpl(many).colours) == MAX_COLOURS


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "is not a .gpl palette"),
        ("Palette\n1 2 3", "is not a .gpl palette"),
        ("GIMP Palette\n#\n300 0 0\n1 2\n", "holds no colours"),
    ],
)
def test_what_is_none_is_said(text: str, said: str) -> None:
    with pytest.raises(KavletError, match=said):
        from_gpl(text)


def test_what_is_asked_for_may_be_a_name_a_file_or_codes(tmp_path: Path) -> None:
    name = next(iter(palettes()))
    assert asked(name) == name
    path = tmp_path / "pond.GPL"
    path.write_text(GPL)
    assert asked(str(path)) == ("#102030", "#ff0080")
    assert asked("#102030, #ff0080") == ("#102030", "#ff0080")
    with pytest.raises(KavletError, match="There is no palette “blush”. There are .*" + name):
        asked("blush")


def test_files_that_can_t_be_read_are_said(tmp_path: Path) -> None:
    with pytest.raises(KavletError, match=r"none\.gpl is not there"):
        load(tmp_path / "none.gpl")
    with pytest.raises(KavletError, match="can’t be read"):
        load(tmp_path)
    wrong = tmp_path / "wrong.gpl"
    wrong.write_bytes(b"GIMP Palette\n\xff\xfe")
    with pytest.raises(KavletError, match=r"wrong\.gpl can’t be read"):
        load(wrong)
    large = tmp_path / "large.gpl"
    large.write_text("GIMP Palette\n" + "#" * MAX_BYTES)
    with pytest.raises(KavletError, match="too large"):
        load(large)
