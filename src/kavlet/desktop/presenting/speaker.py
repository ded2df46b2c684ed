"""What the speaker sees on a screen of their own: this page and the next, the words for it, the time."""

from PySide6.QtCore import QElapsedTimer, QSize, Qt, QTime, QTimer, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.messages import words
from kavlet.desktop.presenting.show import Show
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.thumbnails import thumb

NOW, SOON = QSize(520, 320), QSize(340, 210)


class SpeakerView(QWidget):
    """Keys pressed here go to what is presented: `key` tells them."""

    key = Signal(object)

    def __init__(self, show: Show, parent: QWidget | None = None) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self._show = show
        self._since = QElapsedTimer()
        self._since.start()
        self.setWindowTitle(words("Speaker’s view"))
        self.setAutoFillBackground(True)
        self.now, self.soon = QLabel(), QLabel()
        self.now.setAccessibleName(words("This page"))
        self.soon.setAccessibleName(words("The next page"))
        self.place = QLabel()
        self.place.setObjectName("quiet")
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        self.words.setStyleSheet("font-size: 20px;")
        self.words.setAccessibleName(words("Speaker’s words"))
        self.clock, self.elapsed = QLabel(), QLabel()
        for label in (self.clock, self.elapsed):
            label.setStyleSheet("font-size: 30px; font-weight: 700;")
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFrameShape(QFrame.Shape.NoFrame)
        scroll.setWidget(self.words)
        left, right, whole = QVBoxLayout(), QVBoxLayout(), QHBoxLayout(self)
        left.addWidget(self.place)
        left.addWidget(self.now)
        left.addWidget(scroll, 1)
        for text, widget in ((words("Next"), self.soon), (words("Clock"), self.clock),
                             (words("Since the start"), self.elapsed)):  # fmt: skip
            label = QLabel(text)
            label.setObjectName("quiet")
            right.addWidget(label)
            right.addWidget(widget)
        right.addStretch(1)
        whole.setContentsMargins(6 * UNIT, 6 * UNIT, 6 * UNIT, 6 * UNIT)
        whole.setSpacing(6 * UNIT)
        whole.addLayout(left, 1)
        whole.addLayout(right)
        self._timer = QTimer(self)
        self._timer.setInterval(1000)
        self._timer.timeout.connect(self._tell_time)
        self._timer.start()
        show.turned.connect(self.refresh)
        show.moved.connect(self._moved)
        self.resize(960, 600)
        self.refresh()

    def refresh(self) -> None:
        """Show the page, the next one, and the words."""
        show = self._show
        self.place.setText(words("Page {number} of {count}: {name}", number=show.at + 1, count=len(show.pages),
                                 name=show.page.name))  # fmt: skip
        self.now.setPixmap(thumb(show.picture().scene, NOW))
        last = show.at + 1 >= len(show.pages)
        if last:
            self.soon.setText(words("This is the last page."))
        else:
            self.soon.setPixmap(thumb(show.picture(1).scene, SOON))
        self.words.setText(show.page.speaker or words("No words for this page."))
        self._tell_time()

    def _moved(self) -> None:
        if not self._show.moving:
            self.now.setPixmap(thumb(self._show.picture().scene, NOW))

    def _tell_time(self) -> None:
        self.clock.setText(QTime.currentTime().toString("HH:mm"))
        seconds = self._since.elapsed() // 1000
        self.elapsed.setText(f"{seconds // 3600}:{seconds // 60 % 60:02}:{seconds % 60:02}")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        self.key.emit(event)

    def focusNextPrevChild(self, forward: bool) -> bool:
        del forward
        return False
