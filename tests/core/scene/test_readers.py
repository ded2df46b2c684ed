"""Scenes as some of their readers see them."""

import io

import pytest
from PIL import Image as Picture

from kavlet.core.scene.paints import Hatch, LinearGradient
from kavlet.core.scene.path import Path
from kavlet.core.scene.primitives import Group, Image, Scene, Shape, Stamp, Writing
from kavlet.core.scene.readers import FAR, READERS, TITLES, VIEWS, as_read_by
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour, luminance
from kavlet.core.values.geometry import Size
from kavlet.core.values.vision import as_seen

RED, GREEN, WHITE = Colour(0.8, 0.1, 0.1), Colour(0.1, 0.6, 0.2), Colour(1.0, 1.0, 1.0)
BOX = Path("MLLZ", (0.0, 0.0, 10.0, 0.0, 10.0, 10.0))


def _png(colour: tuple[int, int, int]) -> bytes:
    held = io.BytesIO()
    Picture.new("RGB", (4, 4), colour).save(held, "PNG")
    return held.getvalue()


SCENE = Scene(
    Size(100.0, 50.0), WHITE,
    (
        Shape(BOX, RED, GREEN, 1.0),
        Shape(BOX, LinearGradient(0, 0, 1, 0, ((0.0, RED), (1.0, GREEN)))),
        Shape(BOX, Hatch("lines", RED, GREEN, 45.0, 6.0, 1.0)),
        Stamp("bird", BOX, Affine(), RED),
        Group((Writing("x", 1.0, 9.0, 5.0, "FiraSans-Regular", 9.0, GREEN),), Affine()),
        Image("p", _png((204, 26, 26)), Affine(10, 0, 0, 10, 0, 0)),
    ),
    "Title", "Said",
)  # fmt: skip


def test_everyone_sees_the_scene_itself() -> None:
    assert as_read_by(SCENE, "everyone") is SCENE


@pytest.mark.parametrize("reader", ["protan", "deutan", "tritan"])
def test_all_colours_are_those_of_the_reader(reader: str) -> None:
    made = as_read_by(SCENE, reader)  # type: ignore[arg-type]
    shape, run, hatch, stamp, group, image = made.items
    red, green = as_seen(RED, reader), as_seen(GREEN, reader)  # type: ignore[arg-type]
    assert (shape.fill, shape.edge) == (red, green)  # type: ignore[union-attr]
    assert run.fill.stops == ((0.0, red), (1.0, green))  # type: ignore[union-attr]
    assert (hatch.fill.colour, hatch.fill.ground) == (red, green)  # type: ignore[union-attr]
    assert stamp.fill == red  # type: ignore[union-attr]
    assert group.items[0].colour == green  # type: ignore[union-attr]
    with Picture.open(io.BytesIO(image.content)) as opened:  # type: ignore[union-attr]
        pixel = opened.convert("RGB").getpixel((1, 1))
    assert pixel == pytest.approx([round(255 * part) for part in red.rgb], abs=4)
    assert (made.size, made.title, made.description) == (SCENE.size, SCENE.title, SCENE.description)


def test_grey_print_holds_nothing_but_greys_of_the_same_luminance() -> None:
    fill = as_read_by(SCENE, "grey print").items[0].fill  # type: ignore[union-attr]
    assert fill.red == fill.green == fill.blue  # type: ignore[union-attr]
    assert luminance(fill) == pytest.approx(luminance(RED), abs=1e-6)  # type: ignore[arg-type]


def test_from_the_last_row_it_is_a_tenth_as_large_and_in_the_middle() -> None:
    (far,) = as_read_by(SCENE, "last row").items
    assert isinstance(far, Group)
    corners = far.place.apply(0.0, 0.0), far.place.apply(100.0, 50.0)
    assert corners[1][0] - corners[0][0] == pytest.approx(FAR * 100)
    assert (corners[0][0] + corners[1][0]) / 2 == pytest.approx(50.0)
    assert far.items[1:] == SCENE.items


def test_every_reader_has_a_name() -> None:
    assert set(TITLES) == set(VIEWS) == set(READERS)


def test_the_same_scene_is_seen_once() -> None:
    assert as_read_by(SCENE, "deutan") is as_read_by(SCENE, "deutan")
