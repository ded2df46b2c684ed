"""Colour texts, told from others."""

import pytest

from kavlet.core.styling.colours import is_colour


@pytest.mark.parametrize(
    ("text", "is_one"),
    [("#7a2e5d", True), ("ink", True), ("tone3 +60", True), ("white /40", True), ("tone", False), ("blush", False),
     ("#12", False), ("ink2", False), ("", False)],
)  # fmt: skip
def test_a_colour_is_told_from_other_texts(text: str, is_one: bool) -> None:
    assert is_colour(text) is is_one
