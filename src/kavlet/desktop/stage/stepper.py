"""Steps through the periods of a chart: a slider under the Stage, with play and keys."""

import math

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSlider, QToolButton, QWidget

from kavlet.core.document import edits
from kavlet.core.figures.cells import text_of
from kavlet.core.figures.table import HEADER
from kavlet.desktop.look import UNIT
from kavlet.desktop.store import Store

TWEENS = 20  # shown steps from one period to the next
PACE = 40  # milliseconds from one to the next while playing


class Stepper(QWidget):
    """Seen only for charts that step. Moving only tries out; letting go on a period takes it, as one edit."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.play = QToolButton()
        self.play.setText("▶")
        self.play.setCheckable(True)
        self.play.setAccessibleName(self.tr("Play the periods"))
        self.play.setToolTip(self.tr("Play the periods"))
        self.play.toggled.connect(self._toggle)
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName(self.tr("Period"))
        self.slider.setSingleStep(TWEENS)
        self.slider.setPageStep(TWEENS)
        self.slider.valueChanged.connect(self._moved)
        self.slider.sliderReleased.connect(self._settle)
        self.period = QLabel()
        self.period.setMinimumWidth(90)
        self._timer = QTimer(self)
        self._timer.setInterval(PACE)
        self._timer.timeout.connect(self._tick)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        for widget, stretch in ((self.play, 0), (self.slider, 1), (self.period, 0)):
            layout.addWidget(widget, stretch)
        store.changed.connect(self.refresh)
        self.refresh()

    def periods(self) -> list[str]:
        """The periods of the chart in view, in the order of first appearance; none for charts that do not step."""
        chart = self._store.chart
        if chart is None or chart.recipe != "stepping" or not chart.roles.get("period"):
            return []
        table = self._store.document.table(chart.table)
        place = table.place(chart.roles["period"][0])
        if place < 0:
            return []
        values = self._store.values.of(chart.table)[place].values[HEADER:]
        return list(dict.fromkeys(text_of(value) for value in values))

    def refresh(self) -> None:
        """Show where the chart stands."""
        periods, chart = self.periods(), self._store.chart
        self.setVisible(len(periods) > 1)
        if len(periods) < 2 or chart is None:
            self._timer.stop()
            return
        step = chart.settings.get("step", 1.0)
        at = float(step) if isinstance(step, float | int) else 1.0
        self.slider.blockSignals(True)
        self.slider.setRange(0, (len(periods) - 1) * TWEENS)
        self.slider.setValue(round((at - 1) * TWEENS))
        self.slider.blockSignals(False)
        self.period.setText(periods[max(0, min(len(periods) - 1, math.floor(at + 1e-9) - 1))])

    def _moved(self, value: int) -> None:
        """Show the step, or the way between two; a key's step is taken at once."""
        chart = self._store.chart
        if chart is None:
            return
        document = edits.set_setting(self._store.document, chart.id, "step", 1 + value / TWEENS)
        if self.slider.isSliderDown() or self._timer.isActive():
            self._store.try_out(document)
        else:
            self._store.apply(self.tr("step to another period"), document)

    def _settle(self) -> None:
        """Take the nearest period."""
        chart = self._store.chart
        if chart is None:
            return
        near = round(self.slider.value() / TWEENS)
        document = edits.set_setting(self._store.document, chart.id, "step", 1.0 + near)
        self._store.apply(self.tr("step to another period"), document)

    def _toggle(self, on: bool) -> None:
        self.play.setText("❚❚" if on else "▶")
        if on:
            if self.slider.value() >= self.slider.maximum():
                self.slider.setValue(0)
            self._timer.start()
        else:
            self._timer.stop()
            self._settle()

    def _tick(self) -> None:
        if self.slider.value() >= self.slider.maximum():
            self.play.setChecked(False)
            return
        self.slider.setValue(self.slider.value() + 1)
