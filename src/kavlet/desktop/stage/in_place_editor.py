"""Opens a field where a text of the chart stands, and takes what is typed into it."""

from kavlet.core.interaction.parts import Part, boxes
from kavlet.core.messages import named, say, words
from kavlet.core.values.geometry import Rect
from kavlet.desktop.stage import text_editing
from kavlet.desktop.stage.chart_canvas import ChartCanvas
from kavlet.desktop.store import Store

AIR = 20  # pixels that a title's field keeps from the sheet's right side
WIDE, SLIM = 280.0, 220.0  # pixels: how wide a title's field is at least, and that of all others


class InPlaceEditor:
    """One field at a time; `editor` is the one that was opened last."""

    def __init__(self, store: Store, view: ChartCanvas) -> None:
        self._store, self._view = store, view
        self.editor: text_editing.TextEdit | None = None

    def open(self, part: Part, box: Rect | None = None) -> None:
        """Type what a part says, at its box on the sheet; nothing happens where it says nothing."""
        chart, view, picture = self._store.chart, self._view, self._view.picture
        text = text_editing.text_of(self._store.document, chart, picture, part)
        if text is None:
            return
        if self.editor is not None:
            self.editor.end_typing()
            self.editor.deleteLater()
        box = box or next(iter(boxes(picture.figure, part)), picture.figure.plot)
        corner = view.from_chart(box.x, box.y)
        width = max(WIDE, view.sheet().right() - corner.x() - AIR) if part.kind == "text" else SLIM
        values = [column.values for column in self._store.values.of(chart.table)]
        editor = self.editor = text_editing.TextEdit(text, text_editing.offers(part, values), view)
        editor.setAccessibleName(words("Edit {text}", text=named(part.key) if part.kind == "text" else say("label")))
        left, height = max(0.0, min(corner.x() - 6, view.width() - width)), editor.sizeHint().height()
        editor.setGeometry(int(left), int(corner.y()) - 6, int(width), height)
        editor.committed.connect(lambda text, to_all: self._take(part, text, to_all))
        editor.closed.connect(view.setFocus)
        if part.kind == "label":
            editor.setToolTip(words("Return: this label. Shift+Return: all labels of the layer."))
        editor.show()
        editor.setFocus()

    def _take(self, part: Part, text: str, to_all: bool = False) -> None:
        where = text_editing.TypedText(part, self._store.spec, self._store.values, to_all)
        message = say("labels") if to_all else say("label")
        others = {"label": message, "name": say("name"), "entry": say("name of the layer"), "axis": say("axis title")}
        self._store.edit_chart(
            say("change {what}", what=others.get(part.kind) or named(part.key)),
            lambda document, chart: text_editing.with_text(document, chart, where, text),
        )
