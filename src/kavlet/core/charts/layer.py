"""What all layers have in common, and what can be set for one row of a layer."""

from typing import Any, ClassVar, Literal

from msgspec import Struct

from kavlet.core.charts.colouring import Shades
from kavlet.core.charts.labels import Label
from kavlet.core.charts.lettering import Lettering
from kavlet.core.styling.fills import Fill

GATHERED, LEFT_OVER, EMPTY = 1_000_000, 1_000_001, 1_000_002  # stand for a row where a mark has none in the table
Missing = Literal["break", "bridge", "drop"]
Stack = Literal["none", "stacked", "share"]


class Row(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What one row, or what stands for one, has of its own: looks (None: the layer's), and its label's place.

    `dx`, `dy` move the label by points from where it would stand; `label` False leaves it out; `text` replaces it;
    `text_look` is how it alone is set.
    """

    fill: Fill | None = None
    edge: str = ""
    explode: float | None = None
    hidden: bool = False
    label: bool = True
    text: str | None = None
    dx: float = 0.0
    dy: float = 0.0
    text_look: Lettering = Lettering()


class Rule(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A fill for the rows that a rule picks; `than` is the number of above and below."""

    when: Literal["largest", "smallest", "first", "last", "above", "below"]
    fill: Fill
    than: float = 0.0


class Layer(Struct, frozen=True, omit_defaults=True):
    """One plain chart type bound to a column of figures.

    `key` names the layer for dress and never changes; `name` is for people. `tone` picks the palette's colour where
    no `fill` is set (`vary`: a tone per row, as ISO/IEC 29500 c:varyColors). `second` puts it on the second axis.
    `colour_rules` and `shades` (in `shade_steps`, 0 for none) colour rows by their values (`colouring.py`).
    A `helper` is never drawn, labelled or listed; a `hidden` layer is left out by the author.

    What a type means by its fields stands with it: whether it `has_body` that can be solid, whether it only `joins` the
    marks of another layer, and which columns it reads for what.
    """

    has_body: ClassVar[bool] = False
    joins: ClassVar[bool] = False

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
    colour_rules: str = ""
    shades: Shades = "none"
    shade_steps: int = 0

    @property
    def differs(self) -> bool:
        """Whether its rows differ in colour, so that a colour for all would take something away."""
        return self.vary or any(row.fill is not None for row in self.rows.values())

    @property
    def figure_column(self) -> str:
        """The column whose figures its labels speak of."""
        return self.values

    @property
    def across_column(self) -> str:
        """The column that holds its places on a numeric across axis; empty where its places are the rows."""
        return ""

    @property
    def extra_columns(self) -> tuple[str, str]:
        """The columns of what small rows are gathered to, and of what a declared whole leaves over; empty for none."""
        return "", ""

    @classmethod
    def adopted(cls, held: dict[str, Any]) -> dict[str, Any]:
        """Of the fields of a layer of another type, those that stay when it is drawn as this one."""
        return {name: value for name, value in held.items() if name in cls.__struct_fields__}


class Stacking(Layer, frozen=True, omit_defaults=True):
    """A layer that may stand on others of its type: on what they add up to, or as shares of it.

    Those that `clusters` take a place of their own across where they are not stacked.
    """

    clusters: ClassVar[bool] = False

    stack: Stack = "none"
