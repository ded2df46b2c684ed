"""What looks different in another program, told of the charts of an office file."""

from collections.abc import Mapping, Sequence
from html import escape

from kavlet.core.messages import words
from kavlet.export.outgoing import ExportNote


def differences(told: Sequence[ExportNote], as_of: Mapping[str, str]) -> str:
    """What looks different there, as HTML; of several charts each can be a picture instead."""
    lines = []
    for one in told:
        is_picture = one.as_ == "picture"
        own = one.chart in as_of
        if len(told) == 1:
            lines += [f"<li>{escape(str(what))}</li>" for what in one.differs]
        elif one.differs or own:
            other = words("as a real chart") if is_picture else words("as a picture")
            parts = "; ".join(escape(str(what)) for what in one.differs) or escape(words("a picture"))
            lines.append(f'<li><b>{escape(one.name)}</b>: {parts} · <a href="{escape(one.chart)}">{other}</a></li>')
    real = any(one.as_ != "picture" for one in told)
    drawn = f"<p>{escape(words('The program that opens it draws real charts itself.'))}</p>" if real else ""
    if not lines:
        return drawn
    head = escape(words("Looks different there:"))
    return f'{drawn}<p>{head}</p><ul style="margin-left:-24px">{"".join(lines)}</ul>'
