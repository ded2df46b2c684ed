"""Texts from tables and files are never markup, wherever the window shows them."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QLabel, QMessageBox, QToolTip
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.interaction.parts import marks_of
from kavlet.core.messages import say
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.deliver.last_delivery import DeliveryChoice
from kavlet.desktop.main import Window
from tests.desktop.hands import figure, show


def labels() -> list[QLabel]:
    found = [one for one in QApplication.allWidgets() if isinstance(one, QLabel)]
    for one in found:
        one.ensurePolished()
    return found


def test_no_label_of_the_window_reads_hostile_names_as_markup(window: Window, tmp_path: Path, qtbot: QtBot) -> None:
    hostile = f'<img src="{tmp_path / "picture.png"}"><b>bold</b>'

    def named(document: object) -> object:
        for table in document.tables:  # type: ignore[attr-defined]
            document = edits.set_cells(document, table.id, {(0, 1): hostile, (1, 0): hostile})  # type: ignore[arg-type]
        charts = tuple(msgspec.structs.replace(one, name=hostile, title=hostile) for one in document.charts)  # type: ignore[attr-defined]
        tables = tuple(msgspec.structs.replace(one, name=hostile + one.id) for one in document.tables)  # type: ignore[attr-defined]
        return msgspec.structs.replace(document, charts=charts, tables=tables)  # type: ignore[type-var]

    window.store.edit(say("x"), named)  # type: ignore[arg-type]
    deliver = DeliverDialog(window.store, DeliveryChoice(one=window.store.here.id), window.worker)
    qtbot.addWidget(deliver)
    for recipe in ("funnel", "pie", "gauge"):
        show(window, recipe)
        layer = next(one.key for one in figure(window).marks if one.visible)
        window.store.select(marks_of(figure(window), layer)[0])
        window.dress.refresh()
        for one in labels():
            assert one.textFormat() != Qt.TextFormat.AutoText, one.text()
            assert one.textFormat() == Qt.TextFormat.PlainText or "<img" not in one.text()
    assert any(hostile in one.text() for one in labels())  # else nothing was shown
    window.places.show_pages()
    QToolTip.showText(QPoint(10, 10), hostile, window)
    box = QMessageBox(window)
    box.setText(hostile)
    qtbot.addWidget(box)
    shown = [one for one in labels() if one.text() == hostile]
    assert shown
    assert all(one.textFormat() == Qt.TextFormat.PlainText for one in shown)
    QToolTip.hideText()
