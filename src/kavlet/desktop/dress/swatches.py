"""A row of colours to choose from, and a hex field; a dot tells that the colour was set by hand."""

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QHBoxLayout, QToolButton, QVBoxLayout, QWidget

from kavlet.core.values.colour import colour
from kavlet.core.values.errors import KavletError
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.look import UNIT, colours, qcolor


class Swatch(QAbstractButton):
    """One colour, round; the chosen one wears a ring."""

    def __init__(self, hex_text: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.hex = hex_text
        self.setCheckable(True)
        self.setAccessibleName(hex_text)
        self.setToolTip(hex_text)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFixedSize(self.sizeHint())

    def sizeHint(self) -> QSize:
        return QSize(26, 26)

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self.hex))
        painter.drawEllipse(5, 5, 16, 16)
        if self.isChecked() or self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            style = Qt.PenStyle.SolidLine if self.isChecked() else Qt.PenStyle.DotLine
            painter.setPen(QPen(qcolor(colours().ink), 1.5, style))
            painter.drawEllipse(2, 2, 22, 22)
        painter.end()


class ColourField(QWidget):
    """Palette colours, a hex entry, and the dot that gives the colour back to the theme."""

    chosen = Signal(str)
    given_back = Signal()

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._swatches: list[Swatch] = []
        self.hex = TextField(self.tr("{} as hex").format(name), "#7a2e5d")
        self.hex.committed.connect(self._typed)
        self.dot = QToolButton()
        self.dot.setObjectName("plain")
        self.dot.setText("●")
        self.dot.setToolTip(self.tr("Set by hand. Give back to theme."))
        self.dot.setAccessibleName(self.tr("Give {} back to theme").format(name))
        self.dot.clicked.connect(self.given_back)
        self._row = QHBoxLayout()
        self._row.setSpacing(0)
        entry = QHBoxLayout()
        entry.setSpacing(UNIT)
        entry.addWidget(self.hex, 1)
        entry.addWidget(self.dot)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addLayout(self._row)
        layout.addLayout(entry)

    def show_colour(self, palette: tuple[str, ...], current: str, by_hand: bool) -> None:
        """Show the theme's palette and the colour in use."""
        if [swatch.hex for swatch in self._swatches] != list(palette):
            while self._row.count():
                item = self._row.takeAt(0)
                widget = item.widget() if item is not None else None
                if widget is not None:
                    widget.hide()
                    widget.deleteLater()
            self._swatches = [Swatch(text) for text in palette]
            for swatch in self._swatches:
                swatch.clicked.connect(lambda _checked=False, text=swatch.hex: self.chosen.emit(text))
                self._row.addWidget(swatch)
            self._row.addStretch(1)
        for swatch in self._swatches:
            swatch.setChecked(swatch.hex == current)
        self.hex.show_text(current)
        self.dot.setVisible(by_hand)

    def _typed(self, text: str) -> None:
        try:
            self.chosen.emit(colour(text).hex)
        except KavletError:
            self.hex.mark_wrong(True)
