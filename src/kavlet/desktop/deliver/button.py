"""The Deliver button: it opens the sheet, and what is in view can be dragged from it into another program."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QDrag, QMouseEvent, QPixmap
from PySide6.QtWidgets import QApplication, QPushButton, QWidget

from kavlet.core.messages import words
from kavlet.core.values.errors import KavletError
from kavlet.paint.picture import image

if TYPE_CHECKING:
    from kavlet.desktop.deliver.clipboard import DragOut
    from kavlet.export.outgoing import Export

SHOWN = 160.0  # pixels of the picture that hangs on the mouse


class DeliverButton(QPushButton):
    """Pressed, it delivers; pulled, it drags a picture out."""

    def __init__(self, outgoing: "Callable[[], Export]", parent: QWidget | None = None) -> None:
        super().__init__(words("Deliver"), parent)
        self._outgoing = outgoing
        self._pressed: QPoint | None = None
        self.dragged: DragOut | None = None
        self.setObjectName("main")
        self.setToolTip(
            words("Take it away as picture, real chart, page or mail; or pull this button into another program.")
        )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = event.position().toPoint() if event.button() == Qt.MouseButton.LeftButton else None
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        far = QApplication.startDragDistance()
        if self._pressed is not None and (event.position().toPoint() - self._pressed).manhattanLength() > far:
            self._pressed = None
            self.setDown(False)
            self.drag_out()
            return
        super().mouseMoveEvent(event)

    def drag_out(self) -> None:
        """Begin to drag what is in view out of the window; what can't be drawn can't be dragged."""
        drag = self.made_drag()
        if drag is not None:
            drag.exec(Qt.DropAction.CopyAction)

    def made_drag(self) -> QDrag | None:
        """The drag of what is in view; None where it can't be drawn."""
        from kavlet.desktop.deliver.clipboard import DragOut

        try:
            export = self._outgoing()
            self.dragged = DragOut(export)
            scene = export.scenes[0]
        except KavletError:
            return None
        drag = QDrag(self)
        drag.setMimeData(self.dragged.mime)
        small = SHOWN / max(scene.size.width, scene.size.height)
        drag.setPixmap(QPixmap.fromImage(image(scene, small)))
        return drag
