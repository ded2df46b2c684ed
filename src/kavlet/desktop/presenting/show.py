"""What is presented: which page, at which period, with which figures; and how it moves from one to the next."""

from PySide6.QtCore import QElapsedTimer, QObject, QTimer, Signal

from kavlet.core.document.charts.period_steps import PeriodSteps, stepped, stepping
from kavlet.core.document.document import Document
from kavlet.core.document.interpolation import between
from kavlet.core.pages.page import Page
from kavlet.core.pipeline.editable_cell import EditableCell, same_cell, with_number
from kavlet.core.pipeline.page_items.page_picture import NO_PAGE_PICTURE, PagePicture
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.values.errors import KavletError

FRAME = 16  # milliseconds from one picture of a movement to the next
MOVE = 450  # milliseconds that a movement takes
PAUSE = 500  # milliseconds that a period stands while playing


def eased(share: float) -> float:
    """How far a movement is after a share of its time: slow at both ends, never back."""
    share = min(1.0, max(0.0, share))
    return share * share * (3 - 2 * share)


class Show(QObject):
    """Holds the document as its audience sees it, apart from the one that is edited.

    `moved` tells that another picture is to be seen, `turned` that another page is. `figures` holds the numbers that
    were changed, by their cells.
    """

    moved = Signal()
    turned = Signal()

    def __init__(
        self, document: Document, pages: tuple[str, ...], start: str = "", parent: QObject | None = None
    ) -> None:
        super().__init__(parent)
        self._begun = self._target = self._shown = self._from = document
        self.pages = pages
        self.at = pages.index(start) if start in pages else 0
        self.black = False
        self.playing = False
        self.figures: dict[EditableCell, float] = {}
        self._pictures = Pictures()
        self._clock = QElapsedTimer()
        self._timer = QTimer(self)
        self._timer.setInterval(FRAME)
        self._timer.timeout.connect(self._tick)
        self._next = QTimer(self)
        self._next.setSingleShot(True)
        self._next.timeout.connect(self._play_on)
        self._begin(at_end=False)

    # What is seen

    @property
    def document(self) -> Document:
        """The document as it is seen now."""
        return self._shown

    @property
    def page(self) -> Page:
        """The page that is seen."""
        return self._shown.page(self.pages[self.at])

    @property
    def moving(self) -> bool:
        """Whether something is on its way."""
        return self._timer.isActive()

    def picture(self, ahead: int = 0) -> PagePicture:
        """The page that is seen, or one that many pages ahead; `NO_PAGE_PICTURE` where there is none."""
        place = self.at + ahead
        if not 0 <= place < len(self.pages):
            return NO_PAGE_PICTURE
        return self._pictures.page_if_any(self._shown, self.pages[place])

    @property
    def values(self) -> Values:
        """The values of the document as it is seen."""
        return self._pictures.values(self._shown)

    @property
    def steps(self) -> PeriodSteps | None:
        """What of the page goes through periods; None where nothing does."""
        return stepping(self._target, self._pictures.values(self._target), self.page)

    # Turning

    def forward(self) -> bool:
        """The next period, else the next page. Returns whether there was one."""
        return self.step(1) or self.turn(1)

    def back(self) -> bool:
        """The period before, else the page before."""
        return self.step(-1) or self.turn(-1)

    def turn(self, by: int) -> bool:
        """Another page."""
        return self.go_to(self.at + by)

    def go_to(self, place: int) -> bool:
        """The page at a place, counted from 0. Returns whether it is another one that there is."""
        if not 0 <= place < len(self.pages) or place == self.at:
            return False
        back = place < self.at
        self.stop()
        self.at = place
        self.black = False
        self._begin(at_end=back)
        self.turned.emit()
        self.moved.emit()
        return True

    def _begin(self, at_end: bool) -> None:
        """Stand at the first of the page's periods; at the last, when one comes to it from behind."""
        steps = self.steps if self.pages else None
        if steps is not None:
            self._set(self._stepped(steps, len(steps.periods) if at_end else 1))

    def darken(self) -> None:
        """Show nothing, or the page again."""
        self.black = not self.black
        self.moved.emit()

    # Stepping

    def step(self, by: int) -> bool:
        """The page's charts one period on. Returns whether there was one."""
        steps = self.steps
        to = round(steps.at) + by if steps is not None else 0
        if steps is None or not 1 <= to <= len(steps.periods):
            return False
        self.step_to(to)
        return True

    def step_to(self, to: int) -> None:
        """The page's charts on their way to a period, counted from 1."""
        steps = self.steps
        if steps is not None:
            self._go(self._stepped(steps, to))

    def _stepped(self, steps: PeriodSteps, to: int) -> Document:
        return stepped(self._target, self._pictures.values(self._target), steps.charts, float(to))

    def play(self) -> None:
        """Go through all periods by itself, from the first when it stands at the last; or stop."""
        steps = self.steps
        if self.playing or steps is None:
            self.stop()
            return
        if round(steps.at) >= len(steps.periods):
            self._set(self._stepped(steps, 1))
        self.playing = True
        self._next.start(PAUSE)

    def _play_on(self) -> None:
        self.playing = self.playing and self.step(1)

    def stop(self) -> None:
        """End a movement where it would end."""
        self.playing = False
        self._next.stop()
        self._timer.stop()
        self._set(self._target)

    # Figures

    def change(self, cell: EditableCell, number: float) -> None:
        """Another number in a cell; what shows it moves there. Raises KavletError where the cell can't have it."""
        document = with_number(self._target, cell, number)
        self.figures[cell] = number
        self._go(document)

    def kept(self, document: Document) -> tuple[Document, list[EditableCell]]:
        """A document with the figures that were changed before the audience, and those cells that it has not got any
        more, or holds something else in."""
        lost: list[EditableCell] = []
        made = document
        for cell, number in list(self.figures.items()):
            try:
                if not same_cell(self._begun, document, cell):
                    lost.append(cell)
                    continue
                made = with_number(made, cell, number)
            except KavletError:
                lost.append(cell)
        return made, lost

    # Moving

    def _set(self, document: Document) -> None:
        self._target = self._shown = document

    def _go(self, document: Document) -> None:
        """Move to a document from what is seen now."""
        self._from, self._target = self._shown, document
        self._clock.start()
        self._timer.start()
        self._tick()

    def _tick(self) -> None:
        share = self._clock.elapsed() / MOVE
        if share >= 1:
            self._timer.stop()
            self._set(self._target)
            if self.playing:
                self._next.start(PAUSE)
        else:
            self._shown = between(self._from, self._target, eased(share))
        self.moved.emit()
