"""The palette's colours, tints of the one in use, a hex field, and the screen to choose a colour from.

A dot tells that the colour was set by hand; its contrast against the chart's ground stands beside the field.
"""

from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QCursor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from kavlet.core.messages import shown_number, words
from kavlet.core.values.colour import Colour, colour, contrast, mix
from kavlet.core.values.errors import attempt
from kavlet.desktop.dress.fields import TextField
from kavlet.desktop.stylesheet import UNIT, colours, qcolor

if TYPE_CHECKING:
    from kavlet.desktop.dress.screen_pick import ScreenPick

WHITE, BLACK = Colour(1.0, 1.0, 1.0), Colour(0.0, 0.0, 0.0)
TINTS = ((WHITE, 0.75), (WHITE, 0.5), (WHITE, 0.25), (BLACK, 0.2), (BLACK, 0.4))  # mixed into the colour in use
MIN_CONTRAST = 3.0  # of a mark against its ground (WCAG 2.2, success criterion 1.4.11)


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


class PickButton(QToolButton):
    """A cross in a ring, as it is laid over the screen."""

    def paintEvent(self, event: QPaintEvent) -> None:
        del event
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(qcolor(c.accent if self.underMouse() or self.hasFocus() else c.quiet), 1.5))
        middle = QPointF(self.width() / 2, self.height() / 2)
        painter.drawEllipse(middle, 5.0, 5.0)
        for x, y in ((1, 0), (-1, 0), (0, 1), (0, -1)):
            painter.drawLine(middle + QPointF(3 * x, 3 * y), middle + QPointF(8 * x, 8 * y))
        painter.end()


class SwatchRow(QHBoxLayout):
    """Colours side by side."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setSpacing(0)
        self.swatches: list[Swatch] = []

    def show_colours(self, tones: tuple[str, ...], current: str) -> None:
        """Show these colours, the one in use with a ring."""
        if [swatch.hex for swatch in self.swatches] != list(tones):
            while self.count():
                item = self.takeAt(0)
                widget = item.widget() if item is not None else None
                if widget is not None:
                    widget.hide()
                    widget.deleteLater()
            self.swatches = [Swatch(text) for text in tones]
            for swatch in self.swatches:
                swatch.clicked.connect(lambda _checked=False, text=swatch.hex: self.chosen.emit(text))
                self.addWidget(swatch)
            self.addStretch(1)
        for swatch in self.swatches:
            swatch.setChecked(swatch.hex == current)


class ColourField(QWidget):
    """`chosen` tells a hex code, `typed` what was typed as one; `refused` why none could be picked from the screen."""

    chosen = Signal(str)
    typed = Signal(str)
    given_back = Signal()
    refused = Signal(str)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._over: ScreenPick | None = None
        self.palette_row, self.tint_row = SwatchRow(), SwatchRow()
        for row in (self.palette_row, self.tint_row):
            row.chosen.connect(self.chosen)
        self.hex = TextField(words("{colour} as hex", colour=name), "#7a2e5d")
        self.hex.committed.connect(self.typed)
        self.contrast = QLabel()
        self.contrast.setObjectName("quiet")
        self.pick = PickButton()
        self.pick.setFixedSize(26, 26)
        self.pick.setToolTip(words("Pick from the screen"))
        self.pick.setAccessibleName(words("Pick {colour} from the screen", colour=name))
        self.pick.clicked.connect(self._pick)
        self.dot = QToolButton()
        self.dot.setObjectName("plain")
        self.dot.setText("●")
        self.dot.setToolTip(words("Set by hand. Give back to theme."))
        self.dot.setAccessibleName(words("Give {colour} back to theme", colour=name))
        self.dot.clicked.connect(self.given_back)
        entry = QHBoxLayout()
        entry.setSpacing(UNIT)
        entry.addWidget(self.hex, 1)
        for widget in (self.pick, self.contrast, self.dot):
            entry.addWidget(widget)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addLayout(self.palette_row)
        layout.addLayout(self.tint_row)
        layout.addLayout(entry)

    def show_colour(self, palette: tuple[str, ...], current: str, by_hand: bool, ground: str) -> None:
        """Show the theme's palette, the colour in use with its tints, and how it stands against the ground."""
        tone = colour(current)
        self.palette_row.show_colours(palette, current)
        self.tint_row.show_colours(tuple(mix(tone, other, share).hex for other, share in TINTS), current)
        self.hex.show_text(current)
        ratio = contrast(tone, colour(ground))
        self.contrast.setText(f"{shown_number(ratio, '0.0')} : 1")
        self.contrast.setToolTip(
            words("Contrast with the ground; a part needs {least} : 1 to be told from it.", least=MIN_CONTRAST)
        )
        self.contrast.setStyleSheet(f"color: {colours().alarm};" if ratio < MIN_CONTRAST else "")
        self.dot.setVisible(by_hand)

    def _pick(self) -> None:
        attempt(self._pick_of_screen, self.refused.emit)

    def _pick_of_screen(self) -> None:
        from kavlet.desktop.dress.screen_pick import ScreenPick

        over = ScreenPick.of_screen_under(QCursor.pos())
        over.picked.connect(self.chosen)
        over.destroyed.connect(self._picked)
        over.showFullScreen()
        self._over = over  # a window without a parent lives only as long as it is held

    def _picked(self) -> None:
        self._over = None
