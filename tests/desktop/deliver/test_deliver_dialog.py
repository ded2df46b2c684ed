"""The Deliver sheet in the real window: what can leave, how, where to; again; and what goes wrong."""

from pathlib import Path

import msgspec
import openpyxl
import pptx
import pytest
from PIL import Image
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QMessageBox
from pytestqt.qtbot import QtBot

from kavlet.core.files.formats import ExportOptions
from kavlet.core.values.sizes import MM
from kavlet.desktop.deliver.deliver_dialog import DeliverDialog
from kavlet.desktop.deliver.last_delivery import DeliveryChoice
from kavlet.desktop.main import Window
from tests.desktop.taken_again import settled

STEPPING = "k16"  # the chart of the demo that goes through periods


def sheet_of(window: Window, qtbot: QtBot, choice: DeliveryChoice) -> DeliverDialog:
    window.delivering.show(choice)
    sheet = window.findChildren(DeliverDialog)[-1]
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    return sheet


def choose(sheet: DeliverDialog, qtbot: QtBot, ending: str) -> None:
    qtbot.mouseClick(sheet.format.buttons[ending], Qt.MouseButton.LeftButton)
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)


def save(sheet: DeliverDialog, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch, path: Path) -> None:
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(path), ""))
    qtbot.mouseClick(sheet.save, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(path.exists, timeout=20_000)


def test_what_differs_in_a_real_chart_is_said_before_saving(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1", wish=ExportOptions(".pptx")))
    assert sheet.differs.isVisible()
    assert "the pale bodies between the bars are missing" in sheet.differs.text()
    qtbot.mouseClick(sheet.as_.button("picture"), Qt.MouseButton.LeftButton)
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    assert not sheet.differs.isVisible()


def test_only_fields_that_mean_something_are_seen(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1"))
    seen = {".png": "resolution", ".svg": "outlines", ".docx": "as_", ".eml": "to"}
    for ending, field in seen.items():
        choose(sheet, qtbot, ending)
        for other in seen.values():
            wanted = other == field or (ending == ".eml" and other == "resolution")
            assert getattr(sheet, other).isVisible() == wanted, (ending, other)


def test_ways_that_cannot_be_gone_say_why(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice("pages", wish=ExportOptions(".pdf")))
    assert not sheet.format.buttons[".xlsx"].isEnabled()
    assert "Charts" in sheet.format.buttons[".xlsx"].toolTip()
    assert not sheet.format.buttons[".gif"].isEnabled()
    other = sheet_of(window, qtbot, DeliveryChoice(one=STEPPING))
    assert other.format.buttons[".gif"].isEnabled()


def test_a_chart_leaves_in_a_size_of_its_own(window: Window, qtbot: QtBot, tmp_path: Path,
                                             monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1"))
    sheet.size_text.setText("100mm x 60mm")
    sheet.size_text.committed.emit("100mm x 60mm")
    qtbot.waitUntil(lambda: "100 × 60 mm" in sheet.says.text(), timeout=20_000)
    sheet.resolution.chosen.emit("300")
    qtbot.waitUntil(lambda: "1,181 × 709 pixels" in sheet.says.text(), timeout=20_000)
    save(sheet, qtbot, monkeypatch, tmp_path / "small.png")
    with Image.open(tmp_path / "small.png") as made:
        assert made.size == (1181, 709)
    assert window.store.document.chart("k1").width != pytest.approx(100 * MM)  # the document stays as it was


def test_a_size_that_is_none_is_refused_at_its_field(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1"))
    sheet.size_text.committed.emit("wide")
    assert sheet.size_text.is_wrong
    assert sheet.wish.width is None


def test_an_address_that_is_none_is_refused_at_its_field(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1", wish=ExportOptions(".eml")))
    sheet.to.committed.emit("nobody")
    assert sheet.to.is_wrong
    assert sheet.wish.to == ()
    sheet.to.committed.emit("Åsa <asa@mirefen.example>, bo@mirefen.example")
    assert sheet.wish.to == ("Åsa <asa@mirefen.example>", "bo@mirefen.example")


def test_without_a_ground_what_lies_behind_shines_through(window: Window, qtbot: QtBot, tmp_path: Path,
                                                         monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1"))
    sheet.ground.click()
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    save(sheet, qtbot, monkeypatch, tmp_path / "bare.png")
    with Image.open(tmp_path / "bare.png") as made:
        assert made.convert("RGBA").getpixel((2, 2))[3] == 0


def test_the_preview_shows_what_the_file_holds(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1", wish=ExportOptions(".jpg")))
    image = sheet.preview.sheet.image
    assert image is not None
    assert (image.width(), image.height()) == (1280, 720)
    moving = sheet_of(window, qtbot, DeliveryChoice(one=STEPPING, wish=ExportOptions(".gif")))
    assert moving.preview.sheet.movie is not None
    assert moving.preview.sheet.movie.frameCount() > 2


def test_pages_are_turned_in_the_preview_by_keys(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice("pages", wish=ExportOptions(".pdf")))
    first = sheet.preview.sheet.scene
    qtbot.keyClick(sheet.preview, Qt.Key.Key_Right)
    assert sheet.preview.place == 1
    assert sheet.preview.sheet.scene is not first
    assert f"2 of {len(window.store.document.pages)}" in sheet.preview.says.text()


def test_all_charts_leave_in_one_workbook(window: Window, qtbot: QtBot, tmp_path: Path,
                                          monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    sheet = sheet_of(window, qtbot, DeliveryChoice("charts", wish=ExportOptions(".xlsx")))
    save(sheet, qtbot, monkeypatch, tmp_path / "all.xlsx")
    book = openpyxl.load_workbook(tmp_path / "all.xlsx")
    names = {sheet_.title for sheet_ in book.worksheets}
    assert {table.name for table in window.store.document.tables} <= names
    assert sum(len(sheet_._charts) for sheet_ in book.worksheets) >= len(window.store.document.charts)


def test_deliver_again_writes_the_same_file_anew(window: Window, qtbot: QtBot, tmp_path: Path,
                                                 monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    path = tmp_path / "again.pptx"
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k20", wish=ExportOptions(".pptx")))
    save(sheet, qtbot, monkeypatch, path)
    qtbot.waitUntil(lambda: window.delivering.last is not None, timeout=10_000)
    before = path.read_bytes()
    path.unlink()
    window.store.show_chart("k1")  # another is in view; what was delivered is meant
    window.actions_by_name["deliver_again"].trigger()
    qtbot.waitUntil(path.exists, timeout=20_000)
    assert path.read_bytes() == before
    assert pptx.Presentation(str(path)).slides[0].shapes[0].has_chart


def test_what_was_delivered_is_remembered_with_the_document(window: Window, qtbot: QtBot, tmp_path: Path,
                                                            monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(tmp_path / "year.kavlet"), ""))
    window.actions_by_name["save_as"].trigger()
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1", wish=ExportOptions(".svg", outlines=True)))
    save(sheet, qtbot, monkeypatch, tmp_path / "path.svg")
    qtbot.waitUntil(lambda: window.delivering.last is not None, timeout=10_000)
    last = window.delivering.last
    assert last is not None
    assert (last.wish.ending, last.wish.outlines, last.out) == (".svg", True, str(tmp_path / "path.svg"))


def test_deliver_again_without_anything_delivered_asks(window: Window) -> None:
    window.actions_by_name["deliver_again"].trigger()
    assert window.findChild(DeliverDialog) is not None


def test_a_failed_delivery_leaves_nothing_and_offers_another_place(window: Window, qtbot: QtBot,
                                                                   tmp_path: Path) -> None:  # fmt: skip
    choice = DeliveryChoice("charts", wish=ExportOptions(".png"))
    window.delivering._write(choice, tmp_path / "none" / "a.png")
    qtbot.waitUntil(lambda: window.findChild(QMessageBox) is not None, timeout=30_000)
    box = window.findChild(QMessageBox)
    assert box is not None
    assert "can’t be written" in box.text()
    assert any("another place" in button.text() for button in box.buttons())
    assert list(tmp_path.iterdir()) == []
    box.close()


def test_given_up_work_writes_nothing(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    window.worker.patience = 0.0
    window.delivering._write(DeliveryChoice("charts", wish=ExportOptions(".png")), tmp_path / "a.png")
    window.worker.give_up()
    qtbot.wait(1500)
    assert list(tmp_path.iterdir()) == []
    assert window.findChild(QMessageBox) is None


def test_motion_is_chosen_in_seconds(window: Window, qtbot: QtBot, tmp_path: Path,
                                     monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    sheet = sheet_of(window, qtbot, DeliveryChoice(one=STEPPING, wish=ExportOptions(".gif", scale=0.5)))
    sheet.hold.committed.emit("0.5 s")
    sheet.way_on.committed.emit("0")
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    save(sheet, qtbot, monkeypatch, tmp_path / "steps.gif")
    with Image.open(tmp_path / "steps.gif") as made:
        periods = made.n_frames
        assert made.info["duration"] == 500
    assert periods == len(sheet.leaving.periods(0))
    sheet.hold.committed.emit("long")
    assert sheet.hold.is_wrong


def test_the_sheet_begins_with_what_is_in_view(window: Window, qtbot: QtBot) -> None:
    window.store.show_chart("k8")
    window.delivering.deliver()
    sheet = window.findChildren(DeliverDialog)[-1]
    assert (sheet.choice.what, sheet.choice.one) == ("chart", "k8")
    sheet.close()
    window.places.show_pages()
    window.delivering.deliver()
    assert window.findChildren(DeliverDialog)[-1].choice.what == "page"
    del qtbot


def test_a_document_without_pages_offers_only_charts(window: Window, qtbot: QtBot) -> None:
    document = msgspec.structs.replace(window.store.document, pages=())
    window.store.load(document, None, "bare")
    sheet = sheet_of(window, qtbot, DeliveryChoice("pages", wish=ExportOptions(".pdf")))
    assert sheet.choice.what == "chart"


def test_one_of_several_charts_leaves_as_a_picture(window: Window, qtbot: QtBot, tmp_path: Path,
                                                  monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    sheet = sheet_of(window, qtbot, DeliveryChoice("charts", wish=ExportOptions(".pptx")))
    assert 'href="k1"' in sheet.differs.text()
    sheet.differs.linkActivated.emit("k1")
    qtbot.waitUntil(sheet.save.isEnabled, timeout=20_000)
    assert {told.name: told.as_ for told in sheet.made.told}["Visitor path"] == "picture"
    save(sheet, qtbot, monkeypatch, tmp_path / "all.pptx")
    first, second, *_ = pptx.Presentation(str(tmp_path / "all.pptx")).slides
    assert not any(shape.has_chart for shape in first.shapes)
    assert any(shape.has_chart for shape in second.shapes)
    sheet.differs.linkActivated.emit("k1")
    assert sheet.wish.as_of == {}


def test_figures_are_previewed_as_they_are_written(window: Window, qtbot: QtBot) -> None:
    sheet = sheet_of(window, qtbot, DeliveryChoice(one="k1", wish=ExportOptions(".csv")))
    assert sheet.preview.sheet.text == sheet.made.content.decode()
    assert sheet.preview.sheet.text.startswith("stage,people")


def test_a_sheet_that_is_left_hears_no_more_of_its_size(window: Window, qtbot: QtBot) -> None:
    window.worker.patience = 0.0  # the answer comes later
    window.delivering.show(DeliveryChoice(one="k1", wish=ExportOptions(".pdf")))
    sheet = window.findChildren(DeliverDialog)[-1]
    sheet._ask()
    qtbot.keyClick(sheet, Qt.Key.Key_Escape)
    settled()
    assert not window.findChildren(DeliverDialog)
    qtbot.waitUntil(lambda: not window.worker.working, timeout=20_000)
    qtbot.wait(50)  # what its answer raises would be seen by now
