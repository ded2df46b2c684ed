"""The Stage place: which chart, its recipe, X-ray, ink and size; the chart itself; its layers; what Proof notices."""

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QComboBox,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QSizePolicy,
    QSlider,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.charts.overrides import ORDER
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import named, say, words
from kavlet.core.pipeline.stages import NO_PICTURE
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.values.sizes import CHARTS
from kavlet.desktop.debounce import Debounce
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.proof.background_proof import BackgroundProof
from kavlet.desktop.proof.eye_button import EyeButton
from kavlet.desktop.stage.chart_picker import ChartPicker
from kavlet.desktop.stage.layer_commands import LayerCommands
from kavlet.desktop.stage.layer_strip import LayerStrip
from kavlet.desktop.stage.proof_line import ProofLine
from kavlet.desktop.stage.stepper import Stepper
from kavlet.desktop.stage.view import StageView
from kavlet.desktop.stage.view_rails import Rail
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT


class StagePanel(QFrame):
    """The chart with a line above that names it, its layers below, and what a reader should know."""

    recipes_wanted = Signal()
    ink_wanted = Signal(int)
    size_wanted = Signal(str)
    solid_wanted = Signal()

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self.view = StageView(store, self)
        self.strip = LayerStrip(store, self)
        self.stepper = Stepper(store, self)
        self.turn_rail, self.tilt_rail = Rail(store, "turn", self), Rail(store, "tilt", self)
        ink_label = self._make_controls()
        self.proof = ProofLine(self)
        self._rest = Debounce(store, self._at_rest, self)
        head = self._head(ink_label)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, 3 * UNIT, 2 * UNIT)
        layout.setSpacing(UNIT)
        layout.addLayout(head)
        around = QGridLayout()
        around.setSpacing(UNIT)
        around.addWidget(self.view, 0, 0)
        around.addWidget(self.tilt_rail, 0, 1)
        around.addWidget(self.turn_rail, 1, 0)
        layout.addLayout(around, 1)
        layout.addWidget(self.stepper)
        layout.addWidget(self.strip)
        layout.addWidget(self.proof)
        store.follow(self.refresh, view=True)
        self.refresh()

    def _make_controls(self) -> QLabel:
        """The line above the chart: its name, its recipe, X-ray, ink, final size."""
        store = self._store
        self.charts = ChartPicker(store)
        self.question = ElidedLabel()
        self.question.setObjectName("quiet")
        self.recipes = QPushButton(words("Recipes"))
        self.recipes.setToolTip(words("Your figures in every recipe (Ctrl+Shift+R)"))
        self.recipes.clicked.connect(self.recipes_wanted)
        self.xray = QToolButton()
        self.xray.setText(words("X-ray"))
        self.xray.setCheckable(True)
        self.xray.setToolTip(words("Show the helpers: how the chart is made (Ctrl+Shift+X)"))
        self.xray.clicked.connect(store.show_xray)
        self.solid = QToolButton()
        self.solid.setText(words("Solid"))
        self.solid.setCheckable(True)
        self.solid.setToolTip(words("Solid bodies, to be turned: Alt-drag the chart (Ctrl+Alt+S)"))
        self.solid.clicked.connect(self._wish_solid)
        self.ink = QSlider(Qt.Orientation.Horizontal)
        self.ink.setRange(0, 3)
        self.ink.setFixedWidth(64)
        self.ink.setAccessibleName(words("Ink"))
        self.ink.setToolTip(words("Ink: from bare to fully ruled"))
        self.ink.valueChanged.connect(self.ink_wanted)
        ink_label = QLabel(words("Ink"))
        ink_label.setObjectName("quiet")
        self.final_size = QComboBox()
        self.final_size.setAccessibleName(words("Size"))
        self.final_size.setToolTip(words("The chart’s final size"))
        self.final_size.addItem(words("own size"), "")
        for name in CHARTS:
            self.final_size.addItem(str(named(name)), name)
        self.final_size.activated.connect(lambda i: self.size_wanted.emit(str(self.final_size.itemData(i))))
        return ink_label

    def _head(self, ink_label: QLabel) -> QVBoxLayout:
        """Which chart, how to make another of it and look at it; below it what it asks, its ink and its size."""
        head, first, second = QVBoxLayout(), QHBoxLayout(), QHBoxLayout()
        head.setSpacing(2 * UNIT)
        for line in (first, second):
            line.setSpacing(2 * UNIT)
            head.addLayout(line)
        first.addWidget(self.charts, 1)
        for button in (self.recipes, self.xray, self.solid):
            button.setSizePolicy(QSizePolicy.Policy.Minimum, QSizePolicy.Policy.Preferred)  # one height for all
            first.addWidget(button)
        second.addWidget(self.question, 1)
        self.eye = EyeButton(self._store)
        for widget in (self.eye, ink_label, self.ink, self.final_size):
            second.addWidget(widget)
        self._of_charts: tuple[QWidget, ...] = (
            self.charts, self.xray, self.solid, self.eye, ink_label, self.ink, self.final_size,
        )  # fmt: skip
        return head

    def follow(self, layers: LayerCommands) -> None:
        """Let the commands on layers carry out what the strip and the ink ask for."""
        store, strip = self._store, self.strip
        self.ink_wanted.connect(lambda ink: layers.look(say("change ink"), {"ink": ink}))
        strip.order_wanted.connect(lambda keys: layers.look(say("order layers"), {ORDER: keys}))
        strip.hide_wanted.connect(lambda key: store.guard(lambda: layers.hide(key)))
        strip.add_wanted.connect(lambda place: store.guard(lambda: layers.add_menu(place)))
        strip.menu_wanted.connect(lambda key, place: store.guard(lambda: layers.menu(key, place)))

    def follow_proof(self, desk: BackgroundProof) -> None:
        """Say what is found of the chart in view."""

        def show() -> None:
            if not self._store.trying:
                found = desk.of_chart(self._store.chart.id)
                self.proof.show_findings(found, desk.proof.checks if desk.proof is not None else 0)

        desk.found.connect(show)
        self._store.shown.connect(show)

    def offers(self, part: Part, layers: LayerCommands) -> list[tuple[str, Callable[[], object]]]:
        """What fits a part under the mouse: hiding its layer, typing its text."""
        match part.kind:
            case "layer" | "mark":
                return [(words("Hide layer"), lambda: layers.hide(part.key))]
            case "text":
                return [(words("Edit {text}", text=named(part.key)), lambda: self.view.in_place.open(part))]
            case "label":
                return [(words("Edit labels"), lambda: self.view.in_place.open(part))]
            case _:
                return []

    def refresh(self) -> None:
        """Name the chart and say what Proof found."""
        chart, recipe = self._store.chart, self._store.recipe
        self.charts.refresh()
        if recipe is not None:
            self.question.setText(f"{words(recipe.title)} – {words(QUESTIONS[recipe.question])}")
        elif self._store.has_chart:
            self.question.setText(words("Layers of your own, without a recipe"))
        else:
            self.question.setText(words("The recipes come up as soon as two rows hold figures."))
        for widget in self._of_charts:
            widget.setVisible(self._store.has_chart)
        self.recipes.setEnabled(self._store.has_table)
        self.xray.setChecked(self._store.xray)
        picture = self._store.picture
        self._show_solid()
        self.strip.setVisible(self._store.has_chart)
        if picture is not NO_PICTURE:
            self.ink.blockSignals(True)
            self.ink.setValue(picture.build.chart.ink)
            self.ink.blockSignals(False)
            size_name = next(
                (
                    n
                    for n, size in CHARTS.items()
                    if abs(size.width - chart.width) + abs(size.height - chart.height) < 0.1
                ),
                "",
            )
            self.final_size.setCurrentIndex(max(0, self.final_size.findData(size_name)))
        self._rest.wait()

    def _wish_solid(self) -> None:
        self.solid_wanted.emit()
        self._show_solid()  # where a solid has no meaning, the button goes back

    def _show_solid(self) -> None:
        self.solid.setChecked(self._store.picture.build.chart.as_solid is not None)

    def _at_rest(self) -> None:
        """The layers' cards follow when nothing moves any more."""
        picture = self._store.picture
        if not self.view.dragging:
            self.strip.show_picture(picture)
