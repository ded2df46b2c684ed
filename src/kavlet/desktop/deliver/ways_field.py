"""The ways out as words in a few rows, by what they are for; one of them is chosen."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QButtonGroup, QGridLayout, QLabel, QToolButton, QWidget

from kavlet.core.messages import Message, say, words
from kavlet.desktop.stylesheet import UNIT
from kavlet.export.ways import EXPORT_FORMATS, ExportFormat, Group

HEADINGS: dict[Group, Message] = {
    "picture": say("Picture"), "office": say("To go on with"), "web": say("To read"), "animation": say("Moving"),
    "mail": say("By mail"), "data": say("Figures"),
}  # fmt: skip
HIDDEN = (".json",)  # for scripts, not for readers
COLUMNS = 4
LABELS = 104  # pixels of the headings


class WaysField(QWidget):
    """All ways, those that what leaves can't go greyed out."""

    chosen = Signal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(words("Format"))
        self.buttons: dict[str, QToolButton] = {}
        group = QButtonGroup(self)
        group.setExclusive(True)
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(UNIT)
        grid.setVerticalSpacing(UNIT)
        for column in range(1, COLUMNS + 1):
            grid.setColumnStretch(column, 1)
        row = 0
        for kind, heading in HEADINGS.items():
            ways = [format_ for format_ in EXPORT_FORMATS if format_.group == kind and format_.ending not in HIDDEN]
            label = QLabel(str(heading))
            label.setObjectName("quiet")
            label.setFixedWidth(LABELS)
            grid.addWidget(label, row, 0)
            per_row = 3 if len(ways) == 6 else COLUMNS
            wide = COLUMNS if len(ways) == 1 else 1
            for place, format_ in enumerate(ways):
                button = self._button(format_)
                group.addButton(button)
                grid.addWidget(button, row + place // per_row, 1 + place % per_row, 1, min(wide, 2))
            row += (len(ways) - 1) // per_row + 1

    def _button(self, format_: ExportFormat) -> QToolButton:
        made = QToolButton()
        made.setObjectName("choice")
        made.setCheckable(True)
        made.setText(words(format_.title))
        made.setAccessibleName(words(format_.title))
        made.setMinimumWidth(52)
        made.setSizePolicy(made.sizePolicy().Policy.Expanding, made.sizePolicy().Policy.Fixed)
        made.clicked.connect(lambda _checked=False: self.chosen.emit(format_.ending))
        self.buttons[format_.ending] = made
        return made

    def show_ways(self, possible: dict[str, str]) -> None:
        """Which ways can be gone: to each ending a sentence why not, empty where it can."""
        for ending, button in self.buttons.items():
            why = possible.get(ending, "")
            button.setEnabled(not why)
            button.setToolTip(why)

    def show_choice(self, ending: str) -> None:
        if ending in self.buttons:
            self.buttons[ending].setChecked(True)
