"""What the commands of delivering do: the sheet, the file's place, the same once more."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QObject, QUrl, Signal
from PySide6.QtGui import QDesktopServices, QGuiApplication
from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from kavlet.core.files import atomic
from kavlet.core.messages import say, words
from kavlet.core.values.errors import KavletError
from kavlet.desktop.command import Command
from kavlet.desktop.deliver.last_delivery import DeliveryChoice, outgoing, remember, remembered
from kavlet.desktop.dialogs import open_sheet
from kavlet.desktop.on_demand import OnDemand
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker

if TYPE_CHECKING:
    from kavlet.export.outgoing import Export, WrittenFile
    from kavlet.export.ways import OutputFile
    from kavlet.sharing.server import Server


def something(store: Store) -> bool:
    """There is a chart or a page."""
    return store.has_chart or store.has_page


def a_page(store: Store) -> bool:
    return store.has_page


def _new_server() -> "Server":
    from kavlet.sharing.server import Server

    return Server()


class DeliverCommands(QObject):
    """Each method carries out one command. `saved` tells where something was written, the first of several files.

    What is written is written whole: all files are made before the first is put in its place.
    """

    saved = Signal(Path)

    def __init__(
        self, parent: QWidget, store: Store, worker: Worker, folder: Callable[[], str], on_pages: Callable[[], bool]
    ) -> None:
        super().__init__(parent)
        self._parent, self._store, self._worker, self._folder = parent, store, worker, folder
        self._on_pages = on_pages
        self._last: DeliveryChoice | None = None
        self._last_of: object = None
        self._server = OnDemand(_new_server)
        self.commands = (
            Command("deliver", "File", "Deliver…", self.deliver, "Ctrl+E", something, line_before=True),
            Command(
                "deliver_pages", "File", "Deliver all pages…", self.deliver_pages, needs=lambda store: store.has_page
            ),
            Command("deliver_again", "File", "Deliver again", self.deliver_again, "Ctrl+Shift+E", something),
            Command("copy_out", "File", "Copy as picture", self.copy_out, "Ctrl+Shift+I", something),
            Command("print", "File", "Print…", self.print, "Ctrl+P", something),
            Command("outbox", "File", "Outbox…", self.show_outbox),
            Command("showcase", "File", "Showcase…", self.show_showcase),
        )

    def stop_server(self) -> None:
        """Show no published pages any more."""
        if self._server.made is not None:
            self._server.made.stop()

    @property
    def last(self) -> DeliveryChoice | None:
        """What was delivered of this document last."""
        if self._store.path is not None:
            return remembered(self._store.path)
        return self._last if self._last_of == self._store.name else None

    def _usual(self) -> DeliveryChoice:
        """What the sheet begins with: as last time, but of what is in view."""
        choice = self.last or DeliveryChoice()
        if choice.what in ("chart", "page"):
            what = "page" if self._on_pages() and self._store.has_page else "chart"
            if what == "chart" and not self._store.has_chart:
                what = "page"
            if what != choice.what or choice.one != self._in_view(what):
                choice = msgspec.structs.replace(choice, what=what, one=self._in_view(what), out="")
        return choice

    def _in_view(self, what: str) -> str:
        return self._store.here.id if what == "chart" else self._store.page.id

    def deliver(self) -> None:
        """Show the Deliver sheet."""
        self.show(self._usual())

    def deliver_as(self, ending: str) -> None:
        """Show the Deliver sheet with a format chosen."""
        usual = self._usual()
        self.show(msgspec.structs.replace(usual, wish=msgspec.structs.replace(usual.wish, ending=ending), out=""))

    def deliver_pages(self) -> None:
        """Show the Deliver sheet for all pages."""
        self.show(msgspec.structs.replace(self._usual(), what="pages", one="", out=""))

    def show(self, choice: DeliveryChoice) -> None:
        """Show the sheet with a choice."""
        from kavlet.desktop.deliver.deliver_dialog import DeliverDialog

        sheet = DeliverDialog(self._store, choice, self._worker, self._parent)
        sheet.wished.connect(self._place)
        sheet.copied.connect(lambda what: self._store.guard(lambda: self._copy(what)))
        sheet.printed.connect(lambda what: self._store.guard(lambda: self._print(what)))
        open_sheet(sheet)

    def deliver_again(self) -> None:
        """Write the same files anew; where nothing was delivered yet, show the sheet."""
        last = self.last
        if last is None or not last.out:
            self.deliver()
            return
        self._write(last, Path(last.out))

    def _place(self, choice: DeliveryChoice) -> None:
        """Ask where to, and write; or hand it on."""
        from kavlet.export.outgoing import slug

        if choice.to != "file":
            self._hand_on(choice)
            return
        export = outgoing(choice, self._store)
        ending = choice.wish.ending
        folder = str(Path(choice.out).parent) if choice.out else self._folder()
        start = str(Path(folder) / f"{slug(export.title or words('document'))}{ending}")
        chosen, _ = QFileDialog.getSaveFileName(self._parent, words("Deliver"), start, f"*{ending}")
        if chosen:
            path = Path(chosen)
            path = path if path.suffix.lower() == ending else path.with_name(path.name + ending)
            self._write(choice, path)

    def _write(self, choice: DeliveryChoice, path: Path) -> None:
        leaving = msgspec.structs.replace(
            outgoing(choice, self._store),
            given_up=lambda: not self._worker.expects("deliver"),
            goes_on=self._worker.goes_on,
        )
        kept = msgspec.structs.replace(choice, out=str(path))

        def done(made: "list[OutputFile]") -> None:
            self._keep(kept)
            self.saved.emit(made[0].path)

        self._worker.ask(
            "deliver", say("Writing {file}", file=path.name), lambda: _put(leaving, kept, path), done,
            lambda why: self._failed(kept, why),
        )  # fmt: skip

    def in_view(self) -> "Export":
        """The chart or page in view, to be taken away at once."""
        what = "page" if self._on_pages() and self._store.has_page else "chart"
        return outgoing(DeliveryChoice("page" if what == "page" else "chart", self._in_view(what)), self._store)

    def copy_out(self) -> None:
        """Put the chart or page in view on the clipboard, for other programs; of a page, what is chosen of it."""
        from kavlet.desktop.deliver.clipboard import of_items

        store = self._store
        chosen = {item.id for item in store.items} if self._on_pages() else set()
        if chosen:
            QGuiApplication.clipboard().setMimeData(of_items(store.page_picture(store.page.id), chosen))
        else:
            self._copy(self.in_view())

    def _copy(self, export: "Export") -> None:
        from kavlet.desktop.deliver.clipboard import of_outgoing

        QGuiApplication.clipboard().setMimeData(of_outgoing(export))

    def print(self) -> None:
        """Show the print sheet for the chart in view, or for all pages where they are in view."""
        on_pages = self._on_pages() and self._store.has_page
        self._print(outgoing(DeliveryChoice("pages"), self._store) if on_pages else self.in_view())

    def _print(self, export: "Export") -> None:
        from kavlet.desktop.deliver.printing import PrintDialog

        sheet = PrintDialog(export.scenes, self._parent)
        open_sheet(sheet)

    def show_outbox(self) -> None:
        """Show what was sent to the outbox."""
        from kavlet.desktop.deliver.outbox_dialog import OutboxDialog

        sheet = OutboxDialog(self._parent)
        open_sheet(sheet)

    def show_showcase(self) -> None:
        """Show what is published."""
        from kavlet.desktop.deliver.showcase_dialog import ShowcaseDialog

        sheet = ShowcaseDialog(self._server(), self._store.guard, self._parent)
        open_sheet(sheet)

    def _hand_on(self, choice: DeliveryChoice) -> None:
        """Hand a mail to the desktop's program or the outbox, a page to the showcase."""
        from kavlet.export.ways import written

        leaving = outgoing(choice, self._store)
        key = f"{self._store.path or self._store.name}|{choice.what}|{choice.one}"

        def done(made: "WrittenFile") -> None:
            self._keep(choice)
            self._store.guard(lambda: self._handed(choice, leaving.title, key, made.content))

        self._worker.ask("deliver", say("Making it"), lambda: written(leaving, choice.wish), done)

    def _handed(self, choice: DeliveryChoice, title: str, key: str, content: bytes) -> None:
        from kavlet.export.outgoing import slug
        from kavlet.sharing import outbox, showcase

        if choice.to == "outbox":
            outbox.send(content)
            self.show_outbox()
        elif choice.to == "showcase":
            self._server().start()
            showcase.publish(key, title, content)
            self.show_showcase()
        else:
            drafts = outbox.folder().with_name("drafts")
            drafts.mkdir(parents=True, exist_ok=True)
            path = drafts / f"{slug(title)}{choice.wish.ending}"
            atomic.write(path, content)
            if not QDesktopServices.openUrl(QUrl.fromLocalFile(str(path))):
                raise KavletError(
                    say("No program here opens mail drafts; the draft is {file}.", file=path),
                    remedy=say("Attach it by hand, or send it to the outbox."),
                )

    def _keep(self, choice: DeliveryChoice) -> None:
        self._last, self._last_of = choice, self._store.name
        if self._store.path is not None:
            remember(self._store.path, choice)

    def _failed(self, choice: DeliveryChoice, why: str) -> None:
        """Say why nothing was written, and offer another place."""
        box = QMessageBox(self._parent)
        box.setWindowTitle(words("Deliver"))
        box.setText(why)
        again = box.addButton(words("Choose another place…"), QMessageBox.ButtonRole.AcceptRole)
        box.addButton(words("Cancel"), QMessageBox.ButtonRole.RejectRole)
        again.clicked.connect(lambda _checked=False: self._place(msgspec.structs.replace(choice, out="")))
        open_sheet(box)


def _put(leaving: "Export", choice: DeliveryChoice, path: Path) -> "list[OutputFile]":
    """Make all files, then write them. Raises KavletError, with nothing written, where one can't be made or the work
    was given up."""
    from kavlet.export.ways import files

    made = list(files(leaving, choice.wish, path))
    if leaving.given_up():
        raise KavletError(say("It was given up."))
    atomic.write_all((one.path, one.content) for one in made)
    return made
