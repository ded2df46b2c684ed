"""The language of the window: the desktop's, or the one chosen in View; its numbers go with it."""

from PySide6.QtCore import QLibraryInfo, QLocale, QSettings, QTranslator
from PySide6.QtWidgets import QApplication

from kavlet.core.messages import ENGLISH, desktop_language, language, speak

KEY = "language"
AS_DESKTOP = ""
QT_WORDS = "qt words"


def chosen() -> str:
    """The code of the language chosen in View; empty where it is the desktop's."""
    return str(QSettings().value(KEY, AS_DESKTOP) or AS_DESKTOP)


def choose(code: str) -> None:
    """Remember the language of the window, by its code; empty for the desktop's."""
    QSettings().setValue(KEY, code)


def apply_language(application: QApplication) -> None:
    """Speak the language that is chosen, with Qt's own words (buttons of dialogs, menus of fields, names of keys)."""
    speak(chosen() or desktop_language())
    QLocale.setDefault(QLocale(locale_name()))
    held = application.findChild(QTranslator, QT_WORDS)
    if held is not None:
        application.removeTranslator(held)
        held.deleteLater()
        held.setObjectName("")
    if language() == ENGLISH:
        return
    words = QTranslator(application)
    words.setObjectName(QT_WORDS)
    if words.load(f"qtbase_{language()}", QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath)):
        application.installTranslator(words)


def locale_name() -> str:
    """How numbers are written in new documents: as the desktop does where it speaks the window's language, else as that
    language does.
    """
    system = QLocale.system()
    return system.name() if system.name().split("_")[0] == language() else QLocale(language()).name()
