"""Reuse between edits: the same object in, the same object out."""

import msgspec

from kavlet.core.building.bound import bound_entry
from kavlet.core.building.stages import Picture, Still, still, turned, unturned
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.figures.recalculate import Values, recalculate


class Pictures:
    """Keeps the last values and pictures, and reuses what did not change: the same object in, the same object out."""

    def __init__(self) -> None:
        self._values: Values | None = None
        self._kept: dict[str, tuple[tuple[object, ...], Still, ChartEntry, Picture]] = {}

    def values(self, document: Document) -> Values:
        """The document's values; only what depends on changed cells is evaluated again."""
        if self._values is None or self._values.tables is not document.tables:
            self._values = recalculate(document.tables, self._values)
        return self._values

    def forget(self, document: Document) -> None:
        """Let go what is kept of charts that a document does not hold any more."""
        held = {chart.id for chart in document.charts}
        self._kept = {chart: kept for chart, kept in self._kept.items() if chart in held}

    def picture(self, document: Document, chart: str) -> Picture:
        """The chart's picture. Raises KavletError when the table does not fit its recipe."""
        values = self.values(document)
        entry = document.chart(chart)
        reads: tuple[object, ...] = (
            document.locale, document.theme, document.palette, document.palettes, document.pictures, document.recipes,
            document.table(entry.table), *values.of(entry.table),
        )  # fmt: skip
        if any(text.startswith("=") for text in _formulas_of(entry)):
            reads = (*reads, values)
        kept = self._kept.get(chart)
        same = (
            kept is not None and len(kept[0]) == len(reads) and all(a is b for a, b in zip(kept[0], reads, strict=True))
        )
        if kept is not None and same and kept[2] is entry:
            return kept[3]
        shown = bound_entry(entry, document, values)
        bare = msgspec.structs.replace(shown, dress=unturned(shown))
        laid = kept[1] if kept is not None and same and kept[1].entry == bare else still(document, values, bare, None)
        made = turned(laid, shown)
        self._kept[chart] = (reads, laid, entry, made)
        return made


def _formulas_of(entry: ChartEntry) -> list[str]:
    """What of a chart may read any cell."""
    texts = [
        entry.title,
        entry.subtitle,
        entry.source,
        *(note.text for note in entry.notes),
        *(s for s in entry.settings.values() if isinstance(s, str)),
    ]
    return [
        *texts,
        *(
            "="
            for value in entry.dress.overrides.values()
            if isinstance(value, str) and (value.startswith("=") or "{=" in value)
        ),
    ]
