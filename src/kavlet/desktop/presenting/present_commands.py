"""Presenting from the window: what is shown on which screen, and what becomes of figures changed meanwhile."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QSettings, QTimer, Signal
from PySide6.QtGui import QGuiApplication, QKeyEvent, QScreen
from PySide6.QtWidgets import QMessageBox, QWidget

from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.messages import counted, say, words
from kavlet.core.pipeline.editable_cell import EditableCell
from kavlet.core.values.errors import KavletError
from kavlet.desktop.draft_edits import DraftEdit
from kavlet.desktop.store import Store

if TYPE_CHECKING:
    from kavlet.desktop.presenting.audience_screen import AudienceScreen
    from kavlet.desktop.presenting.show import Show
    from kavlet.desktop.presenting.speaker import SpeakerView

SCREEN = "screen to present on"


class PresentCommands(QObject):
    """One presentation at a time; `stage` is what its audience sees, `speaker` what its speaker does. `changed` tells
    that figures were changed before the audience."""

    changed = Signal()

    def __init__(self, parent: QWidget, store: Store) -> None:
        super().__init__(parent)
        self._parent, self._store = parent, store
        # The window owns what is shown: it goes only once the event that ends it is over.
        self._then: Callable[[], object] | None = None  # what waits for the end of the show
        self.stage: AudienceScreen | None = None
        self.speaker: SpeakerView | None = None
        self.question: QMessageBox | None = None

    def present(self, start: str = "") -> None:
        """Present the document's pages, from one of them or from the first. Raises KavletError where all are
        skipped."""
        from kavlet.desktop.presenting.show import Show

        document = self._store.document
        pages = tuple(page.id for page in document.pages if not page.skipped or page.id == start)
        if not pages:
            raise KavletError(say("There is no page to present."), remedy=say("Make one, or skip fewer of them."))
        self._begin(Show(document, pages, start, self))

    def full_view(self) -> None:
        """The chart in view alone, as large as the screen."""
        from kavlet.desktop.presenting.show import Show

        store = self._store
        document, page = page_edits.page_of_chart(store.document, store.here.id, "Slide 16:9")
        self._begin(Show(document, (page,), parent=self))

    def _begin(self, show: "Show") -> None:
        from kavlet.desktop.presenting.audience_screen import AudienceScreen

        if self.stage is not None:
            return
        stage = self.stage = AudienceScreen(show, self._parent)
        stage.ended.connect(self.end)
        show.moved.connect(self.changed)
        stage.speaker_wanted.connect(self.toggle_speaker)
        stage.exchange_wanted.connect(self.exchange)
        mine, others = self._screens()
        stage.setGeometry((others or [mine])[0].geometry())
        stage.showFullScreen()
        stage.activateWindow()
        stage.setFocus()
        if others:
            self.toggle_speaker()

    def _screens(self) -> tuple[QScreen, list[QScreen]]:
        """The screen of the window, and the others: first the one that was presented on last time."""
        own_screen = self._parent.screen()
        screen_name = str(QSettings().value(SCREEN, ""))
        others = [screen_ for screen_ in QGuiApplication.screens() if screen_ is not own_screen]
        return own_screen, sorted(others, key=lambda screen_: screen_.name() != screen_name)

    def toggle_speaker(self) -> None:
        """Open the speaker's view, or close it."""
        from kavlet.desktop.presenting.speaker import SpeakerView

        if self.stage is None:
            return
        if self.speaker is not None:
            self.speaker.close()
            self.speaker.deleteLater()
            self.speaker = None
            return
        speaker = self.speaker = SpeakerView(self.stage.show_of, self._parent)
        speaker.key.connect(self._key)
        mine, others = self._screens()
        if others:
            speaker.setGeometry(mine.availableGeometry())
        speaker.show()
        self.stage.activateWindow()

    def _key(self, event: QKeyEvent) -> None:
        if self.stage is not None:
            self.stage.keyPressEvent(event)

    def exchange(self) -> None:
        """The page on the other screen, the speaker's view on this one; remembered for the next time."""
        if self.stage is None:
            return
        here = self.stage.screen()
        others = [one for one in QGuiApplication.screens() if one is not here]
        if not others:
            return
        QSettings().setValue(SCREEN, others[0].name())
        self.stage.setGeometry(others[0].geometry())
        self.stage.showFullScreen()
        if self.speaker is not None:
            self.speaker.setGeometry(here.availableGeometry())

    def ended(self, then: Callable[[], object]) -> bool:
        """End what is presented, before its window closes. Returns whether it is over; where figures were changed, it
        is asked first, and `then` is done once that is answered."""
        self.end()
        if self.stage is None:
            return True
        self._then = then
        return False

    def end(self) -> None:
        """Leave; where figures were changed before the audience, ask whether to keep them."""
        stage = self.stage
        if stage is None or self.question is not None:
            return
        show = stage.show_of
        stage.take_typed()
        show.stop()
        if not show.figures:
            self._close()
            return
        question = self.question = QMessageBox(stage)
        question.setIcon(QMessageBox.Icon.Question)
        question.setText(str(counted("{count} figure was changed while presenting.",
                                     "{count} figures were changed while presenting.", len(show.figures))))  # fmt: skip
        question.setInformativeText(words("Keep them in the document?"))
        keep = question.addButton(words("Keep"), QMessageBox.ButtonRole.AcceptRole)
        drop = question.addButton(words("Drop"), QMessageBox.ButtonRole.DestructiveRole)
        question.addButton(words("Go on presenting"), QMessageBox.ButtonRole.RejectRole)
        question.setDefaultButton(keep)
        question.finished.connect(lambda _: self._answered(question.clickedButton() is keep,
                                                           question.clickedButton() in (keep, drop)))  # fmt: skip
        question.open()

    def _answered(self, keep: bool, leave: bool) -> None:
        self.question = None
        then, self._then = self._then, None
        if not leave or self.stage is None:
            return
        show = self.stage.show_of
        self._close()
        if keep:
            self._keep(show)
        if then is not None:
            QTimer.singleShot(0, self, then)

    def _keep(self, show: "Show") -> None:
        """Keep the figures that were changed; those whose cells are gone are said."""
        lost: list[EditableCell] = []

        def changed(document: Document) -> Document:
            made, gone = show.kept(document)
            lost.extend(gone)
            return made

        self._store.edit(say("change figures while presenting"), changed)
        if lost:
            self._store.tell(str(counted("{count} of the figures has no cell any more.",
                                         "{count} of the figures have no cell any more.", len(lost))))  # fmt: skip

    @property
    def draft(self) -> DraftEdit | None:
        """The edit that would keep the figures changed so far, for the journal; None where there are none."""
        if self.stage is None or not self.stage.show_of.figures:
            return None
        show, document = self.stage.show_of, self._store.document
        return DraftEdit(say("change figures while presenting"), lambda: show.kept(document)[0])

    def _close(self) -> None:
        for window in (self.speaker, self.stage):
            if window is not None:
                window.hide()
                window.deleteLater()
        if self.stage is not None:
            self.stage.show_of.deleteLater()  # with the pictures of its pages
        self.stage = self.speaker = None
        self._parent.activateWindow()
