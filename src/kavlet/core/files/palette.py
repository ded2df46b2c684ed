"""Palettes from outside: a .gpl file, or the hex codes of any text."""

import re
from pathlib import Path

from kavlet.core.messages import say
from kavlet.core.styling.palettes import MAX_COLOURS, Palette, from_text, palettes
from kavlet.core.values.errors import KavletError

SUFFIX = ".gpl"
MAX_BYTES = 1_000_000


def asked(text: str) -> str | tuple[str, ...]:
    """What a palette asked for by a text is: the name of a shipped one, or the colours of a .gpl file or of hex codes.

    Raises KavletError where it is none of these, or the file can't be read.
    """
    if text in palettes():
        return text
    if text.lower().endswith(SUFFIX):
        return load(Path(text)).colours
    if "#" in text:
        return from_text(text)
    raise KavletError(
        say("There is no palette “{name}”.", name=text), remedy=say("There are {names}.", names=list(palettes()))
    )


def load(path: Path) -> Palette:
    """The palette of a .gpl file. Raises KavletError where it can't be read."""
    try:
        if path.stat().st_size > MAX_BYTES:
            raise KavletError(say("{file} is too large for a palette.", file=path.name))
        return from_gpl(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise KavletError(say("{file} is not there.", file=path)) from None
    except (OSError, UnicodeDecodeError) as error:
        raise KavletError(say("{file} can’t be read.", file=path.name)) from error


def from_gpl(text: str) -> Palette:
    """The palette of a .gpl file: a head line, `Name:`, and lines of red, green, blue (0 to 255) and a name."""
    lines = text.splitlines()
    if not lines or not lines[0].strip().startswith("GIMP Palette"):
        raise KavletError(say("The file is not a .gpl palette."))
    name = "Palette"
    colours: list[str] = []
    for line in lines[1:]:
        if line.startswith("Name:"):
            name = line.partition(":")[2].strip() or name
            continue
        found = re.match(r"\s*(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s|$)", line)
        if found and all(int(part) <= 255 for part in found.groups()):
            code = "#" + "".join(f"{int(part):02x}" for part in found.groups())
            if code not in colours:
                colours.append(code)
    if not colours:
        raise KavletError(say("The palette holds no colours."))
    return Palette(name.casefold(), name, "qualitative", tuple(colours[:MAX_COLOURS]))
