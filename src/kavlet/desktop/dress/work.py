"""What the commands do to looks: copied and pasted, remembered for a recipe, kept in kits."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject
from PySide6.QtWidgets import QFileDialog, QWidget

from kavlet.core.build import build_chart
from kavlet.core.document import dressing, edits
from kavlet.core.document.document import Document
from kavlet.core.files import kit as kit_file
from kavlet.core.values.errors import KavletError
from kavlet.desktop import remembered
from kavlet.desktop.store import Store


class DressCommands(QObject):
    """Each method carries out one command; what the core refuses is said in one sentence."""

    def __init__(self, window: QWidget, store: Store) -> None:
        super().__init__(window)
        self._window, self._store = window, store

    def strip_chart(self) -> None:
        """Take title, legend, gridlines and axes away."""
        chart = self._store.chart
        if chart is None:
            return
        looks: dict[str, object] = {
            "ink": 0, "legend.side": "none", "frame.along.visible": False, "frame.along.grid": False,
            "frame.along.line": False, "frame.across.line": False, "frame.across.grid": False,
        }  # fmt: skip

        def strip() -> Document:
            document = edits.change_chart(self._store.document, chart.id, title="", subtitle="", source="")
            return dressing.set_looks(document, chart.id, looks)

        self._store.attempt(self.tr("strip chart"), strip)

    def lock_scale(self) -> None:
        """Lock the value scale from 0 to 100 %: to 1 for shares, to 100 for figures above 1."""
        picture = self._store.picture_if_any()
        axis = next((one for one in picture.figure.axes if one.name in ("x", "y")), None) if picture else None
        whole = 100.0 if axis is not None and axis.maximum > 1.5 else 1.0
        chart, looks = self._store.chart, {"frame.along.minimum": 0.0, "frame.along.maximum": whole}
        if chart is not None:
            self._store.attempt(
                self.tr("lock scale"), lambda: dressing.set_looks(self._store.document, chart.id, looks)
            )

    def copy_dress(self) -> None:
        self._copy("all")

    def copy_label_looks(self) -> None:
        self._copy("labels")

    def copy_colours(self) -> None:
        self._copy("colours")

    def copy_number_texts(self) -> None:
        self._copy("numbers")

    def _copy(self, what: dressing.What) -> None:
        """Copy the looks of the chosen layer, or of the whole chart."""
        chart, picture = self._store.chart, self._store.picture_if_any()
        if chart is None or picture is None:
            return
        part = self._store.selection[0] if self._store.selection else None
        layer = part.key if part is not None and part.kind in ("layer", "mark", "label") else ""
        looks = dressing.copied(chart, what, layer)
        self._store.dress_copied = (layer or picture.build.chart.main, looks)
        if not looks:
            self._store.refuse(KavletError("Nothing is set by hand here, so nothing is copied."))

    def paste_dress(self) -> None:
        """Put the copied looks on the chosen layers, or on the chart."""
        chart, picture = self._store.chart, self._store.picture_if_any()
        if chart is None or picture is None or self._store.dress_copied is None:
            return
        old, looks = self._store.dress_copied
        chosen = tuple(
            dict.fromkeys(one.key for one in self._store.selection if one.kind in ("layer", "mark", "label"))
        )
        new = picture.build.chart.main
        self._store.attempt(
            "paste dress", lambda: dressing.pasted(self._store.document, chart.id, looks, old, new, chosen)
        )

    def paste_dress_everywhere(self) -> None:
        """Put the copied looks on every chart of the document, as one edit."""
        if self._store.dress_copied is None:
            return
        old, looks = self._store.dress_copied

        def paste() -> Document:
            document = self._store.document
            for chart in document.charts:
                try:
                    main = build_chart(document, self._store.values, chart.id).chart.main
                except KavletError:
                    continue  # a chart whose table does not fit has no layers to dress
                document = dressing.pasted(document, chart.id, looks, old, main)
            return document

        self._store.attempt(self.tr("paste dress on all charts"), paste)

    def remember_look(self) -> None:
        """Give the recipe of the chart in view this look from now on, in every document."""
        chart, picture = self._store.chart, self._store.picture_if_any()
        if chart is None or picture is None or not chart.recipe:
            return
        overrides = dressing.copied(chart)
        dress = msgspec.structs.replace(chart.dress, overrides=overrides)
        main = picture.build.chart.main
        remembered.remember(chart.recipe, remembered.Remembered(main, dress))

    def forget_look(self) -> None:
        """Give the recipe of the chart in view its own look again, from the next time it is chosen."""
        chart = self._store.chart
        if chart is not None:
            remembered.forget(chart.recipe)

    def load_kit(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._window, self.tr("Load kit"), "", f"*{kit_file.SUFFIX}")
        if name:
            self._store.attempt(
                self.tr("load kit"), lambda: kit_file.put_on(self._store.document, kit_file.load(Path(name)))
            )

    def save_kit(self) -> None:
        chart = self._store.chart
        name, _ = QFileDialog.getSaveFileName(self._window, self.tr("Save kit"), "house", f"*{kit_file.SUFFIX}")
        if not name or chart is None:
            return
        path = Path(name) if name.endswith(kit_file.SUFFIX) else Path(name + kit_file.SUFFIX)
        try:
            kit_file.save(kit_file.taken_from(self._store.document, chart.id, path.stem), path)
        except KavletError as error:
            self._store.refuse(error)
