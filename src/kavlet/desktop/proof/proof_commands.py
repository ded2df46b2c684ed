"""What is done about findings: going to them, mending, silencing; and how readers see the chart."""

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Qt
from PySide6.QtWidgets import QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.interaction.parts import TEXTS, Part
from kavlet.core.messages import Message, counted, say
from kavlet.core.scene.readers import READERS, VIEWS, Reader
from kavlet.desktop.command import Command, a_table
from kavlet.desktop.store import Store
from kavlet.desktop.workspaces import Workspaces

if TYPE_CHECKING:
    from kavlet.core.proof.finding import Finding, Remedy
    from kavlet.desktop.on_demand import OnDemand
    from kavlet.desktop.proof.panel import ProofPanel


class ProofCommands(QObject):
    """Each method carries out one command, or what the list of findings asks for."""

    def __init__(self, parent: QWidget, store: Store, part: "OnDemand[ProofPanel]", places: Workspaces) -> None:
        super().__init__(parent)
        self._store, self._part, self._places = store, part, places
        self._trial: tuple[Message, Document] | None = None
        self.update_wanted: Callable[[], object] = lambda: None
        self.commands = (
            Command("show_proof", "View", "Proof", self.toggle, "F8", a_table, line_before=True,
                    is_on=lambda: self._is_open),
            Command("next_finding", "View", "Next finding", lambda: self.step(1), "F7", a_table),
            Command("previous_finding", "View", "Previous finding", lambda: self.step(-1), "Shift+F7", a_table),
            Command("mend_finding", "View", "Mend the finding", self.mend_first, "Ctrl+Shift+M", a_table),
            *(
                Command(f"read_as_{reader.replace(' ', '_')}", "View", VIEWS[reader], partial(store.read_as, reader),
                        needs=a_table, line_before=reader == "everyone",
                        is_on=partial(self._reads_as, reader))
                for reader in READERS
            ),
        )  # fmt: skip
        part.when_made(self._follow)
        store.edited.connect(self._forget_trial)
        store.shown.connect(lambda: None if store.trying else self._forget_trial())
        self._at: Finding | None = None

    def _follow(self, panel: "ProofPanel") -> None:
        panel.closed.connect(self.toggle)
        panel.list.chosen.connect(self._go_to_chosen)
        panel.list.mend_wanted.connect(self.mend_first)
        panel.details.mend_wanted.connect(self.mend)
        panel.details.all_wanted.connect(self.mend_all)
        panel.details.silence_wanted.connect(self.silence)
        panel.details.listen_wanted.connect(self.listen)
        panel.taken.connect(self.take)
        panel.left.connect(self.leave)

    @property
    def _panel(self) -> "ProofPanel":
        return self._part()

    @property
    def _is_open(self) -> bool:
        return self._part.made is not None and not self._part.made.isHidden()

    def _reads_as(self, reader: Reader) -> bool:
        return self._store.reader == reader

    def toggle(self) -> None:
        """Show what was found, or close it."""
        if self._panel.isHidden():
            self._panel.show_or_hide(True)
            self._panel.refresh()
            self._panel.list.setFocus()
        else:
            self.leave()
            self._panel.show_or_hide(False)

    def show(self, finding: "Finding") -> None:
        """Look at a finding in the list."""
        if self._panel.isHidden():
            self.toggle()
        self._panel.list.go_to(finding)

    def step(self, way: int) -> None:
        """Look at the next finding, or the one before."""
        if self._panel.isHidden():
            self.toggle()
        self._panel.list.step(way)

    # Going to places

    def _go_to_chosen(self) -> None:
        """Bring the place of the finding that is looked at into view, and choose its part; the list keeps the keys."""
        finding = self._panel.list.finding
        if finding is None or self._panel.isHidden() or finding is self._at or self._trial is not None:
            return
        same = self._at is not None and (self._at.place, self._at.check) == (finding.place, finding.check)
        self._at = finding
        if not same:
            had_keys = self._panel.list.hasFocus()
            self._store.guard(lambda: self._bring(finding))
            if had_keys:
                self._panel.list.setFocus(Qt.FocusReason.OtherFocusReason)

    def _bring(self, finding: "Finding") -> None:
        place = finding.place
        if place.page:
            self._places.go_to_page(place.page)
            self._store.choose_items(*((place.item,) if place.item else ()))
            return
        if place.chart:
            self._places.go_to_chart(place.chart)
            part = part_of(finding)
            self._store.select(*((part,) if part is not None else ()))
        elif place.table:
            self._places.go_to_table(place.table)
        if place.cell is not None and not place.layer:
            self._places.go_to_cell(place.table, *place.cell)

    # Mending

    def mend_first(self) -> None:
        """Carry out the first remedy of the finding that is looked at."""
        finding = self._panel.list.finding
        if finding is not None and finding.silenced is None and finding.remedies:
            self.mend(finding.remedies[0])

    def mend(self, remedy: "Remedy") -> None:
        """Carry out a remedy; one that changes what the chart says is shown first."""
        if remedy.edit is None:
            self._by_hand(remedy)
        elif remedy.restates:
            edit = remedy.edit
            message = say("So it would be: {remedy}.", remedy=remedy.name)
            self._try_out(remedy.name, lambda: edit(self._store.document), message)
        else:
            self._store.edit(remedy.name, remedy.edit)

    def _by_hand(self, remedy: "Remedy") -> None:
        """Lead to where a finding is mended by hand."""
        finding = self._panel.list.finding
        if finding is None:
            return
        if remedy.key == "update":
            self._places.go_to_table(finding.place.table)
            self.update_wanted()
        elif finding.place.cell is not None:
            self._places.go_to_table(finding.place.table)
            self._places.go_to_cell(finding.place.table, *finding.place.cell)

    def mend_all(self, key: str) -> None:
        """Carry out a remedy for all findings of this kind, as one step; shown first where it restates something."""
        from kavlet.core.proof.bulk_remedies import mended

        finding = self._panel.list.finding
        if finding is None:
            return
        remedy = next((candidate for candidate in finding.remedies if candidate.key == key), None)
        if remedy is None:
            return
        count: list[int] = []

        def edit(document: Document) -> Document:
            mended_document, many = mended(document, finding.check, key)
            count.append(many)
            return mended_document

        if remedy.restates:
            sentence = say("So it would be, everywhere: {remedy}.", remedy=remedy.name)
            self._try_out(remedy.name, lambda: edit(self._store.document), sentence)
        elif self._store.edit(remedy.name, edit):
            self._store.tell(str(counted("{count} finding is mended.", "{count} findings are mended.", count[-1])))

    def _try_out(self, name: Message, edit: Callable[[], Document], sentence: Message) -> None:
        """Show what would become of it, and ask."""
        made: list[Document] = []
        if self._store.guard(lambda: made.append(self._store.attended(name, edit))):
            self._trial = name, made[0]
            self._store.select()  # which may not be there then
            self._store.try_out(made[0])
            self._panel.show_or_hide(True)
            self._panel.ask(str(sentence))

    def take(self) -> None:
        """Keep what is shown."""
        if self._trial is not None:
            (name, document), self._trial = self._trial, None
            self._panel.ask("")
            self._store.apply(name, document)

    def leave(self) -> None:
        """Go back to how it was."""
        if self._trial is not None:
            self._trial = None
            self._panel.ask("")
            self._store.try_out(None)

    def _forget_trial(self) -> None:
        """Another edit has ended it."""
        if self._trial is not None:
            self._trial = None
            self._panel.ask("")

    # Silencing

    def silence(self, reason: str, everywhere: bool) -> None:
        """Leave what was found as it is, with a reason that stays in the document."""
        finding = self._panel.list.finding
        if finding is None:
            return
        place = finding.place
        chart = "" if everywhere or place.page else place.chart
        page = "" if everywhere else place.page
        self._store.edit(
            say("silence a finding"),
            lambda document: edits.silenced(document, finding.check, reason, chart, page),
        )

    def listen(self) -> None:
        """Listen to it again."""
        finding = self._panel.list.finding
        if finding is not None:
            self._store.edit(
                say("listen to a finding"),
                lambda document: edits.listened_to(document, finding.check, finding.place.chart, finding.place.page),
            )


def part_of(finding: "Finding") -> Part | None:
    """The part of a chart that a finding is about; None for the chart itself."""
    place = finding.place
    if place.text in TEXTS:
        return Part("text", place.text)
    if place.text == "legend":
        return Part("legend", "")
    if place.text in ("name", "tick"):
        return Part("axis", "across" if place.text == "name" else "along")
    if place.layer and place.text == "label":
        return Part("label", place.layer, place.row if place.row is not None else -1)
    if place.layer:
        return Part("mark", place.layer, place.row) if place.row is not None else Part("layer", place.layer)
    return None
