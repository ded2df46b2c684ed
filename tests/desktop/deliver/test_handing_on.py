"""Mail, outbox, showcase, clipboard, dragging out, and printing, in the real window."""

import urllib.error
import urllib.request
from pathlib import Path

import pytest
from PySide6.QtCore import QRectF, QUrl
from PySide6.QtGui import QDesktopServices, QGuiApplication
from PySide6.QtPrintSupport import QPrinter
from pytestqt.qtbot import QtBot

from kavlet.core.files.formats import ExportOptions
from kavlet.core.values.geometry import Size
from kavlet.core.values.sizes import MM
from kavlet.desktop.deliver.last_delivery import DeliveryChoice
from kavlet.desktop.deliver.outbox_dialog import OutboxDialog
from kavlet.desktop.deliver.printing import PrintDialog, Printing, paint_sheets, placed
from kavlet.desktop.deliver.showcase_dialog import ShowcaseDialog
from kavlet.desktop.main import Window
from kavlet.sharing import outbox, showcase


@pytest.fixture(autouse=True)
def _own_data(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def test_a_mail_is_sent_to_the_outbox_and_shown(window: Window, qtbot: QtBot) -> None:
    wish = ExportOptions(".eml", to=("asa@mirefen.example",), subject="Visitor path")
    window.delivering._place(DeliveryChoice(one="k1", wish=wish, to="outbox"))
    qtbot.waitUntil(lambda: window.findChild(OutboxDialog) is not None, timeout=20_000)
    sheet = window.findChild(OutboxDialog)
    assert sheet is not None
    assert "asa@mirefen.example" in sheet.head.text()
    assert "18,400" in sheet.words.toPlainText()
    assert not sheet.picture.pixmap().isNull()
    assert "visitor-path.pdf" in sheet.files.text()
    sheet._delete()
    assert outbox.mails() == []


def test_a_mail_without_an_addressee_is_not_sent(window: Window, qtbot: QtBot) -> None:
    window.delivering._place(DeliveryChoice(one="k1", wish=ExportOptions(".eml"), to="outbox"))
    qtbot.waitUntil(lambda: "addressee" in window.saying.text(), timeout=20_000)
    assert outbox.mails() == []


def test_a_draft_is_handed_to_the_mail_program(window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    opened: list[QUrl] = []
    monkeypatch.setattr(QDesktopServices, "openUrl", lambda url: bool(opened.append(url)) or True)
    window.delivering._place(DeliveryChoice(one="k1", wish=ExportOptions(".eml"), to="program"))
    qtbot.waitUntil(lambda: bool(opened), timeout=20_000)
    assert (
        Path(opened[0].toLocalFile()).read_bytes().startswith(b"To:")
        or b"X-Unsent: 1" in Path(opened[0].toLocalFile()).read_bytes()
    )


def test_where_no_program_opens_drafts_it_is_said(window: Window, qtbot: QtBot,
                                                  monkeypatch: pytest.MonkeyPatch) -> None:  # fmt: skip
    monkeypatch.setattr(QDesktopServices, "openUrl", lambda _: False)
    window.delivering._place(DeliveryChoice(one="k1", wish=ExportOptions(".eml"), to="program"))
    qtbot.waitUntil(lambda: "No program here opens mail drafts" in window.saying.text(), timeout=20_000)


def test_a_page_is_published_renewed_and_taken_back(window: Window, qtbot: QtBot) -> None:
    choice = DeliveryChoice(one="k1", wish=ExportOptions(".html"), to="showcase")
    window.delivering._place(choice)
    qtbot.waitUntil(lambda: window.findChild(ShowcaseDialog) is not None, timeout=20_000)
    sheet = window.findChild(ShowcaseDialog)
    assert sheet is not None
    assert sheet.chosen is not None
    address = showcase.address(sheet.chosen)
    first = urllib.request.urlopen(address, timeout=5).read()
    assert b"One in 59 visitors" in first
    sheet.copy.click()
    assert QGuiApplication.clipboard().text() == address
    window.delivering._place(choice)
    qtbot.waitUntil(lambda: len(showcase.index().pages[0].versions) == 2, timeout=20_000)
    assert showcase.address(showcase.index().pages[0]) == address  # the address lasts
    sheet.refresh()
    sheet._take_back()
    assert sheet.chosen is None
    with pytest.raises(urllib.error.HTTPError) as gone:
        urllib.request.urlopen(address, timeout=5)
    assert gone.value.code == 410
    gone.value.close()
    sheet._turn()
    assert window.delivering._server.made is None or not window.delivering._server.made.running
    with pytest.raises(urllib.error.URLError):
        urllib.request.urlopen(address, timeout=5)


def test_the_clipboard_holds_every_kind_at_once(window: Window) -> None:
    window.store.show_chart("k1")
    window.actions_by_name["copy_out"].trigger()
    held = QGuiApplication.clipboard().mimeData()
    assert {"image/svg+xml", "image/png", "text/html", "text/plain"} <= set(held.formats())
    assert bytes(held.data("image/svg+xml").data()).startswith(b"<svg")
    assert held.hasImage()
    assert "Visits\t18,400" in held.text()
    assert 'alt="' in held.html()
    assert "<td>18,400</td>" in held.html()


def test_what_is_chosen_of_a_page_is_copied_alone(window: Window) -> None:
    window.places.show_pages()
    page = window.store.document.pages[1]
    window.store.show_page(page.id) if hasattr(window.store, "show_page") else window.places.go_to_page(page.id)
    item = next(one for one in page.items if one.kind == "chart")
    window.store.choose_items(item.id)
    window.actions_by_name["copy_out"].trigger()
    image = QGuiApplication.clipboard().image()
    box = window.store.page_picture(page.id).boxes[item.id]
    assert (image.width(), image.height()) == (round(2 * box.width), round(2 * box.height))


def test_the_button_drags_a_picture_out(window: Window) -> None:
    window.store.show_chart("k1")
    drag = window.deliver_button.made_drag()
    assert drag is not None
    mime = drag.mimeData()
    path = Path(mime.urls()[0].toLocalFile())
    assert path.name == "visitor-path.png"
    assert path.read_bytes().startswith(b"\x89PNG")
    assert {"image/svg+xml", "text/html", "text/plain"} <= set(mime.formats())


def test_printing_keeps_the_true_size_and_turns_what_lies() -> None:
    paper = QRectF(0, 0, 210 * MM, 297 * MM)
    area, scale, turned = placed(Size(100 * MM, 60 * MM), paper, Printing())
    assert (scale, turned) == (1.0, True)
    assert (area.width(), area.height()) == pytest.approx((60 * MM, 100 * MM))
    area, scale, turned = placed(Size(210 * MM, 297 * MM), paper, Printing())
    assert (scale, turned) == (1.0, False)
    area, scale, _ = placed(Size(210 * MM, 297 * MM), paper, Printing(fit="fit"))
    assert scale == pytest.approx(190 / 210)
    assert area.left() == pytest.approx(10 * MM)
    area, scale, _ = placed(Size(210 * MM, 297 * MM), paper, Printing(marks=True))
    assert area.left() >= 18.0


def test_the_print_sheet_prints_every_page(window: Window, tmp_path: Path, qtbot: QtBot) -> None:
    import pypdf

    window.places.show_pages()
    window.actions_by_name["print"].trigger()
    sheet = window.findChild(PrintDialog)
    assert sheet is not None
    assert len(sheet.scenes) == len(window.store.document.pages)
    assert "100 %" in sheet.says.text()
    printer = QPrinter()
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "out.pdf"))
    paint_sheets(printer, sheet.scenes, Printing("A3", marks=True))
    made = pypdf.PdfReader(tmp_path / "out.pdf")
    assert len(made.pages) == len(sheet.scenes)
    assert float(made.pages[0].mediabox.width) == pytest.approx(297 * MM, abs=1)
    sheet.close()
    del qtbot
