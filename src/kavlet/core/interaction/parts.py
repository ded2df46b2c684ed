"""What can be chosen on the Stage: the chart, a layer, one mark of it, a text, the legend, an axis."""

from typing import Any, Literal

import msgspec
from msgspec import Struct

from kavlet.core.charts.looks import of_layer
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.messages import named, words
from kavlet.core.values.geometry import Rect

TEXTS = ("title", "subtitle", "source")
AXES = ("along", "second", "across", "scale")
PartKind = Literal["layer", "mark", "label", "text", "legend", "axis", "plot", "name", "entry"]


class Part(Struct, frozen=True):
    """A part of the chart in view. `key` is a layer's, or says which text or axis; `row` counts the table's rows.

    A row's name and an entry of the legend can be typed, and are chosen with all others of their kind.
    """

    kind: PartKind
    key: str
    row: int = -1

    @property
    def path(self) -> str:
        """Where its looks are set, in the chart's specification."""
        if self.kind == "layer":
            return of_layer(self.key)
        if self.kind == "mark":
            return of_layer(self.key, row=self.row)
        if self.kind == "label":
            return of_layer(self.key, "label")
        if self.kind == "axis":
            return f"frame.{self.key}"
        return {"text": self.key, "legend": "legend", "plot": "frame"}.get(self.kind, "")


class Chosen(Struct, frozen=True):
    """What is in view: a chart, a table and a page by their ids (empty: the first there is), the parts of the chart
    and the items of the page that are chosen."""

    chart: str = ""
    table: str = ""
    parts: tuple[Part, ...] = ()
    page: str = ""
    items: tuple[str, ...] = ()

    def changed(self, **changes: Any) -> "Chosen":
        """The same with some of it changed."""
        return msgspec.structs.replace(self, **changes)


def text_part(text: PlacedText) -> Part | None:
    """The part a text belongs to."""
    if text.kind == "label":
        return Part("label", text.key, text.row if text.row is not None else -1)
    if text.kind in TEXTS:
        return Part("text", text.kind)
    if text.kind == "legend":
        return Part("legend", "")
    if text.kind in ("tick", "axis title"):
        return Part("axis", text.key or "along")
    return Part("axis", "across") if text.kind == "name" else None


def typed_part(text: PlacedText) -> Part | None:
    """What is typed where a text stands; None where nothing can be."""
    if text.kind in ("name", "panel"):
        return Part("name", "", text.row) if text.row is not None else None
    if text.kind == "legend":
        if text.row is not None:
            return Part("name", "", text.row)
        return Part("entry", text.key) if text.key else None
    part = text_part(text)
    return part if part is not None and (part.kind != "axis" or part.key in AXES[:3]) else None


def boxes(figure: Figure, part: Part) -> list[Rect]:
    """The boxes of a part that is made of texts."""
    if part.kind == "plot":
        return [figure.plot]
    found = [text.bounds for text in figure.texts if _same(text_part(text), part)]
    if part.kind == "legend":
        found += [key.bounds for key in figure.keys]
        return (
            [Rect.around([point for box in found for point in ((box.x, box.y), (box.right, box.bottom))])]
            if found
            else []
        )
    return found


def _same(one: Part | None, other: Part) -> bool:
    return one is not None and one.kind == other.kind and one.key == other.key and other.row in (-1, one.row)


def walk(figure: Figure) -> list[Part]:
    """All parts in the order Tab goes through them: title, layers with their marks, legend, axes, source."""
    found: list[Part] = [Part("text", text.kind) for text in figure.texts if text.kind in ("title", "subtitle")]
    keys = list(dict.fromkeys(mark.key for mark in figure.marks if mark.visible))
    found += [Part("layer", key) for key in keys]
    if figure.keys:
        found.append(Part("legend", ""))
    found += [Part("axis", key) for key in AXES if boxes(figure, Part("axis", key))]
    found += [Part("text", "source") for text in figure.texts if text.kind == "source"]
    return found


def marks_of(figure: Figure, key: str) -> list[Part]:
    """The marks of a layer, in the order of their rows."""
    rows = sorted({mark.row for mark in figure.marks if mark.key == key and mark.visible})
    return [Part("mark", key, row) for row in rows]


def says(figure: Figure, part: Part) -> str:
    """What a part is, in words: for hovering and for screen readers."""
    if part.kind == "mark":
        mark = next((one for one in figure.marks if one.key == part.key and one.row == part.row and one.visible), None)
        return f"{mark.says}  ({mark.layer})" if mark is not None and mark.says else (mark.layer if mark else "")
    if part.kind == "label":
        text = next((text.text for text in figure.texts if _same(text_part(text), part)), "")
        return text or str(named(part.kind))
    if part.kind == "layer":
        return next((mark.layer for mark in figure.marks if mark.key == part.key), part.key)
    if part.kind == "axis":
        numeric = any(text.kind == "tick" and text.key == part.key for text in figure.texts)
        return words("scale") if numeric or part.key == "along" else words("names")
    return str(named(part.key if part.kind == "text" else part.kind))
