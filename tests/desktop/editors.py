"""All that can be typed into in the window, each with a text for it and how the document tells that it has it."""

from collections.abc import Callable
from typing import NamedTuple

from PySide6.QtCore import Qt
from pytestqt.qtbot import QtBot

from kavlet.core.document.document import Document
from kavlet.core.interaction.parts import Part
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.words import Words
from kavlet.desktop.dress.fields import PickField, ProseField, TextField
from kavlet.desktop.figures.formula_edit import FormulaEdit
from kavlet.desktop.main import Window
from kavlet.desktop.pages.words_editor import WordsEditor
from kavlet.desktop.pending_text import TextEditor
from kavlet.desktop.stage.text_editing import TextEdit
from tests.desktop.hands import show, start_typing

TYPED = "Otters 417"
Taken = Callable[[Document], bool]


class Editor(NamedTuple):
    """Opens an editor in the window and types into it; `taken` tells whether a document holds that."""

    kind: type[TextEditor]
    open: Callable[[Window, QtBot], tuple[TextEditor, Taken]]


def _cell(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    editor = start_typing(qtbot, window, 1, 2, "417")
    return editor, _in_cell(window)


def _in_cell(window: Window) -> Taken:
    table = window.store.table.id
    return lambda document: document.table(table).columns[1].cells[2] == 417.0


def _line(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    window.figures.grid.go_to(1, 2)
    line = window.figures.line
    line.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, "417")
    return line, _in_cell(window)


def _field(qtbot: QtBot, field: object, text: str) -> TextField:
    assert isinstance(field, TextField)
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, text)
    return field


def _title(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    window.store.select()
    chart = window.store.chart.id
    return _field(qtbot, window.dress.texts["title"], TYPED), lambda document: document.chart(chart).title == TYPED


def _alt(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    window.store.select()
    chart = window.store.chart.id
    return _field(qtbot, window.dress.alt, TYPED), lambda document: TYPED in str(document.chart(chart).alt)


def _parameter(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "thermometer")
    chart, field = window.store.chart.id, window.dress.settings["goal"]
    return _field(qtbot, field, "417"), lambda document: document.chart(chart).settings.get("goal") == 417


def _look(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "columns")
    chart, path = window.store.chart.id, "frame.along.step"
    field = window.dress.rows[path].field
    return _field(qtbot, field, "4170"), lambda document: document.chart(chart).dress.overrides.get(path) == 4170


def _colour(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "columns")
    window.store.select(Part("layer", "series 1"))
    chart, fill = window.store.chart.id, window.dress.fill
    assert fill is not None
    return _field(
        qtbot, fill.colour.hex, "#417417"
    ), lambda document: "#417417" in str(document.chart(chart).dress.overrides)


def _size(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    window.store.select()
    chart = window.store.chart.id
    field = window.dress.look.size_fields.width_field
    return _field(qtbot, field, "141"), lambda document: round(document.chart(chart).width * 25.4 / 72) == 141


def _angle(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "columns")
    window.solids.toggle()
    chart = window.store.chart.id
    field = window.stage.turn_rail.field
    return _field(qtbot, field, "17"), lambda document: document.chart(chart).dress.overrides.get("solid.turn") == 17


def _label(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "bars")
    window.store.select(Part("layer", "series 1"))
    chart, path = window.store.chart.id, "layers.series 1.label.template"
    pick = window.dress.rows[path].field
    assert isinstance(pick, PickField)
    line = pick.lineEdit()
    assert line is not None
    pick.setFocus()
    line.selectAll()
    qtbot.keyClicks(line, TYPED)
    return pick, lambda document: document.chart(chart).dress.overrides.get(path) == TYPED


def _on_stage(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    show(window, "bars")
    chart, place = window.store.chart.id, window.stage.view.in_place
    place.open(Part("text", "title"))
    assert place.editor is not None
    qtbot.keyClicks(place.editor, TYPED)
    return place.editor, lambda document: document.chart(chart).title == TYPED


def _page_with(window: Window, kind: type) -> None:
    page = next(page for page in window.store.document.pages if any(isinstance(one, kind) for one in page.items))
    window.places.go_to_page(page.id)
    window.pages.canvas.setFocus()


def _in_frame(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    _page_with(window, ChartFrame)
    canvas = window.pages.canvas
    item = next(one for one in window.store.page.items if isinstance(one, ChartFrame) and one.title)
    canvas.touch(item.id)
    place = canvas.frame.in_place
    place.open(Part("text", "title"))
    assert place.editor is not None
    qtbot.keyClicks(place.editor, TYPED)
    return place.editor, lambda document: document.chart(item.chart).title == TYPED


def _words(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    _page_with(window, Words)
    page, canvas = window.store.page.id, window.pages.canvas
    item = next(one for one in window.store.page.items if isinstance(one, Words) and not one.locked)
    canvas.open(item)
    qtbot.keyClicks(canvas.editor, TYPED)

    def taken(document: Document) -> bool:
        held = document.page(page).item(item.id)
        return isinstance(held, Words) and any(TYPED in run.text for one in held.paragraphs for run in one.runs)

    return canvas.editor, taken


def _footer(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    _page_with(window, Words)
    window.store.choose_items()
    page, field = window.store.page.id, window.pages.fields.rows["footer"].field
    return _field(qtbot, field, TYPED), lambda document: document.page(page).footer == TYPED


def _speaker(window: Window, qtbot: QtBot) -> tuple[TextEditor, Taken]:
    _page_with(window, Words)
    window.store.choose_items()
    page, field = window.store.page.id, window.pages.fields.rows["speaker"].field
    assert isinstance(field, ProseField)
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, TYPED)
    return field, lambda document: document.page(page).speaker == TYPED


EDITORS = {
    "cell": Editor(FormulaEdit, _cell),
    "formula line": Editor(FormulaEdit, _line),
    "title": Editor(TextField, _title),
    "alt text": Editor(TextField, _alt),
    "setting": Editor(TextField, _parameter),
    "look": Editor(TextField, _look),
    "colour": Editor(TextField, _colour),
    "size": Editor(TextField, _size),
    "angle": Editor(TextField, _angle),
    "label text": Editor(PickField, _label),
    "title on the Stage": Editor(TextEdit, _on_stage),
    "title on a page": Editor(TextEdit, _in_frame),
    "words on a page": Editor(WordsEditor, _words),
    "footer": Editor(TextField, _footer),
    "speaker's words": Editor(ProseField, _speaker),
}


def escape(qtbot: QtBot, editor: TextEditor) -> None:
    """Give up what is typed."""
    qtbot.keyClick(editor, Qt.Key.Key_Escape)
