"""Each primitive looks the same through every writer: QPainter, SVG (drawn by resvg) and PDF (drawn by PDFium).

Both are general-purpose renderers that know nothing of Kavlet; SVG 2 and ISO 32000 say what they draw.
"""

import io
from importlib.resources import files
from pathlib import Path as File

import numpy as np
import pypdfium2
import pytest
import resvg_py
from numpy.typing import NDArray
from PIL import Image as Pillow
from PySide6.QtCore import QBuffer, QByteArray, QIODevice

from kavlet.core.files import svg
from kavlet.core.scene.paints import Hatch, LinearGradient, RadialGradient
from kavlet.core.scene.path import Path, recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Group, Image, Primitive, Scene, Shape, Stamp, Writing
from kavlet.core.shapes.arc import disc
from kavlet.core.shapes.box import box
from kavlet.core.text.faces import FACES
from kavlet.core.text.shaping import width
from kavlet.core.values.affine import Affine, turned
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size
from kavlet.desktop.main import application
from kavlet.paint.pdf import pdf
from kavlet.paint.picture import image

SCALE = 4
SIDE = 80  # points
FAR = 90  # of 255, by which a pixel counts as another one
MOST = 0.0006  # of all pixels that may be others: what renderers make of the rims of edges
RED, BLUE, INK, WHITE = Colour(0.9, 0.1, 0.1), Colour(0.1, 0.2, 0.9), Colour(0.1, 0.1, 0.1), Colour(1, 1, 1)
FACE = next(iter(FACES))
Pixels = NDArray[np.int16]


@pytest.fixture(autouse=True)
def _faces(request: pytest.FixtureRequest) -> None:
    request.getfixturevalue("qapp")
    application()


def scene(*items: Primitive) -> Scene:
    return Scene(Size(SIDE, SIDE), WHITE, items, "A scene", "", "s1")


def pixels(content: bytes) -> Pixels:
    return np.asarray(Pillow.open(io.BytesIO(content)).convert("RGB"), dtype=np.int16)


def by_qt(of: Scene) -> Pixels:
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    image(of, SCALE).save(buffer, "PNG")  # type: ignore[call-overload]
    return pixels(bytes(content.data()))


def by_svg(of: Scene, outlines: bool = False) -> Pixels:
    fonts = str(File(str(files("kavlet"))) / "assets" / "fonts")
    side = SIDE * SCALE
    drawn = resvg_py.svg_to_bytes(
        svg_string=svg.dumps(of, outlines), width=side, height=side, dpi=96, font_dirs=[fonts], skip_system_fonts=True
    )
    return pixels(bytes(drawn))


def by_pdf(of: Scene) -> Pixels:
    page = pypdfium2.PdfDocument(pdf(of))[0]
    return np.asarray(page.render(scale=SCALE).to_pil().convert("RGB"), dtype=np.int16)


def others(one: Pixels, other: Pixels) -> float:
    """The share of pixels that differ, where a pixel may be found one place off."""
    assert one.shape == other.shape
    near = [np.roll(other, (dx, dy), (0, 1)) for dx in (-1, 0, 1) for dy in (-1, 0, 1)]
    low, high = np.min(near, axis=0), np.max(near, axis=0)
    off = np.maximum(low - one, one - high).max(axis=2)
    return float((off > FAR).mean())


def square(x: float, y: float, side: float) -> Path:
    return recorded(box, Rect(x, y, side, side))


def corner(pen: Pen) -> None:
    pen.move_to(12, 64)
    pen.line_to(40, 20)
    pen.line_to(68, 64)


def bent(pen: Pen) -> None:
    pen.move_to(14, 60)
    pen.curve_to(20, 0, 60, 0, 66, 60)


def png() -> bytes:
    made = io.BytesIO()
    picture = Pillow.new("RGB", (8, 8), (30, 60, 230))
    picture.paste((230, 30, 30), (0, 0, 4, 8))
    picture.resize((64, 64), Pillow.Resampling.NEAREST).save(made, "PNG")
    return made.getvalue()


SKEWED = Affine(0.9, 0.35, -0.2, 0.8, 14, 2)
CASES: dict[str, tuple[Primitive, ...]] = {
    "a filled shape": (Shape(square(15, 15, 50), RED),),
    "a translucent shape": (Shape(square(10, 10, 40), RED), Shape(square(30, 30, 40), BLUE.faded(0.5))),
    "an edged rectangle": (Shape(square(20, 20, 40), RED, INK, 12.0),),
    "an edged rectangle with mitred corners": (Shape(square(20, 20, 40), RED, INK, 12.0, join="miter"),),
    "an edged disc": (Shape(recorded(disc, (40, 40), 26), BLUE, INK, 5.0),),
    "a line with round ends and corner": (Shape(recorded(corner), None, INK, 12.0),),
    "a line with flat ends and mitred corner": (Shape(recorded(corner), None, INK, 12.0, cap="flat", join="miter"),),
    "dashes with flat ends": (Shape(recorded(bent), None, INK, 6.0, dash=(10.0, 8.0), cap="flat"),),
    "dashes with round ends": (Shape(recorded(bent), None, INK, 6.0, dash=(10.0, 12.0), cap="round"),),
    "a linear gradient": (
        Shape(square(15, 15, 50), LinearGradient(15, 15, 65, 65, ((0, WHITE), (0.4, RED), (1, BLUE)))),
    ),
    "a radial gradient": (Shape(square(15, 15, 50), RadialGradient(40, 40, 30, ((0, WHITE), (1, BLUE)))),),
    **{
        f"a hatch of {kind}": (Shape(square(10, 10, 60), Hatch(kind, INK, Colour(1, 0.9, 0.6), 30.0, 9.0, 4.0)),)
        for kind in ("lines", "cross", "dashes", "dots")
    },
    "a hatch without ground": (
        Shape(square(10, 10, 60), RED), Shape(square(20, 20, 40), Hatch("lines", WHITE, None, 45.0, 8.0, 3.0)),
    ),
    "a clipped shape": (Shape(square(10, 10, 60), RED, clip=recorded(disc, (40, 40), 22)),),
    "a shape on a plane of its own": (Shape(square(10, 10, 50), RED, INK, 5.0, place=SKEWED),),
    "a clipped shape on a plane of its own": (
        Shape(square(10, 10, 50), Hatch("lines", INK, RED, 0.0, 10.0, 4.0), place=SKEWED, clip=square(20, 20, 40)),
    ),
    "a stamp": (Stamp("leaf", recorded(disc, (0.5, 0.5), 0.5), Affine(50, 10, 0, 40, 10, 15), BLUE),),
    "a clipped stamp": (
        Stamp("leaf", recorded(disc, (0.5, 0.5), 0.5), Affine(60, 0, 0, 60, 10, 10), BLUE, square(10, 10, 34)),
    ),
    "a picture": (Image("p", png(), Affine(50, 0, 0, 40, 15, 20)),),
    "a clipped picture, turned": (
        Image("p", png(), turned(20, 40, 40).after(Affine(50, 0, 0, 50, 15, 15)), square(20, 20, 36)),
    ),
    "writing": (Writing("Reed", 8, 50, width("Reed", FACE, 30), FACE, 30, INK),),
    "turned writing": (Writing("Reed", 30, 76, width("Reed", FACE, 26), FACE, 26, INK, angle=-60.0),),
    "a group": (
        Group(
            (Shape(square(0, 0, 40), RED, INK, 4.0), Writing("g", 6, 30, width("g", FACE, 30), FACE, 30, WHITE)),
            turned(15, 40, 40).after(Affine(1.2, 0, 0, 1.2, 14, 14)), recorded(disc, (40, 40), 30),
        ),
    ),
    "a group in a group": (
        Group(
            (Group((Shape(square(0, 0, 20), BLUE),), Affine(2, 0, 0, 1, 5, 5), square(0, 0, 40)),),
            Affine(1, 0, 0, 1, 10, 10),
        ),
    ),
}  # fmt: skip


@pytest.mark.parametrize("case", CASES)
def test_all_writers_draw_the_same(case: str) -> None:
    of = scene(*CASES[case])
    painted = by_qt(of)
    assert others(painted, np.full_like(painted, 255)) > 0.02, "nothing is drawn"
    assert others(painted, by_svg(of)) <= MOST
    assert others(painted, by_pdf(of)) <= MOST


@pytest.mark.parametrize("case", ["writing", "turned writing", "a group"])
def test_texts_as_outlines_look_as_texts_do(case: str) -> None:
    of = scene(*CASES[case])
    assert others(by_qt(of), by_svg(of, outlines=True)) <= MOST


def test_the_comparison_sees_another_corner() -> None:
    """What it is for: corners that one writer rounds and another does not."""
    round_, mitred = (scene(*CASES[case]) for case in list(CASES)[2:4])
    assert others(by_qt(round_), by_svg(mitred)) > MOST
    assert others(by_qt(round_), by_pdf(mitred)) > MOST


def test_ids_of_charts_beside_each_other_do_not_clash() -> None:
    items = CASES["a linear gradient"] + CASES["a clipped shape"]
    texts = [svg.dumps(Scene(Size(SIDE, SIDE), None, items, "A", "B", name)) for name in ("k1", "k2")]
    ids = [{part.split('"')[0] for part in text.split('id="')[1:]} for text in texts]
    assert len(ids[0]) == 4
    assert ids[0] & ids[1] == set()
