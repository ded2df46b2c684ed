"""What the painter puts onto pixels: fills, clips, planes, pictures, and characters no face has."""

import io
import threading

import pytest
from PIL import Image as Pillow
from PySide6.QtGui import QImage, QPainter

from kavlet.core.scene.paints import Hatch, LinearGradient, Paint, RadialGradient
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Image, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.shapes.box import box
from kavlet.core.text.faces import FACES
from kavlet.core.values.affine import Affine
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from kavlet.desktop.main import application
from kavlet.paint import picture
from kavlet.paint.painter import paint, raw_font

RED, BLUE, WHITE, BLACK = Colour(1, 0, 0), Colour(0, 0, 1), Colour(1, 1, 1), Colour(0, 0, 0)
FACE = next(iter(FACES))
Pixel = tuple[int, int, int]


@pytest.fixture(autouse=True)
def _faces(request: pytest.FixtureRequest) -> None:
    request.getfixturevalue("qapp")
    application()


def square(x: float, y: float, side: float) -> Path:
    return recorded(box, Rect(x, y, side, side))


def painted(*items: Primitive, ground: Colour | None = WHITE) -> QImage:
    image = QImage(100, 100, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(0)
    painter = QPainter(image)
    paint(Scene(Size(100, 100), ground, items, "", ""), painter)
    painter.end()
    return image


def pixel(image: QImage, x: int, y: int) -> Pixel:
    colour = image.pixelColor(x, y)
    return colour.red(), colour.green(), colour.blue()


def is_red(one: Pixel) -> bool:
    return one[0] > 128 > one[2]


def colours(image: QImage, area: tuple[int, int, int, int]) -> set[Pixel]:
    x, y, right, bottom = area
    return {pixel(image, i, j) for i in range(x, right) for j in range(y, bottom)}


@pytest.mark.parametrize("kind", ["lines", "cross", "dashes", "dots"])
def test_a_hatch_stays_within_its_outline_and_shows_its_ground(kind: str) -> None:
    hatch = Hatch(kind, RED, BLUE, 45.0, 8.0, 3.0)  # type: ignore[arg-type]
    image = painted(Shape(square(20, 20, 60), hatch))
    inside = colours(image, (22, 22, 78, 78))
    assert (255, 0, 0) in inside
    assert (0, 0, 255) in inside
    assert colours(image, (0, 0, 100, 19)) == {(255, 255, 255)}
    assert colours(image, (82, 20, 100, 80)) == {(255, 255, 255)}


def test_a_hatch_without_ground_shows_what_lies_behind() -> None:
    image = painted(
        Shape(square(0, 0, 100), BLUE), Shape(square(20, 20, 60), Hatch("lines", RED, None, 0.0, 10.0, 2.0))
    )
    column = [pixel(image, 50, y) for y in range(22, 78)]
    assert (255, 0, 0) in column
    assert (0, 0, 255) in column
    assert len({pixel(image, x, 25) for x in range(25, 75)}) == 1  # lines at 0 degrees are level


@pytest.mark.parametrize(
    ("fill", "dark", "light"),
    [
        (LinearGradient(20, 0, 80, 0, ((0.0, Colour(0, 0, 0)), (1.0, WHITE))), (22, 50), (77, 50)),
        (RadialGradient(50, 50, 30, ((0.0, Colour(0, 0, 0)), (1.0, WHITE))), (50, 50), (23, 50)),
    ],
)
def test_gradients_run_as_they_are_told(fill: Paint, dark: tuple[int, int], light: tuple[int, int]) -> None:
    image = painted(Shape(square(20, 20, 60), fill), ground=BLUE)
    assert max(pixel(image, *dark)) < 30
    assert min(pixel(image, *light)) > 215


def test_a_clip_cuts_and_is_lifted_again() -> None:
    image = painted(Shape(square(0, 0, 100), RED, clip=square(20, 20, 30)), Shape(square(70, 70, 20), BLUE))
    assert pixel(image, 30, 30) == (255, 0, 0)
    assert pixel(image, 60, 30) == (255, 255, 255)
    assert pixel(image, 80, 80) == (0, 0, 255)


def test_a_shape_on_a_plane_of_its_own_carries_its_fill_along() -> None:
    """The unit square with a level hatch, put onto a sheared plane: its lines run along the plane."""
    plane = Affine(50, 25, 0, 40, 20, 10)
    image = painted(Shape(square(0, 0, 1), Hatch("lines", RED, BLUE, 0.0, 0.25, 0.05), place=plane))
    at_left = [y for y in range(12, 48) if is_red(pixel(image, 24, y))]
    at_right = [y for y in range(30, 72) if is_red(pixel(image, 64, y))]
    assert at_left
    assert at_right
    assert at_right[0] - at_left[0] == pytest.approx(20, abs=2)  # 40 pixels on, a slope of one half


def test_pictures_and_stamps_lie_where_they_are_put() -> None:
    buffer = io.BytesIO()
    Pillow.new("RGB", (4, 4), (0, 0, 255)).save(buffer, "PNG")
    picture = Image("p", buffer.getvalue(), Affine(30, 0, 0, 30, 10, 10))
    stamp = Stamp("s", square(0, 0, 1), Affine(20, 0, 0, 20, 60, 60), RED)
    image = painted(picture, stamp)
    assert pixel(image, 25, 25) == (0, 0, 255)
    assert pixel(image, 45, 45) == (255, 255, 255)
    assert pixel(image, 70, 70) == (255, 0, 0)


def test_a_character_the_face_lacks_is_drawn_in_the_measured_width() -> None:
    image = painted(Writing("中文", 10, 60, 40, FACE, 24, RED))
    reds = [(x, y) for x in range(100) for y in range(100) if pixel(image, x, y) != (255, 255, 255)]
    assert all(8 <= x <= 53 for x, _ in reds)


def test_a_turned_text_runs_upward() -> None:
    image = painted(Writing("Reedbed", 50, 95, 80, FACE, 20, RED, angle=-90.0))
    reds = [(x, y) for x in range(100) for y in range(100) if pixel(image, x, y) != (255, 255, 255)]
    wide = max(x for x, _ in reds) - min(x for x, _ in reds)
    tall = max(y for _, y in reds) - min(y for _, y in reds)
    assert tall > 2 * wide


def test_while_it_moves_only_what_is_hardly_seen_is_painted_coarsely() -> None:
    faint, full = Shape(square(20.5, 20.5, 30), Colour(0, 0, 0, 0.08)), Shape(square(60.5, 60.5, 30), RED)
    images = []
    for fine in (True, False):
        image = QImage(100, 100, QImage.Format.Format_ARGB32_Premultiplied)
        painter = QPainter(image)
        paint(Scene(Size(100, 100), WHITE, (faint, full), "", ""), painter, fine)
        painter.end()
        images.append(image)
    assert pixel(images[0], 30, 30) == pixel(images[1], 30, 30)
    assert pixel(images[0], 75, 60) == pixel(images[1], 75, 60)  # half a pixel of red, in both
    assert pixel(images[0], 35, 20) != pixel(images[1], 35, 20)


@pytest.mark.parametrize("scale", [1.0, 2.0, 4.0, 8.0])
def test_texts_are_drawn_however_large_they_are(scale: float) -> None:
    """Qt draws no glyph runs of more than 64 pixels on images."""
    made = picture.image(Scene(Size(100, 60), WHITE, (Writing("Reed", 8, 45, 60, FACE, 30, RED),)), scale)
    reds = sum(is_red(pixel(made, x, y)) for x in range(made.width()) for y in range(made.height()))
    assert reds / scale**2 == pytest.approx(480, rel=0.06)


@pytest.mark.parametrize("scale", [1.0, 1.37, 2.0])
def test_on_a_screen_hairlines_fill_whole_pixels(scale: float) -> None:
    def line(pen: Pen) -> None:
        pen.move_to(5.0, 10.3)
        pen.line_to(45.0, 10.3)

    scene = Scene(Size(50, 20), WHITE, (Shape(recorded(line), None, BLACK, 0.75),), "", "")

    def column(crisp: bool) -> list[int]:
        image = QImage(80, 60, QImage.Format.Format_RGB32)
        image.fill(0xFFFFFFFF)
        painter = QPainter(image)
        painter.scale(scale, scale)
        paint(scene, painter, crisp=crisp)
        painter.end()
        return [image.pixelColor(int(20 * scale), y).red() for y in range(60)]

    assert set(column(True)) == {0, 255}
    assert sum(value < 255 for value in column(True)) == max(1, round(0.75 * scale))
    assert set(column(False)) - {0, 255}, "elsewhere a line keeps its very place"
    assert abs(column(True).index(0) + 0.5 - 10.3 * scale) <= 1.0


def test_each_thread_has_its_own_fonts() -> None:
    """Qt's raw fonts belong to the thread they were made in: a file written beside the window must not share them."""
    application()
    made: list[object] = []
    one = threading.Thread(target=lambda: made.append(raw_font("FiraSans-Regular", 11.0)))
    one.start()
    one.join()
    assert made[0] is not raw_font("FiraSans-Regular", 11.0)
    assert raw_font("FiraSans-Regular", 11.0) is raw_font("FiraSans-Regular", 11.0)


def test_a_program_that_runs_already_has_the_shipped_faces_too() -> None:
    from kavlet.paint.application import add_faces, for_painting

    add_faces.cache_clear()
    assert for_painting() is for_painting()
    assert add_faces.cache_info().currsize == 1
