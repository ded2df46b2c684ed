"""What takes long, at the foot of the window: its name, that it goes on, and a way to give it up."""

from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QLabel, QProgressBar, QPushButton, QWidget

from kavlet.core.messages import Message, words
from kavlet.desktop.background_edit import BackgroundEdit
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.worker import Worker


class WorkBar(QWidget):
    """Seen only while something takes long: what the window itself waits for first, else what is done beside it."""

    def __init__(self, worker: Worker, attended: BackgroundEdit, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._by: tuple[BackgroundEdit | Worker, ...] = (attended, worker)
        self._names: list[Message | None] = [None, None]
        self.says = QLabel()
        self.bar = QProgressBar()
        self.bar.setRange(0, 0)
        self.bar.setFixedSize(120, 2 * UNIT)
        self.bar.setTextVisible(False)
        self.cancel = QPushButton(words("Cancel"))
        self.cancel.clicked.connect(self._give_up)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2 * UNIT)
        for widget in (self.says, self.bar, self.cancel):
            layout.addWidget(widget)
        attended.busy.connect(partial(self._show, 0))
        worker.busy.connect(partial(self._show, 1))
        attended.free.append(self.cancel)
        worker.went_on.connect(self._go_on)
        self.hide()

    def _go_on(self, done: int, parts: int) -> None:
        """Show how far it is; where nobody says, that it goes on."""
        self.bar.setRange(0, parts)
        self.bar.setValue(done)

    def _give_up(self) -> None:
        by = next((one for one in self._by if one.working), None)
        if by is not None:
            by.give_up()

    def _show(self, place: int, name: Message | None) -> None:
        self._names[place] = name
        shown = next((message for message in self._names if message is not None), None)
        self.bar.setRange(0, 0)
        self.setVisible(shown is not None)
        if shown is not None:
            self.says.setText(str(shown))
            self.bar.setAccessibleName(str(shown))
