"""The figures that a chart shows, as a small table of texts: for readers who don't see it, and for other programs."""

from msgspec import Struct

from kavlet.core.layout.data import Data
from kavlet.core.messages import words_in
from kavlet.core.pipeline.stages import Picture
from kavlet.core.spreadsheet.cells import ErrorValue, text_of
from kavlet.core.text.numbers import written


class FigureTable(Struct, frozen=True):
    """A heading, the columns' names, and rows of texts; which columns hold numbers."""

    heading: str
    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    numbers: tuple[bool, ...]

    @property
    def text(self) -> str:
        """Rows as lines, cells apart by tabs."""
        return "\n".join("\t".join(row) for row in (self.head, *self.rows))


def figures_of(picture: Picture) -> tuple[FigureTable, ...]:
    """The figures of each panel of a chart: its rows by name, a column for each that a layer shows."""
    return tuple(
        _of(picture, number, panel.title if len(picture.build.panels) > 1 else "")
        for number, panel in enumerate(picture.build.panels)
    )


def _of(picture: Picture, number: int, title: str) -> FigureTable:
    panel = picture.build.panels[number]
    chart, data = panel.chart, panel.data
    columns: list[str] = [chart.names] if chart.names in data.values else []
    for layer in chart.layers:
        if layer.helper or layer.hidden:
            continue
        asked = [layer.across_column, layer.figure_column, *getattr(layer, "parts", ()), getattr(layer, "sizes", "")]
        columns += [one for one in asked if one and one in data.values and one not in columns]
    head = tuple(data.titles.get(one, one) for one in columns)
    rows = tuple(tuple(_cell(data, one, row) for one in columns) for row in range(data.rows))
    numbers = tuple(any(isinstance(value, float) for value in data.values[one]) for one in columns)
    heading = title or picture.figure.title or words_in(data.locale, "Figures")
    return FigureTable(heading, head, rows, numbers)


def _cell(data: Data, column: str, row: int) -> str:
    value = data.values[column][row]
    if isinstance(value, float):
        return written(value, data.number_text(column), data.locale)
    return "" if isinstance(value, ErrorValue) else text_of(value)
