"""Edits of what Proof is to leave as it is: a check's findings silenced, with the reason, and listened to again."""

import msgspec

from kavlet.core.document.document import Document, with_chart, with_page
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MAX_REASON = 500  # letters


def silenced(document: Document, check: str, reason: str, chart: str = "", page: str = "") -> Document:
    """A check silenced for a chart, for a page, or for the whole document where neither is named. Raises KavletError
    without a reason, or for one that is very long."""
    why = " ".join(reason.split())
    if not why:
        raise KavletError(say("Silencing needs a reason, which stays in the document."))
    if len(why) > MAX_REASON:
        raise KavletError(say("The reason is longer than {most} letters.", most=MAX_REASON))
    return _with(document, {**_held(document, chart, page), check: why}, chart, page)


def listened_to(document: Document, check: str, chart: str = "", page: str = "") -> Document:
    """A check listened to again: for a chart and its page, and in the whole document, wherever it was silenced."""
    for one, other in {(chart, ""), ("", page), ("", "")}:
        held = _held(document, one, other)
        if check in held:
            document = _with(document, {key: why for key, why in held.items() if key != check}, one, other)
    return document


def _held(document: Document, chart: str, page: str) -> dict[str, str]:
    if chart:
        return document.chart(chart).silenced
    return document.page(page).silenced if page else document.silenced


def _with(document: Document, reasons: dict[str, str], chart: str, page: str) -> Document:
    if chart:
        return with_chart(document, msgspec.structs.replace(document.chart(chart), silenced=reasons))
    if page:
        return with_page(document, msgspec.structs.replace(document.page(page), silenced=reasons))
    return msgspec.structs.replace(document, silenced=reasons)
