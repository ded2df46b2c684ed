"""Wedges: sectors of a disc or ring that share a turn."""

from typing import ClassVar

from msgspec import field

from kavlet.core.charts.layer import Layer


class Wedges(Layer, frozen=True, tag_field="type", tag="wedges", omit_defaults=True, forbid_unknown_fields=True):
    """A wedge per row of a column; or, with `parts`, a wedge per column in the row `row`.

    The whole turn is `turn` degrees, the frame's sweep when None. `rest` names a column that holds what is left of it;
    it is drawn pale when `rest_shown`, else only kept free. `gathered` names a column that holds what small rows add up
    to. `rest_name` and `gathered_name` are what the two are called. `order` lists the rows as they follow each other.
    `ring` counts from the inside. `explode` moves wedges outward by a share of the radius; `gap` points are left
    between them; `corner` rounds them. Where they are parts of groups, `within` is the key of the groups' layer, and
    `groups` gives for each row the row of its group and how far, in percent, its tint goes to the ground.
    """

    has_body: ClassVar[bool] = True

    parts: tuple[str, ...] = ()
    row: int = 0
    turn: float | None = None
    gathered: str = ""
    gathered_name: str = ""
    rest: str = ""
    rest_name: str = ""
    rest_shown: bool = False
    order: tuple[int, ...] = ()
    ring: int = 0
    explode: float = 0.0
    gap: float = 1.5
    corner: float = 0.0
    within: str = ""
    groups: dict[int, tuple[int, int]] = field(default_factory=dict)

    @property
    def differs(self) -> bool:
        """Wedges of groups take their groups' colours."""
        return bool(self.groups) or super().differs

    @property
    def extra_columns(self) -> tuple[str, str]:
        """The columns of the inner ends and of the groups."""
        return self.gathered, self.rest
