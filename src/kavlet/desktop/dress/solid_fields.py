"""The Dress place's fields for solids: solid or flat, where from, and what the view does to the reading."""

from html import escape

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from kavlet.core.interaction.parts import Part
from kavlet.core.layout.figure import Figure
from kavlet.core.layout.solid.visible_areas import VisibleArea, seen
from kavlet.core.messages import counted, shown_number, words
from kavlet.core.pipeline.stages import Picture
from kavlet.desktop.stylesheet import UNIT

FINE = 1.0  # places to a point; tells shares apart by less than a percent
MAX_LISTED_MARKS = 6  # marks whose reading is listed


class SolidFields(QWidget):
    """Tells what is wanted; the commands carry it out. `reading` is a label of its own, to stand below the fields."""

    toggled = Signal()
    from_wanted = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.on = QCheckBox(words("Solid bodies"))
        self.on.clicked.connect(self.toggled)
        self.views: dict[str, QToolButton] = {}
        row = QHBoxLayout()
        row.setSpacing(UNIT)
        sides = (("front", words("front")), ("above", words("from above")), ("corner", words("corner")))
        for side, text in sides:
            button = QToolButton()
            button.setText(text)
            button.setAccessibleName(words("See it: {side}", side=text))
            button.clicked.connect(lambda _on=False, side=side: self.from_wanted.emit(side))
            self.views[side] = button
            row.addWidget(button)
        row.addStretch(1)
        self.reading = QLabel()
        self.reading.setObjectName("quiet")
        self.reading.setTextFormat(Qt.TextFormat.RichText)
        self.reading.setWordWrap(True)  # long names take more lines, and never more room than the panel has
        self.reading.setToolTip(
            words("What the view does to the reading: each part’s share of all that is seen, and of all values")
        )
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.on)
        layout.addLayout(row)

    def show_picture(self, picture: Picture, settled: bool) -> None:
        """Show whether the chart is solid; what its view does is read when it is `settled`, not while it turns."""
        spec = picture.build.chart
        solid = spec.as_solid is not None
        self.on.setChecked(solid)
        for button in self.views.values():
            button.setVisible(solid)
        self.reading.setVisible(bool(picture.figure.faces))
        if settled and picture.figure.faces:
            self.reading.setText(self._listed(seen(picture.figure, FINE)))

    def _listed(self, areas: tuple[VisibleArea, ...]) -> str:
        """The marks whose area and value are furthest apart, in the order of the rows, as a small table."""
        worst = sorted(areas, key=lambda area: -abs(area.off))[:MAX_LISTED_MARKS]
        layers = {area.mark.key for area in areas}
        head = _line(words("Share"), words("seen area"), words("value"))
        lines = [
            _line(_name(area, len(layers) > 1), _percent(area.area_share), _percent(area.value_share))
            for area in areas
            if area in worst
        ]
        left_out = len(areas) - len(lines)
        note = (
            counted("{count} more is closer together.", "{count} more are closer together.", left_out)
            if left_out
            else ""
        )
        return f'<table width="100%">{head}{"".join(lines)}</table>{note}'


def _line(name: str, area: str, value: str) -> str:
    return f"<tr><td>{escape(name)}</td>{_cell(area)}{_cell(value)}</tr>"


def _cell(text: str) -> str:
    return f'<td align="right" style="white-space: nowrap; padding-left: 8px">{text}</td>'


def reading(figure: Figure, part: Part | None) -> str:
    """What the view does to one mark; empty where the chart is flat or no mark is chosen."""
    if part is None or part.kind != "mark" or not figure.faces:
        return ""
    one = next((s for s in seen(figure, FINE) if (s.mark.key, s.mark.row) == (part.key, part.row)), None)
    if one is None:
        return ""
    area, value = _percent(one.area_share), _percent(one.value_share)
    return words("Seen: {area} of the area, for {value} of the value of all bodies.", area=area, value=value)


def _percent(share: float) -> str:
    return f"{shown_number(100 * share, '0.0')}\u00a0%"


def _name(one: VisibleArea, layered: bool) -> str:
    """The row's name, with the layer's where there are several."""
    row = one.mark.says.rpartition(":")[0] or one.mark.layer
    return f"{row}, {one.mark.layer}" if layered and one.mark.layer not in row else row
