"""Steps through the periods of a chart, or the rows it reads across: a slider under the Stage, a list, play, keys."""

import math

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QSlider, QToolButton, QWidget

from kavlet.core.document.charts import data_direction, period_steps
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.tables.evaluated_table import settled
from kavlet.core.messages import Message, say, words
from kavlet.desktop.dress.fields import PickField
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT

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
        self.period = PickField(words("Period or row"), [])
        self.period.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.period.setMinimumContentsLength(12)
        self.period.chosen.connect(lambda place: self._take(int(place) + 1.0))
        self.columns = QToolButton()
        self.columns.setText(words("Columns"))
        self.columns.setToolTip(words("Which columns the chart reads across a row"))
        self.columns.clicked.connect(self._offer_columns)
        self._timer = QTimer(self)
        self._timer.setInterval(PACE)
        self._timer.timeout.connect(self._tick)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        for widget, stretch in ((self.play, 0), (self.slider, 1), (self.period, 0), (self.columns, 0)):
            layout.addWidget(widget, stretch)
        store.follow(self.refresh)
        self.refresh()

    def periods(self) -> list[str]:
        """What there is to step through: the periods of the chart in view, in the order of first appearance, or the
        rows it may read across; none for charts that do not step."""
        chart, store = self._store.chart, self._store
        if chart.reading is not None:
            return data_direction.row_names(store.document, chart.reading.table)
        return list(period_steps.periods(store.document, store.values, chart))

    def refresh(self) -> None:
        """Show where the chart stands."""
        periods, chart = self.periods(), self._store.chart
        self.setVisible(len(periods) > 1 or chart.reading is not None)
        self.columns.setVisible(chart.reading is not None)
        if len(periods) < 2:
            self._timer.stop()
        for widget in (self.play, self.slider, self.period):
            widget.setEnabled(len(periods) > 1)
        at = self._place()
        self.slider.blockSignals(True)
        self.slider.setRange(0, max(0, len(periods) - 1) * TWEENS)
        self.slider.setValue(round((at - 1) * TWEENS))
        self.slider.blockSignals(False)
        self.period.set_choices([(str(i), name) for i, name in enumerate(periods)])
        self.period.show_choice(str(max(0, min(len(periods) - 1, math.floor(at + 1e-9) - 1))))

    def _place(self) -> float:
        """The period or row the chart stands at, counted from 1."""
        chart = self._store.chart
        if chart.reading is not None:
            return chart.reading.row + 1.0
        return period_steps.position(self._store.document, chart)

    @property
    def _steps(self) -> bool:
        """Whether the chart in view steps."""
        chart = self._store.chart
        return chart.reading is not None or period_steps.steps_of(self._store.document, chart) is not None

    @staticmethod
    def _at(document: Document, chart: ChartEntry, step: float) -> Document:
        """A document with its chart at a step; the same one where the chart does not step."""
        steps = period_steps.steps_of(document, chart)
        if chart.reading is not None:
            row = round(step) - 1
            return document if row == chart.reading.row else data_direction.read_row(document, chart.id, row)
        return look_edits.set_setting(document, chart.id, steps.parameter, step) if steps is not None else document

    def _name(self) -> Message:
        return say("read another row") if self._store.chart.reading is not None else say("step to another period")

    def _offer_columns(self) -> None:
        """A list of the columns that may be read, those that are ticked."""
        menu, chart = QMenu(self), self._store.chart
        if chart.reading is None:
            return
        source = self._store.document.table(chart.reading.table)
        for column in data_direction.figure_columns(settled(self._store.document, source.id)):
            action = menu.addAction(str(source.called(source.place(column))))
            action.setCheckable(True)
            action.setChecked(column in chart.reading.columns)
            action.triggered.connect(lambda on, column=column: self._read_column(column, on))
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        menu.popup(self.columns.mapToGlobal(self.columns.rect().topLeft()))

    def _read_column(self, column: str, on: bool) -> None:
        self._store.edit_chart(
            say("read other columns"),
            lambda document, chart: data_direction.with_column(document, chart.id, column, on),
        )

    def _moved(self, value: int) -> None:
        """Show the step, or the way between two; a key's step is taken at once."""
        step = 1 + value / TWEENS
        if not (self.slider.isSliderDown() or self._timer.isActive()):
            self._take(step)
        elif self._steps:
            self._store.try_out(self._at(self._store.document, self._store.chart, step))

    def _settle(self) -> None:
        """Take the nearest period."""
        self._take(1.0 + round(self.slider.value() / TWEENS))

    def _take(self, step: float) -> None:
        if self._steps:
            self._store.edit_chart(self._name(), lambda document, chart: self._at(document, chart, step))

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
