"""What is done with pages: made, copied, ordered, charts sent to them, and presented."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal
from PySide6.QtWidgets import QInputDialog, QWidget

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.pages import page_edits
from kavlet.core.messages import say, words
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.values.errors import KavletError
from kavlet.desktop.command import Command, a_chart, a_table
from kavlet.desktop.store import Store


def a_page(store: Store) -> bool:
    return store.has_page


if TYPE_CHECKING:
    from kavlet.desktop.on_demand import OnDemand
    from kavlet.desktop.pages.panel import PagesPanel


class PageCommands(QObject):
    """Each method carries out one command. `pages_wanted` and `stage_wanted` ask for those places, `present_wanted` for
    presenting from a page (from the first where empty), `full_view_wanted` for the chart alone."""

    pages_wanted = Signal()
    stage_wanted = Signal()
    present_wanted = Signal(str)
    full_view_wanted = Signal()

    def __init__(self, parent: QWidget, store: Store, pages: "OnDemand[PagesPanel]", shown: Callable[[], bool]) -> None:
        from kavlet.desktop.pages.rulers import in_points

        super().__init__(parent)
        self._parent, self._store, self._pages, self._shown = parent, store, pages, shown
        also = ("pages",)
        self.place_commands = (
            Command("show_stage", "View", "Figures and Stage", self.stage_wanted.emit, "Ctrl+1", line_before=True,
                    is_on=lambda: not shown()),
            Command("show_pages", "View", "Pages", self.pages_wanted.emit, "Ctrl+2", is_on=shown),
        )  # fmt: skip
        self.view_commands = (
            Command("page_fit", "View", "Whole page", lambda: self._panel.canvas.set_zoom(0), "Ctrl+0", self._on_page),
            Command("page_actual", "View", "Page in actual size", self.zoom_actual, needs=self._on_page),
            Command("page_larger", "View", "Page larger", lambda: self._zoom(1.25), "Ctrl+=", self._on_page),
            Command("page_smaller", "View", "Page smaller", lambda: self._zoom(0.8), "Ctrl+Shift+-", self._on_page),
            Command("in_points", "View", "Lengths in points", self.turn_unit, is_on=in_points),
        )  # fmt: skip
        self.commands = (
            Command("add_page", "Page", "New page", self.add, "Ctrl+Shift+N", a_table, also),
            Command("send_to_page", "Page", "Send chart to page", self.send, "Ctrl+Shift+P", a_chart, ("stage",),
                    line_before=True),
            Command("page_of_chart", "Page", "A page of this chart", self.of_chart, needs=a_chart),
            Command("page_of_all_rows", "Page", "A page of all rows", self.of_all_rows, needs=a_chart),
            Command("page_per_row", "Page", "One page per row", self.per_row, needs=a_chart),
            Command("copy_chart_to_clipboard", "Page", "Copy chart with its table", self.copy_chart, "Ctrl+Shift+C",
                    a_chart, ("stage",), line_before=True),
            Command("paste_chart", "Page", "Paste chart with its table", self.paste_chart, also=("stage",)),
            Command("rename_page", "Page", "Rename page…", self.ask_name, needs=a_page, also=also, line_before=True),
            Command("copy_page", "Page", "Duplicate page", self.copy, needs=a_page, also=also),
            Command("delete_page", "Page", "Delete page", self.delete, needs=a_page, also=also),
            Command("page_up", "Page", "Page further up", lambda: self.move(-1), needs=a_page, also=also),
            Command("page_down", "Page", "Page further down", lambda: self.move(1), needs=a_page, also=also),
            Command("skip_page", "Page", "Skip when presenting", self.skip, needs=a_page, also=also,
                    is_on=lambda: store.has_page and store.page.skipped),
            Command("present", "Page", "Present", lambda: self.present_wanted.emit(""), "F5", a_page,
                    line_before=True),
            Command("present_from_here", "Page", "Present from this page",
                    lambda: self.present_wanted.emit(store.page.id), "Shift+F5", a_page, also),
            Command("full_view", "Page", "Full view of the chart", self.full_view_wanted.emit, "F11", a_chart,
                    ("stage",)),
        )  # fmt: skip
        pages.when_made(self._follow)

    def _follow(self, panel: "PagesPanel") -> None:
        store = self._store
        panel.strip.delete_wanted.connect(lambda: store.guard(self.delete))
        panel.add.clicked.connect(lambda: store.guard(self.add))
        panel.first_wanted.connect(lambda: store.guard(self.add))
        panel.present_wanted.connect(lambda: self.present_wanted.emit(store.page.id))

    @property
    def _panel(self) -> "PagesPanel":
        return self._pages()

    # Looking

    def _on_page(self, store: Store) -> bool:
        return store.has_page and self._shown()

    def _zoom(self, by: float) -> None:
        self._panel.canvas.set_zoom(self._panel.canvas.factor * by)

    def zoom_actual(self) -> None:
        """As large as it will be in print, by the screen's own resolution."""
        self._panel.canvas.set_zoom(self._parent.logicalDpiX() / 72)

    def turn_unit(self) -> None:
        """Lengths in points, or in millimetres again."""
        from kavlet.desktop.pages.rulers import choose_points, in_points

        choose_points(not in_points())
        self._panel.fields.change_unit()
        self._panel.canvas.update()

    # Pages

    def add(self) -> None:
        """A page after the one in view, of its size, margins and look; the first is an A4 sheet."""
        like = self._store.page if self._store.has_page else None

        def added(document: Document) -> tuple[Document, str]:
            if like is None:
                return page_edits.add_page(document)
            return page_edits.add_page_like(document, like, document.pages.index(like) + 1)

        self._show(self._store.make(say("add page"), added))

    def copy(self) -> None:
        page = self._store.page.id
        self._show(self._store.make(say("duplicate page"), lambda document: page_edits.copy_page(document, page)))

    def delete(self) -> None:
        """Delete the page in view; the one after it comes into view."""
        store, pages = self._store, self._store.document.pages
        if not store.has_page:
            return
        at = pages.index(store.page)
        after = pages[at + 1] if at + 1 < len(pages) else pages[at - 1]
        done = store.edit_page(say("delete page"), lambda document, page: page_edits.delete_page(document, page.id))
        if done and store.has_page:
            store.show_page(after.id)

    def move(self, by: int) -> None:
        """The page further up or down among the others."""

        def moved(document: Document, page: Page) -> Document:
            return page_edits.move_page(document, page.id, document.pages.index(page) + by)

        self._store.edit_page(say("move page"), moved)

    def skip(self) -> None:
        """Leave the page out when presenting, or not."""
        self._store.edit_page(
            say("skip page"), lambda document, page: page_edits.change_page(document, page.id, skipped=not page.skipped)
        )

    def ask_name(self) -> None:
        name, accepted = QInputDialog.getText(
            self._parent, words("Rename page"), words("Name"), text=self._store.page.name
        )
        if accepted:
            self.rename(name)

    def rename(self, name: str) -> None:
        self._store.edit_page(
            say("rename page"), lambda document, page: page_edits.change_page(document, page.id, name=name)
        )

    # Charts onto pages

    def send(self) -> None:
        """The chart in view onto the page in view; onto a new one where there is none. The page comes into view."""
        store, chart = self._store, self._store.here.id
        at = store.page.id if store.has_page else None

        def sent(document: Document) -> tuple[Document, tuple[str, str]]:
            document, page, item = page_edits.send_to_page(document, chart, at)
            return document, (page, item)

        made = store.make(say("send chart to page"), sent)
        if made is not None:
            self._show(made[0])
            store.choose_items(made[1])

    def of_chart(self) -> None:
        """A page that the chart fills."""
        self._make(lambda document, chart: page_edits.page_of_chart(document, chart.id))

    def of_all_rows(self) -> None:
        """A page with the chart for each row, group, series or period, on one scale."""
        self._make(lambda document, chart: page_edits.page_of_all_rows(document, chart.id, _repeated(document, chart)))

    def per_row(self) -> None:
        """A page for each row, group, series or period."""
        self._make(lambda document, chart: page_edits.page_per_row(document, chart.id, _repeated(document, chart)))

    def _make(self, make: Callable[[Document, ChartEntry], tuple[Document, str]]) -> None:
        chart = self._store.here
        self._show(self._store.make(say("add page"), lambda document: make(document, chart)))

    def _show(self, page: str | None) -> None:
        """Bring a page that was made into view; nothing where it was refused."""
        if page is not None:
            self._store.show_page(page)
            if not self._shown():
                self.pages_wanted.emit()

    # Charts between documents

    def copy_chart(self) -> None:
        """The chart in view with its table, source, helpers, recipe and pictures; for other programs as a picture."""
        from kavlet.core.document.copy_between import copied_parts
        from kavlet.core.office_model.figure_table import figures_of
        from kavlet.desktop.deliver.clipboard import mime_of
        from kavlet.desktop.pages import clipboard

        store, chart = self._store, self._store.here
        clipboard.put(copied_parts(store.document, (chart.id,)), mime_of(store.drawn.scene, figures_of(store.drawn)))

    def paste_chart(self) -> None:
        """A chart that was copied, here or in another document."""
        from kavlet.core.document.copy_between import pasted_document
        from kavlet.desktop.pages import clipboard

        load = clipboard.held()
        if load is None or not load.document.charts:
            raise KavletError(say("The clipboard holds no chart."), remedy=say("Copy a chart with its table first."))

        def pasted(document: Document) -> tuple[Document, tuple[str, ...]]:
            result = pasted_document(document, load)
            return result.document, result.charts

        made = self._store.make(say("paste chart"), pasted)
        if made:
            self._store.show_chart(made[0])


def _repeated(document: Document, chart: ChartEntry) -> page_edits.Repetition:
    """What a chart is repeated over, on one scale."""
    from kavlet.core.pipeline.page_items.multiples import repeated

    pictures = Pictures()
    return repeated(document, pictures.values(document), chart, lambda entry, key: pictures.drawn(document, entry, key))
