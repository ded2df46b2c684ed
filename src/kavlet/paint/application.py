"""A Qt application for painting without a window, and the shipped faces made known to Qt."""

import os
import sys
from functools import lru_cache
from importlib.resources import as_file

from PySide6.QtGui import QFontDatabase, QGuiApplication

from kavlet.core.text.faces import FACES, FONT_FOLDER


def for_painting() -> QGuiApplication:
    """The running application, or one that needs no display; in either, the shipped faces."""
    running = QGuiApplication.instance()
    if not isinstance(running, QGuiApplication):
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        running = QGuiApplication(sys.argv[:1])
    add_faces()
    return running


@lru_cache(maxsize=1)
def add_faces() -> None:
    """Make the shipped faces known to Qt by their families' names; once is enough."""
    with as_file(FONT_FOLDER) as folder:
        for key in FACES:
            QFontDatabase.addApplicationFont(str(folder / f"{key}.ttf"))
