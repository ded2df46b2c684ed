"""What the commands do with recipes: choosing one, cutting loose from it, and recipes of an author's own."""

from collections.abc import Mapping
from pathlib import Path
from types import MappingProxyType

from PySide6.QtCore import QObject, Signal
from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits, data_direction
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.messages import say, words
from kavlet.core.recipes.recipe import Setting
from kavlet.core.values.errors import KavletError
from kavlet.desktop.command import Command, a_chart, a_recipe, a_table
from kavlet.desktop.remembered_looks import with_remembered_look
from kavlet.desktop.store import Store

NOTHING_SET: Mapping[str, Setting] = MappingProxyType({})


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

    def take(self, name: str, across: bool = False, settings: Mapping[str, Setting] = NOTHING_SET) -> None:
        """Build a recipe on the table in view: the chart in view becomes it, or a new one is made, whose figures run
        `across` a row; with settings typed for want of columns."""
        chart, table = self._store.chart, self._store.there

        def typed(document: Document, chart: str) -> Document:
            held = document.chart(chart).settings
            return edits.change_chart(document, chart, settings={**held, **settings}) if settings else document

        if chart.table == table.id:
            old = self._store.picture.build.chart.main if chart.dress.overrides else ""
            self._store.select()

            def changed(document: Document, chart: ChartEntry) -> Document:
                return with_remembered_look(
                    typed(chart_edits.try_recipe(document, chart.id, name), chart.id), chart.id, old
                )

            self._store.edit_chart(say("choose recipe"), changed)
            return
        made: list[str] = []

        def added(document: Document) -> Document:
            document, new = edits.add_chart(document, table.id, name)
            document = data_direction.read_across(document, new) if across else document
            made.append(new)
            return with_remembered_look(typed(document, new), new)

        if self._store.edit(say("choose recipe"), added):
            self._store.show_chart(made[0])

    def cut_loose(self) -> None:
        """Turn the recipe's build into free helper columns and layers."""
        spec = self._store.spec
        self._store.edit_chart(
            say("cut chart loose"), lambda document, chart: chart_edits.cut_loose(document, chart.id, spec)
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
        from kavlet.core.document.charts.recipe_saving import saved_recipe, with_recipe

        spec = self._store.spec
        if self._store.edit_chart(
            say("save as recipe"),
            lambda document, chart: with_recipe(document, saved_recipe(document, chart.id, spec, title)),
        ):
            self._store.tell(words("“{name}” stands on the wall of recipes now.", name=title.strip()))

    def export(self) -> None:
        """Write a recipe of the author's own to a file, for other documents: the chart's, else the one saved last."""
        from kavlet.core.files import recipe_file

        recipes = self._store.document.recipes
        if not recipes:
            raise KavletError(say("There is no recipe of your own."), remedy=say("Save a chart as recipe first."))
        own_recipe = next((one for one in recipes if one.name == self._store.here.recipe), recipes[-1])
        suffix = recipe_file.SUFFIX
        name, _ = QFileDialog.getSaveFileName(
            self._parent, words("Save recipe to a file"), own_recipe.name, f"*{suffix}"
        )
        if name:
            path = Path(name if name.endswith(suffix) else name + suffix)
            recipe_file.save(own_recipe, path)
            self._store.tell(words("Saved {file}", file=path))

    def import_(self) -> None:
        """Put a recipe from a file on this document's wall."""
        from kavlet.core.document.charts.recipe_saving import with_recipe
        from kavlet.core.files import recipe_file

        name, _ = QFileDialog.getOpenFileName(self._parent, words("Load a recipe"), "", f"*{recipe_file.SUFFIX}")
        if name:
            self._store.edit(
                say("load recipe"), lambda document: with_recipe(document, recipe_file.load(Path(name)))
            )  # fmt: skip
