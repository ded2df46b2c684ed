"""Reads the document as a sceptical reader would, in a thread of its own, once the chart is painted."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from kavlet.core.document.document import Document
from kavlet.core.messages import say
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.desktop.current_view import make_ready
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker

if TYPE_CHECKING:
    from kavlet.core.proof.finding import Finding
    from kavlet.core.proof.proofreading import Proof, Proofreader

MOMENT = 300  # milliseconds without an edit, after which the document is read


class BackgroundProof(QObject):
    """Keeps what was found of the document in the window; `found` says that it is another. What is in view is read
    first, then all the rest; nothing is read while something is only tried out."""

    found = Signal()

    def __init__(self, store: Store, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.worker = Worker(self._failed, self)
        self.worker.patience = 0.0
        self._reader: Proofreader | None = None
        self._pictures = Pictures()
        self._read: Document | None = None
        self.proof: Proof | None = None
        self._moment = QTimer(self)
        self._moment.setSingleShot(True)
        self._moment.setInterval(MOMENT)
        self._moment.timeout.connect(self._ask_in_view)
        store.follow(self._wait)
        self._wait()

    def _own_reader(self) -> "Proofreader":
        """A reader for another thread, which knows what was read so far."""
        from kavlet.core.proof.proofreading import Proofreader

        return self._reader.copy() if self._reader is not None else Proofreader()

    @property
    def is_up_to_date(self) -> bool:
        """Whether all of the document that is shown was read."""
        return self._read is self._store.document and not self.worker.working

    def of_chart(self, chart: str) -> "tuple[Finding, ...] | None":
        """What is open of a chart; None where it was not read yet."""
        held = self.proof.charts.get(chart) if self.proof is not None else None
        return tuple(finding for finding in held if finding.silenced is None) if held is not None else None

    def of_page(self, page: str) -> "tuple[Finding, ...] | None":
        """What is open of a page; None where it was not read yet."""
        held = self.proof.pages.get(page) if self.proof is not None else None
        return tuple(finding for finding in held if finding.silenced is None) if held is not None else None

    def stop(self) -> None:
        """Read no more."""
        self._moment.stop()
        self.worker.stop()

    def read_again(self) -> None:
        """Read all of it again: a followed file has changed."""
        self._read = None
        self._wait()

    def _wait(self) -> None:
        if not self._store.trying and self._read is not self._store.document:
            self.worker.give_up()  # it would only keep the window from what is new
            self._moment.start()

    def _ask_in_view(self) -> None:
        """What is in view, at once."""
        from kavlet.core.proof.proofreading import Proof

        if self._store.trying:
            return
        document, chosen_parts = self._store.document, self._store.chosen
        reader, pictures = self._own_reader(), self._pictures.copy()
        pictures.joined(self._store.pictures())
        chart = self._store.chart.id if self._store.has_chart else ""
        page = self._store.page.id if self._store.looks_at_pages and self._store.has_page else ""

        def read() -> "tuple[Document, Proofreader, Pictures, Proof]":
            make_ready(pictures, document, chosen_parts, bool(page))
            before = self.proof or Proof()
            charts, pages = dict(before.charts), dict(before.pages)
            if chart and not page:
                charts[chart] = reader.chart(document, pictures, chart)
            if page:
                pages[page] = reader.page(document, pictures, page)
            proof = Proof(
                {entry.id: charts[entry.id] for entry in document.charts if entry.id in charts},
                {entry.id: pages[entry.id] for entry in document.pages if entry.id in pages},
                before.papers,
            )
            return document, reader, pictures, proof

        self.worker.ask("proof", say("Proof"), read, self._took_view)

    def _took_view(self, made: "tuple[Document, Proofreader, Pictures, Proof]") -> None:
        from kavlet.core.files.source_states import source_states

        document, self._reader, self._pictures, self.proof = made
        self.found.emit()
        if document is not self._store.document:
            return
        reader, pictures, may = self._own_reader(), self._pictures.copy(), self._store.followed.may

        def read() -> "tuple[Document, Proofreader, Pictures, Proof]":
            return document, reader, pictures, reader.whole(document, pictures, source_states(document, may))

        self.worker.ask("proof", say("Proof"), read, self._took_all)

    def _took_all(self, made: "tuple[Document, Proofreader, Pictures, Proof]") -> None:
        self._read, self._reader, self._pictures, self.proof = made
        self._pictures.forget(self._read)
        self.found.emit()

    def _failed(self, why: str) -> None:
        """Nobody waits for what was given up, and what can't be computed is said where it is seen."""
        del why
