"""The Deliver sheet: the chart as it will leave, beside the few things to choose."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.building.stages import Picture
from kavlet.core.files.formats import Wish, by_ending
from kavlet.core.messages import say, words
from kavlet.desktop.dress.fields import ChoiceField
from kavlet.desktop.look import UNIT
from kavlet.desktop.worker import Worker
from kavlet.export import CHARTS, content
from kavlet.paint.picture import image

PREVIEW_WIDTH, PREVIEW_HEIGHT = 560, 340
RECORD = ".json"  # for scripts, not for readers
SCALES = (("1", "1 ×"), ("2", "2 ×"), ("3", "3 ×"), ("4", "4 ×"))


class DeliverSheet(QDialog):
    """Chooses a format; says what the file will be; hands a wish on when it is accepted."""

    wished = Signal(object)

    def __init__(self, made: Picture, wish: Wish, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Deliver"))
        self._made, self._worker = made, worker
        self.wish = wish
        self.preview = self._preview()
        formats = [(one.endings[0], words(one.title)) for one in CHARTS if one.endings[0] != RECORD]
        self.format = ChoiceField(words("Format"), formats)
        self.format.chosen.connect(lambda ending: self._choose(Wish(ending, self.wish.scale, self.wish.outlines)))
        self.scale = ChoiceField(words("Scale"), SCALES)
        self.scale.chosen.connect(lambda text: self._choose(Wish(self.wish.ending, float(text), self.wish.outlines)))
        self.outlines = QCheckBox(words("Texts as outlines"))
        self.outlines.setToolTip(words("For programs that don’t read the embedded face"))
        self.outlines.clicked.connect(lambda on: self._choose(Wish(self.wish.ending, self.wish.scale, on)))
        self.says = QLabel()
        self.says.setObjectName("quiet")
        self.says.setWordWrap(True)
        self._scale_label = QLabel(words("Pixels"))
        self._scale_label.setObjectName("quiet")
        format_label = QLabel(words("Format"))
        format_label.setObjectName("quiet")

        buttons = QDialogButtonBox()
        self.save = QPushButton(words("Save…"))
        self.save.setObjectName("main")
        self.save.setDefault(True)
        buttons.addButton(self.save, QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.addButton(words("Cancel"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        self.accepted.connect(lambda: self.wished.emit(self.wish))

        choices = QVBoxLayout()
        choices.setSpacing(UNIT)
        for widget in (format_label, self.format, self._scale_label, self.scale, self.outlines):
            choices.addWidget(widget)
        choices.addSpacing(3 * UNIT)
        choices.addWidget(self.says)
        choices.addStretch(1)
        choices.addWidget(buttons)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(5 * UNIT)
        layout.addWidget(self.preview)
        side = QWidget()
        side.setLayout(choices)
        choices.setContentsMargins(0, 0, 0, 0)
        side.setFixedWidth(264)
        layout.addWidget(side)
        self._choose(wish)

    def _preview(self) -> QLabel:
        """The chart's own picture, as sharp as the screen."""
        preview = QLabel()
        preview.setAlignment(Qt.AlignmentFlag.AlignCenter)
        preview.setMinimumSize(PREVIEW_WIDTH, PREVIEW_HEIGHT)
        preview.setAccessibleName(words("Preview"))
        ratio = self.devicePixelRatioF()
        scale = min(PREVIEW_WIDTH / self._made.scene.size.width, PREVIEW_HEIGHT / self._made.scene.size.height)
        pixmap = QPixmap.fromImage(image(self._made.scene, scale * ratio))
        pixmap.setDevicePixelRatio(ratio)
        preview.setPixmap(pixmap)
        return preview

    def _choose(self, wish: Wish) -> None:
        self.wish = wish
        found = by_ending(CHARTS, wish.ending)
        raster = found is not None and found.raster
        self.format.show_choice(wish.ending)
        self.scale.show_choice(f"{wish.scale:g}")
        self.outlines.setChecked(wish.outlines)
        for widget in (self._scale_label, self.scale):
            widget.setVisible(raster)
        self.outlines.setVisible(wish.ending == ".svg")
        self.says.setText(words("Looking how large it gets …"))
        self.save.setEnabled(False)
        made = self._made
        self._worker.ask(
            "size", say("Encoding"), lambda: len(content(made, wish)), lambda size: self._say(wish, raster, size),
            lambda error: self.says.setText(str(error)),
        )  # fmt: skip

    def _say(self, wish: Wish, raster: bool, length: int) -> None:
        """How large the picture and its file are."""
        size = self._made.scene.size
        wide, tall = (round(side / 72 * 25.4) for side in (size.width, size.height))
        self.save.setEnabled(True)
        if raster:
            said = say(
                "{across} × {down} pixels, {wide} × {tall} mm in print, {kilobytes} kB",
                across=round(size.width * wish.scale),
                down=round(size.height * wish.scale),
                wide=wide,
                tall=tall,
                kilobytes=round(length / 1000),
            )
        else:
            said = say(
                "Sharp at every size, {wide} × {tall} mm in print, {kilobytes} kB",
                wide=wide,
                tall=tall,
                kilobytes=round(length / 1000),
            )
        self.says.setText(str(said))
