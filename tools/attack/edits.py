"""Random edits of the real window, by its commands, typed figures and looks, drags on the chart and the page.

After each, no picture holds what is no number; now and then all pictures are the same as drawn afresh, and the document
as saved and opened again. At last everything is undone and done again, exactly.
"""

import random
import sys
import tempfile
import traceback
from collections import Counter
from functools import partial
from pathlib import Path
from typing import Any

from PySide6.QtCore import QPointF, QSettings, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QFileDialog, QInputDialog, QMenu, QMessageBox, QWidget

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import svg
from kavlet.core.interaction.offers import offers
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.cell_input import typed
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect
from kavlet.desktop.main import Window, application, open_window

LOOKED_OVER_EVERY = 40
FORMULAS = ("=1/0", "=NA()", "=B2*2", "=B2&B3", "=SUM(B:B)", "=A1")
FIGURES: tuple[Any, ...] = (0.0, 1.0, -3.5, 1e308, -1e308, 1e-300, 12345678.9, None, "Gate", "", True, "٣", "x" * 300)
LEFT_OUT = ("close", "new_document", "save", "save_as", "full_screen")
LEFT_OUT_FROM = ("deliver", "language", "open_", "print", "present", "earlier", "keep_")
EXACT = ("Mnan", "NaN", "nan ", "inf ", '"nan', '"inf')


class Hands:
    """Does one random thing after another."""

    def __init__(self, window: Window, chance: random.Random) -> None:
        self._window, self._chance = window, chance

    def do(self) -> str:
        """One edit; what it was."""
        often = (self._figures, self._command, self._command, self._look)
        ways = (*often, *often, self._choose, self._drag, self._recipe, self._page, self._rows)
        way = self._chance.choice(ways)
        try:
            return f"{way.__name__.strip('_')} {way()}"
        finally:
            self._close()

    def _close(self) -> None:
        for widget in QApplication.topLevelWidgets():
            if isinstance(widget, QDialog | QMenu) and widget.isVisible():
                widget.close()
        QApplication.processEvents()

    def _figures(self) -> str:
        store, chance = self._window.store, self._chance
        if not store.has_table:
            return ""
        table = store.table
        places = [
            (chance.randrange(len(table.columns)), chance.randrange(table.height))
            for _ in range(chance.choice((1, 1, 1, 6)))
        ]
        for place in places:
            cell = chance.choice(FIGURES) if chance.random() < 0.7 else typed(chance.choice(FORMULAS))
            store.edit(say("change cells"), partial(_with_cell, table=table.id, place=place, cell=cell))
        return str(places[0])

    def _command(self) -> str:
        window, chance = self._window, self._chance
        actions = window.actions_by_name
        names = [name for name, action in actions.items() if action.isEnabled() and not self._is_left_out(name)]
        name = chance.choice(names)
        table = window.store.table
        if window.store.has_table and chance.random() < 0.5:
            window.figures.grid.go_to(chance.randrange(len(table.columns)), chance.randrange(table.height))
        actions[name].trigger()
        return name

    @staticmethod
    def _is_left_out(name: str) -> bool:
        return name in LEFT_OUT or name.startswith(
            ("deliver", "language", "open_", "print", "present", "earlier", "keep_")
        )

    def _look(self) -> str:
        store, chance = self._window.store, self._chance
        if not store.has_chart or store.picture.build.chart.main == "":
            return ""
        spec = store.picture.build.chart
        found = offers(spec, chance.choice([None, *self._parts()]))
        if not found:
            return ""
        offer = chance.choice(found)
        value = chance.choice(
            [*(offer.choices or ())][:9]
            or [0.0, 1.0, 12.0, -4.0, "#336699", "accent", True, False, "=B2", "", "{value}", 300.0]
        )
        value = value[0] if isinstance(value, tuple) else value
        store.edit_chart(say("look"), lambda d, chart: look_edits.set_looks(d, chart.id, {offer.path: value}))
        return offer.path

    def _parts(self) -> list[Part]:
        marks = [mark for mark in self._window.store.picture.figure.marks if mark.visible]
        return [Part("mark", mark.key, mark.row) for mark in marks[:20]] + [
            Part("layer", mark.key) for mark in marks[:3]
        ]

    def _choose(self) -> str:
        store, chance = self._window.store, self._chance
        if store.document.charts:
            store.show_chart(chance.choice(store.document.charts).id)
        parts = self._parts()
        if parts:
            store.select(chance.choice(parts))
        if store.document.pages:
            store.show_page(chance.choice(store.document.pages).id)
            if store.page.items:
                store.choose_items(chance.choice(store.page.items).id)
        return store.chart.name[:20]

    def _drag(self) -> str:
        chance, window = self._chance, self._window
        canvas: QWidget = window.pages.canvas if window.places.on_pages else window.stage.view
        if not canvas.isVisible():
            return ""

        def spot() -> Any:
            return QPointF(chance.uniform(0, canvas.width()), chance.uniform(0, canvas.height())).toPoint()

        keys = chance.choice(
            (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.AltModifier, Qt.KeyboardModifier.ShiftModifier)
        )
        start = spot()
        QTest.mousePress(canvas, Qt.MouseButton.LeftButton, keys, start)
        for _ in range(3):
            QTest.mouseMove(canvas, spot())
        QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, keys, spot())
        return str(start)

    def _recipe(self) -> str:
        store = self._window.store
        name = self._chance.choice(list(recipes_of(store.document)))
        store.edit_chart(say("recipe"), lambda d, chart: chart_edits.try_recipe(d, chart.id, name))
        return name

    def _page(self) -> str:
        places = self._window.places
        (places.show_pages if places.on_stage else places.show_stage)()
        store = self._window.store
        if store.has_page and store.page.items:
            item, by = self._chance.choice(store.page.items), self._chance.uniform(-20, 60)
            box = Rect(by, by, 90.0 + by, 80.0)
            store.edit_page(say("item"), lambda d, page: page_edits.placed(d, page.id, {item.id: box}))
        return "pages" if places.on_pages else "stage"

    def _rows(self) -> str:
        store, chance = self._window.store, self._chance
        at = chance.randrange(1, max(2, store.table.height))
        if chance.random() < 0.5:
            store.edit_table(say("insert"), lambda d, table: edits.insert_rows(d, table.id, at))
        else:
            store.edit_table(say("delete"), lambda d, table: edits.delete_rows(d, table.id, at, 1))
        return str(at)


def _with_cell(document: Document, table: str, place: tuple[int, int], cell: Any) -> Document:
    return edits.set_cells(document, table, {place: cell})


def _drawn(document: Document, pictures: Pictures) -> dict[str, str]:
    """All charts and pages as SVG, or why there is none."""
    found: dict[str, str] = {}
    for kind, names, draw in (
        ("chart", [one.id for one in document.charts], pictures.picture),
        ("page", [one.id for one in document.pages], pictures.page),
    ):
        for name in names:
            try:
                found[f"{kind} {name}"] = svg.dumps(draw(document, name).scene)
            except KavletError as error:
                found[f"{kind} {name}"] = str(error)
    return found


def _looked_over(window: Window, folder: Path) -> list[str]:
    """What does not hold of the document as it stands."""
    document, wrong = window.store.document, []
    kept = _drawn(document, window.store._pictures)
    afresh = _drawn(document, Pictures())
    wrong += [f"{name} is not drawn as afresh" for name in kept if kept[name] != afresh[name]]
    wrong += [f"{name} holds what is no number" for name, text in afresh.items() if any(one in text for one in EXACT)]
    values, again = window.store.values, recalculate(document.tables)
    for table in document.tables:
        if [repr(c.values) for c in values.of(table.id)] != [repr(c.values) for c in again.of(table.id)]:
            wrong.append(f"values of {table.id} are not as afresh")
    path = folder / "x.kavlet"
    kavlet_file.save(document, path)
    if kavlet_file.load(path) != document:
        wrong.append("saved and opened, it is another")
    return wrong


def attack(count: int, seed: int) -> list[str]:
    """That many edits; what did not hold, a line each."""
    chance = random.Random(seed)
    wrong: Counter[str] = Counter()
    done: Counter[str] = Counter()
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        QSettings.setDefaultFormat(QSettings.Format.IniFormat)
        QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, name)
        app = application()
        for asks in (QFileDialog, QInputDialog):
            for way in ("getOpenFileName", "getOpenFileNames", "getSaveFileName", "getText", "getItem"):
                if hasattr(asks, way):
                    setattr(asks, way, staticmethod(lambda *_a, **_k: ("", False)))
        QMessageBox.exec = lambda _box: 0  # type: ignore[method-assign]

        def fallen(kind: type[BaseException], error: BaseException, trace: Any) -> None:
            where = traceback.extract_tb(trace)[-1]
            wrong[f"{kind.__name__} at {where.filename.rpartition('/')[2]}:{where.lineno} {str(error)[:60]}"] += 1

        sys.excepthook = fallen  # what is raised in a slot comes here
        window = open_window(demo=True)
        window.resize(1280, 800)
        window.worker.patience = window.store.attended.patience = 60.0
        window.store.choose()
        app.processEvents()
        hands, first = Hands(window, chance), window.store.history.current
        for number in range(count):
            what = ""
            try:
                what = hands.do()
            except KavletError as error:
                wrong[f"unsaid: {error}"] += 1
            except Exception as error:
                fallen(type(error), error, error.__traceback__)
            done[what.split(" ")[0]] += 1
            if number % LOOKED_OVER_EVERY == LOOKED_OVER_EVERY - 1:
                for said in _looked_over(window, folder):
                    wrong[f"edit {number} ({what}): {said}"] += 1
        store = window.store
        store.try_out(None)
        last, steps = store.history.current, store.history.place
        while store.history.undo_name:
            store.undo()
        if store.history.current != first:
            wrong["all undone, it is another"] += 1
        while store.history.redo_name:
            store.redo()
        if store.history.current != last:
            wrong["all done again, it is another"] += 1
        print(f"  {count} edits, {steps} steps of undo; {dict(done)}")
        store.history.saved()
        window.leave()
    return [f"{times} × {what}" for what, times in wrong.most_common()]
