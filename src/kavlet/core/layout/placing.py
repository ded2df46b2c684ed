"""What the layers of one chart share while they are placed."""

import msgspec
from msgspec import Struct

from kavlet.core.charts.layer import Layer, Row
from kavlet.core.layout.context import Context
from kavlet.core.layout.figure import BarBox, Mark, MarkKind, PlacedText
from kavlet.core.layout.painting import Filling, fill_of, rules_of
from kavlet.core.layout.words.label_spots import LabelSpot
from kavlet.core.layout.words.labels import LabelRequest, LabelStyle, label_request
from kavlet.core.layout.words.radial_labels import RadialLabel
from kavlet.core.scene.path import Path
from kavlet.core.scene.primitives import Primitive
from kavlet.core.shapes.arc import Sector
from kavlet.core.styling.fills import Fill
from kavlet.core.values.cancellation import check_cancelled
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Point, Rect


class MarkSource(Struct, frozen=True):
    """Whose mark it is: the table's row (or a number beyond for what is no row), what it says, and what its layer does
    not say of it: another name, series, that it is a helper, or that it shows no cell but what is computed."""

    row: int
    says: str = ""
    name: str | None = None
    series: int | None = None
    helper: bool | None = None
    is_computed: bool = False


class MarkDrawing(Struct, frozen=True, kw_only=True):
    """What is drawn for a mark; the fields are those of `Mark`."""

    path: Path | None = None
    fill: Colour | None = None
    items: tuple[Primitive, ...] = ()
    sector: Sector | None = None
    block: BarBox | None = None
    line: tuple[Point, Point] | None = None
    dressed: Fill | None = None
    tone: int = 0
    track: tuple[Primitive, ...] = ()
    share: float | None = None
    beyond: bool = False
    visible: bool = True


NOT_DRAWN = MarkDrawing(visible=False)


class Placing:
    """The context of a chart, the layer that is being placed, and what has been placed so far: marks, texts, and
    labels to be settled."""

    kind: MarkKind
    series: int

    def __init__(self, context: Context) -> None:
        self.context = context
        self.chart = context.chart
        self.data = context.data
        self.style = context.style
        self.sizes = context.sizes
        self.wording = context.wording
        self.spans = context.spans
        self.marks: list[Mark] = []
        self.labels: list[LabelRequest] = []
        self.fans: list[RadialLabel] = []
        self.texts: list[PlacedText] = []
        self.obstacles: list[Rect] = []
        self.lost = 0  # texts that stand nowhere, because there is no room for them

    def begin(self, kind: MarkKind, series: int) -> None:
        """What is placed from here on belongs to that layer, counted from the back."""
        self.kind, self.series = kind, series

    def id(self, row: int) -> int:
        """The table's row of a row shown here."""
        return self.data.ids[row]

    def own(self, layer: Layer, row: int) -> Row:
        """What is set for one row of a layer."""
        return layer.rows.get(self.id(row), Row())

    def is_drawn(self, layer: Layer, row: int) -> bool:
        """Whether a row is seen: neither a helper's, nor hidden by its author."""
        return not (layer.helper or self.own(layer, row).hidden)

    def fill(self, layer: Layer, row: int) -> tuple[Fill | None, int]:
        """A row's fill and tone."""
        return fill_of(layer, self.id(row), row, self.data)

    def filling(self, layer: Layer, row: int, value: float = 1.0) -> Filling:
        """All that a row is filled and edged with."""
        fill, tone = self.fill(layer, row)
        text = self.own(layer, row).edge or layer.edge
        edge, width = (self.style.colour(text), layer.edge_width) if text else (None, 0.0)
        return Filling(fill, tone, edge, width, value)

    def mark(self, layer: Layer, row: int, value: float, bounds: Rect, drawing: MarkDrawing = NOT_DRAWN) -> None:
        """The mark of a row; one that is not drawn is known, never seen."""
        says = self.wording.says(layer, row) if drawing.visible else ""
        self.put(layer, MarkSource(self.id(row), says), value, bounds, drawing)

    def put(
        self, layer: Layer, source: MarkSource, value: float, bounds: Rect, drawing: MarkDrawing = NOT_DRAWN
    ) -> None:
        """A mark, of a row or of anything else."""
        check_cancelled()
        of_row = not source.is_computed and source.row in self.data.ids
        self.marks.append(
            Mark(
                layer=layer.name if source.name is None else source.name,
                key=layer.key,
                kind=self.kind,
                row=source.row,
                series=self.series if source.series is None else source.series,
                helper=layer.helper if source.helper is None else source.helper,
                visible=drawing.visible,
                value=value,
                column=layer.figure_column if of_row else "",
                bounds=bounds,
                path=drawing.path,
                fill=drawing.fill,
                says=source.says,
                items=drawing.items,
                sector=drawing.sector,
                block=drawing.block,
                line=drawing.line,
                dressed=drawing.dressed,
                tone=drawing.tone,
                panel=self.context.panel,
                track=drawing.track,
                share=drawing.share,
                chart=self.context.name,
                beyond=drawing.beyond,
            )
        )

    def label(self, layer: Layer, row: int, text: str, spots: list[LabelSpot], label_style: LabelStyle) -> None:
        """Wish for a label of a row of the table at the first of the spots where it fits."""
        self.labels.append(self._by_rule(layer, row, label_request(layer, row, text, spots, self.style, label_style)))

    def _by_rule(self, layer: Layer, row: int, label: LabelRequest) -> LabelRequest:
        """A label in the colour that one of its author's rules gives its row."""
        rules = rules_of(layer.label.colour_rules) if layer.label is not None else ()
        if not rules or row not in self.data.ids:
            return label
        figures, number = self.data.column(layer.figure_column), self.data.ids.index(row)
        colour = next((one.colour for one in rules if one.picks(number, figures)), "")
        if not colour or self.own(layer, number).text_look.colour:
            return label
        spots = tuple(msgspec.structs.replace(one, colour=self.style.colour(colour)) for one in label.spots)
        return msgspec.structs.replace(label, spots=spots, any_colour=True)
