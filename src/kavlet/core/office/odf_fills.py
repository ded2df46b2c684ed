"""Fills and lines as graphic properties of ODF 1.3 (ISO/IEC 26300-3, 20): what they need beside is a part's styles."""

from collections.abc import Callable

from kavlet.core.messages import Message, say
from kavlet.core.office.odf import Element, add, points, put
from kavlet.core.office_model.chart_model import FillModel, Gradient, Pattern, PictureModel, Stroke
from kavlet.core.values.colour import Colour


class Fills:
    """Gradients, hatches, dashes and pictures, each made once among the `common` styles; `differs` gathers what can't
    be said."""

    def __init__(self, common: Element) -> None:
        self.common = common
        self.pictures: list[PictureModel] = []
        self.differs: list[Message] = []
        self._styles: dict[tuple[object, ...], str] = {}

    def differ(self, what: Message) -> None:
        """Say, once, what looks different."""
        if what not in self.differs:
            self.differs.append(what)

    def filled(self, graphic: Element, fill: FillModel | None, line: Stroke | None) -> None:
        """Fill and line as graphic properties."""
        match fill:
            case None:
                put(graphic, draw_fill="none")
            case Colour() if fill.alpha <= 0:
                put(graphic, draw_fill="none")
            case Colour():
                put(graphic, draw_fill="solid", draw_fill__color=fill.hex[:7])
                if fill.alpha < 1:
                    put(graphic, draw_opacity=f"{round(100 * fill.alpha)}%")
            case Gradient():
                put(graphic, draw_fill="gradient", draw_fill__gradient__name=self._gradient(fill),
                    draw_fill__color=fill.stops[len(fill.stops) // 2][1].hex[:7])  # fmt: skip
            case Pattern():
                put(graphic, draw_fill="hatch", draw_fill__hatch__name=self._hatch(fill),
                    draw_fill__color=fill.ground.hex[:7], draw_fill__hatch__solid=True)  # fmt: skip
            case PictureModel():
                if fill not in self.pictures:
                    self.pictures.append(fill)
                number = self.pictures.index(fill) + 1
                put(graphic, draw_fill="bitmap", draw_fill__image__name=f"fill{number}",
                    style_repeat="stretch" if fill.how == "stretch" else "repeat")  # fmt: skip
                if fill.how == "scale":
                    self.differ(say("pictures are repeated by their own size, not one for each unit"))
        if line is None:
            put(graphic, draw_stroke="none")
        else:
            put(graphic, draw_stroke="dash" if line.dash != "solid" else "solid", svg_stroke__color=line.colour.hex[:7],
                svg_stroke__width=points(line.width),
                draw_stroke__dash=self._dash(line.dash) if line.dash != "solid" else None)  # fmt: skip

    def _common(self, key: tuple[object, ...], stem: str, make: Callable[[str], None]) -> str:
        if key not in self._styles:
            self._styles[key] = f"{stem}{len(self._styles) + 1}"
            make(self._styles[key])
        return self._styles[key]

    def _gradient(self, fill: Gradient) -> str:
        ends = fill.stops[0][1], fill.stops[-1][1]
        # A tube is light in the middle: what the standard calls axial
        middle = fill.stops[len(fill.stops) // 2][1]
        axial = len(fill.stops) > 2
        turn = 90.0 - (fill.angle or 0.0)
        return self._common(
            ("gradient", fill), "gradient",
            lambda held: put(
                add(self.common, "draw:gradient"), draw_name=held,
                draw_style="radial" if fill.angle is None else "axial" if axial else "linear",
                draw_start__color=(ends[0] if not axial else ends[1]).hex[:7],
                draw_end__color=(middle if axial else ends[1]).hex[:7], draw_angle=f"{round(turn % 360)}deg",
            ),
        )  # fmt: skip

    def _hatch(self, fill: Pattern) -> str:
        return self._common(
            ("hatch", fill), "hatch",
            lambda held: put(
                add(self.common, "draw:hatch"), draw_name=held,
                draw_style="single" if fill.kind == "lines" else "double", draw_color=fill.colour.hex[:7],
                draw_distance="4pt", draw_rotation=f"{round(10 * (-fill.angle % 180))}",
            ),
        )  # fmt: skip

    def _dash(self, kind: str) -> str:
        long = "4pt" if kind == "dash" else "0.5pt"
        return self._common(
            ("dash", kind), "dash",
            lambda held: put(
                add(self.common, "draw:stroke-dash"), draw_name=held, draw_style="rect", draw_dots1=1,
                draw_dots1__length=long, draw_distance="3pt",
            ),
        )  # fmt: skip
