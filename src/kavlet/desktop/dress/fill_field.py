"""A fill: a colour of the palette or a hex code, shaded, hatched, or a symbol; the dot gives it back to the theme."""

from typing import Any

import msgspec
from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QPushButton, QSlider, QVBoxLayout, QWidget

from kavlet.core.document.document import PictureFile
from kavlet.core.messages import named, symbol_named, words
from kavlet.core.styling.fills import Fill, GradientFill, HatchFill, PictureFill
from kavlet.core.styling.style import Style
from kavlet.core.values.colour import colour
from kavlet.core.values.errors import attempt
from kavlet.desktop.dress.fields import PickField, TextField
from kavlet.desktop.dress.swatches import ColourField
from kavlet.desktop.stylesheet import UNIT

KINDS = (
    ("plain", named("plain")), ("round", named("round")), ("along", named("gradient")), ("lines", named("hatched")),
    ("cross", named("crossed")), ("dots", named("dotted")), ("picture", named("symbol")),
)  # fmt: skip
HOWS = (
    ("stretched", named("stretched")), ("repeated", named("repeated")), ("fitted", named("fitted")),
    ("covering", named("covering")), ("per unit", named("per unit")),
)  # fmt: skip
FINE = 100  # steps of a slider for which part of a picture is seen
MAX_ZOOM = 5


class FillField(QWidget):
    """`chosen` tells the new fill as JSON would hold it; `symbol_wanted` where to open the shelf; `own_colours` whether
    a picture of the document is to be drawn in the colours it has in its file.
    """

    chosen = Signal(object)
    own_colours = Signal(str, bool)
    given_back = Signal()
    symbol_wanted = Signal(object)
    typed = Signal(str)
    refused = Signal(str)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._fill: Fill | None = None
        self.colour = ColourField(name)
        self.colour.chosen.connect(self._coloured)
        self.colour.typed.connect(self.typed)
        self.colour.given_back.connect(self.given_back)
        self.colour.refused.connect(self.refused)
        self.kind = PickField(words("Kind of fill"), KINDS)
        self.kind.chosen.connect(self._kind)
        self.symbol = QPushButton(words("Symbol…"))
        self.symbol.clicked.connect(lambda: self.symbol_wanted.emit(self.symbol.mapToGlobal(QPoint(0, 0))))
        self.how = PickField(words("How the symbol fills"), HOWS)
        self.how.chosen.connect(lambda how: self._picture(how=how))
        self.unit = TextField(words("One stands for"))
        self.unit.setToolTip(words("How much of the value one symbol stands for"))
        self.unit.committed.connect(self._unit)
        self.crop = {name: self._slider(name) for name in ("zoom", "x", "y")}
        self.turned = QCheckBox(words("Turned with the bar"))
        self.turned.clicked.connect(lambda on: self._picture(turned=on))
        self.own = QCheckBox(words("In its own colours"))
        self.own.clicked.connect(self._own_colours)
        self.second = ColourField(words("Second colour"))
        self.second.dot.hide()
        self.second.chosen.connect(self._second)
        self.second.typed.connect(self._second_typed)
        self.second.refused.connect(self.refused)
        self._second_head = QLabel(words("to"))
        self._second_head.setObjectName("quiet")
        line = QHBoxLayout()
        line.setSpacing(UNIT)
        line.addWidget(self.kind, 1)
        line.addWidget(self.symbol, 1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.colour)
        layout.addLayout(line)
        for widget in (self._second_head, self.second, self.how, self.unit, *self.crop.values(), self.turned, self.own):
            layout.addWidget(widget)

    def _slider(self, name: str) -> QSlider:
        """How large a picture that covers its part is, and which part of it is seen."""
        said = {"zoom": words("Size of the picture"), "x": words("Seen across"), "y": words("Seen down")}[name]
        made = QSlider(Qt.Orientation.Horizontal)
        made.setRange(FINE if name == "zoom" else 0, MAX_ZOOM * FINE if name == "zoom" else FINE)
        made.setAccessibleName(said)
        made.setToolTip(said)
        made.sliderReleased.connect(lambda: self._picture(**{name: made.value() / FINE}))
        made.actionTriggered.connect(
            lambda _action: None if made.isSliderDown() else self._picture(**{name: made.sliderPosition() / FINE})
        )
        return made

    def _unit(self, text: str) -> None:
        """How much one symbol stands for, as typed; refused where it is no number above zero."""
        try:
            unit = float(text.replace(",", "."))
        except ValueError:
            unit = 0.0
        if unit > 0:
            self._picture(unit=unit)
        else:
            self.refused.emit(words("One symbol stands for a number above 0."))

    def show_fill(
        self, fill: Fill | None, style: Style, drawn_colour: str, by_hand: bool, picture: PictureFile | None
    ) -> None:
        """Show what the part is filled with in a style; `drawn` is the hex code that stands for it, `shown` the
        document's own picture it is filled with, if it is."""
        self._fill = fill
        palette, ground = tuple(colour.hex for colour in style.palette), style.ground.hex
        self.colour.show_colour(palette, drawn_colour, by_hand, ground)
        two = isinstance(fill, GradientFill) and fill.run != "round" and len(fill.colours) > 1
        for widget in (self._second_head, self.second):
            widget.setVisible(two)
        if two and isinstance(fill, GradientFill):
            self.second.show_colour(palette, style.colour(fill.colours[-1]).hex, False, ground)
        self.kind.show_choice(_kind_of(fill))
        is_picture = isinstance(fill, PictureFill)
        self.symbol.setText(str(symbol_named(fill.name)) if isinstance(fill, PictureFill) else words("Symbol…"))
        self.how.setVisible(is_picture)
        self.turned.setVisible(is_picture and getattr(fill, "how", "") != "covering")
        self.unit.setVisible(isinstance(fill, PictureFill) and fill.how == "per unit")
        for name, slider in self.crop.items():
            slider.setVisible(isinstance(fill, PictureFill) and fill.how == "covering")
            if isinstance(fill, PictureFill) and not slider.isSliderDown():
                slider.blockSignals(True)
                slider.setValue(round(getattr(fill, name) * FINE))
                slider.blockSignals(False)
        self.own.setVisible(picture is not None and bool(picture.parts))
        self.own.setChecked(picture is not None and picture.own_colours)
        if isinstance(fill, PictureFill):
            self.how.show_choice(fill.how)
            self.unit.show_text(f"{fill.unit:.15g}")
            self.turned.setChecked(fill.turned)

    def take_colour(self, text: str) -> None:
        """The same kind of fill in a colour as typed. Raises KavletError where it is none."""
        self._coloured(colour(text).hex)

    def _coloured(self, text: str) -> None:
        """The same kind of fill in another colour."""
        fill = self._fill
        if isinstance(fill, GradientFill):
            self._emit(msgspec.structs.replace(fill, colours=(text, *fill.colours[1:])))
        elif isinstance(fill, HatchFill | PictureFill):
            self._emit(msgspec.structs.replace(fill, colour=text))
        else:
            self.chosen.emit(text)

    def _second(self, text: str) -> None:
        """The gradient's other end in another colour."""
        if isinstance(self._fill, GradientFill):
            self._emit(msgspec.structs.replace(self._fill, colours=(*self._fill.colours[:-1], text)))

    def _second_typed(self, text: str) -> None:
        attempt(lambda: self._second(colour(text).hex), self.refused.emit)

    def _own_colours(self, on: bool) -> None:
        if isinstance(self._fill, PictureFill):
            self.own_colours.emit(self._fill.name, on)

    def _kind(self, kind: str) -> None:
        tone = self.colour.hex.text()
        if kind == "plain":
            self.chosen.emit(tone)
        elif kind == "round":
            self._emit(GradientFill((tone,), "round"))
        elif kind == "along":
            self._emit(GradientFill((f"{tone} +55", tone), "along"))
        elif kind == "picture":
            self._picture()
        else:
            self._emit(HatchFill(tone, kind, ground=f"{tone} +82"))  # type: ignore[arg-type]

    def take_symbol(self, name: str) -> None:
        """Fill with a symbol, stretched at first."""
        self._picture(name=name)

    def _picture(self, **changes: Any) -> None:
        held = self._fill if isinstance(self._fill, PictureFill) else PictureFill("tree", colour=self.colour.hex.text())
        self._emit(msgspec.structs.replace(held, **changes))

    def _emit(self, fill: Fill) -> None:
        self.chosen.emit(msgspec.to_builtins(fill))


def _kind_of(fill: Fill | None) -> str:
    if isinstance(fill, GradientFill):
        return "round" if fill.run == "round" else "along"
    if isinstance(fill, HatchFill):
        return fill.kind
    return "picture" if isinstance(fill, PictureFill) else "plain"
