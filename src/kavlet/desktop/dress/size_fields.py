"""The chart's own size: width and height in millimetres, the proportion kept by choice."""

from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.tables import input_parsing
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.core.values.lengths import LARGEST, SMALLEST
from kavlet.core.values.sizes import MM
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT


class SizeFields(QWidget):
    """Each change is one undoable edit."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.width_field = TextField(words("Width in mm"))
        self.height_field = TextField(words("Height in mm"))
        self.keeps = QCheckBox(words("Keep the proportion"))
        self.keeps.setChecked(True)
        for field, side in ((self.width_field, "width"), (self.height_field, "height")):
            field.committed.connect(lambda text, side=side: self._typed(side, text))
        line = QHBoxLayout()
        line.setSpacing(UNIT)
        for widget in (self.width_field, QLabel("×"), self.height_field, QLabel("mm")):
            line.addWidget(widget)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addLayout(line)
        layout.addWidget(self.keeps)

    def refresh(self) -> None:
        """Show the size of the chart in view."""
        chart, locale = self._store.chart, self._store.document.locale
        self.width_field.show_text(input_parsing.shown(round(chart.width / MM, 1), locale))
        self.height_field.show_text(input_parsing.shown(round(chart.height / MM, 1), locale))

    def _typed(self, side: str, text: str) -> None:
        def edit(document: Document, chart: ChartEntry) -> Document:
            found = input_parsing.number_or_formula(text, document.locale, "mm")
            name = say("Width") if side == "width" else say("Height")
            if isinstance(found, str):
                found = input_parsing.checked_formula(self._store.values, chart.table, found, name)
            factor = found * MM / getattr(chart, side)
            keeps = self.keeps.isChecked()
            sides = {
                "width": chart.width * (factor if keeps or side == "width" else 1.0),
                "height": chart.height * (factor if keeps or side == "height" else 1.0),
            }
            if not all(SMALLEST <= length <= LARGEST for length in sides.values()):
                low, high = round(SMALLEST / MM, 1), round(LARGEST / MM)
                raise KavletError(say("Width and height go from {low} to {high} mm.", low=low, high=high))
            return edits.change_chart(document, chart.id, **sides)

        self._store.edit_chart(say("set size"), edit)
