"""What the commands do to looks: copied and pasted, remembered for a recipe, kept in kits."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject
from PySide6.QtWidgets import QApplication, QFileDialog, QInputDialog, QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.messages import say, words
from kavlet.core.pipeline.stages import main_layer
from kavlet.core.styling.palettes import from_text
from kavlet.core.values.errors import KavletError
from kavlet.desktop import remembered_looks
from kavlet.desktop.command import Command, a_chart, a_copied_dress, a_named_palette, a_recipe
from kavlet.desktop.dialogs import open_sheet
from kavlet.desktop.store import Store
from kavlet.desktop.worker import Worker

ON_STAGE = ("stage",)


class DressCommands(QObject):
    """Each method carries out one command; what the core refuses is said in one sentence."""

    def __init__(self, parent: QWidget, store: Store, worker: Worker) -> None:
        super().__init__(parent)
        self._parent, self._store, self._worker = parent, store, worker
        self.commands = (
            Command("strip_chart", "Dress", "Strip the chart", self.strip, "Ctrl+Shift+B", a_chart, ON_STAGE),
            Command("lock_scale", "Dress", "Lock the scale from 0 to 100 %", self.lock_scale, "Ctrl+Shift+L", a_chart,
                    ON_STAGE),
            Command("copy_dress", "Dress", "Copy dress", lambda: self.copy("all"), "Ctrl+Alt+C", a_chart, ON_STAGE,
                    line_before=True),
            Command("copy_label_looks", "Dress", "Copy only the labels’ look", lambda: self.copy("labels"),
                    needs=a_chart, also=ON_STAGE),
            Command("copy_colours", "Dress", "Copy only colours", lambda: self.copy("colours"), needs=a_chart,
                    also=ON_STAGE),
            Command("copy_number_texts", "Dress", "Copy only number texts", lambda: self.copy("numbers"),
                    needs=a_chart),
            Command("paste_dress", "Dress", "Paste dress", self.paste, "Ctrl+Alt+V", a_copied_dress, ON_STAGE),
            Command("paste_dress_everywhere", "Dress", "Paste dress on all charts", self.paste_everywhere,
                    needs=a_copied_dress),
            Command("remember_look", "Dress", "Remember this look for the recipe", self.remember, needs=a_recipe,
                    line_before=True),
            Command("forget_look", "Dress", "Forget the recipe’s remembered look", self.forget, needs=a_recipe),
            Command("give_all_looks_back", "Dress", "Give all looks back to theme", self.give_all_back, needs=a_chart,
                    also=ON_STAGE, line_before=True),
            Command("propose_colours", "Dress", "Propose colours…", self.propose_colours, needs=a_chart, also=ON_STAGE,
                    line_before=True),
            Command("paste_palette", "Dress", "Paste hex codes as palette", self.paste_palette, needs=a_chart),
            Command("name_palette", "Dress", "Keep the palette by a name…", self.ask_palette_name, needs=a_chart),
            Command("drop_palette", "Dress", "Take the named palette out of the document", self.drop_palette,
                    needs=a_named_palette),
        )  # fmt: skip
        self.kit_commands = (
            Command("load_kit", "Dress", "Load kit…", self.load_kit, line_before=True),
            Command("save_kit", "Dress", "Save kit…", self.save_kit, needs=a_chart),
        )

    def propose_colours(self) -> None:
        """Show schemes of colours on the chart in view, to take one."""
        from kavlet.desktop.dress.schemes_dialog import SchemesDialog

        sheet = SchemesDialog(self._store, self._worker, self._parent)
        sheet.taken.connect(self.take_colours)
        open_sheet(sheet)

    def take_colours(self, colours: tuple[str, ...], for_all: bool) -> None:
        """A scheme's colours as the palette of the chart, or of the document; fills set by hand stay."""

        def dressed(document: Document, chart: ChartEntry) -> Document:
            dress = msgspec.structs.replace(chart.dress, palette=colours)
            document = edits.change_chart(document, chart.id, dress=dress)
            return look_edits.with_common_palette(document, chart.id, True) if for_all else document

        self._store.edit_chart(say("choose palette"), dressed)

    def strip(self) -> None:
        """Take title, legend, gridlines and axes away."""
        looks: dict[str, object] = {
            "ink": 0, "legend.side": "none", "frame.along.visible": False, "frame.along.grid": False,
            "frame.along.line": False, "frame.across.line": False, "frame.across.grid": False,
        }  # fmt: skip

        def stripped(document: Document, chart: ChartEntry) -> Document:
            document = edits.change_chart(document, chart.id, title="", subtitle="", source="")
            return look_edits.set_looks(document, chart.id, looks)

        self._store.edit_chart(say("strip chart"), stripped)

    def lock_scale(self) -> None:
        """Lock the value scale from 0 to 100 %: to 1 for shares, to 100 for figures above 1."""
        axes = self._store.drawn.figure.axes
        axis = next((one for one in axes if one.name in ("x", "y")), None)
        whole = 100.0 if axis is not None and axis.maximum > 1.5 else 1.0
        looks = {"frame.along.minimum": 0.0, "frame.along.maximum": whole}
        self._store.edit_chart(
            say("lock scale"), lambda document, chart: look_edits.set_looks(document, chart.id, looks)
        )  # fmt: skip

    def copy(self, what: look_edits.What) -> None:
        """Copy the looks of the chosen layer, or of the whole chart."""
        layer = next(iter(self._chosen_layers()), "")
        looks = look_edits.copied(self._store.document, self._store.here.id, what, layer)
        self._store.dress_copied = (layer or self._store.spec.main, looks)
        self._store.viewed.emit()
        if not looks:
            raise KavletError(say("Nothing is set by hand here, so nothing is copied."))

    def _chosen_layers(self) -> tuple[str, ...]:
        chosen = (one.key for one in self._store.selection if one.kind in ("layer", "mark", "label"))
        return tuple(dict.fromkeys(chosen))

    def _copied(self) -> tuple[str, dict[str, object]]:
        return self._store.dress_copied or ("", {})

    def paste(self) -> None:
        """Put the copied looks on the chosen layers, or on the chart."""
        old, looks = self._copied()
        keys = self._chosen_layers() or (self._store.spec.main,)
        self._store.edit_chart(
            say("paste dress"), lambda document, chart: look_edits.pasted(document, chart.id, looks, old, keys)
        )

    def paste_everywhere(self) -> None:
        """Put the copied looks on every chart of the document, as one edit."""
        old, looks = self._copied()

        def pasted(document: Document) -> Document:
            for chart in document.charts:
                main = main_layer(document, self._store.values, chart.id)
                if main is not None:  # a chart whose table does not fit has no layers to dress
                    document = look_edits.pasted(document, chart.id, looks, old, (main.key,))
            return document

        self._store.edit(say("paste dress on all charts"), pasted)

    def remember(self) -> None:
        """Give the recipe of the chart in view this look from now on, in every document."""
        chart, document = self._store.here, self._store.document
        dress = msgspec.structs.replace(chart.dress, overrides=look_edits.copied(document, chart.id))
        settings = look_edits.settings_of_looks(document, chart.id)
        remembered_looks.remember(chart.recipe, remembered_looks.RememberedLook(self._store.spec.main, dress, settings))
        self._store.tell(words("New charts by this recipe will look like this one."))

    def forget(self) -> None:
        """Give the recipe of the chart in view its own look again, from the next time it is chosen."""
        remembered_looks.forget(self._store.here.recipe)
        self._store.tell(words("New charts by this recipe will have its own look again."))

    def give_all_back(self) -> None:
        self._store.edit_chart(
            say("give all looks back to theme"), lambda document, chart: look_edits.give_all_back(document, chart.id)
        )

    def paste_palette(self) -> None:
        """Take the hex codes of any text on the clipboard as the chart's palette."""
        colours = from_text(QApplication.clipboard().text())

        def dressed(document: Document, chart: ChartEntry) -> Document:
            dress = msgspec.structs.replace(chart.dress, palette=colours)
            return edits.change_chart(document, chart.id, dress=dress)

        self._store.edit_chart(say("paste palette"), dressed)

    def ask_palette_name(self) -> None:
        """Ask by which name the chart's palette is kept in the document."""
        own = self._store.here.dress.palette
        name, given = QInputDialog.getText(
            self._parent, words("Keep the palette"), words("Name"), text=own if isinstance(own, str) else ""
        )
        if given and name.strip():
            self.name_palette(name.strip())

    def name_palette(self, name: str) -> None:
        """Keep the colours of the chart's palette in the document, by a name."""
        self._store.edit_chart(
            say("name palette"), lambda document, chart: look_edits.with_named_palette(document, chart.id, name)
        )

    def drop_palette(self) -> None:
        """Take the chart's palette out of those the document names; charts keep its colours."""
        name = str(self._store.here.dress.palette)
        self._store.edit(say("take out palette"), lambda document: look_edits.without_palette(document, name))

    def load_kit(self) -> None:
        from kavlet.core.files import kit as kit_file

        name, _ = QFileDialog.getOpenFileName(self._parent, words("Load kit"), "", f"*{kit_file.SUFFIX}")
        if name:
            self._store.edit(
                say("load kit"), lambda document: kit_file.put_on(document, kit_file.load(Path(name)))
            )  # fmt: skip

    def save_kit(self) -> None:
        from kavlet.core.files import kit as kit_file

        name, _ = QFileDialog.getSaveFileName(self._parent, words("Save kit"), "house", f"*{kit_file.SUFFIX}")
        if name:
            path = Path(name) if name.endswith(kit_file.SUFFIX) else Path(name + kit_file.SUFFIX)
            kit_file.save(kit_file.taken_from(self._store.document, self._store.here.id, path.stem), path)
