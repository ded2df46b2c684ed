"""The bar over words that are typed: their look, alignment, lists, and live fields to put in."""

from collections.abc import Callable

from PySide6.QtCore import QPoint, QSize, Qt
from PySide6.QtGui import QColor, QIcon, QKeyEvent, QPainter, QPixmap
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QToolButton, QWidget

from kavlet.core.messages import Message, say, words
from kavlet.core.pages.fields import FACES
from kavlet.core.styling.style import Style
from kavlet.desktop.stylesheet import UNIT

CHIP = 14  # pixels
FIELDS: tuple[tuple[str, Message], ...] = (
    ("{=B2}", say("a cell")), ("{page}", say("number of the page")), ("{pages}", say("count of the pages")),
    ("{name}", say("name of the page")), ("{date}", say("today’s date")), ("{source}", say("the charts’ source")),
)  # fmt: skip
Does = Callable[[], object]
Takes = Callable[[str], object]


class WordsBar(QFrame):
    """Buttons that leave the caret where it is. F10 in the words comes here, Escape goes back."""

    def __init__(self, does: dict[str, Does], take_colour: Takes, take_face: Takes, put: Takes,
                 parent: QWidget) -> None:  # fmt: skip
        super().__init__(parent)
        self.setObjectName("panel")
        self._take_colour, self._take_face, self._put = take_colour, take_face, put
        self._style: Style | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(UNIT, UNIT, UNIT, UNIT)
        row.setSpacing(1)
        self.buttons: dict[str, QToolButton] = {}
        for name, text, says in (
            ("bold", "B", words("Bold (Ctrl+B)")), ("italic", "I", words("Italic (Ctrl+I)")),
            ("smaller", "A−", words("Smaller (Ctrl+<)")), ("larger", "A+", words("Larger (Ctrl+>)")),
            ("start", "⇤", words("Left (Ctrl+L)")), ("middle", "↔", words("Middle (Ctrl+E)")),
            ("end", "⇥", words("Right (Ctrl+R)")), ("dots", "•", words("List with dots (Ctrl+Shift+L)")),
            ("numbers", "1.", words("List with numbers (Ctrl+Shift+N)")),
        ):  # fmt: skip
            self._add(name, text, says).clicked.connect(lambda _on=False, do=does[name]: do())
        self._add("colour", words("Colour"), words("Colour")).clicked.connect(self._offer_colours)
        self._add("face", words("Face"), words("Face")).clicked.connect(self._offer_faces)
        self._add("field", words("Field"), words("A live field")).clicked.connect(self._offer_fields)
        self.hide()

    def _add(self, name: str, text: str, says: str) -> QToolButton:
        made = QToolButton()
        made.setObjectName("plain")
        made.setText(text)
        made.setToolTip(says)
        made.setAccessibleName(says)
        made.setFocusPolicy(Qt.FocusPolicy.TabFocus)  # a click leaves the caret in the words
        self.buttons[name] = made
        widget = self.layout()
        if widget is not None:
            widget.addWidget(made)
        return made

    def show_over(self, corner: QPoint, below: int, style: Style) -> None:
        """Show it over words whose upper left corner is given; below them where there is no room above."""
        self._style = style
        self.adjustSize()
        y = corner.y() - self.height() - 4
        room = self.parentWidget()
        most = (room.width() if room is not None else 10_000) - self.width()
        self.move(max(0, min(corner.x(), most)), y if y >= 0 else below + 4)
        self.show()
        self.raise_()

    def _offer_colours(self) -> None:
        """The theme's colours, and the one the words have by themselves."""
        menu = QMenu(self)
        menu.addAction(words("automatic")).triggered.connect(lambda: self._take_colour(""))
        if self._style is not None:
            for name in (*(f"tone{i}" for i in range(1, 7)), "ink", "quiet"):
                chip = QPixmap(QSize(CHIP, CHIP))
                chip.fill(Qt.GlobalColor.transparent)
                painter = QPainter(chip)
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(QColor(self._style.colour(name).hex))
                painter.drawEllipse(1, 1, CHIP - 2, CHIP - 2)
                painter.end()
                action = menu.addAction(QIcon(chip), self._style.colour(name).hex)
                action.triggered.connect(lambda _on=False, name=name: self._take_colour(name))
        self._open(menu, self.buttons["colour"])

    def _offer_faces(self) -> None:
        """The faces there are, and the one the words have by themselves."""
        menu = QMenu(self)
        for family, text in FACES:
            menu.addAction(str(text)).triggered.connect(lambda _on=False, family=family: self._take_face(family))
        self._open(menu, self.buttons["face"])

    def _offer_fields(self) -> None:
        menu = QMenu(self)
        for field, meaning in FIELDS:
            menu.addAction(f"{field}   {meaning}").triggered.connect(lambda _on=False, field=field: self._put(field))
        self._open(menu, self.buttons["field"])

    def _open(self, menu: QMenu, button: QToolButton) -> None:
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        menu.popup(button.mapToGlobal(QPoint(0, button.height())))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self._put("")  # the caret has the keys again
            return
        super().keyPressEvent(event)
