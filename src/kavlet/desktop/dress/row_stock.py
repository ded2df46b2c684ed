"""The rows of Dress, taken again where the same are wanted for another part or chart: to make one costs more."""

from collections.abc import Callable, Collection, Sequence

from PySide6.QtWidgets import QVBoxLayout, QWidget

from kavlet.core.charts.fields import Field
from kavlet.desktop.dress.rows import DressRow

Columns = Sequence[tuple[str, str]]


class RowStock:
    """Makes rows, and holds those that are out of use until it is known which of them are wanted again."""

    def __init__(self, wire: Callable[[DressRow], object]) -> None:
        self._wire = wire
        self._spare: dict[str, DressRow] = {}

    def clear(self, form: QVBoxLayout, staying: Collection[QWidget] = ()) -> None:
        """Take all out of a form, or what there is of it by now: rows are held, what stays is put out of sight, and the
        rest ends."""
        self.let_go()
        for one in staying:
            one.hide()
        while form.count():
            item = form.takeAt(0)
            widget = item.widget() if item is not None else None
            if isinstance(widget, DressRow):
                self._spare[widget.offer.path] = widget
            elif widget is not None and widget not in staying:
                widget.hide()
                widget.deleteLater()

    def take(self, offer: Field, columns: Columns = ()) -> DressRow:
        """A row for a field, and for the columns it offers."""
        offered = tuple(columns) if offer.kind in ("column", "says") else ()
        kept = self._spare.get(offer.path)
        if kept is not None and (kept.offer, kept.columns) == (offer, offered):
            return self._spare.pop(offer.path)
        made = DressRow(offer, offered)
        self._wire(made)
        return made

    def let_go(self) -> None:
        """End the rows that were not wanted again."""
        for row in self._spare.values():
            row.hide()
            row.deleteLater()
        self._spare.clear()
