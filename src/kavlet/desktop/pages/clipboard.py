"""Charts and items of pages on the clipboard: as they are for this program, as a picture for others."""

from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QByteArray, QMimeData
from PySide6.QtGui import QGuiApplication

if TYPE_CHECKING:
    from kavlet.core.document.copy_between import CopiedParts


KIND = "application/x-kavlet-items"


def put(load: "CopiedParts", mime: QMimeData) -> None:
    """Put what is carried on the clipboard, beside what other programs get of it."""
    mime.setData(KIND, QByteArray(msgspec.json.encode(load)))
    QGuiApplication.clipboard().setMimeData(mime)


def held() -> "CopiedParts | None":
    """What this program put there; None where there is something else."""
    from kavlet.core.document.copy_between import CopiedParts

    mime = QGuiApplication.clipboard().mimeData()
    if mime is None or not mime.hasFormat(KIND):
        return None
    try:
        return msgspec.json.decode(bytes(mime.data(KIND).data()), type=CopiedParts)
    except msgspec.MsgspecError:
        return None


def text() -> str:
    """The words that another program put there."""
    mime = QGuiApplication.clipboard().mimeData()
    return mime.text() if mime is not None and mime.hasText() else ""
