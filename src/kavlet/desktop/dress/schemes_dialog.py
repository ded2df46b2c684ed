"""Proposes colours: schemes from a house colour, a picture or nothing, each drawn on the author's own chart."""

import io
from pathlib import Path

import msgspec
from PySide6.QtCore import QSize, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import atomic, pictures
from kavlet.core.messages import say, words
from kavlet.core.pipeline.stages import bare_scene
from kavlet.core.scene.primitives import Scene
from kavlet.core.styling.schemes import COUNT, Scheme, leading, schemes
from kavlet.core.styling.style import resolve
from kavlet.core.values.colour import Colour, colour
from kavlet.core.values.errors import KavletError, attempt
from kavlet.core.values.geometry import Size
from kavlet.desktop.dress.fields import ChoiceField, TextField
from kavlet.desktop.start.cards import Drawing
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT, qcolor
from kavlet.desktop.worker import Worker

TILE = QSize(236, 146)
TILES, COLUMNS = 6, 3
SWATCH = 16
SEEN = 96  # pixels, of the longer side of a picture whose colours are taken
NOTHING, HOUSE, PICTURE = "nothing", "house", "picture"


class Swatches(QWidget):
    """The colours of a scheme, side by side."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._colours: tuple[str, ...] = ()
        self.setFixedSize(COUNT * SWATCH, SWATCH)

    def show_colours(self, colours: tuple[str, ...]) -> None:
        self._colours = colours
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        for i, code in enumerate(self._colours):
            painter.fillRect(i * SWATCH, 0, SWATCH, SWATCH, qcolor(code))
        painter.end()


class SchemeTile(QWidget):
    """One proposal: the chart in its colours, the colours, and whether it stays in the next set."""

    chosen = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.scheme: Scheme | None = None
        self.drawing = Drawing("", TILE, self)
        self.drawing.chosen.connect(self.chosen)
        self.swatches = Swatches()
        self.name = QLabel()
        self.name.setObjectName("quiet")
        self.keep = QCheckBox(words("Keep"))
        self.keep.setToolTip(words("It stays among the next proposals"))
        foot = QHBoxLayout()
        foot.setSpacing(2 * UNIT)
        foot.addWidget(self.swatches)
        foot.addWidget(self.name, 1)
        foot.addWidget(self.keep)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.drawing)
        layout.addLayout(foot)

    def show_scheme(self, scheme: Scheme) -> None:
        """Show another proposal; its chart is drawn later."""
        self.scheme = scheme
        self.swatches.show_colours(scheme.colours)
        self.name.setText(str(scheme.title))
        self.drawing.setAccessibleName(f"{scheme.title}: {', '.join(scheme.colours)}")
        self.drawing.scene = None
        self.drawing.update()


class SchemesDialog(QDialog):
    """`taken` hands on the colours that were chosen, and whether they are for the whole document."""

    taken = Signal(object, bool)

    def __init__(self, store: Store, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store, self._worker = store, worker
        self._document, self._chart = store.document, store.here.id
        style = resolve(store.here.dress, self._document.house)
        self._ground, self._turn, self._of_picture = style.ground, 0, list[Colour]()
        self._due: list[SchemeTile] = []
        self.setWindowTitle(words("Propose colours"))
        self.source = ChoiceField(
            words("From"),
            [(NOTHING, words("nothing")), (HOUSE, words("a house colour")), (PICTURE, words("a picture"))],
        )
        self.source.show_choice(HOUSE)
        self._from = HOUSE
        self.source.chosen.connect(self._choose_source)
        self.house = TextField(words("House colour"))
        self.house.show_text(style.palette[0].hex)
        self.house.setMaximumWidth(120)
        self.house.committed.connect(lambda _text: self.propose())
        self.others = QPushButton(words("Others"))
        self.others.setToolTip(words("Propose others; those you keep stay"))
        self.others.clicked.connect(self.next_set)
        self.tiles = [SchemeTile() for _ in range(TILES)]
        self.says = QLabel()
        self.says.setObjectName("alarm")
        self.for_document = QCheckBox(words("For all charts of the document"))
        self.take = QPushButton(words("Take these colours"))
        self.take.setObjectName("main")
        self.take.clicked.connect(self._take)
        self.close_button = QPushButton(words("Cancel"))
        self.close_button.clicked.connect(self.reject)
        self._chosen = 0
        self._lay_out()
        self.propose()

    def _lay_out(self) -> None:
        top, foot, grid = QHBoxLayout(), QHBoxLayout(), QGridLayout()
        for line in (top, foot):
            line.setSpacing(2 * UNIT)
        top.addWidget(QLabel(words("From")))
        top.addWidget(self.source)
        top.addWidget(self.house)
        top.addStretch(1)
        top.addWidget(self.others)
        grid.setSpacing(4 * UNIT)
        for i, tile in enumerate(self.tiles):
            tile.chosen.connect(lambda i=i: self._choose(i))
            grid.addWidget(tile, i // COLUMNS, i % COLUMNS)
        foot.addWidget(self.for_document)
        foot.addStretch(1)
        foot.addWidget(self.take)
        foot.addWidget(self.close_button)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(4 * UNIT)
        layout.addLayout(top)
        layout.addLayout(grid)
        layout.addWidget(self.says)
        layout.addLayout(foot)

    # What is proposed

    def _choose_source(self, source: str) -> None:
        if source == PICTURE and not self._ask_picture():
            self.source.show_choice(self._from)
            return
        self._from = source
        self.house.setVisible(source == HOUSE)
        self.propose()

    def _ask_picture(self) -> bool:
        kinds = " ".join(f"*{kind}" for kind in pictures.KINDS if kind != ".svg")
        name, _ = QFileDialog.getOpenFileName(self, words("Colours of a picture"), str(Path.home()), kinds)
        return bool(name) and self._store.guard(lambda: self.read_picture(Path(name)))

    def read_picture(self, path: Path) -> None:
        """Take the leading colours of a picture. Raises KavletError for a file that is none."""
        from PIL import Image

        content = atomic.read(path, pictures.MAX_BYTES)
        if not pictures.loads(content, path.name).picture.content:
            raise KavletError(say("{file} is no picture of pixels.", file=path.name))
        with Image.open(io.BytesIO(content)) as image:
            image.thumbnail((SEEN, SEEN))
            held = image.convert("RGB").tobytes()
        pixels = [Colour(*(part / 255 for part in held[i : i + 3])) for i in range(0, len(held), 3)]
        self._of_picture = leading(pixels)

    def _seeds(self) -> list[Colour]:
        """The colours that lead. Raises KavletError where the house colour is none."""
        if self._from == HOUSE:
            return [colour(self.house.text().strip())]
        return self._of_picture if self._from == PICTURE else []

    def next_set(self) -> None:
        """Propose others, but for those that are kept."""
        self._turn += 1
        self.propose()

    def propose(self) -> None:
        """Fill the tiles that are not kept."""
        self.says.setText("")
        attempt(self._propose, self.says.setText)

    def _propose(self) -> None:
        proposals = schemes(self._seeds(), self._ground, 2 * TILES, self._turn)
        kept_schemes = {tile.scheme for tile in self.tiles if tile.keep.isChecked()}
        fresh = [scheme for scheme in proposals if scheme not in kept_schemes]
        for tile in self.tiles:
            if tile.scheme in kept_schemes:
                continue
            tile.setVisible(bool(fresh))
            if fresh:
                tile.show_scheme(fresh.pop(0))
                self._due.append(tile)
        if len(proposals) < TILES:
            self.says.setText(words("More colours that go with it are hardly told apart."))
        self._choose(self._chosen)
        self._draw_next()

    @property
    def drawing(self) -> bool:
        """Whether charts are still to be drawn."""
        return bool(self._due)

    def _draw_next(self) -> None:
        if not self._due:
            return
        tile = self._due[0]
        scheme, document, chart = tile.scheme, self._document, self._chart
        if scheme is None:
            self._due = self._due[1:]
            self._draw_next()
            return

        def take(scene: Scene | None) -> None:
            self._due = [one for one in self._due if one is not tile]
            if scene is not None and tile.scheme is scheme:
                tile.drawing.show_scene(scene)
            self._draw_next()

        self._worker.ask(
            "schemes",
            say("Drawing proposals"),
            lambda: _drawn(document, chart, scheme),
            take,
            lambda _: take(None),
            self,
        )

    def _choose(self, place: int) -> None:
        self._chosen = place
        for i, tile in enumerate(self.tiles):
            tile.drawing.current = i == place
            tile.drawing.update()

    def _take(self) -> None:
        scheme = self.tiles[self._chosen].scheme
        if scheme is not None:
            self.taken.emit(scheme.colours, self.for_document.isChecked())
            self.accept()

    def done(self, result: int) -> None:
        self._due = []
        super().done(result)


def _drawn(document: Document, chart: str, scheme: Scheme) -> Scene:
    """The chart in the colours of a scheme, as it looks on a tile. Raises KavletError where it can't be drawn."""
    entry = document.chart(chart)
    dress = msgspec.structs.replace(entry.dress, palette=scheme.colours)
    made = edits.change_chart(document, chart, dress=dress)
    return bare_scene(made, chart, Size(TILE.width() * 0.9, TILE.height() * 0.9))
