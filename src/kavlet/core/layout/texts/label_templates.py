"""What labels say: templates with named fields, filled from a layer's row."""

import math
import re
from functools import cached_property

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.labels import Label
from kavlet.core.charts.layer import Layer, Row, Stacking
from kavlet.core.layout.data import Data
from kavlet.core.spreadsheet.cells import ErrorValue, text_of
from kavlet.core.text.numbers import written
from kavlet.core.values.apportion import rounded_shares
from kavlet.core.values.number_text import WHOLE_PERCENT, NumberText
from kavlet.core.values.sums import exact_sum

_FIELD = re.compile(r"\{([^{}]*)\}")


class Wording:
    """The words of one chart: names of its rows, and label texts."""

    def __init__(self, chart: Chart, data: Data) -> None:
        self.chart = chart
        self.data = data
        self.names = data.names(chart.names)
        self._shares: dict[tuple[object, ...], list[float]] = {}

    @cached_property
    def columns(self) -> dict[str, str]:
        """Column ids by what a template may call them."""
        found = {title.casefold(): column for column, title in reversed(self.data.titles.items())}
        return found | {column: column for column in self.data.titles}

    def figure(self, layer: Layer, row: int) -> float:
        """The figure a row's label speaks of."""
        return float(self.data.column(layer.figure_column)[row])

    def number_text(self, layer: Layer) -> NumberText:
        """How a layer's labels write its values."""
        if layer.label is not None and layer.label.number is not None:
            return layer.label.number
        return self.data.number_text(layer.figure_column)

    def text(self, layer: Layer, row: int) -> str:
        """A row's label; empty where its row is not labelled or has no value."""
        label, own = layer.label, layer.rows.get(self.data.ids[row], Row())
        if label is None or layer.helper or not own.label or not self._wanted(layer, label, row):
            return ""
        if own.text is not None:
            return self.filled(layer, msgspec.structs.replace(label, template=own.text), row)
        return self.filled(layer, label, row)

    def filled(self, layer: Layer, label: Label, row: int) -> str:
        """The template with its fields filled; a line that comes out empty is left out."""
        text = _FIELD.sub(lambda found: self._field(found[1].strip(), layer, label, row), label.template)
        return "\n".join(line.strip() for line in text.split("\n") if line.strip())

    def beyond(self, layer: Layer, row: int, figure: float | None = None) -> str:
        """The label of a value that its axis does not reach: as set, always with the value; of another figure where one
        is given."""
        number = self.figure(layer, row) if figure is None else figure
        value = written(number, self.number_text(layer), self.data.locale)
        text = self.text(layer, row)
        return text if value in text else f"{text} {value}".strip()

    def says(self, layer: Layer, row: int) -> str:
        """What a mark is called: its row's name and its figure."""
        number = written(self.figure(layer, row), self.number_text(layer), self.data.locale)
        name = self.names[row] if row < len(self.names) else ""
        return f"{name}: {number}" if name and number else name or number

    def _field(self, field: str, layer: Layer, label: Label, row: int) -> str:
        own = label.numbers.get(field)
        if field == "value":
            return written(self.figure(layer, row), own or self.number_text(layer), self.data.locale)
        if field == "name":
            return self.names[row]
        if field == "series":
            return layer.name
        if field == "share":
            return self._share_text(layer, row, own or WHOLE_PERCENT)
        if field == "step":
            numbers = self.data.column(layer.figure_column)
            if row == 0 or math.isnan(numbers[row]) or not numbers[row - 1]:
                return ""
            return written(float(numbers[row] / numbers[row - 1]), own or WHOLE_PERCENT, self.data.locale)
        if field.startswith("="):
            value = self.data.cells.get(field)
            if isinstance(value, ErrorValue):
                return ""
            return written(value, own or NumberText(), self.data.locale) if isinstance(value, float) else text_of(value)
        column = self.columns.get(field) or self.columns.get(field.casefold())
        if column is None:
            return ""
        value = self.data.values[column][row]
        if isinstance(value, float):
            return written(value, own or self.data.number_text(column), self.data.locale)
        return "" if isinstance(value, ErrorValue) else text_of(value)

    def share(self, layer: Layer, row: int) -> float:
        """A row's exact share of its layer's whole."""
        column = layer.figure_column
        numbers = [float(number) for number in self.data.column(column) if not math.isnan(number)]
        whole = exact_sum(numbers) + self.rest(layer) + self.gathered(layer)
        return self.figure(layer, row) / whole if whole else math.nan

    def rest(self, layer: Layer) -> float:
        """What a declared whole leaves over."""
        return self._sum(layer.extra_columns[1])

    def gathered(self, layer: Layer) -> float:
        """What small rows add up to that are drawn as one."""
        return self._sum(layer.extra_columns[0])

    def _sum(self, column: str) -> float:
        if not column:
            return 0.0
        return max(0.0, exact_sum(float(number) for number in self.data.column(column) if not math.isnan(number)))

    def _share_text(self, layer: Layer, row: int, how: NumberText) -> str:
        """Shares by largest remainder, so that they add up as shown; parts of a row where the layer stacks to one."""
        parts = self._parts(layer)
        key = (layer.key, how.decimals, row if parts else None)
        if key not in self._shares:
            if parts:
                figures = [float(self.data.column(one.values)[row]) for one in parts]
                self._shares[key] = rounded_shares(figures, how.decimals)
            else:
                numbers = list(map(float, self.data.column(layer.figure_column)))
                extras = [self.gathered(layer), self.rest(layer)]
                self._shares[key] = rounded_shares([*numbers, *extras], how.decimals)
        place = [one.key for one in parts].index(layer.key) if parts else row
        return written(self._shares[key][place], how, self.data.locale)

    def extra_shares(self, layer: Layer, how: NumberText) -> tuple[str, str]:
        """The shares of what is gathered and of what is left over, so that all shares add up."""
        self._share_text(layer, 0, how)
        held = self._shares[layer.key, how.decimals, None]
        gathered, rest = (written(share, how, self.data.locale) for share in held[-2:])
        return gathered, rest

    def _parts(self, layer: Layer) -> list[Stacking]:
        if not isinstance(layer, Stacking) or layer.stack != "share":
            return []
        same = [one for one in self.chart.layers if type(one) is type(layer) and not one.hidden]
        return [one for one in same if isinstance(one, Stacking) and one.stack == "share"]

    def _wanted(self, layer: Layer, label: Label, row: int) -> bool:
        if label.every > 1 and row % label.every:
            return False
        if label.when == "all":
            return True
        numbers = self.data.column(layer.figure_column)
        held = [i for i, number in enumerate(numbers) if not math.isnan(number)]
        if label.when == "ends":
            return bool(held) and row in (held[0], held[-1])
        if label.when == "above":
            share = self.share(layer, row)
            return not math.isnan(share) and share >= label.least
        return self.data.ids[row] in layer.rows or bool(layer.rules)
