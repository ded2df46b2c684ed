"""What is done with colours, symbols and pictures: dropped on parts of the chart, added to the document."""

from pathlib import Path

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QFileDialog, QWidget

from kavlet.core.document.document import Document, PictureFile, fresh_name, with_picture
from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.offers import drop_path
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say, words
from kavlet.desktop.command import Command
from kavlet.desktop.dialogs import open_sheet
from kavlet.desktop.store import Store


class PictureCommands(QObject):
    """What can't be read is said in one sentence, and nothing changes."""

    def __init__(self, parent: QWidget, store: Store) -> None:
        super().__init__(parent)
        self._parent, self._store = parent, store
        self.commands = (
            Command("add_picture", "Dress", "Add a picture…", self.ask),
            Command("draw_symbol", "Dress", "Draw a symbol…", self.ask_drawing),
        )

    def drop(self, part: Part | None, what: str) -> None:
        """A colour, a symbol or a picture file dropped on a part fills it; a colour on a text or the ground is its
        own."""
        from kavlet.core.files import pictures

        spec, is_colour = self._store.spec, what.startswith("#")
        path = drop_path(spec, part, is_colour, part in self._store.selection)
        if Path(what).suffix.lower() in pictures.KINDS and not is_colour:
            self.add(Path(what), path)
            return
        fill: object = what if is_colour else _stretched(what)
        self._store.edit_chart(
            say("fill by dropping"), lambda document, chart: look_edits.set_looks(document, chart.id, {path: fill})
        )

    def ask(self) -> None:
        """Ask for an SVG, PNG or JPEG file and put it on the document's shelf."""
        from kavlet.core.files import pictures

        kinds = " ".join(f"*{one}" for one in pictures.KINDS)
        name, _ = QFileDialog.getOpenFileName(
            self._parent, words("Add a picture"), "", words("Pictures ({kinds})", kinds=kinds)
        )
        if name:
            self.add(Path(name))

    def ask_drawing(self) -> None:
        """A sheet to draw a symbol on, for the document's shelf."""
        from kavlet.desktop.dress.drawing_board import DrawingBoard

        name = fresh_name(words("drawing"), (picture.name for picture in self._store.document.pictures))
        board = DrawingBoard(name, self._parent)
        board.kept.connect(self.keep)
        open_sheet(board)

    def keep(self, name: str, outline: str) -> None:
        """Put a drawn symbol on the document's shelf; and fill what is chosen with it, where that can be filled."""
        part = self._store.selection[0] if self._store.selection else None

        def added(document: Document) -> Document:
            document = with_picture(document, PictureFile(name, outline))
            if part is None or part.kind not in ("layer", "mark") or not self._store.has_chart:
                return document
            path = drop_path(self._store.spec, part, is_colour=False, chosen=True)
            return look_edits.set_looks(document, self._store.here.id, {path: _stretched(name)})

        self._store.edit(say("draw symbol"), added)

    def add(self, path: Path, fill: str = "") -> None:
        """Add a picture to the document, and fill a part with it where one is named."""
        from kavlet.core.files import pictures

        left_out: list[str] = []

        def added(document: Document) -> Document:
            loaded = pictures.load(path)
            made = loaded.picture
            left_out.extend(loaded.left_out)
            document = with_picture(document, made)
            if not fill:
                return document
            return look_edits.set_looks(document, self._store.here.id, {fill: _stretched(made.name)})

        if self._store.edit(say("add picture"), added) and left_out:
            self._store.tell(
                words("{file} is used without its {parts}: a symbol is made of filled shapes.", file=path.name,
                      parts=left_out)
            )  # fmt: skip


def _stretched(name: str) -> dict[str, object]:
    return {"fill": "picture", "name": name, "how": "stretched"}
