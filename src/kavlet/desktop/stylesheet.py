"""The window's own look: warm paper and ink, light and dark, from one set of named colours."""

from pathlib import Path

from msgspec import Struct
from PySide6.QtCore import QSettings, Qt
from PySide6.QtGui import QColor, QFont, QPalette
from PySide6.QtWidgets import QApplication, QLabel, QProxyStyle, QWidget

import kavlet

UNIT = 4  # pixels; all distances are multiples of it
CORNER = 6
ICONS = Path(kavlet.__file__).parent / "assets" / "icons"


class Colours(Struct, frozen=True):
    """The window's colours as hex text."""

    ground: str
    panel: str
    ink: str
    quiet: str
    line: str
    accent: str
    on_accent: str
    second: str
    helper: str
    helper_line: str
    chosen: str
    alarm: str
    check: str
    arrow: str
    arrow_left: str
    arrow_right: str


LIGHT = Colours(
    ground="#f6f3ee",
    panel="#ffffff",
    ink="#26303a",
    quiet="#5e6873",
    line="#ddd6cb",
    accent="#7a2e5d",
    on_accent="#ffffff",
    second="#0e7c86",
    helper="#e9efe0",
    helper_line="#8d9f74",
    chosen="#f3e6ee",
    alarm="#b3372f",
    check="check-light.svg",
    arrow="arrow-light.svg",
    arrow_left="arrow-left-light.svg",
    arrow_right="arrow-right-light.svg",
)
DARK = Colours(
    ground="#1d2126",
    panel="#262b31",
    ink="#ece7df",
    quiet="#a9b0b8",
    line="#3d444c",
    accent="#d58bb8",
    on_accent="#1d2126",
    second="#5bb9c2",
    helper="#2f3a2e",
    helper_line="#7d9170",
    chosen="#4a3443",
    alarm="#ef8a7f",
    check="check-dark.svg",
    arrow="arrow-dark.svg",
    arrow_left="arrow-left-dark.svg",
    arrow_right="arrow-right-dark.svg",
)

_current = LIGHT


def colours() -> Colours:
    """The colours in use."""
    return _current


def qcolor(text: str) -> QColor:
    return QColor(text)


def dress_application(application: QApplication, dark: bool) -> None:
    """Give the application its style, palette, face and sheet."""
    global _current  # noqa: PLW0603 - one look for the whole window, changed only here
    _current = DARK if dark else LIGHT
    c = _current
    if application.styleSheet() == _sheet(c):
        return  # it wears this already; a sheet that is set again is laid over every widget anew
    application.setStyle(PlainTextStyle("Fusion"))
    font = QFont(["Fira Sans"])
    font.setPixelSize(13)
    application.setFont(font)
    palette = QPalette()
    roles = {
        QPalette.ColorRole.Window: c.ground,
        QPalette.ColorRole.WindowText: c.ink,
        QPalette.ColorRole.Base: c.panel,
        QPalette.ColorRole.AlternateBase: c.ground,
        QPalette.ColorRole.Text: c.ink,
        QPalette.ColorRole.Button: c.panel,
        QPalette.ColorRole.ButtonText: c.ink,
        QPalette.ColorRole.Highlight: c.accent,
        QPalette.ColorRole.HighlightedText: c.on_accent,
        QPalette.ColorRole.ToolTipBase: c.ink,
        QPalette.ColorRole.ToolTipText: c.panel,
        QPalette.ColorRole.PlaceholderText: c.quiet,
        QPalette.ColorRole.Link: c.second,
    }
    for role, text in roles.items():
        palette.setColor(role, QColor(text))
    for role in (QPalette.ColorRole.WindowText, QPalette.ColorRole.Text, QPalette.ColorRole.ButtonText):
        palette.setColor(QPalette.ColorGroup.Disabled, role, QColor(c.quiet))
    application.setPalette(palette)
    application.setStyleSheet(_sheet(c))


def _sheet(c: Colours) -> str:
    return f"""
    QMainWindow, QDialog {{ background: {c.ground}; }}
    QMenuBar {{ background: {c.ground}; padding: 2px 6px; }}
    QMenuBar::item {{ padding: 4px 6px; border-radius: 4px; background: transparent; }}
    QMenuBar::item:selected {{ background: {c.chosen}; color: {c.ink}; }}
    QMenu {{ background: {c.panel}; border: 1px solid {c.line}; padding: 4px; }}
    QMenu::item {{ padding: 5px 24px 5px 24px; border-radius: 4px; }}
    QMenu::indicator {{ width: 8px; height: 8px; left: 9px; border-radius: 4px; }}
    QMenu::indicator:checked {{ background: {c.accent}; }}
    QMenu::item:selected {{ background: {c.chosen}; color: {c.ink}; }}
    QMenu::item:disabled {{ color: {c.quiet}; }}
    QMenu::separator {{ height: 1px; background: {c.line}; margin: 4px 8px; }}
    QToolTip {{ background: {c.ink}; color: {c.panel}; border: 0; padding: 4px 8px; }}
    QFrame#panel {{ background: {c.panel}; border: 1px solid {c.line}; border-radius: {CORNER}px; }}
    QLabel#head {{ font-weight: 700; color: {c.ink}; }}
    QLabel#title {{ font-weight: 700; font-size: 18px; color: {c.ink}; }}
    QPushButton#link {{ border: 0; padding: 0; background: transparent; color: {c.accent}; text-align: left;
                        min-height: 0; }}
    QPushButton#link:hover, QPushButton#link:focus {{ text-decoration: underline; }}
    QLabel#quiet {{ color: {c.quiet}; }}
    QLabel#alarm {{ color: {c.alarm}; }}
    QLabel#field_note {{ color: {c.ground}; background: {c.alarm}; padding: 5px 8px; border-radius: 3px; }}
    QLabel#address {{ color: {c.quiet}; }}
    QTabBar#tables::tab {{ padding: 3px 10px 5px 10px; color: {c.quiet}; background: transparent;
        border: 0; border-bottom: 2px solid transparent; }}
    QTabBar#tables::tab:selected {{ color: {c.ink}; font-weight: 700; border-bottom: 2px solid {c.accent}; }}
    QTabBar#tables::tab:focus {{ color: {c.accent}; }}
    QPlainTextEdit {{ background: {c.panel}; border: 1px solid {c.line}; border-radius: 4px;
        selection-background-color: {c.accent}; selection-color: {c.on_accent}; }}
    QPlainTextEdit:focus {{ border: 1px solid {c.accent}; }}
    QComboBox {{ background: {c.panel}; border: 1px solid {c.line}; border-radius: 4px; padding: 4px 6px; }}
    QComboBox:hover, QComboBox:focus {{ border-color: {c.accent}; }}
    QComboBox::drop-down {{ border: 0; width: 18px; }}
    QComboBox::down-arrow {{ image: url({ICONS / c.arrow}); width: 9px; height: 9px; }}
    QTabBar QToolButton {{ border: 0; padding: 0; background: {c.panel}; width: 14px; }}
    QTabBar::left-arrow {{ image: url({ICONS / c.arrow_left}); width: 9px; height: 9px; }}
    QTabBar::right-arrow {{ image: url({ICONS / c.arrow_right}); width: 9px; height: 9px; }}
    QTabBar QToolButton::left-arrow {{ image: url({ICONS / c.arrow_left}); width: 9px; height: 9px; }}
    QTabBar QToolButton::right-arrow {{ image: url({ICONS / c.arrow_right}); width: 9px; height: 9px; }}
    QToolButton:checked {{ background: {c.chosen}; border-color: {c.accent}; color: {c.accent}; }}
    QSlider::groove:horizontal {{ height: 4px; background: {c.line}; border-radius: 2px; }}
    QSlider::sub-page:horizontal {{ background: {c.accent}; border-radius: 2px; }}
    QSlider::handle:horizontal {{ width: 12px; height: 12px; margin: -5px 0; border-radius: 6px;
        background: {c.panel}; border: 2px solid {c.accent}; }}
    QSlider::handle:horizontal:focus {{ background: {c.accent}; }}
    QListView {{ background: {c.panel}; border: 1px solid {c.line}; selection-background-color: {c.chosen};
        selection-color: {c.ink}; }}
    QTreeView {{ background: {c.panel}; border: 0; outline: 0; selection-background-color: {c.chosen};
        selection-color: {c.ink}; }}
    QTreeView::item {{ padding: 3px 2px; color: {c.ink}; border-left: 2px solid transparent; }}
    QTreeView::item:selected {{ background: {c.chosen}; color: {c.ink}; }}
    QTreeView::item:selected:active {{ border-left: 2px solid {c.accent}; }}
    QTreeView::branch {{ background: {c.panel}; }}
    QLineEdit, QAbstractSpinBox {{
        background: {c.panel}; border: 1px solid {c.line}; border-radius: 4px; padding: 4px 6px;
        selection-background-color: {c.accent}; selection-color: {c.on_accent}; }}
    QLineEdit:focus, QAbstractSpinBox:focus {{ border: 1px solid {c.accent}; }}
    QLineEdit[wrong="true"] {{ border: 1px solid {c.alarm}; }}
    QPushButton, QToolButton {{
        background: {c.panel}; border: 1px solid {c.line}; border-radius: 4px; padding: 5px 12px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {c.accent}; }}
    QPushButton:focus, QToolButton:focus {{ border: 1px solid {c.accent}; }}
    QPushButton:pressed, QToolButton:pressed {{ background: {c.chosen}; }}
    QPushButton:disabled {{ color: {c.quiet}; }}
    QPushButton#main {{ background: {c.accent}; color: {c.on_accent}; border: 1px solid {c.accent}; font-weight: 700; }}
    QPushButton#main:focus {{ border: 1px solid {c.ink}; }}
    QToolButton#choice {{ border-radius: 0; padding: 5px 4px; margin: 0; }}
    QToolButton#choice:checked {{ background: {c.chosen}; color: {c.accent}; border: 2px solid {c.accent};
        padding: 4px 3px; }}
    QToolButton#choice:focus {{ border: 2px dashed {c.accent}; padding: 4px 3px; }}
    QToolButton#plain {{ border: 1px solid transparent; background: transparent; padding: 2px 6px; }}
    QToolButton#plain:hover {{ background: {c.chosen}; }}
    QToolButton#plain:focus {{ border: 1px solid {c.accent}; }}
    QToolButton#place {{ border: 0; border-bottom: 2px solid transparent; border-radius: 0; background: transparent;
        color: {c.quiet}; padding: 3px 8px 4px 8px; }}
    QToolButton#place:hover {{ color: {c.ink}; }}
    QToolButton#place:checked {{ color: {c.ink}; font-weight: 700; border-bottom: 2px solid {c.accent}; }}
    QToolButton#place:focus {{ color: {c.accent}; }}
    QToolButton#put {{ padding: 4px 7px; }}
    QToolButton::menu-indicator {{ image: none; width: 0; }}
    QCheckBox {{ spacing: 8px; }}
    QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {c.quiet}; border-radius: 3px;
        background: {c.panel}; }}
    QCheckBox::indicator:checked {{ background: {c.accent}; border-color: {c.accent};
        image: url({ICONS / c.check}); }}
    QCheckBox::indicator:focus {{ border: 2px solid {c.accent}; }}
    QScrollArea, QScrollArea > QWidget > QWidget {{ background: transparent; border: 0; }}
    QTableView {{
        background: {c.panel}; border: 0; gridline-color: {c.line}; selection-background-color: {c.chosen};
        selection-color: {c.ink}; }}
    QHeaderView {{ background: {c.panel}; border: 0; }}
    QHeaderView::section {{ background: {c.panel}; color: {c.quiet}; border: 0; border-bottom: 1px solid {c.line};
        border-right: 1px solid {c.line}; padding: 0 6px; }}
    QTableCornerButton::section {{ background: {c.panel}; border: 0; border-bottom: 1px solid {c.line};
        border-right: 1px solid {c.line}; }}
    QSplitter::handle {{ background: transparent; }}
    QStatusBar {{ background: {c.ground}; color: {c.quiet}; }}
    QStatusBar::item {{ border: 0; }}
    QScrollBar:vertical {{ background: transparent; width: 10px; margin: 0; }}
    QScrollBar:horizontal {{ background: transparent; height: 10px; margin: 0; }}
    QScrollBar::handle {{ background: {c.line}; border-radius: 4px; min-height: 24px; min-width: 24px; margin: 1px; }}
    QScrollBar::handle:hover {{ background: {c.quiet}; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollBar::add-page, QScrollBar::sub-page {{ background: transparent; }}
    QProgressBar {{ border: 1px solid {c.line}; border-radius: 4px; background: {c.panel}; }}
    """


def apply_look() -> None:
    """Dress the application light or dark, as chosen, else as the system does; all widgets repaint with the new
    sheet."""
    application = QApplication.instance()
    if not isinstance(application, QApplication):
        return
    chosen = str(QSettings().value("look", "system"))
    system_dark = application.styleHints().colorScheme() == Qt.ColorScheme.Dark
    dress_application(application, chosen == "dark" or (chosen == "system" and system_dark))


class PlainTextStyle(QProxyStyle):
    """Another style in which texts are plain unless a label says otherwise."""

    def polish(self, held: QWidget | QApplication | QPalette) -> object:  # type: ignore[override]
        """Before a widget is measured or shown the first time."""
        if isinstance(held, QLabel) and held.textFormat() == Qt.TextFormat.AutoText:
            held.setTextFormat(Qt.TextFormat.PlainText)
        return super().polish(held)
