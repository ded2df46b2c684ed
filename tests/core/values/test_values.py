"""Lengths, colours, rectangles."""

import pytest

from kavlet.core.values.colour import Colour, colour, contrast, mix, readable
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect, Size
from kavlet.core.values.lengths import points, size


def test_lengths() -> None:
    assert points("96px") == pytest.approx(72)
    assert points("25.4 mm") == pytest.approx(72)
    assert size("640x360") == Size(640, 360)
    assert size("640px x 360px") == Size(480, 270)
    assert size("2.54cm×1in") == Size(72, 72)


@pytest.mark.parametrize("text", ["", "640", "640x", "axb", "1x1", "1e9x5", "640x360x2", "-5x300"])
def test_sizes_that_are_none(text: str) -> None:
    with pytest.raises(KavletError):
        size(text)


def test_hex_colours() -> None:
    assert colour("#7a2e5d").hex == "#7a2e5d"
    assert colour("fff") == Colour(1, 1, 1)
    assert colour("#00000080").alpha == pytest.approx(128 / 255)
    with pytest.raises(KavletError):
        colour("plum")


def test_readable_takes_the_first_that_can_be_read() -> None:
    white, ink = Colour(1, 1, 1), colour("#26303a")
    assert readable(colour("#7a2e5d"), white, ink) == white
    assert readable(colour("#e0aa5a"), white, ink) == ink
    assert contrast(readable(colour("#e0aa5a"), white, ink), colour("#e0aa5a")) >= 4.5


def test_mixing_ends_at_the_ends() -> None:
    one, other = colour("#7a2e5d"), colour("#fffdf9")
    assert mix(one, other, 0).hex == one.hex
    assert mix(one, other, 1).hex == other.hex


def test_rectangles() -> None:
    box = Rect(10, 10, 100, 50)
    assert box.inset(5, 5, 5, 5) == Rect(15, 15, 90, 40)
    assert box.inset(60, 0, 60, 0).width == 0
    assert box.overlaps(Rect(100, 50, 50, 50))
    assert not box.overlaps(Rect(110, 10, 5, 5))
    assert box.holds(Rect(10, 10, 100, 50))
