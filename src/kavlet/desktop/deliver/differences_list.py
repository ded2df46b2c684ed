"""What looks different in another program, told of the charts of an office file."""

from collections.abc import Mapping, Sequence
from html import escape

from kavlet.core.messages import words
from kavlet.export.outgoing import ExportNote


def differences(notes: Sequence[ExportNote], as_of: Mapping[str, str]) -> str:
    """What looks different there, as HTML; of several charts each can be a picture instead."""
    lines = []
    for note in notes:
        is_picture = note.as_ == "picture"
        is_own = note.chart in as_of
        if len(notes) == 1:
            lines += [f"<li>{escape(str(what))}</li>" for what in note.differs]
        elif note.differs or is_own:
            other = words("as a real chart") if is_picture else words("as a picture")
            parts = "; ".join(escape(str(what)) for what in note.differs) or escape(words("a picture"))
            lines.append(f'<li><b>{escape(note.name)}</b>: {parts} · <a href="{escape(note.chart)}">{other}</a></li>')
    real = any(note.as_ != "picture" for note in notes)
    explanation = f"<p>{escape(words('The program that opens it draws real charts itself.'))}</p>" if real else ""
    if not lines:
        return explanation
    head = escape(words("Looks different there:"))
    return f'{explanation}<p>{head}</p><ul style="margin-left:-24px">{"".join(lines)}</ul>'
