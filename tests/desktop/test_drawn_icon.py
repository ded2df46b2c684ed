"""Icons drawn in the window's colours: they are drawn again when these change."""

from PySide6.QtGui import QColor, QIcon
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from kavlet.desktop.main import Window
from kavlet.desktop.stylesheet import DARK, LIGHT, dress_application
from tests.desktop.hands import show


def lightness(icon: QIcon) -> float:
    """The mean lightness of what is opaque in an icon, from 0 to 1."""
    image = icon.pixmap(32, 32).toImage()
    seen = [QColor(image.pixelColor(x, y)) for x in range(image.width()) for y in range(image.height())]
    tones = [one.lightnessF() for one in seen if one.alphaF() > 0.9]
    return sum(tones) / len(tones)


def test_icons_are_read_on_light_and_on_dark_ground(window: Window, qtbot: QtBot) -> None:
    show(window, "funnel")
    window.dress.refresh()
    qtbot.waitUntil(lambda: window.desk.is_up_to_date, timeout=30_000)
    window.actions_by_name["show_proof"].trigger()
    application = QApplication.instance()
    assert isinstance(application, QApplication)

    def icons() -> dict[str, QIcon]:
        heading = window.proof_panel.list.topLevelItem(0)
        assert heading is not None
        gap = window.dress.parameters.fields["gap"]
        return {
            "eye of the Stage": window.stage.eye.icon(),
            "eye of Pages": window.pages.eye.icon(),
            "mark of a finding": heading.child(0).icon(0),
            "cell of a setting": gap.actions()[0].icon(),
        }

    try:
        for dark, colours in ((False, LIGHT), (True, DARK), (False, LIGHT)):
            dress_application(application, dark)
            qtbot.wait(10)
            panel = QColor(colours.panel).lightnessF()
            for name, icon in icons().items():
                assert abs(lightness(icon) - panel) > 0.2, (name, dark)
    finally:
        dress_application(application, False)
