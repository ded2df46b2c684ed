"""What the commands do to solids: solid or flat, and where from it is seen."""

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QWidget

from kavlet.core.document.looks import solid_edits
from kavlet.core.messages import say
from kavlet.desktop.command import Command, a_chart
from kavlet.desktop.store import Store

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
