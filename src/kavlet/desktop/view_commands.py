"""What the commands do to the window itself: light or dark, finding commands, saying what it is."""

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QSettings, Qt, Signal
from PySide6.QtWidgets import QMessageBox, QWidget

import kavlet
from kavlet.core.messages import LANGUAGES, say, words
from kavlet.desktop import languages
from kavlet.desktop.command import Command
from kavlet.desktop.dialogs import answer
from kavlet.desktop.languages import AS_DESKTOP
from kavlet.desktop.stylesheet import apply_look

if TYPE_CHECKING:
    from kavlet.desktop.command_search import Findable

LOOKS = {"light": say("Light window"), "dark": say("Dark window"), "system": say("As the system")}


class ViewCommands(QObject):
    """Commands that leave the document alone. `language_chosen` tells that the window is to speak another language."""

    language_chosen = Signal()

    def __init__(self, parent: QWidget, findable: "Callable[[], list[Findable]]") -> None:
        super().__init__(parent)
        self._parent, self._findable = parent, findable
        self.commands = (
            Command("find_command", "View", "Find anything…", self.find_command, "Ctrl+K"),
            *(
                Command(f"look_{look}", "View", text.text, partial(self.choose_look, look), line_before=look == "light",
                        is_on=partial(self._is_look, look))
                for look, text in LOOKS.items()
            ),
            Command("language_desktop", "View", "Language of the desktop", partial(self.choose_language, AS_DESKTOP),
                    line_before=True, is_on=partial(self._is_language, AS_DESKTOP)),
            *(
                Command(f"language_{code}", "View", name, partial(self.choose_language, code),
                        is_on=partial(self._is_language, code))
                for code, name in LANGUAGES.items()
            ),
            Command("about", "Help", "About Kavlet", self.about),
        )  # fmt: skip

    def find_command(self) -> None:
        """Open the finder."""
        from kavlet.desktop.command_finder import CommandFinder

        CommandFinder(self._findable(), self._parent).show()

    def _is_look(self, look: str) -> bool:
        return str(QSettings().value("look", "system")) == look

    def _is_language(self, code: str) -> bool:
        return languages.chosen() == code

    def choose_look(self, look: str) -> None:
        QSettings().setValue("look", look)
        apply_look()

    def choose_language(self, code: str) -> None:
        """Speak another language from here on; empty for the desktop's."""
        languages.choose(code)
        self.language_chosen.emit()

    def about(self) -> None:
        text = words(
            "<b>Kavlet {version}</b><p>Turns small tables into the charts no chart menu offers, "
            "and shows how they are built.</p>"
            "<p>MIT License. Faces under the SIL Open Font License 1.1.</p>",
            version=kavlet.__version__,
        )
        box = QMessageBox(self._parent)
        box.setWindowTitle(words("About Kavlet"))
        box.setIconPixmap(self._parent.windowIcon().pixmap(64, 64))
        box.setTextFormat(Qt.TextFormat.RichText)
        box.setText(text)
        answer(box)
