"""The house kit: theme, palettes, symbols and remembered looks in one open JSON file."""

from pathlib import Path
from typing import Any

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document, PictureFile
from kavlet.core.files import atomic
from kavlet.core.files.untrusted_input import untrusted
from kavlet.core.messages import say
from kavlet.core.styling.palettes import Palette
from kavlet.core.styling.style import Dress, House, resolve
from kavlet.core.styling.theme import Theme
from kavlet.core.values.errors import KavletError
from kavlet.core.values.xml_text import encoded

SUFFIX = ".kavlet-kit"
MAX_BYTES = 60_000_000


class Kit(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A house style. `looks` holds values set by hand for each recipe, by their path; `dress` the rest of a look."""

    format: str = "kavlet-kit"
    version: int = 1
    name: str = ""
    theme: Theme | None = None
    dress: Dress = Dress()
    palettes: tuple[Palette, ...] = ()
    pictures: tuple[PictureFile, ...] = ()
    looks: dict[str, dict[str, Any]] = {}


class _Head(Struct, frozen=True):
    """What tells a kit and its version, whatever else is in it."""

    format: str = "kavlet-kit"
    version: int = 1


def dumps(kit: Kit) -> bytes:
    """The kit as JSON text; what it is and its version stand first, and always."""
    held = {"format": kit.format, "version": kit.version, **msgspec.to_builtins(kit)}
    return msgspec.json.format(encoded(msgspec.json.encode, held), indent=1) + b"\n"


def loads(content: bytes, name: str) -> Kit:
    """The kit of a file. Raises KavletError with one sentence when it is none, is newer, or names what there is not."""
    with untrusted(name, say("{file} is no kit, or it is damaged.", file=name)):
        head = msgspec.json.decode(content, type=_Head)  # before any type is read that a newer one may have changed
        if head.format != "kavlet-kit":
            raise KavletError(say("{file} is no kit.", file=name))
        if head.version > 1:
            raise KavletError(
                say("{file} was saved by a newer Kavlet.", file=name), remedy=say("Update Kavlet to use it.")
            )
        kit = msgspec.json.decode(content, type=Kit)
        resolve(kit.dress, House(kit.theme, None, kit.palettes))
        return kit


def load(path: Path) -> Kit:
    """Read a kit. Raises KavletError when it can't be read or is none."""
    return loads(atomic.read(path, MAX_BYTES), path.name)


def save(kit: Kit, path: Path) -> None:
    """Write a kit atomically."""
    atomic.write(path, dumps(kit))


def put_on(document: Document, kit: Kit) -> Document:
    """The document in the kit's style: its theme, palettes and pictures, and on each chart dress and recipe's look.

    What an author has set by hand on a chart stays.
    """
    names = {one.name for one in kit.pictures}
    palettes = (
        *kit.palettes,
        *(one for one in document.palettes if one.name not in {own.name for own in kit.palettes}),
    )
    pictures = (*kit.pictures, *(one for one in document.pictures if one.name not in names))
    charts = tuple(
        msgspec.structs.replace(
            chart,
            dress=msgspec.structs.replace(kit.dress, overrides=kit.looks.get(chart.recipe, {}) | chart.dress.overrides),
        )
        for chart in document.charts
    )
    return msgspec.structs.replace(document, theme=kit.theme, palettes=palettes, pictures=pictures, charts=charts)


def taken_from(document: Document, chart_id: str, name: str) -> Kit:
    """A kit of a chart's dress, the document's theme, palettes and pictures, and all charts' looks by recipe."""
    chart = document.chart(chart_id)
    looks = {
        entry.recipe: dict(entry.dress.overrides) for entry in document.charts if entry.recipe and entry.dress.overrides
    }
    bare = msgspec.structs.replace(chart.dress, overrides={})
    return Kit(
        name=name, theme=document.theme, dress=bare, palettes=document.palettes, pictures=document.pictures, looks=looks
    )
