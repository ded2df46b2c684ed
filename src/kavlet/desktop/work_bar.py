"""What takes long, at the foot of the window: its name, that it goes on, and a way to give it up."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QProgressBar, QPushButton, QWidget

from kavlet.core.messages import Message, words
from kavlet.desktop.look import UNIT
from kavlet.desktop.worker import Worker


class WorkBar(QWidget):
    """Seen only while something takes long."""

    def __init__(self, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.says = QLabel()
        self.bar = QProgressBar()
        self.bar.setRange(0, 0)
        self.bar.setFixedSize(120, 2 * UNIT)
        self.bar.setTextVisible(False)
        self.cancel = QPushButton(words("Cancel"))
        self.cancel.clicked.connect(lambda _checked=False: worker.give_up())
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        for widget in (self.says, self.bar, self.cancel):
            layout.addWidget(widget)
        worker.busy.connect(self._show)
        worker.went_on.connect(self._go_on)
        self.hide()

    def _go_on(self, done: int, parts: int) -> None:
        """Show how far it is; where nobody says, that it goes on."""
        self.bar.setRange(0, parts)
        self.bar.setValue(done)

    def _show(self, name: Message | None) -> None:
        self.bar.setRange(0, 0)
        self.setVisible(name is not None)
        if name is not None:
            self.says.setText(str(name))
            self.bar.setAccessibleName(str(name))
