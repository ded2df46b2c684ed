"""Colours that fall together in grey print.

Source: CIE 15 (CIELAB); lightness of 10 apart as the least is common practice.
"""

from collections.abc import Iterator

from kavlet.core.charts.layer import GATHERED
from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.colour_pairs import pairs
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.paints import HatchKind
from kavlet.core.values.vision import lab

MIN_DIFFERENCE = 10.0
HATCHES: tuple[tuple[HatchKind, float, float], ...] = (
    ("lines", 45.0, 6.0), ("lines", -45.0, 6.0), ("dots", 0.0, 6.0), ("cross", 45.0, 7.0), ("lines", 0.0, 5.0),
    ("lines", 90.0, 5.0), ("dashes", 45.0, 7.0), ("dots", 45.0, 9.0),
)  # fmt: skip


def check(subject: ChartSubject) -> Iterator[Finding]:
    """The two colours of a legend that come closest in lightness."""
    distances = [(abs(lab(a.colour)[0] - lab(b.colour)[0]), a, b) for a, b in pairs(subject)]
    close = [meaning for meaning in distances if meaning[0] < MIN_DIFFERENCE]
    if not close:
        return
    much, meaning, other = min(close, key=lambda distance: distance[0])
    message = say(
        "In grey print “{one}” and “{other}” fall together: their lightness is {much} apart, where 10 is needed.",
        one=meaning.name, other=other.name, much=round(much, 1),
    )  # fmt: skip
    yield Finding(CHECK.name, "note", much, message, subject.place(text="legend"), tuple(_remedies(subject)))


def _remedies(subject: ChartSubject) -> Iterator[Remedy]:
    """A hatch for each but the first, in its own colour."""
    layers = [one for one in subject.layers if one.listed]
    if len(subject.figure.keys) > len(HATCHES) + 1:
        return
    looks = {}
    if len(layers) == 1 and layers[0].vary and kind_of(layers[0]).is_hatched:
        rows = sorted({mark.row for mark in subject.marks if mark.key == layers[0].key and mark.row < GATHERED})
        for place, row in enumerate(rows[1 : len(HATCHES) + 1]):
            kind, angle, step = HATCHES[place]
            looks[of_layer(layers[0].key, "fill", row=row)] = {
                "fill": "hatch", "colour": f"tone{row + 1}", "kind": kind, "angle": angle, "step": step,
            }  # fmt: skip
        yield subject.looks("hatches", say("Hatch them"), looks)
        return
    if len(layers) < 2 or any(one.vary or not kind_of(one).is_hatched for one in layers):
        return
    for place, layer in enumerate(layers[1 : len(HATCHES) + 1]):
        kind, angle, step = HATCHES[place]
        fill = layer.fill if isinstance(layer.fill, str) and layer.fill else f"tone{layer.tone + 1}"
        looks[of_layer(layer.key, "fill")] = {
            "fill": "hatch",
            "colour": fill,
            "kind": kind,
            "angle": angle,
            "step": step,
        }
    yield subject.looks("hatches", say("Hatch them"), looks)


CHECK = Check("grey-print", "Colours that fall together in grey print", "CIELAB lightness, 10 apart", of_chart=check)
