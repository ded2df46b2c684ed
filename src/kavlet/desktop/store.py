"""The store: the current document with its history, what of it is in view, and what it announces."""

from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

from PySide6.QtCore import QObject, Signal

from kavlet.core.charts.chart import Chart
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.history import History
from kavlet.core.files.file_stamp import FileStamp
from kavlet.core.interaction.parts import Chosen, Part
from kavlet.core.messages import Message, say
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.pipeline.page_items.page_picture import PagePicture
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.pipeline.stages import Picture
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.scene.readers import Reader
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.spreadsheet.table import NO_TABLE, Table
from kavlet.core.values.errors import KavletError, attempt
from kavlet.desktop.background_edit import BackgroundEdit
from kavlet.desktop.current_view import chart_in, make_ready, page_in
from kavlet.desktop.document_file import DocumentFile
from kavlet.desktop.draft_edits import DraftEdit
from kavlet.desktop.pending_text import PendingText
from kavlet.desktop.source_consent import SourceConsent

Made = TypeVar("Made")


class Store(QObject):
    """Holds the document. Views draw what it holds and write to it by its edits alone.

    It announces four things apart: `edited` when the history has moved; `shown` when another chart, table or page is in
    view, or a document is only tried out; `viewed` when it is looked at otherwise (X-ray, folding); `selected` when
    other parts or items are chosen. `refused` tells the user something in one sentence.
    """

    edited = Signal()
    shown = Signal()
    viewed = Signal()
    selected = Signal()
    refused = Signal(str)

    def __init__(self, document: Document | None = None, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._history = History(document or Document())
        self._pictures = Pictures()
        self._trial: Document | None = None
        self.attended = BackgroundEdit(self)
        self.pending_text = PendingText(self)
        self._rehearsed: list[DraftEdit] | None = None
        self.looks_at_pages = False
        self.path: Path | None = None
        self.followed, self.on_disk = SourceConsent(), DocumentFile(None, None)
        self.name = ""
        self.chosen = Chosen()
        self.folded = False
        self.xray = False
        self.reader: Reader = "everyone"
        self.dress_copied: tuple[str, dict[str, Any]] | None = None

    def take_over(self, other: "Store") -> None:
        """Hold what another store holds: its document with the history, and what of it is in view."""
        self._history, self._pictures, self._trial = other._history, other._pictures, None
        self.path, self.name, self.chosen = other.path, other.name, other.chosen
        self.followed, self.on_disk = other.followed, other.on_disk
        self.folded, self.xray, self.dress_copied = other.folded, other.xray, other.dress_copied
        self.reader = other.reader
        self.edited.emit()

    def follow(self, refresh: Callable[[], object], view: bool = False) -> None:
        """Call a view's `refresh` whenever the document it shows is another; with `view`, how it is looked at too."""
        self.edited.connect(refresh)
        self.shown.connect(refresh)
        if view:
            self.viewed.connect(refresh)

    # What is in view

    @property
    def document(self) -> Document:
        """The document as it is shown: the current one, or one that is only tried out."""
        return self._trial if self._trial is not None else self._history.current

    @property
    def history(self) -> History:
        return self._history

    @property
    def values(self) -> Values:
        return self._pictures.values(self.document)

    @property
    def chart(self) -> ChartEntry:
        """The chart in view; `NO_CHART` where there is none."""
        return chart_in(self.document, self.chosen)

    @property
    def table(self) -> Table:
        """The table in view: the one chosen, else the one the chart reads; `NO_TABLE` where there is none."""
        tables = self.document.tables
        found = (table for name in (self.chosen.table, self.chart.table) for table in tables if table.id == name)
        return next(found, tables[0] if tables else NO_TABLE)

    @property
    def page(self) -> Page:
        """The page in view; `NO_PAGE` where there is none."""
        return page_in(self.document, self.chosen)

    @property
    def has_page(self) -> bool:
        """Whether there is a page in view."""
        return bool(self.document.pages)

    @property
    def items(self) -> tuple[AnyItem, ...]:
        """The items of the page in view that are chosen, back to front."""
        return tuple(item for item in self.page.items if item.id in self.chosen.items)

    @property
    def drawn_page(self) -> PagePicture:
        """The page in view. Raises KavletError when there is none, or it can't be drawn."""
        return self._pictures.page(self.document, self.page.id)

    def page_picture(self, page: str = "") -> PagePicture:
        """A page of the document, the one in view when not said; `NO_PAGE_PICTURE` where it can't be drawn."""
        return self._pictures.page_if_any(self.document, page or self.page.id)

    @property
    def has_chart(self) -> bool:
        """Whether there is a chart in view."""
        return bool(self.document.charts)

    @property
    def has_table(self) -> bool:
        """Whether there is a table in view."""
        return bool(self.document.tables)

    @property
    def recipe(self) -> Recipe | None:
        """The recipe of the chart in view; None for layers of its own."""
        return recipes_of(self.document).get(self.chart.recipe)

    @property
    def selection(self) -> tuple[Part, ...]:
        """The parts of the chart in view that are chosen."""
        return self.chosen.parts

    @property
    def chart_is_of_table(self) -> bool:
        """Whether the chart in view reads the table in view."""
        return self.has_chart and self.chart.table == self.table.id

    @property
    def here(self) -> ChartEntry:
        """The chart in view. Raises KavletError when there is none."""
        if not self.has_chart:
            raise KavletError(say("There is no chart."), remedy=say("Choose a recipe first."))
        return self.chart

    @property
    def there(self) -> Table:
        """The table in view. Raises KavletError when there is none."""
        if not self.has_table:
            raise KavletError(say("There is no table."), remedy=say("Open one, or paste cells."))
        return self.table

    @property
    def drawn(self) -> Picture:
        """The chart in view, through all stages. Raises KavletError when there is none, or its table does not fit."""
        return self._pictures.picture(self.document, self.here.id)

    @property
    def spec(self) -> Chart:
        """What the chart in view has become. Raises KavletError as `drawn` does."""
        return self.drawn.build.chart

    @property
    def picture(self) -> Picture:
        """The chart in view; `NO_PICTURE` where there is none, or its table does not fit it."""
        return self.picture_of(self.chart.id)

    def pictures(self) -> Pictures:
        """The pictures that are kept by now, for another thread to go on with."""
        return self._pictures.copy()

    def picture_of(self, chart: str) -> Picture:
        """A chart of the document; `NO_PICTURE` where its table does not fit it."""
        return self._pictures.picture_if_any(self.document, chart)

    def choose(self, **changes: Any) -> None:
        """Bring something else into view; what was only tried out ends with it."""
        if self.rehearsing:
            return
        self.pending_text.take()
        chosen = self.chosen.changed(**changes)
        self.guard(lambda: self._choose(chosen))

    def look_at(self, pages: bool) -> bool:
        """Make ready what will be seen: the page in view, or else the chart. Returns whether it was waited for."""
        self.pending_text.take()
        before, self.looks_at_pages = self.looks_at_pages, pages
        if self.guard(self._make_ready):
            return True
        self.looks_at_pages = before
        return False

    def _make_ready(self) -> None:
        _, self._pictures = self._made(say("Drawing"), lambda: self.document)

    def _choose(self, chosen: Chosen) -> None:
        _, self._pictures = self._made(say("Drawing"), lambda: self._history.current, chosen)
        self._trial = None
        self.chosen = chosen
        self.shown.emit()

    def show_table(self, table: str) -> None:
        """Bring another table into view, and with it the first chart built on it, where there is one."""
        self.pending_text.take()
        if self.has_chart and self.chart.table == table:
            self.choose(table=table)
            return
        charts = [entry.id for entry in self.document.charts if entry.table == table]
        self.choose(table=table, chart=charts[0] if charts else self.chosen.chart)
        self.select()

    def show_chart(self, chart: str) -> None:
        """Bring another chart into view, and the table it reads."""
        self.choose(chart=chart, table=self.document.chart(chart).table)
        self.select()

    def show_page(self, page: str) -> None:
        """Bring another page into view."""
        if page != self.page.id or self.chosen.page != page:
            self.choose(page=page, items=())
            self.selected.emit()

    def choose_items(self, *items: str) -> None:
        """Choose items of the page in view."""
        if items != self.chosen.items and not self.rehearsing:
            self.pending_text.take()
            self.chosen = self.chosen.changed(items=items)
            self.selected.emit()

    def select(self, *parts: Part) -> None:
        """Choose parts of the chart in view."""
        if parts != self.chosen.parts and not self.rehearsing:
            self.pending_text.take()
            self.chosen = self.chosen.changed(parts=parts)
            self.selected.emit()

    def show_xray(self, on: bool) -> None:
        """Show the helpers, or hide them."""
        self.xray = on
        self.viewed.emit()

    def read_as(self, reader: Reader) -> None:
        """Show charts and pages as some of their readers see them."""
        self.reader = reader
        self.viewed.emit()

    def fold(self, folded: bool) -> None:
        """Fold the helper columns away, or show them."""
        self.folded = folded
        self.viewed.emit()

    # Trials

    @property
    def trying(self) -> bool:
        """Whether what is shown is only tried out."""
        return self._trial is not None

    def try_out(self, document: Document | None) -> None:
        """Show a document without taking it; None goes back to the current one."""
        if document is not self._trial:
            self.guard(lambda: self._try_out(document))

    def _try_out(self, document: Document | None) -> None:
        _, self._pictures = self._made(say("Drawing"), lambda: document or self._history.current)
        self._trial = document
        self.shown.emit()

    def _end_trial(self) -> bool:
        """Forget what was only tried out. Returns whether there was anything."""
        tried, self._trial = self._trial is not None, None
        return tried

    # Edits

    def apply(self, name: Message, document: Document) -> bool:
        """Take an edited document under the name of the edit; what was only tried out ends with it. Returns whether it
        was taken; that its pictures were not waited for is said."""

        def refuse(why: str) -> None:
            self.try_out(None)
            self.tell(why)

        return attempt(lambda: self._take(name, lambda: document), refuse)

    def _take(self, name: Message, edit: Callable[[], Document]) -> None:
        if self._rehearsed is not None:
            self._rehearsed.append(DraftEdit(name, edit))
            return
        document, pictures = self._made(name, edit)
        self._moved(pictures, self._history.apply(name, document))

    def _made(
        self, name: Message, edit: Callable[[], Document], chosen: Chosen | None = None, kept: Pictures | None = None
    ) -> tuple[Document, Pictures]:
        """A document and the pictures that it needs to be seen, made beside the window. Raises KavletError where the
        core refuses the edit, the formulas take too long, or it was given up."""
        pictures, view, looks_at_pages = (kept or self._pictures).copy(), chosen or self.chosen, self.looks_at_pages

        def make() -> Document:
            document = edit()
            make_ready(pictures, document, view, looks_at_pages)
            return document

        return self.attended(name, make), pictures

    def _moved(self, pictures: Pictures, moved: bool) -> None:
        self._pictures, tried = pictures, self._end_trial()
        if moved:
            self._pictures.forget(self.document)
            self.edited.emit()
        elif tried:
            self.shown.emit()

    def guard(self, do: Callable[[], object]) -> bool:
        """Do something; where the core refuses it, say why. Returns whether it was done."""
        return attempt(do, self.tell)

    def edit(self, name: Message, edit: Callable[[Document], Document]) -> bool:
        """Edit the document. Returns whether it was done; what the core refuses is said."""
        self.pending_text.take()
        document = self.document
        return self.guard(lambda: self._take(name, lambda: edit(document)))

    def make(self, name: Message, edit: Callable[[Document], tuple[Document, Made]]) -> Made | None:
        """Edit the document by what also tells what it made, such as an id. Returns that; None where it was refused."""
        made: list[Made] = []

        def edited(document: Document) -> Document:
            document, new = edit(document)
            made.append(new)
            return document

        return made[0] if self.edit(name, edited) and made else None

    def edit_chart(self, name: Message, edit: Callable[[Document, ChartEntry], Document]) -> bool:
        """Edit the chart in view; nothing is done where there is none."""
        self.pending_text.take()
        chart = self.chart
        return self.has_chart and self.edit(name, lambda document: edit(document, chart))

    def edit_table(self, name: Message, edit: Callable[[Document, Table], Document]) -> bool:
        """Edit the table in view; nothing is done where there is none."""
        self.pending_text.take()
        table = self.table
        return self.has_table and self.edit(name, lambda document: edit(document, table))

    def edit_page(self, name: Message, edit: Callable[[Document, Page], Document]) -> bool:
        """Edit the page in view; nothing is done where there is none."""
        self.pending_text.take()
        page = self.page
        return self.has_page and self.edit(name, lambda document: edit(document, page))

    def undo(self) -> None:
        """Go one step back."""
        earlier = self._history.earlier or self._history.current
        self.guard(lambda: self._moved(self._made(say("Undo"), lambda: earlier)[1], self._history.undo()))

    def redo(self) -> None:
        """Go one step forth."""
        later = self._history.later or self._history.current
        self.guard(lambda: self._moved(self._made(say("Redo"), lambda: later)[1], self._history.redo()))

    def tell(self, sentence: str) -> None:
        """Tell the user something in one sentence."""
        if not self.rehearsing:
            self.refused.emit(sentence)

    # What is being typed

    @property
    def rehearsing(self) -> bool:
        """Whether edits are only looked for."""
        return self._rehearsed is not None

    def rehearse(self, do: Callable[[], object]) -> DraftEdit | None:
        """The first edit that something would make, which is not made; None where it would make none."""
        found: list[DraftEdit] = []
        self._rehearsed = found
        try:
            self.pending_text.left_alone(do)
        finally:
            self._rehearsed = None
        return found[0] if found else None

    # Files

    def load(self, document: Document, path: Path | None, name: str, unsaved: bool = False) -> bool:
        """Replace everything by a document that was opened or made anew. Returns whether it was; that it was not is
        said."""
        self.pending_text.take()
        return self.guard(lambda: self._load(document, path, name, unsaved))

    def _load(self, document: Document, path: Path | None, name: str, unsaved: bool) -> None:
        _, self._pictures = self._made(say("Drawing"), lambda: document, Chosen(), Pictures())
        self._end_trial()
        self.chosen = Chosen()
        self._history = History(document)
        if unsaved:
            self._history.unsaved()
        self.path = path
        self.name = name
        self.followed.opened(document, path, unsaved)
        self.on_disk = DocumentFile.now(path)
        self.edited.emit()

    def take_up(self, history: History, path: Path | None, name: str, stamp: FileStamp | None) -> bool:
        """Go on with a history that was kept: it reaches back into the time before, when its file was as `stamp` says.
        Returns whether it was taken."""
        if not self.load(history.current, path, name):
            return False
        self._history = history
        self.on_disk = DocumentFile(path, stamp)
        self.edited.emit()
        return True

    def saved(self, path: Path) -> None:
        """Note that the current document now lies in a file."""
        self._history.saved()
        self.path = path
        self.followed.saved(self.document, path)
        self.on_disk = DocumentFile.now(path)
        self.name = path.stem
        self.edited.emit()
