"""What the commands do to the chart in view: recipes, layers, looks copied and pasted, sizes, pictures, kits."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject, QPoint
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QFileDialog, QInputDialog, QMenu, QWidget

from kavlet.core.build import Picture, build_chart
from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.labels import Label
from kavlet.core.charts.looks import of_layer
from kavlet.core.charts.overrides import ORDER
from kavlet.core.charts.reference import Reference
from kavlet.core.compose.kinds import ADDABLE, PLAIN_TYPES
from kavlet.core.document import arranging, charting, dressing, edits
from kavlet.core.document.document import Document, fresh_id
from kavlet.core.document.recipe_saving import saved_recipe, with_recipe
from kavlet.core.dress.style import Dress
from kavlet.core.figures.cells import Formula
from kavlet.core.figures.recalculate import recalculate
from kavlet.core.figures.references import filled
from kavlet.core.figures.table import HEADER
from kavlet.core.files import pictures as picture_files
from kavlet.core.files import recipe_file
from kavlet.core.touch.parts import Part
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sizes import CHARTS
from kavlet.desktop.remembered import remembered
from kavlet.desktop.stage.panel import StagePanel
from kavlet.desktop.store import Store


class ChartCommands(QObject):
    """Each method carries out one command; what the core refuses is said in one sentence."""

    def __init__(self, window: QWidget, store: Store, stage: StagePanel) -> None:
        super().__init__(window)
        self._window, self._store, self._stage = window, store, stage
        stage.ink_wanted.connect(lambda ink: self.look("ink", {"ink": ink}))
        stage.size_wanted.connect(self.set_size)
        stage.strip.hide_wanted.connect(self.hide_layer)
        stage.strip.order_wanted.connect(lambda keys: self.look("order layers", {ORDER: keys}))
        stage.strip.add_wanted.connect(self.add_menu)
        stage.strip.menu_wanted.connect(self.layer_menu)
        stage.view.dropped.connect(self.drop)

    def _picture(self) -> Picture | None:
        return self._stage.view.picture if not self._stage.view.problem else None

    def look(self, name: str, looks: dict[str, object]) -> None:
        """Set values by hand, as one edit."""
        chart = self._store.chart
        if chart is not None:
            self._store.attempt(name, lambda: dressing.set_looks(self._store.document, chart.id, looks))

    # Recipes

    def take_recipe(self, name: str) -> None:
        """Build a recipe on the table in view: the chart in view becomes it, or a new one is made."""
        table, chart = self._store.table, self._store.chart
        if table is None:
            return
        if chart is not None and chart.table == table.id:
            picture = self._picture()
            old = picture.build.chart.main if picture is not None and chart.dress.overrides else ""
            self._store.select()
            document = charting.try_recipe(self._store.document, chart.id, name)
            self._store.attempt(self.tr("choose recipe"), lambda: self._dressed(document, chart.id, old))
            return
        made: list[str] = []

        def add() -> Document:
            document, chart_id = edits.add_chart(self._store.document, table.id, name)
            made.append(chart_id)
            return self._dressed(document, chart_id)

        if self._store.attempt(self.tr("choose recipe"), add):
            self._store.show_chart(made[0])

    def _dressed(self, document: Document, chart: str, old: str = "") -> Document:
        """The new build with the looks set by hand on the layer `old`, and what is remembered for its recipe."""
        entry = document.chart(chart)
        look = remembered(entry.recipe)
        if look is None and not old:
            return document
        try:
            main = build_chart(document, recalculate(document.tables), chart).chart.main
        except KavletError:
            return document  # the table does not fit the recipe; there is nothing to dress
        overrides = charting.carried_over(entry.dress.overrides, old, main)
        dress = entry.dress
        if look is not None:
            overrides = dressing.moved(look.dress.overrides, look.layer, (main,)) | overrides
            dress = dress if old or dress != Dress() else look.dress
        return edits.change_chart(document, chart, dress=msgspec.structs.replace(dress, overrides=overrides))

    def cut_chart_loose(self) -> None:
        """Turn the recipe's build into free helper columns and layers."""
        chart, picture = self._store.chart, self._picture()
        if chart is None or picture is None:
            return
        spec = picture.build.chart
        self._store.attempt(
            self.tr("cut chart loose"), lambda: charting.cut_loose(self._store.document, chart.id, spec)
        )

    def save_as_recipe(self) -> None:
        """Ask for a name and keep the chart as a recipe of the author's own."""
        chart = self._store.chart
        if chart is None:
            return
        title, given = QInputDialog.getText(self._window, self.tr("Save as recipe"), self.tr("Name"), text=chart.name)
        if given:
            self.save_recipe(title)

    def save_recipe(self, title: str) -> None:
        chart, picture = self._store.chart, self._picture()
        if chart is None or picture is None:
            return
        spec = picture.build.chart

        def save() -> Document:
            document = self._store.document
            return with_recipe(document, saved_recipe(document, chart.id, spec, title))

        self._store.attempt(self.tr("save as recipe"), save)

    def export_recipe(self) -> None:
        """Write the chart's own recipe to a file, for other documents."""
        chart = self._store.chart
        own = next(
            (one for one in self._store.document.recipes if chart is not None and one.name == chart.recipe), None
        )
        if own is None:
            self._store.refuse(KavletError("This chart has no recipe of your own.", remedy="Save it as recipe first."))
            return
        suffix = recipe_file.SUFFIX
        name, _ = QFileDialog.getSaveFileName(self._window, self.tr("Save recipe to a file"), own.name, f"*{suffix}")
        if name:
            path = Path(name if name.endswith(suffix) else name + suffix)
            try:
                recipe_file.save(own, path)
            except KavletError as error:
                self._store.refuse(error)

    def import_recipe(self) -> None:
        """Put a recipe from a file on this document's wall."""
        name, _ = QFileDialog.getOpenFileName(self._window, self.tr("Load a recipe"), "", f"*{recipe_file.SUFFIX}")
        if name:
            self._store.attempt(
                self.tr("load recipe"), lambda: with_recipe(self._store.document, recipe_file.load(Path(name)))
            )

    def repeat_rows(self) -> None:
        """One chart for each row, on one scale; or one again."""
        chart = self._store.chart
        if chart is not None:
            repeat = not chart.repeat
            self._store.attempt(
                self.tr("repeat for each row"), lambda: charting.repeated(self._store.document, chart.id, repeat)
            )

    def copy_chart(self) -> None:
        chart = self._store.chart
        if chart is not None:
            document, new = charting.copy_chart(self._store.document, chart.id)
            self._store.apply(self.tr("copy chart"), document)
            self._store.show_chart(new)

    def delete_chart(self) -> None:
        chart = self._store.chart
        if chart is not None:
            self._store.select()
            self._store.attempt(self.tr("delete chart"), lambda: charting.delete_chart(self._store.document, chart.id))

    # Stripping and scales

    def set_size(self, name: str) -> None:
        """Give the chart a size by name."""
        chart = self._store.chart
        if chart is not None and name in CHARTS:
            size = CHARTS[name]
            changes = {"width": size.width, "height": size.height}
            self._store.attempt(
                self.tr("set size"), lambda: edits.change_chart(self._store.document, chart.id, **changes)
            )

    # Dress

    # Layers

    def hide_layer(self, key: str) -> None:
        """Leave a layer out, or show it again."""
        picture = self._picture()
        layer = picture.build.chart.layer(key) if picture is not None else None
        if layer is not None:
            self.look("hide layer" if not layer.hidden else "show layer", {of_layer(key, "hidden"): not layer.hidden})

    def add_menu(self, place: QPoint) -> None:
        """A menu of what can be added: a plain layer on a column, a helper column of one's own, a line at a value."""
        chart = self._store.chart
        if chart is None:
            return
        table = self._store.document.table(chart.table)
        menu = QMenu(self._window)
        for kind in ADDABLE:
            inner = menu.addMenu(self.tr("Add {}").format(kind))
            for i, column in enumerate(table.columns):
                action = inner.addAction(table.called(i))
                action.triggered.connect(lambda _c=False, kind=kind, key=column.id: self.add_layer(kind, key))
            inner.addSeparator()
            inner.addAction(self.tr("From a new helper column…")).triggered.connect(
                lambda _c=False, kind=kind: self._ask_helper(kind)
            )
        menu.addAction(self.tr("Add a reference line")).triggered.connect(self.add_reference)
        menu.addSeparator()
        menu.addAction(self.tr("Turn rows into series")).triggered.connect(self.rows_to_series)
        menu.popup(place)

    def rows_to_series(self) -> None:
        """Make each row a layer and each layer a row, by turning the chart's table."""
        chart = self._store.chart
        if chart is None:
            return
        if chart.free is not None:
            self._store.refuse(
                KavletError(
                    "This chart is cut loose; its layers are bound to columns.", remedy="Choose a recipe first."
                )
            )
            return
        self._store.select()
        self._store.attempt(
            self.tr("turn rows into series"), lambda: arranging.transpose(self._store.document, chart.table)
        )

    def add_layer(self, kind: str, column: str) -> None:
        """Add a plain layer bound to a column, in front."""
        chart, picture = self._store.chart, self._picture()
        if chart is None or picture is None:
            return
        table = self._store.document.table(chart.table)
        key = fresh_id("added ", (layer.key for layer in picture.build.chart.layers))
        layer = ADDABLE[kind].new(key, table.called(table.place(column)), column, picture.build.chart)
        self._store.attempt(self.tr("add layer"), lambda: self._with_layer(layer))

    def add_reference(self) -> None:
        """Add a line in the middle of the scale, to be dragged."""
        picture = self._picture()
        axis = next((one for one in picture.figure.axes if one.name in ("x", "y", "angle")), None) if picture else None
        if picture is None or axis is None:
            return
        key = fresh_id("added ", (layer.key for layer in picture.build.chart.layers))
        at = (axis.minimum + axis.maximum) / 2
        layer = Reference(key, self.tr("line"), at=at, label=Label(), listed=False)
        self._store.attempt(self.tr("add layer"), lambda: self._with_layer(layer))

    def _with_layer(self, layer: AnyLayer) -> Document:
        chart = self._store.chart
        if chart is None:
            raise KavletError("There is no chart.")
        return edits.change_chart(self._store.document, chart.id, layers=(*chart.layers, layer))

    def _ask_helper(self, kind: str) -> None:
        text, given = QInputDialog.getText(
            self._window, self.tr("New helper column"), self.tr("Formula of the first row, such as =B2/SUM(B$2:B$6)")
        )
        if given and text.strip():
            self.add_helper_layer(kind, text)

    def add_helper_layer(self, kind: str, formula: str) -> None:
        """A new column with a formula filled down, and a layer on it, as one edit."""
        chart, picture = self._store.chart, self._picture()
        if chart is None or picture is None:
            return
        text = formula if formula.startswith("=") else f"={formula}"
        key = fresh_id("added ", (layer.key for layer in picture.build.chart.layers))

        def add() -> Document:
            table = self._store.document.table(chart.table)
            at = sum(column.helper is None for column in table.columns)
            document = edits.insert_columns(self._store.document, table.id, at)
            cells = {(at, row): Formula(filled(text, 0, row - HEADER)) for row in range(HEADER, table.height)}
            document = edits.set_cells(document, table.id, {(at, 0): "helper", **cells})
            column = document.table(table.id).columns[at].id
            layer = ADDABLE[kind].new(key, "helper", column, picture.build.chart)
            return edits.change_chart(document, chart.id, layers=(*document.chart(chart.id).layers, layer))

        self._store.attempt(self.tr("add layer"), add)

    def remove_layer(self, key: str) -> None:
        """Remove a layer that was added; one of the recipe's is hidden."""
        chart = self._store.chart
        if chart is None:
            return
        self._store.select()
        if any(layer.key == key for layer in chart.layers):
            left = tuple(layer for layer in chart.layers if layer.key != key)
            self._store.attempt(
                self.tr("remove layer"), lambda: edits.change_chart(self._store.document, chart.id, layers=left)
            )
        else:
            self.look("hide layer", {of_layer(key, "hidden"): True})

    def layer_menu(self, key: str, place: QPoint) -> None:
        """What can be done with a card."""
        picture = self._picture()
        layer = picture.build.chart.layer(key) if picture is not None else None
        if layer is None:
            return
        self._store.select(Part("layer", key))
        menu = QMenu(self._window)
        if not layer.helper:
            hide = self.tr("Show layer") if layer.hidden else self.tr("Hide layer")
            menu.addAction(hide).triggered.connect(lambda: self.hide_layer(key))
            for kind in PLAIN_TYPES:
                action = QAction(self.tr("Draw as {}").format(kind), menu)
                action.triggered.connect(
                    lambda _c=False, kind=kind: self.look("change type", {of_layer(key, "type"): kind})
                )
                menu.addAction(action)
            second = self.tr("To the first axis") if layer.second else self.tr("To the second axis")
            menu.addAction(second).triggered.connect(lambda: self.to_second_axis(key, not layer.second))
            menu.addAction(self.tr("Remove layer")).triggered.connect(lambda: self.remove_layer(key))
        strip = self._stage.strip
        at = [card.layer.key for card in strip.cards].index(key)
        menu.addAction(self.tr("Further back")).triggered.connect(lambda: strip.put(key, max(0, at - 1)))
        menu.addAction(self.tr("Further front")).triggered.connect(lambda: strip.put(key, at + 1))
        menu.popup(place)

    def to_second_axis(self, key: str, on: bool) -> None:
        """Move a layer to the second axis, which appears with it."""
        looks: dict[str, object] = {of_layer(key, "second"): on}
        picture = self._picture()
        if on and picture is not None and getattr(picture.build.chart.frame, "second", None) is None:
            looks["frame.second.visible"] = True
        self.look("change axis", looks)

    # Pictures

    def drop(self, part: Part | None, what: str) -> None:
        """A colour, a symbol or a picture file dropped on a part fills it."""
        picture = self._picture()
        if picture is None:
            return
        key = part.key if part is not None and part.kind in ("layer", "mark", "label") else (
            picture.build.chart.main
        )  # fmt: skip
        chosen = part is not None and part.kind == "mark" and part in self._store.selection
        path = f"{part.path}.fill" if chosen and part is not None else of_layer(key, "fill")
        if what.startswith("#"):
            self.look("fill by dropping", {path: what})
        elif Path(what).suffix.lower() in picture_files.KINDS:
            self.add_picture_file(Path(what), path)
        else:
            self.look("fill by dropping", {path: {"fill": "picture", "name": what, "how": "stretched"}})

    def add_picture(self) -> None:
        """Ask for an SVG, PNG or JPEG file and put it on the document's shelf."""
        name, _ = QFileDialog.getOpenFileName(
            self._window, self.tr("Add a picture"), "", self.tr("Pictures (*.svg *.png *.jpg *.jpeg)")
        )
        if name:
            self.add_picture_file(Path(name))

    def add_picture_file(self, path: Path, fill: str = "") -> None:
        """Add a picture to the document, and fill a part with it where one is named."""
        chart = self._store.chart

        def add() -> Document:
            made = picture_files.load(path)
            document = self._store.document
            others = tuple(one for one in document.pictures if one.name != made.name)
            document = msgspec.structs.replace(document, pictures=(*others, made))
            if fill and chart is not None:
                looks = {fill: {"fill": "picture", "name": made.name, "how": "stretched"}}
                document = dressing.set_looks(document, chart.id, looks)
            return document

        self._store.attempt(self.tr("add picture"), add)

    # Looking

    def zoom_in(self) -> None:
        self._zoom(1.25)

    def zoom_out(self) -> None:
        self._zoom(0.8)

    def _zoom(self, by: float) -> None:
        view = self._stage.view
        picture = view.picture
        if picture is not None:
            view.set_zoom(view.sheet().width() / picture.scene.size.width * by)

    def zoom_fit(self) -> None:
        self._stage.view.set_zoom(None)

    def zoom_actual(self) -> None:
        """As large as it will be in print, by the screen's own resolution."""
        self._stage.view.set_zoom(self._window.logicalDpiX() / 72)

    def toggle_xray(self) -> None:
        self._store.show_xray(not self._store.xray)
