"""From a figure to a scene: rules, marks, the legend, texts with their leaders, as a flat list of primitives."""

import math
from collections.abc import Iterable

import msgspec

from kavlet.core.layout.figure import Figure, Mark, PlacedRule, PlacedText
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import MarkId, Primitive, Scene, Shape, Writing, cap_of
from kavlet.core.shapes.box import quad

ARROW = 5.0  # length of a leader's arrowhead, in points


def draw(figure: Figure) -> Scene:
    """The primitives of all that is visible. Helpers leave no trace."""
    items: list[Primitive] = [*figure.behind, *figure.room, *(_rule(rule) for rule in figure.under)]
    if figure.painted is not None:
        items += figure.painted
    else:
        for mark in figure.marks:
            items += named(mark)
    items += [_rule(rule) for rule in figure.over]
    items += [item for key in figure.keys for item in key.items]
    for text in figure.texts:
        items += _leader(text, figure.hair)
    for text in sorted(figure.texts, key=lambda text: text.kind == "source"):  # as it is read: the source line last
        items += _written(text, figure.name)
    return Scene(figure.size, figure.ground, tuple(items), figure.title, figure.alt_text, figure.name)


def named(mark: Mark) -> list[Primitive]:
    """A mark's primitives with its name, the first with what it says. Helpers leave no trace."""
    return as_marked((*mark.track, *mark.items), mark, mark.says) if mark.visible else []


def as_marked(items: Iterable[Primitive], mark: Mark, says: str) -> list[Primitive]:
    """Primitives with the name of their mark; the first that can be called anything says it."""
    made: list[Primitive] = []
    for item in items:
        if isinstance(item, Writing):
            made.append(item)
            continue
        made.append(msgspec.structs.replace(item, mark=mark.id, title=says))
        says = ""
    return made


def _rule(rule: PlacedRule) -> Shape:
    def line(pen: Pen) -> None:
        pen.move_to(rule.x1, rule.y1)
        pen.line_to(rule.x2, rule.y2)

    flat = rule.kind in ("grid", "minor")
    return Shape(
        recorded(line), None, rule.colour, rule.width, dash=rule.dash, cap="flat" if flat else cap_of(rule.dash)
    )


def _written(text: PlacedText, chart: str) -> list[Primitive]:
    mark = MarkId(text.layer, text.row, text.key, chart) if text.layer and text.row is not None else None
    return [
        Writing(line.text, line.x, line.y, line.width, text.face, text.size, text.colour, mark, text.angle)
        for line in text.lines
    ]


def _leader(text: PlacedText, thick: float) -> list[Primitive]:
    if len(text.leader) < 2 or text.leader_colour is None:
        return []

    def line(pen: Pen) -> None:
        pen.move_to(*text.leader[0])
        for point in text.leader[1:]:
            pen.line_to(*point)

    made: list[Primitive] = [Shape(recorded(line), None, text.leader_colour, thick)]
    if text.arrow:
        (x1, y1), (x2, y2) = text.leader[-2:]
        long = math.hypot(x2 - x1, y2 - y1) or 1.0
        ux, uy = (x2 - x1) / long, (y2 - y1) / long
        base = (x2 - ARROW * ux, y2 - ARROW * uy)
        side = (-uy * ARROW * 0.4, ux * ARROW * 0.4)
        made.append(
            Shape(
                recorded(
                    quad, (x2, y2), (base[0] + side[0], base[1] + side[1]), (base[0] - side[0], base[1] - side[1])
                ),
                text.leader_colour,
            )
        )
    return made
