"""The Start place: seen while there is no table. Nothing on it is needed to go on; all of it leads to a table."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent, QShowEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.samples import Sample, samples, with_sample
from kavlet.core.messages import say, words
from kavlet.core.pipeline.stages import bare_scene, picture
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.scene.primitives import Scene
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.geometry import Size
from kavlet.desktop import document_loading, recent_files
from kavlet.desktop.languages import locale_name
from kavlet.desktop.start.cards import PICTURE, THUMBNAIL, Drawing, QuestionCard, RecentCard
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.worker import Worker

MAX_RECENT = 5
LEFT = 264  # pixels, of the column with the ways to figures


class StartPanel(QFrame):
    """Ways to figures on the left, questions with drawn examples on the right."""

    open_wanted = Signal()
    paste_wanted = Signal()
    empty_wanted = Signal()
    demo_wanted = Signal()
    path_wanted = Signal(object)
    sample_wanted = Signal(object)

    def __init__(self, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._worker = worker
        self._due: list[tuple[Drawing, Callable[[], Scene | None]]] = []
        self._asked = False
        self.recent: list[RecentCard] = []
        self.cards = [self._card(question) for question in QUESTIONS]
        layout = QHBoxLayout(self)
        layout.setContentsMargins(8 * UNIT, 6 * UNIT, 4 * UNIT, 4 * UNIT)
        layout.setSpacing(10 * UNIT)
        layout.addWidget(self._ways())
        layout.addWidget(self._questions(), 1)

    def _card(self, question: str) -> QuestionCard:
        held = [sample for sample in samples(locale_name().split("_")[0]) if sample.question == question]
        card = QuestionCard(held, self)
        card.chosen.connect(self.sample_wanted)
        return card

    def _ways(self) -> QWidget:
        """Opening, pasting, typing; below, what was opened last."""
        column = QWidget()
        column.setFixedWidth(LEFT)
        layout = QVBoxLayout(column)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        head = QLabel(words("Start with your figures"))
        head.setObjectName("title")
        text = QLabel(
            words(
                "Two columns are enough: one that names the rows, one of numbers. "
                "Drop a file here, open one, or copy cells anywhere and paste them."
            )
        )
        text.setObjectName("quiet")
        text.setWordWrap(True)
        layout.addWidget(head)
        layout.addWidget(text)
        layout.addSpacing(2 * UNIT)
        self.buttons: dict[str, QPushButton] = {}
        for name, label, wish in (
            ("open", words("Open a table or document…"), self.open_wanted),
            ("paste", words("Paste cells"), self.paste_wanted),
            ("empty", words("Type into an empty table"), self.empty_wanted),
            ("demo", words("Look at the demo document"), self.demo_wanted),
        ):
            button = QPushButton(label)
            if name == "open":
                button.setObjectName("main")
            button.clicked.connect(wish)
            self.buttons[name] = button
            layout.addWidget(button)
        layout.addSpacing(5 * UNIT)
        self._recent_head = QLabel(words("Opened last"))
        self._recent_head.setObjectName("head")
        layout.addWidget(self._recent_head)
        self._recent = QVBoxLayout()
        self._recent.setSpacing(2 * UNIT)
        layout.addLayout(self._recent)
        layout.addStretch(1)
        return column

    def _questions(self) -> QWidget:
        right = QWidget()
        layout = QVBoxLayout(right)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        head = QLabel(words("Or with a question, and figures to type over"))
        head.setObjectName("title")
        inside = QWidget()
        self._grid = QGridLayout(inside)
        self._grid.setContentsMargins(0, 2 * UNIT, 0, 0)
        self._grid.setHorizontalSpacing(5 * UNIT)
        self._grid.setVerticalSpacing(4 * UNIT)
        self._grid.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        self._scroll.setWidget(inside)
        layout.addWidget(head)
        layout.addWidget(self._scroll, 1)
        return right

    # What is shown

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self._show_recent()
        self._arrange()
        if not self._asked:
            self._asked = True
            self._due = [(card.drawing, lambda card=card: _example(card.samples[0])) for card in self.cards]  # type: ignore[misc]
        self._due += [(card.drawing, lambda card=card: _first_chart(card.path)) for card in self.recent]  # type: ignore[misc]
        self._draw_next()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._arrange()

    def _arrange(self) -> None:
        wide = self._scroll.viewport().width() + 5 * UNIT
        columns = max(1, wide // (PICTURE.width() + 5 * UNIT))
        for i, card in enumerate(self.cards):
            self._grid.addWidget(card, i // columns, i % columns, Qt.AlignmentFlag.AlignTop)

    def _show_recent(self) -> None:
        paths = recent_files.recent()[:MAX_RECENT]
        self._recent_head.setVisible(bool(paths))
        if [card.path for card in self.recent] == paths:
            return
        for card in self.recent:
            card.hide()
            card.deleteLater()
        self.recent = [RecentCard(path) for path in paths]
        for card in self.recent:
            card.chosen.connect(self.path_wanted)
            self._recent.addWidget(card)

    @property
    def drawing(self) -> bool:
        """Whether pictures are still to be drawn."""
        return bool(self._due)

    def _draw_next(self) -> None:
        """Have the next picture made beside the window."""
        if not self._due or not self.isVisible():
            return
        drawing, make = self._due[0]

        def take(scene: Scene | None) -> None:
            self._due = self._due[1:]
            if scene is not None and drawing in self._drawings():
                drawing.show_scene(scene)
            self._draw_next()

        self._worker.ask("start", say("Drawing examples"), make, take, lambda _: take(None))

    def _drawings(self) -> list[Drawing]:
        return [*(card.drawing for card in self.cards), *(card.drawing for card in self.recent)]


def _example(sample: Sample) -> Scene:
    """A sample's chart as it looks on a card: in the reader's numbers, without its title."""
    document, chart = with_sample(Document(locale=document_loading.known(locale_name())), sample)
    document = edits.change_chart(document, chart, title="")
    size = Size(PICTURE.width() * 0.94, PICTURE.height() * 0.94)
    return picture(document, recalculate(document.tables), chart, size).scene


def _first_chart(path: Path) -> Scene | None:
    """The first chart of a file; None where there is none. Raises KavletError where it can't be read or drawn."""
    document, _ = document_loading.opened(path, locale_name())
    if not document.charts:
        return None
    size = Size(THUMBNAIL.width() * 2.2, THUMBNAIL.height() * 2.2)
    return bare_scene(document, document.charts[0].id, size)
