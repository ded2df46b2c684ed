"""Schemes of colours: each stands out from the ground and is told apart by every reader; leading colours of pixels."""

import itertools

import pytest

from kavlet.core.styling.schemes import APART, COUNT, STANDS_OUT, leading, schemes, told_apart
from kavlet.core.values.colour import Colour, colour, contrast, oklab
from kavlet.core.values.vision import as_seen, difference

GROUNDS = ("#fffdf8", "#1d2126")
SEEDS = ([], ["#7a2e5d"], ["#0a6c74", "#c47d1d"], ["#ffee00"], ["#101010"])


@pytest.mark.parametrize("ground", GROUNDS)
@pytest.mark.parametrize("codes", SEEDS)
@pytest.mark.parametrize("turn", [0, 1, 5])
def test_schemes_stand_out_and_are_told_apart_by_every_reader(codes: list[str], ground: str, turn: int) -> None:
    found = schemes([colour(code) for code in codes], colour(ground), turn=turn)
    assert len(found) == 6
    assert len({one.colours for one in found}) == 6
    for one in found:
        held = [colour(code) for code in one.colours]
        assert len(held) == COUNT
        assert all(contrast(part, colour(ground)) >= STANDS_OUT - 0.02 for part in held)
        for a, b in itertools.combinations(held, 2):
            assert difference(a, b) >= APART - 0.5
            for vision in ("protan", "deutan", "tritan"):
                assert difference(as_seen(a, vision), as_seen(b, vision)) >= APART - 0.5  # type: ignore[arg-type]


def test_a_house_colour_leads_and_one_that_does_not_stand_out_only_gives_its_hue() -> None:
    assert all(one.colours[0] == "#7a2e5d" for one in schemes([colour("#7a2e5d")], colour("#ffffff")))
    assert not any("#ffee00" in one.colours for one in schemes([colour("#ffee00")], colour("#ffffff")))


def test_another_turn_gives_another_set_and_the_same_turn_the_same() -> None:
    first, again, other = (schemes([], colour("#ffffff"), turn=turn) for turn in (0, 0, 1))
    assert first == again
    assert len({one.colours for one in first} & {one.colours for one in other}) < 6


def test_colours_that_are_alike_are_not_told_apart() -> None:
    assert told_apart([colour("#7a2e5d"), colour("#7b2f5e")]) < 1
    assert told_apart([colour("#ff0000"), colour("#00a000")]) < difference(colour("#ff0000"), colour("#00a000"))
    assert told_apart([]) == float("inf")


def test_the_leading_colours_of_pixels_are_the_means_of_groups() -> None:
    pixels = [Colour(0.8, 0.1, 0.1)] * 60 + [Colour(0.82, 0.12, 0.1)] * 20 + [Colour(0.1, 0.2, 0.7)] * 15
    pixels += [Colour(0.5, 0.5, 0.5)] * 200
    red, blue, grey = leading(pixels, 3)
    assert (red.red > 0.7, blue.blue > 0.6) == (True, True)
    assert max(map(abs, oklab(grey)[1:])) < 0.01  # greys come last, however many there are
    assert leading([], 3) == []
    assert len(leading([Colour(0.1, 0.1, 0.1)] * 9, 5)) == 1
