"""The colours a chart asks its readers to tell apart: those of a legend whose entries no label at the marks names."""

from itertools import combinations

from msgspec import Struct

from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.scene.primitives import Shape, Stamp
from kavlet.core.values.colour import Colour


class Meaning(Struct, frozen=True):
    """One colour and what it stands for."""

    name: str
    colour: Colour


def meanings(of: ChartSubject) -> list[Meaning]:
    """The plain colours of the legend; nothing where all that they mean is said at the marks, or where patterns or
    dashes tell them apart as well."""
    said = [text.text.casefold() for text in of.texts("label", "name")]
    if of.figure.keys and all(any(key.name.casefold() in text for text in said) for key in of.figure.keys if key.name):
        return []
    found = []
    for key in of.figure.keys:
        fills = [item.fill for item in key.items if isinstance(item, Shape | Stamp) and item.fill is not None]
        lines = [item.edge for item in key.items if isinstance(item, Shape) and item.edge is not None and not item.dash]
        plain = [one for one in (*fills, *lines) if isinstance(one, Colour)]
        if plain and len(fills) + len(lines) == len(plain):
            found.append(Meaning(key.name, plain[0].over(of.figure.ground)))
    return found


def pairs(of: ChartSubject) -> list[tuple[Meaning, Meaning]]:
    """All pairs of colours to be told apart by nothing but themselves: those of marks of the same kind."""
    kinds: dict[Colour, set[str]] = {}
    for mark in of.marks:
        if mark.fill is not None:
            kinds.setdefault(mark.fill.over(of.figure.ground), set()).add(mark.kind.name)

    def alike(one: Meaning, other: Meaning) -> bool:
        mine, others = kinds.get(one.colour, set()), kinds.get(other.colour, set())
        return bool(mine & others) or not (mine or others)

    return [(one, other) for one, other in combinations(meanings(of), 2) if alike(one, other)]
