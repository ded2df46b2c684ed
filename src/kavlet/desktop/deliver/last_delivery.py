"""What was delivered last, and how: kept for each document, so that it can be delivered again."""

import hashlib
from pathlib import Path
from typing import TYPE_CHECKING, Literal

import msgspec
from msgspec import Struct
from PySide6.QtCore import QSettings

from kavlet.core.files.formats import ExportOptions
from kavlet.desktop.store import Store

if TYPE_CHECKING:
    from kavlet.export.outgoing import Export


What = Literal["chart", "charts", "page", "pages"]
To = Literal["file", "program", "outbox", "showcase"]
_KEY = "delivered"


class DeliveryChoice(Struct, frozen=True):
    """What is to leave (a chart or page by its id, where it is one), how, and where to: a file's place (`out`, empty
    where nobody said yet), or the mail program, the outbox, the showcase."""

    what: What = "chart"
    one: str = ""
    wish: ExportOptions = ExportOptions(".png")
    out: str = ""
    to: To = "file"


def outgoing(choice: DeliveryChoice, store: Store) -> "Export":
    """What a choice lets leave of the document as it is now."""
    from kavlet.export.outgoing import Export

    document = store.document
    title = store.name or ""
    match choice.what:
        case "chart":
            entry = next((chart for chart in document.charts if chart.id == choice.one), store.here)
            return Export(document, (entry.id,), title=entry.name)
        case "charts":
            return Export(document, tuple(chart.id for chart in document.charts), title=title, whole=True)
        case "page":
            page = next((page for page in document.pages if page.id == choice.one), store.page)
            return Export(document, pages=(page.id,), title=page.name)
        case "pages":
            return Export(document, pages=tuple(page.id for page in document.pages), title=title)


def offered(store: Store) -> tuple[What, ...]:
    """What the document has to let leave."""
    found: list[What] = []
    if store.has_chart:
        found.append("chart")
    if len(store.document.charts) > 1:
        found.append("charts")
    if store.has_page:
        found.append("page")
        if len(store.document.pages) > 1:
            found.append("pages")
    return tuple(found)


def _key(path: Path) -> str:
    return f"{_KEY}/{hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:24]}"


def remember(path: Path, choice: DeliveryChoice) -> None:
    """Keep what was delivered of a document."""
    QSettings().setValue(_key(path), msgspec.json.encode(choice).decode())


def remembered(path: Path | None) -> DeliveryChoice | None:
    """What was delivered of a document last; None where nothing was, or it can't be read any more."""
    held = QSettings().value(_key(path)) if path is not None else None
    if not isinstance(held, str):
        return None
    try:
        return msgspec.json.decode(held, type=DeliveryChoice)
    except msgspec.MsgspecError:
        return None
