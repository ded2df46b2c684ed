"""What can be chosen on the Stage: the chart, a layer, one mark of it, a text, the legend, an axis."""

from typing import Literal

from msgspec import Struct

PartKind = Literal["layer", "mark", "label", "text", "legend", "axis", "plot"]


class Part(Struct, frozen=True):
    """A part of the chart in view. `key` is a layer's, or says which text or axis; `row` counts the table's rows."""

    kind: PartKind
    key: str
    row: int = -1

    @property
    def path(self) -> str:
        """Where its looks are set, in the chart's specification."""
        if self.kind == "layer":
            return f"layers.{self.key}"
        if self.kind == "mark":
            return f"layers.{self.key}.rows.{self.row}"
        if self.kind == "label":
            return f"layers.{self.key}.label"
        if self.kind == "axis":
            return f"frame.{self.key}"
        return {"text": self.key, "legend": "legend", "plot": "frame"}.get(self.kind, "")
