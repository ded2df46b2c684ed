"""What an author fills a part with. Colours are colour texts (`kavlet.core.styling.colours`), resolved by the style."""

from typing import Literal

from msgspec import Struct

from kavlet.core.scene.paints import HatchKind

GradientRun = Literal["along", "across", "round", "radial"]
How = Literal["fitted", "stretched", "covering", "repeated", "per unit"]


class GradientFill(
    Struct, frozen=True, tag_field="fill", tag="gradient", omit_defaults=True, forbid_unknown_fields=True
):
    """Colours in equal steps: along the bar's value, across it, outward, or `round`, which makes it look like a tube.

    `angle`, where given, turns the run clockwise from the right instead.
    """

    colours: tuple[str, ...]
    run: GradientRun = "along"
    angle: float | None = None


class HatchFill(Struct, frozen=True, tag_field="fill", tag="hatch", omit_defaults=True, forbid_unknown_fields=True):
    """A pattern that stays readable in grey print: lines turned by `angle`, `step` points apart."""

    colour: str
    kind: HatchKind = "lines"
    ground: str = ""
    angle: float = 45.0
    step: float = 6.0
    width: float = 1.5


class PictureFill(Struct, frozen=True, tag_field="fill", tag="picture", omit_defaults=True, forbid_unknown_fields=True):
    """A symbol or picture by its name.

    `fitted` once at own proportions, `stretched` once over the whole part, `repeated` at own proportions from the base
    with the last one cut, or `per unit`: one for each `unit` of the value. `covering` fills the part at own proportions
    and is cut at its outline: enlarged `zoom` times, seen at `x` and `y` of what is left over (0 left and top, 1 right
    and bottom). Upright, unless `turned` with the bar.
    `colour` is for symbols (empty: the layer's own); `ground` is painted behind.
    """

    name: str
    how: How = "stretched"
    unit: float = 1.0
    turned: bool = False
    colour: str = ""
    ground: str = ""
    zoom: float = 1.0
    x: float = 0.5
    y: float = 0.5


Fill = str | GradientFill | HatchFill | PictureFill
