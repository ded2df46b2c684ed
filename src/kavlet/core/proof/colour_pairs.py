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


def meanings(subject: ChartSubject) -> list[Meaning]:
    """The plain colours of the legend; nothing where all that they mean is said at the marks, or where patterns or
    dashes tell them apart as well."""
    label_texts = [text.text.casefold() for text in subject.texts("label", "name")]
    if subject.figure.keys and all(
        any(key.name.casefold() in text for text in label_texts) for key in subject.figure.keys if key.name
    ):
        return []
    meanings_found = []
    for key in subject.figure.keys:
        fills = [item.fill for item in key.items if isinstance(item, Shape | Stamp) and item.fill is not None]
        lines = [item.edge for item in key.items if isinstance(item, Shape) and item.edge is not None and not item.dash]
        plain = [entry_colour for entry_colour in (*fills, *lines) if isinstance(entry_colour, Colour)]
        if plain and len(fills) + len(lines) == len(plain):
            meanings_found.append(Meaning(key.name, plain[0].over(subject.figure.ground)))
    return meanings_found


def pairs(subject: ChartSubject) -> list[tuple[Meaning, Meaning]]:
    """All pairs of colours to be told apart by nothing but themselves: those of marks of the same kind."""
    kinds: dict[Colour, set[str]] = {}
    for mark in subject.marks:
        if mark.fill is not None:
            kinds.setdefault(mark.fill.over(subject.figure.ground), set()).add(mark.kind.name)

    def alike(meaning: Meaning, other: Meaning) -> bool:
        own_kinds, others = kinds.get(meaning.colour, set()), kinds.get(other.colour, set())
        return bool(own_kinds & others) or not (own_kinds or others)

    return [(meaning, other) for meaning, other in combinations(meanings(subject), 2) if alike(meaning, other)]
