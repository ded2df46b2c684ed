"""What all layers have in common, and what can be set for one row of a layer."""

from typing import Literal

from msgspec import Struct

from kavlet.core.charts.labels import Label
from kavlet.core.dress.fills import Fill

Missing = Literal["break", "bridge", "drop"]
Stack = Literal["none", "stacked", "share"]


class Row(Struct, frozen=True, omit_defaults=True):
    """What one row has of its own: looks (None: the layer's), and its label's place.

    `dx`, `dy` move the label by points from where it would stand; `label` False leaves it out; `text` replaces it.
    """

    fill: Fill | None = None
    edge: str = ""
    explode: float | None = None
    hidden: bool = False
    label: bool = True
    text: str | None = None
    dx: float = 0.0
    dy: float = 0.0


class Rule(Struct, frozen=True, omit_defaults=True):
    """A fill for the rows that a rule picks; `than` is the number of above and below."""

    when: Literal["largest", "smallest", "first", "last", "above", "below"]
    fill: Fill
    than: float = 0.0


class Layer(Struct, frozen=True, omit_defaults=True):
    """One plain chart type bound to a column of figures.

    `key` names the layer for dress and never changes; `name` is for people. `tone` picks the palette's colour where
    no `fill` is set (`vary`: a tone per row, as ISO/IEC 29500 c:varyColors). `second` puts it on the second axis.
    A `helper` is never drawn, labelled or listed; a `hidden` layer is left out by the author.
    """

    key: str
    name: str
    values: str = ""
    tone: int = 0
    fill: Fill | None = None
    edge: str = ""
    edge_width: float = 1.0
    vary: bool = False
    helper: bool = False
    hidden: bool = False
    second: bool = False
    listed: bool = True
    label: Label | None = None
    rows: dict[int, Row] = {}
    rules: tuple[Rule, ...] = ()
