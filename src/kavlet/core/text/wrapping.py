"""Lines that fit: breaking at spaces and hyphens, and shortening what is still too long."""

import re

from kavlet.core.text.shaping import width

ELLIPSIS = "…"
_PIECES = re.compile(r"[^\s-]*-+|[^\s-]+|\s+")


def wrapped(text: str, face: str, size: float, most_width: float, most_lines: int) -> tuple[str, ...]:
    """Break a text into at most `most_lines` lines of at most `most_width` points; the last may end in an ellipsis.

    Line breaks in the text are kept. Empty text gives no line; a single character is shown even where it does not fit.
    """
    lines: list[str] = []
    for paragraph in text.splitlines():
        line = ""
        for piece in _PIECES.findall(paragraph):
            if width((line + piece).strip(), face, size) <= most_width or not line.strip():
                line += piece
            else:
                lines.append(line.strip())
                line = piece.lstrip()
        if line.strip():
            lines.append(line.strip())
    if len(lines) > most_lines:
        lines = [*lines[: most_lines - 1], " ".join(lines[most_lines - 1 :])]
    return tuple(shortened(line, face, size, most_width) for line in lines)


def shortened(line: str, face: str, size: float, most_width: float) -> str:
    """The line, or its beginning with an ellipsis, within `most_width` points; never less than one character."""
    if width(line, face, size) <= most_width:
        return line
    low, high = 1, max(1, len(line) - 1)
    while low < high:
        middle = (low + high + 1) // 2
        if width(line[:middle].rstrip() + ELLIPSIS, face, size) <= most_width:
            low = middle
        else:
            high = middle - 1
    return line[:low].rstrip() + ELLIPSIS
