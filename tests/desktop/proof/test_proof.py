"""Proof in the window: the badge, the list with the keys, mending, silencing, and how readers see."""

from pathlib import Path

import msgspec
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import say
from kavlet.core.proof.finding import Finding
from kavlet.desktop.main import Window
from tests.desktop.hands import show


def read(window: Window, qtbot: QtBot) -> None:
    """Wait until the document is read."""
    qtbot.waitUntil(lambda: window.desk.is_up_to_date, timeout=30_000)


def opened(window: Window, qtbot: QtBot) -> None:
    read(window, qtbot)
    window.actions_by_name["show_proof"].trigger()
    assert window.proof_panel.isVisible()


def look_at(window: Window, check: str, chart: str = "") -> Finding:
    finding = next(
        one for one in window.proof_panel.list.findings if one.check == check and chart in ("", one.place.chart)
    )
    window.proof_panel.list.go_to(finding)
    assert window.proof_panel.list.finding is finding
    return finding


def legends(window: Window, qtbot: QtBot, count: int = 2) -> list[str]:
    """Charts with a legend of one entry each, by their ids."""
    charts = [one.id for one in window.store.document.charts if one.recipe in ("bars", "highlight-bars")][:count]

    def edit(document: Document) -> Document:
        for chart in charts:
            document = look_edits.set_looks(document, chart, {"legend.side": "top"})
        return document

    window.store.edit(say("x"), edit)
    read(window, qtbot)
    return charts


def test_the_badge_tells_how_much_was_found(window: Window, qtbot: QtBot) -> None:
    read(window, qtbot)
    assert window.desk.proof is not None
    count = len(window.desk.proof.open)
    assert window.proof_button.text() == f"Proof {count}"
    qtbot.mouseClick(window.proof_button, Qt.MouseButton.LeftButton)
    assert window.proof_panel.isVisible()
    assert window.proof_button.isChecked()
    assert window.proof_panel.says.text().startswith(f"{count} findings in 31 checks")
    window.proof_panel.close_button.click()
    assert not window.proof_panel.isVisible()
    assert not window.proof_button.isChecked()


def test_finding_nothing_is_said_too(window: Window, qtbot: QtBot) -> None:
    document = Document()
    document, table = edits.add_table(document, "T", [["a", "v"], ["x", 3.0], ["y", 5.0]])
    document, chart = edits.add_chart(document, table, "columns")
    document = edits.change_chart(document, chart, title="What it says")
    window.store.load(document, None, "x")
    opened(window, qtbot)
    assert window.proof_button.text() == "Proof"
    assert window.proof_panel._nothing.text() == "Nothing found in 31 checks."
    assert window.stage.proof.text() == "Proof: nothing found in 31 checks."


def test_what_is_looked_at_comes_into_view_and_is_outlined(window: Window, qtbot: QtBot) -> None:
    opened(window, qtbot)
    finding = look_at(window, "capped")
    assert window.store.chart.id == finding.place.chart
    assert window.store.selection == (Part("mark", "shown", finding.place.row or 0),)
    page = next(one for one in window.proof_panel.list.findings if one.place.page)
    window.proof_panel.list.go_to(page)
    assert window.places.on_pages
    assert (window.store.page.id, window.store.chosen.items) == (page.place.page, (page.place.item,))


def test_the_list_is_gone_through_with_the_keys(window: Window, qtbot: QtBot) -> None:
    opened(window, qtbot)
    held = window.proof_panel.list
    findings = held.findings
    assert held.hasFocus()
    for finding in (*findings, findings[0]):
        qtbot.keyClick(held, Qt.Key.Key_Down)
        assert held.finding is finding
        assert held.hasFocus()  # wherever it leads, the list keeps the keys
    qtbot.keyClick(held, Qt.Key.Key_Up)
    assert held.finding is findings[-1]
    window.actions_by_name["next_finding"].trigger()
    assert held.finding is findings[0]
    window.actions_by_name["previous_finding"].trigger()
    assert held.finding is findings[-1]


def test_a_remedy_is_one_click_and_one_step(window: Window, qtbot: QtBot) -> None:
    (chart,) = legends(window, qtbot, 1)
    opened(window, qtbot)
    before = window.store.document
    look_at(window, "one-legend")
    (button, *_) = window.proof_panel.details.remedies
    assert button.text() == "Leave the legend out"
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert window.store.document.chart(chart).dress.overrides["legend.side"] == "none"
    assert window.store.history.undo_name == "Leave the legend out"
    read(window, qtbot)
    assert not [one for one in window.proof_panel.list.findings if one.check == "one-legend"]
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before
    read(window, qtbot)
    look_at(window, "one-legend")
    qtbot.keyClick(window.proof_panel.list, Qt.Key.Key_Return)  # the first remedy by its key
    assert window.store.document.chart(chart).dress.overrides["legend.side"] == "none"


def test_all_of_a_kind_are_one_step(window: Window, qtbot: QtBot) -> None:
    charts = legends(window, qtbot)
    opened(window, qtbot)
    look_at(window, "one-legend")
    every = window.proof_panel.details.all
    found = sum(one.check == "one-legend" for one in window.proof_panel.list.findings)
    assert found >= 2  # in frames on pages too
    assert every.text() == f"Leave the legend out: all {found} of this kind"
    before = window.store.document
    qtbot.mouseClick(every, Qt.MouseButton.LeftButton)
    sides = [window.store.document.chart(one).dress.overrides["legend.side"] for one in charts]
    assert sides == ["none", "none"]
    assert window.saying.text() == f"{found} findings are mended."
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before


def test_what_restates_the_chart_is_shown_before_it_is_taken(window: Window, qtbot: QtBot) -> None:
    opened(window, qtbot)
    look_at(window, "capped")
    before, panel = window.store.history.current, window.proof_panel
    button = next(one for one in panel.details.remedies if one.text().startswith("Draw points"))
    assert button.text().endswith("…")
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert window.store.trying
    assert window.store.history.current is before
    assert panel.asks.text() == "So it would be: Draw points on a logarithmic scale."
    panel.leave.click()
    assert not window.store.trying
    assert window.store.document is before
    assert panel.asks.text() == ""
    panel.details.remedies[1].click()
    panel.take.click()
    assert window.store.chart.recipe == "bars"
    assert window.store.history.undo_name == "Draw points on a logarithmic scale"
    window.actions_by_name["undo"].trigger()
    assert window.store.document == before


def test_another_edit_ends_what_is_only_shown(window: Window, qtbot: QtBot) -> None:
    opened(window, qtbot)
    finding = look_at(window, "capped")
    window.proof.mend(next(one for one in finding.remedies if one.restates))
    window.store.choose(chart=window.store.document.charts[0].id)
    assert not window.store.trying
    assert window.proof_panel.asks.text() == ""
    window.proof.take()  # there is nothing any more
    assert window.store.document.chart(finding.place.chart).recipe == "capped-bars"


def test_silencing_needs_a_reason_which_stays(window: Window, qtbot: QtBot) -> None:
    opened(window, qtbot)
    finding = look_at(window, "capped")
    details, count = window.proof_panel.details, len(window.desk.proof.open)  # type: ignore[union-attr]
    qtbot.mouseClick(details.silence, Qt.MouseButton.LeftButton)
    assert window.saying.text() == "Silencing needs a reason, which stays in the document."
    qtbot.keyClicks(details.reason, "The storm is the story.")
    qtbot.keyClick(details.reason, Qt.Key.Key_Return)
    assert window.store.document.chart(finding.place.chart).silenced == {"capped": "The storm is the story."}
    read(window, qtbot)
    assert len(window.desk.proof.open) == count - 1  # type: ignore[union-attr]
    assert "silenced" in window.proof_panel.says.text()
    look_at(window, "capped")
    assert details.reason_said.text() == "Silenced: The storm is the story."
    assert not details.remedies
    qtbot.mouseClick(details.listen, Qt.MouseButton.LeftButton)
    assert window.store.document.chart(finding.place.chart).silenced == {}
    read(window, qtbot)
    look_at(window, "capped")
    details.reason.setText("All of our caps are meant.")
    details.scope.setCurrentIndex(details.scope.count() - 1)
    details.silence.click()
    assert window.store.document.silenced == {"capped": "All of our caps are meant."}


def test_a_number_typed_again_is_read_again_and_only_its_chart(window: Window, qtbot: QtBot) -> None:
    read(window, qtbot)
    show(window, "funnel")
    before = window.desk.proof
    assert before is not None
    window.store.edit_table(say("x"), lambda document, table: edits.set_cells(document, table.id, {(1, 3): 99_999.0}))
    read(window, qtbot)
    after = window.desk.proof
    assert after is not None
    assert "unsorted" in {one.check for one in after.charts[window.store.chart.id]}
    same = [key for key, found in after.charts.items() if before.charts[key] is found]
    assert len(same) >= len(after.charts) - 1


def test_a_cell_with_an_error_is_gone_to(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    window.figures.grid.cells.put({(1, 3): "=1/0"}, say("type"))
    opened(window, qtbot)
    finding = look_at(window, "formula-error")
    assert finding.severity == "error"
    window.figures.grid.go_to(0, 0)
    window.proof_panel.details.remedies[0].click()
    assert window.figures.grid.chosen()[:2] == (1, 3)


@pytest.mark.parametrize("reader", ["protan", "deutan", "tritan", "grey_print", "last_row"])
def test_stage_and_pages_are_seen_as_readers_see_them(window: Window, reader: str) -> None:
    show(window, "waffle")
    window.store.select()

    def drawn(widget: QWidget) -> QImage:
        return widget.grab().toImage()

    plain = drawn(window.stage.view)
    window.actions_by_name[f"read_as_{reader}"].trigger()
    assert window.actions_by_name[f"read_as_{reader}"].isChecked()
    seen = drawn(window.stage.view)
    assert seen != plain
    if reader == "grey_print":
        middle = [seen.pixelColor(x, seen.height() // 2) for x in range(0, seen.width(), 7)]
        sheet = window.stage.view.sheet()
        inside = [
            one
            for x, one in zip(range(0, seen.width(), 7), middle, strict=True)
            if sheet.left() + 4 < x < sheet.right() - 8
        ]
        assert all(
            max(one.red(), one.green(), one.blue()) - min(one.red(), one.green(), one.blue()) <= 3 for one in inside
        )
    assert window.stage.eye.isChecked()
    window.places.show_pages()
    page = drawn(window.pages.canvas)
    window.pages.eye.choices["everyone"].trigger()
    assert drawn(window.pages.canvas) != page
    assert not window.stage.eye.isChecked()
    window.places.show_stage()
    window.store.select()
    assert window.store.reader == "everyone"


def test_an_alt_text_is_written_in_dress_and_given_back(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    window.store.select()
    window.dress.refresh()
    field = window.dress.alt
    assert field.text() == ""
    assert field.placeholderText() == window.store.picture.figure.alt_text
    field.setText("Few of many become members.")
    field.committed.emit(field.text())
    assert window.store.picture.figure.alt_text == "Few of many become members."
    assert window.store.chart.alt is not None
    assert window.store.chart.alt.message.startswith("Funnel: people. 310 of 18,400")
    window.store.edit_table(say("x"), lambda document, table: edits.set_cells(document, table.id, {(1, 5): 900.0}))
    opened(window, qtbot)
    finding = look_at(window, "title-missing", window.store.chart.id)
    assert "moved on" in str(finding.message)
    window.proof_panel.details.remedies[0].click()
    assert window.store.chart.alt is None


def test_a_file_that_changed_is_found(window: Window, qtbot: QtBot, tmp_path: Path) -> None:
    file = tmp_path / "counts.csv"
    file.write_text("pond,birds\nMere,4\nCarr,9\n", encoding="utf-8")
    window.files.open_path(file)
    window.recipes.take("columns")
    table = window.store.table
    assert table.source is not None
    document = window.store.document
    stale = msgspec.structs.replace(table, source=msgspec.structs.replace(table.source, seen="another"))
    window.store.apply(say("x"), msgspec.structs.replace(document, tables=(stale,)))
    opened(window, qtbot)
    assert look_at(window, "stale-source").place.table == table.id
    file.unlink()
    window.desk.read_again()
    qtbot.waitUntil(lambda: "not there any more" in str(window.proof_panel.list.findings[0].message), timeout=10_000)
