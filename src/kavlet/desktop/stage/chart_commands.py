"""What is done to the chart in view as a whole: title, size, copies, one for each row; and how it is looked at."""

from collections.abc import Callable

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QInputDialog, QWidget

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits, data_direction
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import solid_edits
from kavlet.core.document.pages import page_edits
from kavlet.core.document.tables import row_order
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sizes import CHARTS
from kavlet.desktop.command import Command, a_chart, a_recipe
from kavlet.desktop.stage.view import StageView
from kavlet.desktop.store import Store


class ChartCommands(QObject):
    """Each method carries out one command; what the core refuses is said in one sentence."""

    def __init__(self, parent: QWidget, store: Store, view: StageView, current_cell: Callable[[], str]) -> None:
        super().__init__(parent)
        self._parent, self._store, self._view, self._current_cell = parent, store, view, current_cell
        self.title_commands = (
            Command("title_from_cell", "Chart", "Title from the current cell", self.title_from_cell, "Ctrl+T", a_chart,
                    ("grid",)),
        )  # fmt: skip
        self.commands = (
            Command("repeat_rows", "Chart", "Repeat for each row or group", self.repeat, needs=a_chart,
                    line_before=True),
            Command("rows_to_series", "Chart", "Turn rows into series", self.rows_to_series, needs=a_chart,
                    also=("layers",)),
            Command("read_across", "Chart", "Figures run across a row", self.turn_reading, needs=a_recipe,
                    also=("stage",), is_on=lambda: store.chart.reading is not None),
            Command("rename_chart", "Chart", "Rename chart…", self.ask_name, needs=a_chart, line_before=True),
            Command("copy_chart", "Chart", "Copy chart", self.copy, needs=a_chart),
            Command("delete_chart", "Chart", "Delete chart", self.delete, needs=a_chart),
        )  # fmt: skip
        self.view_commands = (
            Command("toggle_xray", "View", "X-ray", self.toggle_xray, "Ctrl+Shift+X", a_chart, ("stage",),
                    is_on=lambda: store.xray),
            Command("zoom_in", "View", "Larger", lambda: self._zoom(1.25), "Ctrl+Alt+Up", a_chart),
            Command("zoom_out", "View", "Smaller", lambda: self._zoom(0.8), "Ctrl+Alt+Down", a_chart),
            Command("zoom_fit", "View", "Fit", lambda: view.set_zoom(None), "Ctrl+Alt+0", a_chart),
            Command("zoom_actual", "View", "Actual size", self.zoom_actual, "Ctrl+Alt+1", a_chart),
        )  # fmt: skip

    def title_from_cell(self) -> None:
        """Bind the title to the current cell."""
        cell = self._current_cell()
        if cell:
            self._store.edit_chart(
                say("change title"), lambda document, chart: edits.change_chart(document, chart.id, title=f"={cell}")
            )

    def repeat(self) -> None:
        """One chart for each row, on one scale; or one again."""
        self._store.edit_chart(
            say("repeat for each row"),
            lambda document, chart: chart_edits.repeated(document, chart.id, not chart.repeat),
        )

    def turn_reading(self) -> None:
        """Read the figures across a row of the table, or down its columns again."""
        self.read_across(self._store.here.reading is None)

    def read_across(self, on: bool) -> None:
        """Have the chart's figures run across a row, or down the columns; its table comes into view."""

        def turned(document: Document, chart: ChartEntry) -> Document:
            return (
                data_direction.read_across(document, chart.id) if on else data_direction.read_down(document, chart.id)
            )

        self._store.select()
        self._store.edit_chart(say("read across a row") if on else say("read down the columns"), turned)
        if self._store.has_chart:
            self._store.show_chart(self._store.chart.id)

    def rows_to_series(self) -> None:
        """Make each row a layer and each layer a row, by turning the chart's table."""

        def turned(document: Document, chart: ChartEntry) -> Document:
            if chart.free is not None:
                raise KavletError(
                    say("This chart is cut loose; its layers are bound to columns."),
                    remedy=say("Choose a recipe first."),
                )
            return row_order.transpose(document, chart.table)

        self._store.select()
        self._store.edit_chart(say("turn rows into series"), turned)

    def copy(self) -> None:
        chart = self._store.here.id
        new = self._store.make(say("copy chart"), lambda document: chart_edits.copy_chart(document, chart))
        if new is not None:
            self._store.show_chart(new)

    def delete(self) -> None:
        """Delete the chart, and its frames on pages; where it stood is said."""
        store = self._store
        pages = page_edits.pages_of(store.document, (store.chart.id,))
        store.select()
        done = store.edit_chart(
            say("delete chart"), lambda document, chart: chart_edits.delete_chart(document, chart.id)
        )
        if done and pages:
            store.tell(words("The chart is gone from {pages} too; undo brings all of it back.", pages=pages))

    def ask_name(self) -> None:
        name, accepted = QInputDialog.getText(
            self._parent, words("Rename chart"), words("Name"), text=self._store.here.name
        )
        if accepted:
            self.rename(name)

    def rename(self, name: str) -> None:
        """Call the chart something else; names stay apart."""
        self._store.edit_chart(
            say("rename chart"), lambda document, chart: chart_edits.rename_chart(document, chart.id, name)
        )

    def set_size(self, name: str) -> None:
        """Give the chart a size by name."""
        if name in CHARTS:
            size = CHARTS[name]
            changes = {"width": size.width, "height": size.height}
            self._store.edit_chart(
                say("set size"), lambda document, chart: edits.change_chart(document, chart.id, **changes)
            )

    # Looking

    def toggle_xray(self) -> None:
        self._store.show_xray(not self._store.xray)

    def _zoom(self, by: float) -> None:
        self._view.set_zoom(self._view.sheet().width() / self._store.drawn.scene.size.width * by)

    def zoom_actual(self) -> None:
        """As large as it will be in print, by the screen's own resolution."""
        self._view.set_zoom(self._parent.logicalDpiX() / 72)


SEEN = {
    "front": say("see from the front"),
    "above": say("see from above"),
    "corner": say("see from a corner"),
}


class SolidCommands(QObject):
    """Each method carries out one command; where a solid has no meaning, that is said in one sentence."""

    def __init__(self, parent: QWidget, store: Store) -> None:
        super().__init__(parent)
        self._store = store
        self.commands = (
            Command("toggle_solid", "Solid", "Solid or flat", self.toggle, "Ctrl+Alt+S", a_chart, ("stage",)),
            Command("see_from_front", "Solid", "See it from the front", lambda: self.see_from("front"), "Ctrl+Alt+2",
                    a_chart, line_before=True),
            Command("see_from_above", "Solid", "See it from above", lambda: self.see_from("above"), "Ctrl+Alt+3",
                    a_chart),
            Command("see_from_corner", "Solid", "See it from a corner", lambda: self.see_from("corner"), "Ctrl+Alt+4",
                    a_chart),
        )  # fmt: skip

    def toggle(self) -> None:
        """Make the chart solid, or flat again."""
        spec = self._store.spec
        if spec.as_solid is not None:
            self._store.edit_chart(say("make flat"), lambda document, chart: solid_edits.made_flat(document, chart.id))
        else:
            self._store.edit_chart(
                say("make solid"), lambda document, chart: solid_edits.made_solid(document, chart.id, spec)
            )  # fmt: skip

    def see_from(self, side: solid_edits.ViewSide) -> None:
        """Turn the solid so that it is seen from a side."""
        spec = self._store.spec
        self._store.edit_chart(
            SEEN[side], lambda document, chart: solid_edits.seen_from(document, chart.id, spec, side)
        )
