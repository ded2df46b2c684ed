"""Where a value set by hand stands in a chart's specification: the path of a look, as a value.

Files and the command line write it as text: `layers.value.fill`, `layers.value.rows.3.explode`, `frame.along.maximum`,
`title.size`. A dot that belongs to a name is written `\\.`, a backslash `\\\\`. Nobody else takes such texts apart.
"""

import re
from functools import lru_cache

import msgspec
from msgspec import Struct

LAYERS, ROWS = "layers", "rows"
TEXTS = frozenset(("text", "title", "name"))  # fields for words, which may be bound to a cell as numbers are
LITERAL = frozenset(("template", "prefix", "suffix", "zero", "missing"))  # fields whose equals sign is a letter
_STEP = re.compile(r"((?:[^.\\]|\\.)*)(?:\.|$)")


class Look(Struct, frozen=True):
    """A field of a layer, of one of its rows (as the table counts them), or of another part of the chart.

    `field` holds the steps below the layer, the row or the chart: ("label", "size"), ("frame", "along", "maximum").
    """

    layer: str
    row: int | None
    field: tuple[str, ...]

    @property
    def steps(self) -> tuple[str, ...]:
        """All steps from the chart on."""
        if not self.layer:
            return self.field
        row = () if self.row is None else (ROWS, str(self.row))
        return LAYERS, self.layer, *row, *self.field

    @property
    def text(self) -> str:
        """The path as files and the command line write it."""
        return ".".join(step.replace("\\", "\\\\").replace(".", "\\.") for step in self.steps)

    @property
    def last(self) -> str:
        """The name of the field itself."""
        return self.field[-1] if self.field else ""

    def on(self, layer: str) -> "Look":
        """The same field of another layer."""
        return msgspec.structs.replace(self, layer=layer)

    def at(self, row: int) -> "Look":
        """The same field of another row."""
        return msgspec.structs.replace(self, row=row)

    def within(self, other: "Look") -> bool:
        """Whether it is the other, or lies below it."""
        mine, theirs = self.steps, other.steps
        return mine[: len(theirs)] == theirs


@lru_cache(maxsize=4096)
def parse(text: str) -> Look:
    """The look that a text names."""
    steps = tuple(re.sub(r"\\(.)", r"\1", one) for one in _STEP.findall(text)[: _count(text)])
    if len(steps) < 3 or steps[0] != LAYERS:
        return Look("", None, steps)
    if len(steps) > 3 and steps[2] == ROWS and steps[3].lstrip("-").isdigit():
        return Look(steps[1], int(steps[3]), steps[4:])
    return Look(steps[1], None, steps[2:])


def _count(text: str) -> int:
    return len(re.sub(r"\\.", "", text).split("."))


def of_layer(layer: str, *field: str, row: int | None = None) -> str:
    """The text of a field of a layer, or of one of its rows."""
    return Look(layer, row, field).text


def below(path: str, *field: str) -> str:
    """The text of a field below a path."""
    held = parse(path)
    return msgspec.structs.replace(held, field=(*held.field, *field)).text if held.layer else ".".join((path, *field))
