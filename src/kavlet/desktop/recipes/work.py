"""What the commands do with recipes: choosing one, cutting loose from it, and recipes of an author's own."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject, Signal
from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from kavlet.core.building.stages import main_layer
from kavlet.core.document import charting, dressing, edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.recipe_saving import saved_recipe, with_recipe
from kavlet.core.dress.style import Dress
from kavlet.core.figures.recalculate import recalculate
from kavlet.core.files import recipe_file
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.desktop.command import Command, a_chart, a_recipe, a_table
from kavlet.desktop.remembered import remembered
from kavlet.desktop.store import Store


class RecipeCommands(QObject):
    """Each method carries out one command; what the core refuses is said in one sentence."""

    wall_wanted = Signal()

    def __init__(self, parent: QWidget, store: Store) -> None:
        super().__init__(parent)
        self._parent, self._store = parent, store
        self.commands = (
            Command("open_recipes", "Chart", "Recipes…", self.wall_wanted.emit, "Ctrl+Shift+R", a_table, ("stage",),
                    line_before=True),
            Command("cut_chart_loose", "Chart", "Cut loose from the recipe", self.cut_loose, needs=a_recipe,
                    also=("stage",)),
            Command("save_as_recipe", "Chart", "Save as recipe…", self.save_as, needs=a_chart),
            Command("export_recipe", "Chart", "Save own recipe to a file…", self.export, needs=a_chart),
            Command("import_recipe", "Chart", "Load a recipe…", self.import_),
        )  # fmt: skip

    def take(self, name: str) -> None:
        """Build a recipe on the table in view: the chart in view becomes it, or a new one is made."""
        chart, table = self._store.chart, self._store.there
        if chart.table == table.id:
            old = self._store.picture.build.chart.main if chart.dress.overrides else ""
            self._store.select()

            def changed(document: Document, chart: ChartEntry) -> Document:
                return _dressed(charting.try_recipe(document, chart.id, name), chart.id, old)

            self._store.edit_chart(say("choose recipe"), changed)
            return
        made: list[str] = []

        def added(document: Document) -> Document:
            document, new = edits.add_chart(document, table.id, name)
            made.append(new)
            return _dressed(document, new)

        if self._store.edit(say("choose recipe"), added):
            self._store.show_chart(made[0])

    def cut_loose(self) -> None:
        """Turn the recipe's build into free helper columns and layers."""
        spec = self._store.spec
        self._store.edit_chart(
            say("cut chart loose"), lambda document, chart: charting.cut_loose(document, chart.id, spec)
        )

    def save_as(self) -> None:
        """Ask for a name and keep the chart as a recipe of the author's own."""
        title, given = QInputDialog.getText(
            self._parent, words("Save as recipe"), words("Name"), text=self._store.here.name
        )
        if given:
            self.save(title)

    def save(self, title: str) -> None:
        """Keep the chart as a recipe of that title."""
        spec = self._store.spec
        self._store.edit_chart(
            say("save as recipe"),
            lambda document, chart: with_recipe(document, saved_recipe(document, chart.id, spec, title)),
        )

    def export(self) -> None:
        """Write the chart's own recipe to a file, for other documents."""
        own = next((one for one in self._store.document.recipes if one.name == self._store.here.recipe), None)
        if own is None:
            raise KavletError(say("This chart has no recipe of your own."), remedy=say("Save it as recipe first."))
        suffix = recipe_file.SUFFIX
        name, _ = QFileDialog.getSaveFileName(self._parent, words("Save recipe to a file"), own.name, f"*{suffix}")
        if name:
            recipe_file.save(own, Path(name if name.endswith(suffix) else name + suffix))

    def import_(self) -> None:
        """Put a recipe from a file on this document's wall."""
        name, _ = QFileDialog.getOpenFileName(self._parent, words("Load a recipe"), "", f"*{recipe_file.SUFFIX}")
        if name:
            self._store.edit(
                say("load recipe"), lambda document: with_recipe(document, recipe_file.load(Path(name)))
            )  # fmt: skip


def _dressed(document: Document, chart: str, old: str = "") -> Document:
    """The new build with the looks set by hand on the layer `old`, and what is remembered for its recipe."""
    entry = document.chart(chart)
    look = remembered(entry.recipe)
    if look is None and not old:
        return document
    main = main_layer(document, recalculate(document.tables), chart)
    if main is None:
        return document  # the table does not fit the recipe; there is nothing to dress
    overrides = charting.carried_over(entry.dress.overrides, old, main.key, main.vary)
    dress = entry.dress
    if look is not None:
        overrides = dressing.moved(look.dress.overrides, look.layer, (main.key,)) | overrides
        dress = dress if old or dress != Dress() else look.dress
    return edits.change_chart(document, chart, dress=msgspec.structs.replace(dress, overrides=overrides))
