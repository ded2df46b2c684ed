"""What checks look at: a chart as drawn, a page as drawn, the whole document; with what they have in common to ask."""

import math
from collections.abc import Iterable, Mapping
from functools import cached_property
from typing import Any

from msgspec import Struct

from kavlet.core.charts.chart import AnyLayer, Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.scale import Scale
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages.page_edits import change_item
from kavlet.core.layout.figure import Figure, Mark, PlacedText
from kavlet.core.messages import Message, say
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.pipeline.stages import Picture
from kavlet.core.proof.finding import Edit, Finding, Location, Remedy
from kavlet.core.recipes.recipe import Inputs
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.styling.style import Style, resolve


class ChartSubject(Struct, frozen=True, eq=False, dict=True):
    """A chart as drawn: by itself, or in the frame `item` of the page `page`."""

    document: Document
    values: Values
    entry: ChartEntry
    picture: Picture
    page: Page | None = None
    item: str = ""

    @property
    def figure(self) -> Figure:
        """Everything in its place."""
        return self.picture.figure

    @property
    def inputs(self) -> Inputs:
        """What its recipe has read."""
        return self.picture.build.inputs

    @property
    def chart(self) -> Chart:
        """Its specification, of the first panel where there are several."""
        return self.picture.build.chart

    @cached_property
    def style(self) -> Style:
        """Its look."""
        return resolve(self.entry.dress, self.document.house)

    @property
    def table(self) -> Table:
        """The table it reads."""
        return self.document.table(self.entry.table)

    @cached_property
    def marks(self) -> list[Mark]:
        """The marks that are drawn."""
        return [mark for mark in self.figure.marks if mark.visible and not mark.helper]

    @cached_property
    def layers(self) -> list[AnyLayer]:
        """The layers of which something is drawn, back to front."""
        seen = {mark.key for mark in self.marks}
        return [
            layer
            for layer in self.chart.layers
            if not (layer.helper or layer.hidden or layer.joins) and layer.key in seen
        ]

    @cached_property
    def labels(self) -> list[PlacedText]:
        """The labels of marks, as they stand."""
        return [text for text in self.figure.texts if text.kind == "label"]

    def texts(self, *kinds: str) -> list[PlacedText]:
        """The texts of some kinds that stand there."""
        return [text for text in self.figure.texts if text.kind in kinds and text.text]

    def scale(self, layer: AnyLayer) -> Scale | None:
        """The scale a layer's values are on; None where it is on no plane."""
        frame = self.chart.frame
        if not isinstance(frame, Cartesian):
            return None
        return frame.second if layer.second and frame.second is not None else frame.along

    def ends(self, layer: AnyLayer) -> tuple[float, float] | None:
        """Where the scale of a layer's values begins and ends, as drawn; None where it is on no plane."""
        if not isinstance(self.chart.frame, Cartesian):
            return None
        on_second = layer.second and self.chart.frame.second is not None
        found = next((axis for axis in self.figure.axes if axis.name.endswith("2") == on_second), None)
        return (found.minimum, found.maximum) if found is not None else None

    def scale_path(self, layer: AnyLayer) -> str:
        """The path of the scale of a layer's values."""
        return "frame.second" if self.scale(layer) is not getattr(self.chart.frame, "along", None) else "frame.along"

    def figures(self, layer: AnyLayer) -> list[tuple[int, float]]:
        """The rows of a layer that hold a figure, with it."""
        panels = self.picture.build.panels
        data = panels[0].data
        return [
            (row, float(number))
            for row, number in zip(data.ids, data.column(layer.figure_column), strict=False)
            if math.isfinite(number)
        ]

    def place(self, **where: Any) -> Location:
        """A place in it."""
        return Location(chart=self.entry.id, page=self.page.id if self.page else "", item=self.item, **where)

    def cell(self, role: str, row: int) -> Location:
        """The cell of a role's column in a row of figures."""
        column = self.table.place(self.inputs.id(role))
        return self.place(table=self.entry.table, cell=(column, row + HEADER) if column >= 0 else None, row=row)

    def mark_place(self, mark: Mark) -> Location:
        """The place of a mark."""
        return self.place(layer=mark.key, row=mark.row)

    def text_place(self, text: PlacedText) -> Location:
        """The place of a text."""
        return self.place(layer=text.key, row=text.row, text=text.kind)

    def looks(self, key: str, name: Message, looks: Mapping[str, Any], restates: bool = False) -> Remedy:
        """The remedy that sets looks of the chart."""
        chart = self.entry.id
        return Remedy(key, name, lambda document: look_edits.set_looks(document, chart, looks), restates)

    def setting(self, key: str, name: Message, settings: Mapping[str, Any], restates: bool = False) -> Remedy:
        """The remedy that sets parameters of its recipe."""
        chart = self.entry.id

        def edit(document: Document) -> Document:
            for parameter, value in settings.items():
                document = look_edits.set_setting(document, chart, parameter, value)
            return document

        return Remedy(key, name, edit, restates)

    def without_ends(self, also: Mapping[str, Any]) -> Edit:
        """The edit that gives back the ends of the value scale, on the page too where a frame holds them."""
        chart, page, item = self.entry.id, self.page, self.item

        def edit(document: Document) -> Document:
            if page is not None:
                document = change_item(document, page.id, item, low=None, high=None)
            return look_edits.set_looks(document, chart, also)

        return edit

    def notices(self, check: str, *remedies: Remedy) -> Iterable[Finding]:
        """What its recipe noticed under the name of a check, for each panel, with what the recipe says mends it."""
        build, recipe = self.picture.build, self.picture.recipe
        if recipe is None:
            return
        panels = [(panel.title, read) for panel, read in zip(build.panels, build.read, strict=False)]
        for title, read in panels or [("", build.inputs)]:
            for one in recipe.notices(read):
                if one.check == check:
                    message = say("{name}: {message}", name=title, message=one.message) if title else one.message
                    mends = [self.setting(how.key, how.name, how.settings, how.restates) for how in one.mends]
                    place = self.place(row=read.row if title else None)
                    yield Finding(check, one.severity, one.figure, message, place, (*mends, *remedies))

    def has_setting(self, name: str) -> bool:
        """Whether its recipe has a parameter of a name."""
        recipe = self.picture.recipe
        return recipe is not None and recipe.parameter(name) is not None


class PageSubject(Struct, frozen=True, eq=False, dict=True):
    """A page as drawn, with the charts in its frames by the item."""

    document: Document
    values: Values
    picture: PagePicture
    charts: dict[str, ChartSubject]

    @property
    def page(self) -> Page:
        """The page itself."""
        return self.picture.page

    def place(self, item: str = "", **where: Any) -> Location:
        """A place on it."""
        return Location(page=self.page.id, item=item, **where)


class DocumentSubject(Struct, frozen=True, eq=False):
    """The whole document, and of tables that follow a file by their id, whether it `changed` or is `lost`."""

    document: Document
    values: Values
    sources: Mapping[str, str] = {}
