"""What goes through periods as an animation: GIF, APNG (W3C PNG, third edition) and WebP."""

import io
from collections.abc import Iterator
from typing import TYPE_CHECKING

from kavlet.core.files.formats import AnimationOptions, ExportOptions
from kavlet.core.messages import say
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.errors import KavletError
from kavlet.export.outgoing import Export, WrittenFile
from kavlet.export.pictures import png_of

if TYPE_CHECKING:
    from PIL import Image

KINDS = {".gif": "GIF", ".apng": "PNG", ".webp": "WEBP"}
MAX_FRAMES = 2_000
STEP = 10  # milliseconds; GIF counts times in hundredths of a second (GIF89a, 23)


def eased(share: float, soft: bool) -> float:
    """How far things have gone at a share of the time: evenly, or slowly at both ends."""
    return share * share * (3.0 - 2.0 * share) if soft else share


def times(count: int, motion: AnimationOptions) -> list[tuple[float, int]]:
    """The period that each picture shows (counted from 1) and how long it stays, in milliseconds."""
    found: list[tuple[float, int]] = []
    frames = max(0, round(motion.move * motion.rate))
    for period in range(1, count + 1):
        found.append((float(period), max(STEP, round(1000 * motion.hold / STEP) * STEP)))
        if period < count and frames:
            each = max(STEP, round(1000 * motion.move / frames / STEP) * STEP)
            found += [(period + eased(i / (frames + 1), motion.soft), each) for i in range(1, frames + 1)]
    return found


def animation(export: Export, options: ExportOptions) -> WrittenFile:
    """The first chart or page through all its periods. Raises KavletError for one that does not step, for pictures too
    large or too many, and where Qt is not installed."""
    from PIL import Image

    periods = export.periods(0)
    if not periods:
        raise KavletError(
            say("“{name}” does not go through periods, so there is nothing to animate.", name=export.names[0]),
            remedy=say("Charts by the recipe for periods step."),
        )
    plan = times(len(periods), options.motion)
    if len(plan) > MAX_FRAMES:
        raise KavletError(
            say("An animation of {count} pictures is too long.", count=len(plan)),
            remedy=say("Choose fewer pictures a second."),
        )
    kind = KINDS[options.ending]
    frames = [Image.open(io.BytesIO(png_of(scene, options.scale))) for scene in _scenes(export, plan)]
    made = [frame.convert("RGB" if kind == "GIF" else "RGBA") for frame in frames]
    if kind == "GIF":  # one palette for all, so that no colour changes from picture to picture
        palette = _together(made).quantize(255)
        made = [frame.quantize(palette=palette, dither=Image.Dither.NONE) for frame in made]
    buffer = io.BytesIO()
    more: dict[str, object] = {"lossless": True, "quality": 90} if kind == "WEBP" else {}
    made[0].save(
        buffer, kind, save_all=True, append_images=made[1:], duration=[each for _, each in plan],
        **({"loop": 0} if options.motion.again else {"loop": 1} if kind != "GIF" else {}), **more,
    )  # fmt: skip
    return WrittenFile(buffer.getvalue())


def _together(frames: "list[Image.Image]") -> "Image.Image":
    """Some pictures below each other, to find colours for all of them."""
    from PIL import Image

    chosen = frames[:: max(1, len(frames) // 6)]
    width, height = chosen[0].size
    whole = Image.new("RGB", (width, height * len(chosen)))
    for place, frame in enumerate(chosen):
        whole.paste(frame, (0, place * height))
    return whole


def _scenes(export: Export, plan: list[tuple[float, int]]) -> Iterator[Scene]:
    for period, _ in export.each(plan):
        yield export.at(period).scenes[0]
