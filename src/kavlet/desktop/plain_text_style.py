"""The one place that keeps what authors and files write from being read as markup.

A label or a tooltip guesses whether its text is markup, and would load the files it names. Under this style none
guesses: markup is only what asks for it by `setTextFormat`, with all that is not the program's own escaped.
"""

from PySide6.QtCore import Qt
from PySide6.QtGui import QPalette
from PySide6.QtWidgets import QApplication, QLabel, QProxyStyle, QWidget


class PlainTextStyle(QProxyStyle):
    """Another style in which texts are plain unless a label says otherwise."""

    def polish(self, held: QWidget | QApplication | QPalette) -> object:  # type: ignore[override]
        """Before a widget is measured or shown the first time."""
        if isinstance(held, QLabel) and held.textFormat() == Qt.TextFormat.AutoText:
            held.setTextFormat(Qt.TextFormat.PlainText)
        return super().polish(held)
