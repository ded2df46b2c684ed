"""The print sheet: what will be on paper, at which scale, on how many sheets; crop marks where they are wished."""

from typing import Literal

from msgspec import Struct
from PySide6.QtCore import QMarginsF, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QPageLayout, QPageSize, QPainter, QPen
from PySide6.QtPrintSupport import QPrintDialog, QPrinter, QPrintPreviewWidget
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.messages import counted, say, words
from kavlet.core.scene.primitives import Scene
from kavlet.core.values.geometry import Size
from kavlet.core.values.sizes import MM
from kavlet.desktop.dress.fields import ChoiceField, PickField
from kavlet.desktop.stylesheet import UNIT
from kavlet.paint.painter import paint

Fit = Literal["true", "fit"]
MARGIN = 10 * MM  # points around what is as large as fits
MARK, AWAY = 14.0, 4.0  # points: how long crop marks are, and how far from the corner
SHEETS = ("A4", "A3", "A5", "Letter", "Legal", "Tabloid")
SIZES = {
    "A4": QPageSize.PageSizeId.A4, "A3": QPageSize.PageSizeId.A3, "A5": QPageSize.PageSizeId.A5,
    "Letter": QPageSize.PageSizeId.Letter, "Legal": QPageSize.PageSizeId.Legal, "Tabloid": QPageSize.PageSizeId.Tabloid,
}  # fmt: skip


class Printing(Struct, frozen=True):
    """How things are printed: the sheet by its name, at their true size or as large as fits, with crop marks or not."""

    sheet: str = "A4"
    fit: Fit = "true"
    marks: bool = False


def placed(size: Size, paper: QRectF, how: Printing) -> tuple[QRectF, float, bool]:
    """Where something of a size stands on a whole sheet (in points), at which scale, and whether it is turned by a
    right angle to lie along the sheet. What is too large for its true size shrinks."""
    turned = (size.width > size.height) != (paper.width() > paper.height()) and size.width != size.height
    wide, tall = (size.height, size.width) if turned else (size.width, size.height)
    free = MARGIN if how.fit == "fit" else 0.0
    free = max(free, MARK + AWAY) if how.marks else free
    room = paper.adjusted(free, free, -free, -free)
    most = min(room.width() / wide, room.height() / tall)
    scale = most if how.fit == "fit" else min(1.0, most)
    area = QRectF(0, 0, wide * scale, tall * scale)
    area.moveCenter(room.center())
    return area, scale, turned


def lies(scenes: tuple[Scene, ...]) -> bool:
    """Whether sheets lie: as the first of what is printed does."""
    return scenes[0].size.width > scenes[0].size.height


def paint_sheets(printer: QPrinter, scenes: tuple[Scene, ...], how: Printing) -> None:
    """All scenes, a sheet for each; sheets reach from edge to edge, since pages have margins of their own."""
    way = QPageLayout.Orientation.Landscape if lies(scenes) else QPageLayout.Orientation.Portrait
    printer.setFullPage(True)
    printer.setPageLayout(QPageLayout(QPageSize(SIZES[how.sheet]), way, QMarginsF(0, 0, 0, 0)))
    painter = QPainter(printer)
    per_point = printer.resolution() / 72
    whole = printer.pageLayout().fullRect(QPageLayout.Unit.Point)
    paper = QRectF(0, 0, whole.width(), whole.height())
    for number, scene in enumerate(scenes):
        if number:
            printer.newPage()
        area, scale, turned = placed(scene.size, paper, how)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.scale(per_point, per_point)
        if how.marks:
            _marks(painter, area)
        if turned:
            painter.translate(area.topRight())
            painter.rotate(90)
        else:
            painter.translate(area.topLeft())
        painter.scale(scale, scale)
        painter.setClipRect(QRectF(0, 0, scene.size.width, scene.size.height))
        paint(scene, painter)
        painter.restore()
    painter.end()


def _marks(painter: QPainter, area: QRectF) -> None:
    """Short lines at the corners, where paper is to be cut."""
    painter.setPen(QPen(Qt.GlobalColor.black, 0.25))
    for x, outward_x in ((area.left(), -1), (area.right(), 1)):
        for y, outward_y in ((area.top(), -1), (area.bottom(), 1)):
            painter.drawLine(QPointF(x + outward_x * AWAY, y), QPointF(x + outward_x * (AWAY + MARK), y))
            painter.drawLine(QPointF(x, y + outward_y * AWAY), QPointF(x, y + outward_y * (AWAY + MARK)))


class PrintDialog(QDialog):
    """The preview of the sheets beside what there is to choose; the printer is chosen last."""

    printed = Signal(int)

    def __init__(self, scenes: tuple[Scene, ...], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Print"))
        self.scenes = scenes
        self.how = Printing()
        self.printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        self.preview = QPrintPreviewWidget(self.printer)
        self.preview.setAccessibleName(words("Preview"))
        self.preview.paintRequested.connect(lambda printer: paint_sheets(printer, self.scenes, self.how))
        self.sheet = PickField(words("Sheet"), [(one, one) for one in SHEETS])
        self.sheet.chosen.connect(lambda name: self._choose(Printing(name, self.how.fit, self.how.marks)))
        self.fit = ChoiceField(words("Scale"), [("true", words("True size")), ("fit", words("As large as fits"))])
        self.fit.chosen.connect(
            lambda fit: self._choose(Printing(self.how.sheet, "fit" if fit == "fit" else "true", self.how.marks))
        )
        self.marks = QCheckBox(words("Crop marks"))
        self.marks.clicked.connect(lambda on: self._choose(Printing(self.how.sheet, self.how.fit, on)))
        self.says = QLabel()
        self.says.setObjectName("quiet")
        self.says.setWordWrap(True)
        form = QFormLayout()
        form.setSpacing(2 * UNIT)
        for text, field in ((say("Sheet"), self.sheet), (say("Scale"), self.fit), ("", self.marks)):
            label = QLabel(str(text))
            label.setObjectName("quiet")
            form.addRow(label, field)
        buttons = QDialogButtonBox()
        self.go = QPushButton(words("Print…"))
        self.go.setObjectName("main")
        self.go.setDefault(True)
        self.go.clicked.connect(lambda _checked=False: self.print())
        buttons.addButton(self.go, QDialogButtonBox.ButtonRole.ActionRole)
        buttons.addButton(words("Cancel"), QDialogButtonBox.ButtonRole.RejectRole)
        buttons.rejected.connect(self.reject)
        side = QVBoxLayout()
        side.addLayout(form)
        side.addStretch(1)
        side.addWidget(self.says)
        side.addWidget(buttons)
        column = QWidget()
        column.setLayout(side)
        side.setContentsMargins(0, 0, 0, 0)
        column.setFixedWidth(300)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(5 * UNIT)
        layout.addWidget(self.preview, 1)
        layout.addWidget(column)
        self.resize(900, 620)
        self._choose(self.how)

    def _choose(self, how: Printing) -> None:
        self.how = how
        self.sheet.show_choice(how.sheet)
        self.fit.show_choice(how.fit)
        self.marks.setChecked(how.marks)
        self.preview.updatePreview()
        self.says.setText(self._said())

    def _said(self) -> str:
        """How many sheets, and at which scale the first stands on its own."""
        size = QPageSize(SIZES[self.how.sheet]).size(QPageSize.Unit.Point)
        wide, tall = sorted((size.width(), size.height()), reverse=lies(self.scenes))
        _, scale, _ = placed(self.scenes[0].size, QRectF(0, 0, wide, tall), self.how)
        return str(
            counted(
                "{count} sheet, at {scale} % of the true size", "{count} sheets, at {scale} % of the true size",
                len(self.scenes), scale=round(100 * scale),
            )
        )  # fmt: skip

    def print(self) -> None:
        """Ask for the printer, and print."""
        asks = QPrintDialog(self.printer, self)
        if asks.exec() == QDialog.DialogCode.Accepted:
            paint_sheets(self.printer, self.scenes, self.how)
            self.printed.emit(len(self.scenes))
            self.accept()
