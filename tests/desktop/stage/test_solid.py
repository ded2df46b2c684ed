"""Solids in the window: switched on, turned in every way, lit, read, and left alone where they have no meaning."""

import math

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication, QScrollArea
from pytestqt.qtbot import QtBot

from kavlet.core.charts.solid import Solid
from kavlet.core.interaction.parts import Part
from kavlet.core.solid.cover import polygons
from kavlet.desktop.dress.fields import ChoiceField, TextField
from kavlet.desktop.main import Window
from kavlet.desktop.stage.view_rails import Rail
from tests.desktop.hands import click, figure, pulled, send, show, spec, type_in
from tests.making import document, table


def solid(window: Window) -> Solid | None:
    return spec(window).as_solid


def angles(window: Window) -> tuple[float, float]:
    held = solid(window)
    assert held is not None
    return held.turn, held.tilt


def made_solid(window: Window, qtbot: QtBot, recipe: str = "columns") -> None:
    show(window, recipe)
    qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    assert solid(window) is not None


def grip(rail: Rail) -> QPoint:
    along = round(rail.groove.place(rail.groove.value()))
    across = (
        rail.groove.height() if rail.groove.orientation() == Qt.Orientation.Horizontal else rail.groove.width()
    ) // 2
    return QPoint(along, across) if rail.groove.orientation() == Qt.Orientation.Horizontal else QPoint(across, along)


def spot_at(rail: Rail, degrees: float) -> QPoint:
    return (
        QPoint(round(rail.groove.place(degrees * 10)), 11)
        if rail.groove.orientation() == Qt.Orientation.Horizontal
        else QPoint(11, round(rail.groove.place(degrees * 10)))
    )


def test_the_solid_button_makes_it_solid_and_flat_again(window: Window, qtbot: QtBot) -> None:
    show(window, "columns")
    flat = window.stage.view.picture
    assert not window.stage.turn_rail.isVisible()
    qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    assert angles(window) == (-20.0, 14.0)
    assert window.stage.turn_rail.isVisible()
    assert window.stage.tilt_rail.isVisible()
    assert figure(window).faces
    qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    again = window.stage.view.picture
    assert flat is not None
    assert again is not None
    assert again.scene == flat.scene
    assert not window.stage.turn_rail.isVisible()
    window.store.undo()
    assert angles(window) == (-20.0, 14.0)
    window.store.undo()
    assert solid(window) is None


def test_where_a_solid_has_no_meaning_that_is_said(window: Window, qtbot: QtBot) -> None:
    show(window, "lines")
    with qtbot.waitSignal(window.store.refused) as said:
        qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    assert "no bars, slices or rings" in said.args[0]
    assert solid(window) is None
    assert not window.stage.solid.isChecked()
    assert "solid.turn" not in window.dress.rows


def test_a_rail_turns_while_it_is_dragged_and_takes_it_as_one_edit(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    rail, before = window.stage.turn_rail, window.store.history.current
    pulled(rail.groove, grip(rail), spot_at(rail, 40), let_go=False)
    assert window.store.trying
    assert angles(window)[0] == pytest.approx(40, abs=1)
    assert window.store.history.current is before
    send(rail.groove, QEvent.Type.MouseButtonRelease, spot_at(rail, 40))
    assert not window.store.trying
    assert angles(window) == (pytest.approx(40, abs=1), 14.0)
    assert rail.field.text() == f"{angles(window)[0]:g}°"
    window.store.undo()
    assert angles(window) == (-20.0, 14.0)


def test_each_rail_turns_one_axis(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    rail = window.stage.tilt_rail
    pulled(rail.groove, grip(rail), spot_at(rail, -35))
    assert angles(window) == (-20.0, pytest.approx(-35, abs=1))
    assert rail.field.text().startswith("−")


def test_escape_gives_a_turn_up(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    rail = window.stage.turn_rail
    pulled(rail.groove, grip(rail), spot_at(rail, 70), let_go=False)
    qtbot.keyClick(rail.groove, Qt.Key.Key_Escape)
    assert not window.store.trying
    assert angles(window) == (-20.0, 14.0)


def test_rails_by_keys_double_click_and_typing(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    rail = window.stage.turn_rail
    rail.groove.setFocus()
    qtbot.keyClick(rail.groove, Qt.Key.Key_Right)
    assert angles(window)[0] == -19.0
    qtbot.keyClick(rail.groove, Qt.Key.Key_PageUp)
    assert angles(window)[0] == -4.0
    type_in(qtbot, rail.field, "-37.5")
    assert angles(window)[0] == -37.5
    type_in(qtbot, rail.field, "twenty")
    assert angles(window)[0] == -37.5
    type_in(qtbot, rail.field, "400")
    assert angles(window)[0] == -37.5
    type_in(qtbot, rail.field, "90")
    assert angles(window)[0] == 90.0
    qtbot.mouseDClick(rail.groove, Qt.MouseButton.LeftButton, pos=grip(rail))
    assert angles(window) == (0.0, 14.0)


def test_alt_drag_turns_and_tilts(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    view = window.stage.view
    middle = view.from_chart(*figure(window).plot.center).toPoint()
    alt = Qt.KeyboardModifier.AltModifier
    pulled(view, middle, middle + QPoint(60, -30), alt, let_go=False)
    assert window.store.trying
    turn, tilt = angles(window)
    assert turn > -20
    assert tilt < 14
    send(view, QEvent.Type.MouseButtonRelease, middle + QPoint(60, -30), alt)
    assert angles(window) == (turn, tilt)
    window.store.undo()
    assert angles(window) == (-20.0, 14.0)


def test_the_middle_button_turns_as_alt_does(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    view, middle = window.stage.view, Qt.MouseButton.MiddleButton
    start = view.from_chart(*figure(window).plot.center)

    def event(kind: QEvent.Type, at: QPointF, button: Qt.MouseButton, down: Qt.MouseButton) -> None:
        QApplication.sendEvent(view, QMouseEvent(kind, at, at, button, down, Qt.KeyboardModifier.NoModifier))

    event(QEvent.Type.MouseButtonPress, start, middle, middle)
    for step in (20, 40):
        event(QEvent.Type.MouseMove, start + QPointF(step, 0), Qt.MouseButton.NoButton, middle)
    event(QEvent.Type.MouseButtonRelease, start + QPointF(40, 0), middle, Qt.MouseButton.NoButton)
    assert angles(window)[0] > -20
    assert angles(window)[1] == 14
    assert not window.store.trying
    assert window.store.selection == ()


def test_turning_a_chart_without_bodies_says_so(window: Window, qtbot: QtBot) -> None:
    show(window, "areas")
    view = window.stage.view
    middle = view.from_chart(*figure(window).plot.center).toPoint()
    with qtbot.waitSignal(window.store.refused):
        pulled(view, middle, middle + QPoint(40, 0), Qt.KeyboardModifier.AltModifier)
    assert not window.store.trying
    assert solid(window) is None


def test_alt_drag_makes_a_flat_chart_solid(window: Window) -> None:
    show(window, "pie")
    view = window.stage.view
    middle = view.from_chart(*figure(window).plot.center).toPoint()
    pulled(view, middle, middle + QPoint(0, -80), Qt.KeyboardModifier.AltModifier)
    assert angles(window)[0] == 0
    assert angles(window)[1] < -10


def test_arrow_keys_turn_when_nothing_is_chosen(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    window.store.select()
    view = window.stage.view
    view.setFocus()
    qtbot.keyClick(view, Qt.Key.Key_Right)
    qtbot.keyClick(view, Qt.Key.Key_Down)
    assert angles(window) == (-19.0, 15.0)
    qtbot.keyClick(view, Qt.Key.Key_Left, Qt.KeyboardModifier.ShiftModifier)
    assert angles(window) == (-34.0, 15.0)


def test_views_by_button_and_command(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot, "pie")
    qtbot.mouseClick(window.dress.solid.views["above"], Qt.MouseButton.LeftButton)
    assert angles(window) == (0.0, -55.0)
    qtbot.mouseClick(window.dress.solid.views["front"], Qt.MouseButton.LeftButton)
    assert angles(window) == (0.0, 0.0)
    assert not figure(window).faces  # seen from the front it is the flat chart
    qtbot.keyClick(window, Qt.Key.Key_4, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier)
    assert angles(window) == (-14.0, -42.0)


def test_dress_sets_depth_body_material_and_light(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    rows = window.dress.rows
    before = window.stage.view.picture
    type_in(qtbot, rows["solid.depth"].field, "120")
    type_in(qtbot, rows["solid.perspective"].field, "50")
    type_in(qtbot, rows["solid.light_turn"].field, "60")
    material = rows["solid.material"].field
    assert isinstance(material, ChoiceField)
    qtbot.mouseClick(material.button("glossy"), Qt.MouseButton.LeftButton)
    held = solid(window)
    assert held is not None
    assert (held.depth, held.perspective, held.light_turn, held.material) == (1.2, 0.5, 60.0, "glossy")
    assert window.stage.view.picture is not before
    window.dress.set_value("solid.form", "cone")
    assert any(len(path.verbs) > 6 for _, path in figure(window).faces)
    field = rows["solid.depth"].field
    assert isinstance(field, TextField)
    type_in(qtbot, field, "deep")
    after = solid(window)
    assert after is not None
    assert after.depth == 1.2


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("turn", "500", "−90 to 90"),
        ("perspective", "150", "0 to 100"),
        ("depth", "-5", "1 to 1,000"),
        ("turn", "nan", "“nan” is not a number"),
    ],
)
def test_what_can_t_be_is_said_and_changes_nothing(
    window: Window, qtbot: QtBot, path: str, text: str, says: str
) -> None:  # fmt: skip
    made_solid(window, qtbot)
    before, said = window.store.document, []
    window.store.refused.connect(said.append)
    type_in(qtbot, window.dress.rows[f"solid.{path}"].field, text)
    assert window.store.document is before
    assert says in "".join(said)
    assert len(said) == 1
    type_in(qtbot, window.stage.turn_rail.field, "inf")
    assert window.store.document is before
    assert "“inf” is not a number" in said[-1]


def test_dress_tells_what_the_view_does_to_the_reading(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot)
    text = window.dress.solid.reading.text()
    assert "seen area" in text
    assert text.count("<tr>") == 7
    number = next(n for n, _ in figure(window).faces)
    mark = figure(window).marks[number]
    window.store.select(Part("mark", mark.key, mark.row))
    assert "of the area" in window.dress.reading.text()
    assert window.dress.reading.isVisible()
    window.store.select()
    qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    assert not window.dress.solid.reading.isVisible()


def test_long_names_leave_the_fields_where_they_are(window: Window, qtbot: QtBot) -> None:
    names = ["The long boardwalk by the northern reedbed", "Visitors’ centre and café by the old mill leat"]
    rows = table(["site", "visits in spring", "visits in autumn"], names, [120, 340], [100, 240])
    window.store.load(document("columns", rows), None, "")
    qtbot.mouseClick(window.stage.solid, Qt.MouseButton.LeftButton)
    qtbot.wait(50)
    area = window.dress.findChild(QScrollArea)
    assert area is not None
    assert names[0] in window.dress.solid.reading.text()
    assert area.widget().width() <= area.viewport().width()
    assert area.horizontalScrollBar().value() == 0


def test_clicking_a_side_chooses_its_body(window: Window, qtbot: QtBot) -> None:
    """The frontmost face at a place is what is chosen, sides and tops as well as fronts."""
    made_solid(window, qtbot)
    chart = figure(window)
    number, path = chart.faces[-2]  # a side or top of the frontmost body
    ring = polygons(path)[0]
    middle = sum(x for x, _ in ring) / len(ring), sum(y for _, y in ring) / len(ring)
    at = window.stage.view.from_chart(*middle).toPoint()
    click(window, qtbot, at)
    assert window.store.selection[0].key == chart.marks[number].key  # first the layer
    click(window, qtbot, at)
    part = window.store.selection[0]
    assert (part.kind, part.key, part.row) == ("mark", chart.marks[number].key, chart.marks[number].row)


def test_a_slice_is_pulled_out_along_the_plane_it_lies_on(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot, "pie")
    chart = figure(window)
    flat = next(one for one in chart.marks if one.sector is not None and one.row == 0)
    assert flat.sector is not None
    a, b, c, d, e, f, g, h, i = chart.fronts[0]

    def seen_at(x: float, y: float) -> QPoint:
        w = g * x + h * y + i
        return window.stage.view.from_chart((a * x + b * y + c) / w, (d * x + e * y + f) / w).toPoint()

    s = flat.sector
    middle = math.radians((s.start + s.end) / 2)
    x, y = math.sin(middle), -math.cos(middle)
    start = seen_at(s.center[0] + 0.8 * s.outer * x, s.center[1] + 0.8 * s.outer * y)
    end = seen_at(s.center[0] + (0.8 * s.outer + 20) * x, s.center[1] + (0.8 * s.outer + 20) * y)
    pulled(window.stage.view, start, end)
    row = spec(window).layers[0].rows[0]
    assert row.explode is not None
    assert row.explode * s.outer == pytest.approx(20, abs=3)  # points of the flat chart, not of the sheet


def test_proof_follows_when_the_solid_is_let_go(window: Window, qtbot: QtBot) -> None:
    made_solid(window, qtbot, "pie")
    qtbot.waitUntil(lambda: window.desk.is_up_to_date, timeout=20_000)
    rail, before = window.stage.tilt_rail, window.stage.proof.text()
    pulled(rail.groove, grip(rail), spot_at(rail, -80), let_go=False)
    qtbot.wait(300)
    assert window.stage.proof.text() == before  # what is only tried out is not read
    send(rail.groove, QEvent.Type.MouseButtonRelease, spot_at(rail, -80))
    qtbot.waitUntil(lambda: window.stage.proof.text() != before, timeout=5000)
    assert "Seen this way" in window.stage.proof.text()


def test_it_is_kept_in_the_file(window: Window, qtbot: QtBot, tmp_path: object) -> None:
    from pathlib import Path

    from kavlet.core.files import kavlet

    made_solid(window, qtbot)
    assert isinstance(tmp_path, Path)
    path = tmp_path / "a.kavlet"
    path.write_bytes(kavlet.dumps(window.store.document))
    window.store.history.saved()
    window.files.open_path(path)
    show(window, "columns")
    assert angles(window) == (-20.0, 14.0)
    assert window.stage.solid.isChecked()
