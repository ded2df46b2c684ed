"""The Stage place: the chart's name and recipe, what Proof notices, and the chart itself."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.recipes.registry import RECIPES
from kavlet.desktop.look import UNIT
from kavlet.desktop.stage.view import StageView
from kavlet.desktop.store import Store


class StagePanel(QFrame):
    """The chart with a line above that names it, and one below with what a reader should know."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store = store
        self.view = StageView(store, self)
        self.name = QLabel()
        self.name.setObjectName("head")
        self.question = QLabel()
        self.question.setObjectName("quiet")
        self.proof = QLabel()
        self.proof.setObjectName("quiet")
        self.proof.setWordWrap(True)
        self.proof.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)

        head = QHBoxLayout()
        head.setSpacing(3 * UNIT)
        head.addWidget(self.name)
        head.addWidget(self.question)
        head.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, 3 * UNIT, 2 * UNIT)
        layout.setSpacing(UNIT)
        layout.addLayout(head)
        layout.addWidget(self.view, 1)
        layout.addWidget(self.proof)
        store.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Name the chart and say what Proof found."""
        chart = self._store.chart
        recipe = RECIPES.get(chart.recipe) if chart is not None else None
        self.name.setText(recipe.title if recipe else self.tr("Stage"))
        self.question.setText(
            QUESTIONS[recipe.question] if recipe else self.tr("The chart appears here as soon as there is a table.")
        )
        picture = self.view.picture
        if picture is None or self.view.problem:
            self.proof.setText(" ")
            return
        found = [finding.message for finding in picture.findings]
        self.proof.setText(self.tr("Proof: {}").format(" ".join(found)) if found else self.tr("Proof: nothing found."))
