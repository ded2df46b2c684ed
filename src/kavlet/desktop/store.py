"""The store: the current document and its history, and the one event that views follow."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, Signal

from kavlet.core.build import Picture, Pictures
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.history import History
from kavlet.core.figures.recalculate import Values
from kavlet.core.figures.table import Table
from kavlet.core.touch.parts import Part
from kavlet.core.values.errors import KavletError


class Store(QObject):
    """Holds the document. Views draw what it holds and write to it by `apply` alone."""

    changed = Signal()
    refused = Signal(str)
    selected = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._history = History(Document())
        self._pictures = Pictures()
        self.path: Path | None = None
        self.name = ""
        self._shown = ""
        self._table = ""
        self.folded = False
        self.xray = False
        self.selection: tuple[Part, ...] = ()
        self.dress_copied: tuple[str, dict[str, Any]] | None = None
        self._trial: Document | None = None

    @property
    def document(self) -> Document:
        """The document as it is shown: the current one, or one that is only tried out."""
        return self._trial if self._trial is not None else self._history.current

    @property
    def trying(self) -> bool:
        """Whether what is shown is only tried out."""
        return self._trial is not None

    def try_out(self, document: Document | None) -> None:
        """Show a document without taking it; None goes back to the current one."""
        if document is not self._trial:
            self._trial = document
            self.changed.emit()

    def select(self, *parts: Part) -> None:
        """Choose parts of the chart in view."""
        if parts != self.selection:
            self.selection = parts
            self.selected.emit()

    def show_xray(self, on: bool) -> None:
        """Show the helpers, or hide them."""
        self.xray = on
        self.changed.emit()

    @property
    def history(self) -> History:
        return self._history

    @property
    def values(self) -> Values:
        return self._pictures.values(self.document)

    @property
    def chart(self) -> ChartEntry | None:
        """The chart in view."""
        charts = self.document.charts
        return next((chart for chart in charts if chart.id == self._shown), charts[0] if charts else None)

    @property
    def table(self) -> Table | None:
        """The table in view: the one chosen, else the one the chart reads."""
        chosen = next((one for one in self.document.tables if one.id == self._table), None)
        if chosen is not None:
            return chosen
        chart = self.chart
        if chart is not None:
            return self.document.table(chart.table)
        return self.document.tables[0] if self.document.tables else None

    def picture(self) -> Picture | None:
        """The chart in view, through all stages. Raises KavletError when its table does not fit it."""
        chart = self.chart
        return self._pictures.picture(self.document, chart.id) if chart is not None else None

    def picture_if_any(self) -> Picture | None:
        """The chart in view; None where there is none, or its table does not fit it."""
        try:
            return self.picture()
        except KavletError:
            return None

    def show_table(self, table: str) -> None:
        """Bring another table into view, and with it the first chart built on it, where there is one."""
        self._trial = None
        self._table = table
        chart = self.chart
        if chart is None or chart.table != table:
            self._shown = next((one.id for one in self.document.charts if one.table == table), self._shown)
            self.select()
        self.changed.emit()

    def fold(self, folded: bool) -> None:
        """Fold the helper columns away, or show them."""
        self.folded = folded
        self.changed.emit()

    def show_chart(self, chart: str) -> None:
        """Bring another chart into view, and the table it reads."""
        self._trial = None
        self._shown = chart
        self._table = self.document.chart(chart).table
        self.select()
        self.changed.emit()

    def apply(self, name: str, document: Document) -> None:
        """Take an edited document under the name of the edit; what was only tried out ends with it."""
        tried, self._trial = self._trial is not None, None
        if self._history.apply(name, document) or tried:
            self.changed.emit()

    def attempt(self, name: str, edit: Callable[[], Document]) -> bool:
        """Carry out an edit; say why not when the core refuses it."""
        try:
            self.apply(name, edit())
        except KavletError as error:
            self.refuse(error)
            return False
        return True

    def refuse(self, error: KavletError) -> None:
        """Tell the user why an edit was not made."""
        self.refused.emit(str(error))

    def undo(self) -> None:
        self._trial = None
        if self._history.undo():
            self.changed.emit()

    def redo(self) -> None:
        if self._history.redo():
            self.changed.emit()

    def load(self, document: Document, path: Path | None, name: str, unsaved: bool = False) -> None:
        """Replace everything by a document that was opened or made anew."""
        self._trial = None
        self.selection = ()
        self._history = History(document)
        if unsaved:
            self._history.unsaved()
        self.path = path
        self.name = name
        self._shown = self._table = ""
        self.changed.emit()

    def saved(self, path: Path) -> None:
        """Note that the current document now lies in a file."""
        self._history.saved()
        self.path = path
        self.name = path.stem
        self.changed.emit()
