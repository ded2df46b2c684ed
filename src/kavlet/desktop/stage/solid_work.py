"""What the commands do to solids: solid or flat, and where from it is seen."""

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QWidget

from kavlet.core.document import solids
from kavlet.desktop.store import Store


class SolidCommands(QObject):
    """Each method carries out one command; where a solid has no meaning, that is said in one sentence."""

    def __init__(self, window: QWidget, store: Store) -> None:
        super().__init__(window)
        self._store = store

    def toggle_solid(self) -> None:
        """Make the chart solid, or flat again."""
        chart, picture = self._store.chart, self._store.picture_if_any()
        if chart is None or picture is None:
            return
        spec = picture.build.chart
        if spec.as_solid is not None:
            self._store.apply(self.tr("make flat"), solids.made_flat(self._store.document, chart.id))
        else:
            self._store.attempt(
                self.tr("make solid"), lambda: solids.made_solid(self._store.document, chart.id, spec)
            )  # fmt: skip

    def see_from_front(self) -> None:
        self.see_from("front")

    def see_from_above(self) -> None:
        self.see_from("above")

    def see_from_corner(self) -> None:
        self.see_from("corner")

    def see_from(self, side: solids.ViewSide) -> None:
        """Turn the solid so that it is seen from a side."""
        chart, picture = self._store.chart, self._store.picture_if_any()
        if chart is None or picture is None:
            return
        spec = picture.build.chart
        self._store.attempt(
            self.tr("see from {}").format(side),
            lambda: solids.seen_from(self._store.document, chart.id, spec, side),
        )
