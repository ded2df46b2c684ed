"""Steps through the periods of a chart: a slider under the Stage, with play and keys."""

import math

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSlider, QToolButton, QWidget

from kavlet.core.document import dressing
from kavlet.core.document.document import Document
from kavlet.core.figures.cells import text_of
from kavlet.core.figures.table import HEADER
from kavlet.core.messages import say, words
from kavlet.core.recipes.recipe import Steps
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
        self.play.setAccessibleName(words("Play the periods"))
        self.play.setToolTip(words("Play the periods"))
        self.play.toggled.connect(self._toggle)
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName(words("Period"))
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
        store.follow(self.refresh)
        self.refresh()

    def periods(self) -> list[str]:
        """The periods of the chart in view, in the order of first appearance; none for charts that do not step."""
        chart, steps = self._store.chart, self._steps()
        held = chart.roles.get(steps.role) if steps is not None else None
        place = self._store.document.table(chart.table).place(held[0]) if held else -1
        if place < 0:
            return []
        values = self._store.values.of(chart.table)[place].values[HEADER:]
        return list(dict.fromkeys(text_of(value) for value in values))

    def refresh(self) -> None:
        """Show where the chart stands."""
        periods, chart = self.periods(), self._store.chart
        self.setVisible(len(periods) > 1)
        if len(periods) < 2:
            self._timer.stop()
            return
        steps = self._steps()
        step = chart.settings.get(steps.parameter, 1.0) if steps is not None else 1.0
        at = float(step) if isinstance(step, float | int) else 1.0
        self.slider.blockSignals(True)
        self.slider.setRange(0, (len(periods) - 1) * TWEENS)
        self.slider.setValue(round((at - 1) * TWEENS))
        self.slider.blockSignals(False)
        self.period.setText(periods[max(0, min(len(periods) - 1, math.floor(at + 1e-9) - 1))])

    def _steps(self) -> Steps | None:
        """How the recipe of the chart in view steps; None where it does not."""
        recipe = self._store.recipe
        return recipe.steps if recipe is not None else None

    def _at(self, step: float) -> Document | None:
        """The document with the chart at a step; None where it does not step."""
        chart, steps = self._store.chart, self._steps()
        if steps is None:
            return None
        return dressing.set_setting(self._store.document, chart.id, steps.parameter, step)

    def _moved(self, value: int) -> None:
        """Show the step, or the way between two; a key's step is taken at once."""
        document = self._at(1 + value / TWEENS)
        if document is None:
            return
        if self.slider.isSliderDown() or self._timer.isActive():
            self._store.try_out(document)
        else:
            self._store.apply(say("step to another period"), document)

    def _settle(self) -> None:
        """Take the nearest period."""
        document = self._at(1.0 + round(self.slider.value() / TWEENS))
        if document is not None:
            self._store.apply(say("step to another period"), document)

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
