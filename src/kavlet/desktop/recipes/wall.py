"""The recipe wall: every recipe drawn live with the author's own figures, by question, best fits first."""

import msgspec
from msgspec import Struct
from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QHideEvent, QImage, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits, data_direction
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import Document
from kavlet.core.document.tables import input_parsing
from kavlet.core.document.tables.table_advice import features_of, with_proposals
from kavlet.core.messages import named, say, words
from kavlet.core.pipeline.stages import bare_scene
from kavlet.core.recipes.features import Features
from kavlet.core.recipes.recipe import QUESTIONS, Recipe, Setting
from kavlet.core.scene.primitives import Scene
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Size
from kavlet.core.values.number_text import PLAIN
from kavlet.desktop.dress.direction_choice import ACROSS, DOWN, READINGS
from kavlet.desktop.dress.fields import ChoiceField
from kavlet.desktop.recipes.tile import WIDTH, RecipeTile, drawn
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.worker import Worker

TILE = Size(187, 118)  # points, drawn 1.3 times larger, so that no word is under 9 pixels
BEST = 0.6  # from this score on, a recipe is among the best fits


class RecipeTrial(Struct, frozen=True, eq=False):
    """A document, and its table and chart (if any) that recipes are tried on."""

    document: Document
    table: str
    chart: str
    across: bool = False
    typed: dict[str, Setting] = {}
    ratio: float = 1.0  # of the screen's pixels


class DrawnTile(Struct, frozen=True, eq=False):
    """A recipe's chart without its texts, and its picture; `proposed` settings are those for want of which it fails."""

    scene: Scene
    image: QImage
    proposed: dict[str, Setting]


def _made(on: RecipeTrial, name: str) -> DrawnTile | KavletError:
    """A recipe's chart on a tile, or why there is none."""
    try:
        document, chart = on.document, on.chart
        if chart:
            document = chart_edits.try_recipe(document, chart, name)
        else:
            document, chart = edits.add_chart(document, on.table, name)
            document = data_direction.read_across(document, chart) if on.across else document
        before = document.chart(chart).settings
        document = edits.change_chart(document, chart, settings={**before, **on.typed})
        document = with_proposals(document, chart)
        proposed = {name: value for name, value in document.chart(chart).settings.items() if name not in before}
        scene = bare_scene(document, chart, TILE)
        return DrawnTile(scene, drawn(scene, on.ratio), proposed)
    except KavletError as error:
        return error


class RecipeWall(QFrame):
    """Chooses a recipe; tiles are made one at a time beside the window, so that it never waits for them."""

    chosen = Signal(str)
    closed = Signal()
    reading_wanted = Signal(bool)

    def __init__(self, store: Store, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("panel")
        self._store, self._worker = store, worker
        self.tiles: dict[str, RecipeTile] = {}
        self._due: list[str] = []
        self._order: list[str] = []
        self._drawn_for: tuple[object, ...] = ()
        self.across = False  # which way a new chart's figures would run
        self.typed: dict[str, dict[str, Setting]] = {}  # what was typed over proposals, by recipe
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._draw_next)
        head = QLabel(words("Recipes"))
        head.setObjectName("head")
        self.says = QLabel(words("Your figures, in every recipe. Choose one; undo takes it back."))
        self.says.setObjectName("quiet")
        self.search = QLineEdit()
        self.search.setPlaceholderText(words("Search: goal, share, count, over time …"))
        self.search.setAccessibleName(words("Search recipes"))
        self.search.setClearButtonEnabled(True)
        self.search.setFixedWidth(280)
        self.search.textChanged.connect(lambda _: self._arrange())
        self.run = ChoiceField(words("Figures run"), READINGS)
        self.run.setToolTip(words("Down the columns of its table, or across one of its rows"))
        self.run.chosen.connect(lambda way: self._read(way == ACROSS))
        self.close_button = QPushButton(words("Close"))
        self.close_button.clicked.connect(self.closed)
        top = QHBoxLayout()
        top.setSpacing(3 * UNIT)
        for widget in (head, self.says):
            top.addWidget(widget)
        top.addStretch(1)
        top.addWidget(self.run)
        top.addWidget(self.search)
        top.addWidget(self.close_button)
        self._inside = QWidget()
        self._grid = QGridLayout(self._inside)
        self._grid.setContentsMargins(0, 0, 2 * UNIT, 0)
        self._grid.setSpacing(3 * UNIT)
        self._grid.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        self._scroll.setWidget(self._inside)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(4 * UNIT, 3 * UNIT, 2 * UNIT, 3 * UNIT)
        layout.setSpacing(3 * UNIT)
        layout.addLayout(top)
        layout.addWidget(self._scroll, 1)
        store.follow(self._refresh)

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self._refresh()
        self.search.setFocus()

    def _refresh(self) -> None:
        """Draw the tiles anew when the table in view has changed and the wall is seen."""
        if not self.isVisible():
            return
        table, chart = self._store.table, self._store.chart
        if not self._store.has_table:
            return
        self.across = self.across and chart.table != table.id
        self.run.show_choice(ACROSS if self.across or (self._mine and chart.reading is not None) else DOWN)
        self.run.setVisible(bool(self._mine and chart.reading) or len(data_direction.figure_columns(table)) > 1)
        here = (table, chart, self._store.document.recipes)
        if len(here) == len(self._drawn_for) and all(a is b for a, b in zip(here, self._drawn_for, strict=True)):
            return
        self._drawn_for, self.typed = here, {}
        document = self._store.document
        self._worker.ask("wall", say("Drawing recipes"), lambda: features_of(document, table.id), self._take)

    def _take(self, of: Features) -> None:
        """Order the recipes by how they suit the table, and draw one after the other."""
        recipes, chart, table = recipes_of(self._store.document), self._store.chart, self._store.table
        scores = {name: recipe.suits(of) for name, recipe in recipes.items()}
        self._order = sorted(recipes, key=lambda name: -scores[name].score)
        for name, recipe in recipes.items():
            if name not in self.tiles:
                tile = RecipeTile(name, words(recipe.title), self._inside)
                tile.chosen.connect(self.chosen)
                tile.moved.connect(lambda key, tile=tile: self._move(tile, key))
                tile.proposed.connect(lambda setting, text, name=name: self._propose(name, setting, text))
                self.tiles[name] = tile
            self.tiles[name].reason = words(scores[name].reason or recipe.needs)
            self.tiles[name].current = chart.table == table.id and chart.recipe == name
        for name in [name for name in self.tiles if name not in recipes]:
            self.tiles.pop(name).deleteLater()
        self._due = list(self._order)
        self._arrange()
        self._timer.start()

    @property
    def drawing(self) -> bool:
        """Whether tiles are still to be drawn."""
        return bool(self._due)

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        if self._due or self._worker.expects("wall"):
            self._drawn_for = ()  # the rest is drawn when it is seen again
        self._worker.give_up("wall")

    def _draw_next(self) -> None:
        """Have the next tile's chart made beside the window; those of a table that is not in view any more are not."""
        if not self.isVisible():
            self._drawn_for = ()
        if not self._due or not self.isVisible():
            return
        name, tried = self._due[0], self._tried()
        tried = msgspec.structs.replace(tried, typed=self.typed.get(name, {}), ratio=self.devicePixelRatioF())
        self._worker.ask(
            "wall", say("Drawing recipes"), lambda: _made(tried, name), lambda made: self._drawn(name, made)
        )  # fmt: skip

    def _drawn(self, name: str, tile_or_error: DrawnTile | KavletError) -> None:
        """Show a tile, and go on with the next."""
        self._due = self._due[1:]
        tile = self.tiles.get(name)
        if tile is not None and isinstance(tile_or_error, KavletError):
            needs = recipes_of(self._store.document)[name].needs
            tile.show_problem(f"{tile_or_error.what} {tile_or_error.remedy or words(needs)}".strip())
        elif tile is not None and isinstance(tile_or_error, DrawnTile):
            locale = self._store.document.locale
            parts = [
                f"{named(name)} {written(value, PLAIN, locale)}"
                for name, value in tile_or_error.proposed.items()
                if isinstance(value, float)
            ]
            proposed = words("{settings}, proposed", settings=parts) if parts else ""
            figure = next(
                (
                    (parameter_name, value)
                    for parameter_name, value in tile_or_error.proposed.items()
                    if isinstance(value, float)
                ),
                ("", 0.0),
            )
            is_typed = bool(self.typed.get(name))
            sentence = say("with your {setting}") if is_typed else say("proposed: {setting}")
            reason = words(sentence.text, setting=named(figure[0])) if figure[0] else tile.reason
            tile.show_scene(tile_or_error.scene, tile_or_error.image, reason, pale=bool(proposed) and not is_typed)
            tile.setAccessibleDescription(proposed or reason)
            tile.show_proposal(figure[0], proposed, input_parsing.shown(figure[1], locale))
        self._timer.start()

    @property
    def _mine(self) -> str:
        """The chart in view where it reads the table in view; empty where choosing a recipe makes a new one."""
        return self._store.chart.id if self._store.chart_is_of_table else ""

    def _tried(self) -> RecipeTrial:
        """What recipes are tried on: the table in view, as the chart in view where that reads it."""
        return RecipeTrial(self._store.document, self._store.there.id, self._mine, self.across)

    def _read(self, across: bool) -> None:
        """Draw all tiles of figures that run the other way."""
        if self._mine:
            self.reading_wanted.emit(across)
            return
        self.across, self._drawn_for = across, ()
        self._refresh()

    def _propose(self, name: str, setting: str, text: str) -> None:
        """Take a figure typed over what a recipe proposes, and draw its tile with it."""
        self._store.guard(lambda: self._take_proposal(name, setting, text))

    def _take_proposal(self, name: str, setting: str, text: str) -> None:
        number = input_parsing.number_or_formula(text, self._store.document.locale, "") if text.strip() else None
        held = {one: value for one, value in self.typed.get(name, {}).items() if one != setting}
        self.typed[name] = held if number is None else {**held, setting: number}
        if name not in self._due:
            self._due.append(name)
            self._timer.start()

    def _matching(self) -> list[str]:
        sought = self.search.text().casefold().split()
        recipes = recipes_of(self._store.document)

        def fits(recipe: Recipe) -> bool:
            declared = (recipe.title, recipe.needs, recipe.known_as, QUESTIONS[recipe.question])
            text = " ".join((recipe.name, *declared, *map(words, declared))).casefold()
            return all(word in text for word in sought)

        return [name for name in self._order if name in recipes and fits(recipes[name])]

    def _groups(self) -> list[tuple[str, list[str]]]:
        """Best fits, then the others by question; what a search finds stands in one group."""
        recipes, names = recipes_of(self._store.document), self._matching()
        if self.search.text().strip():
            return [(words("Found"), names)]
        of = features_of(self._store.document, self._store.there.id)
        best = [name for name in names if recipes[name].suits(of).score >= BEST][: max(3, self._columns())]
        groups = [(words("Fits your figures best"), best)] if best else []
        for question, head in QUESTIONS.items():
            groups.append(
                (words(head), [name for name in names if name not in best and recipes[name].question == question])
            )
        return [(head, held) for head, held in groups if held]

    def _arrange(self) -> None:
        if not self._store.has_table or not self._order:
            return
        while self._grid.count():
            item = self._grid.takeAt(0)
            widget = item.widget() if item is not None else None
            if isinstance(widget, QLabel):
                widget.deleteLater()
            elif widget is not None:
                widget.hide()
        columns = self._columns()
        line = 0
        for head, names in self._groups():
            label = QLabel(head)
            label.setObjectName("head")
            label.setContentsMargins(0, 2 * UNIT if line else 0, 0, 0)
            self._grid.addWidget(label, line, 0, 1, columns)
            for i, name in enumerate(names):
                self._grid.addWidget(self.tiles[name], line + 1 + i // columns, i % columns)
                self.tiles[name].show()
            line += 1 + -(-len(names) // columns)

    def _columns(self) -> int:
        return max(1, (self._scroll.viewport().width() - 2 * UNIT) // (WIDTH + 3 * UNIT))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._arrange()

    def _shown(self) -> list[RecipeTile]:
        found = []
        for i in range(self._grid.count()):
            item = self._grid.itemAt(i)
            widget = item.widget() if item is not None else None
            if isinstance(widget, RecipeTile):
                found.append(widget)
        return found

    def _move(self, tile: RecipeTile, key: int) -> None:
        """Go to the nearest tile in the direction of an arrow key."""
        here = tile.geometry().center()
        best, score = None, 1e9
        for other in self._shown():
            there = other.geometry().center()
            dx, dy = there.x() - here.x(), there.y() - here.y()
            along, across = {
                int(Qt.Key.Key_Left): (-dx, dy), int(Qt.Key.Key_Right): (dx, dy),
                int(Qt.Key.Key_Up): (-dy, dx), int(Qt.Key.Key_Down): (dy, dx),
            }[key]  # fmt: skip
            if along > 4 and along + 3 * abs(across) < score:
                best, score = other, along + 3 * abs(across)
        if best is not None:
            best.setFocus()
            self._scroll.ensureWidgetVisible(best)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        elif event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Return) and self.search.hasFocus() and self._shown():
            first = self._shown()[0]
            if event.key() == Qt.Key.Key_Return:
                self.chosen.emit(first.name)
            else:
                first.setFocus()
        else:
            super().keyPressEvent(event)
