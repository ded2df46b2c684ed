"""Sheets and questions over the window, which end when they are closed: their pictures would stay with the window."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QDialog, QMessageBox


def open_sheet(sheet: QDialog) -> None:
    """Open a sheet over its window; what it says is heard by signals."""
    sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    sheet.open()


def answer(question: QMessageBox) -> QAbstractButton | None:
    """The button by which a question is answered."""
    question.exec()
    question.deleteLater()
    return question.clickedButton()
