"""The .kavlet file: a zip with `document.json`, described by docs/kavlet.schema.json, and the pictures it uses."""

import io
import re
import zipfile
import zlib
from pathlib import Path

import msgspec
from msgspec import Struct

from kavlet.core.document.document import Document
from kavlet.core.files import atomic
from kavlet.core.files.untrusted_input import untrusted
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.core.values.xml_text import encoded

SUFFIX = ".kavlet"
VERSION = 1
MEMBER = "document.json"
PICTURE = "pictures/{}"  # by its place in the document's list
_STAMP = (2026, 1, 1, 0, 0, 0)
MAX_BYTES = 200_000_000
MAX_MEMBER = 120_000_000
MAX_PICTURE = 20_000_000
MAX_SUM = 150_000_000  # of all pictures
_PICTURE = re.compile(r"pictures/[0-9]{1,4}")
PACKED = (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED)


class Content(Struct, frozen=True, forbid_unknown_fields=True):
    """What `document.json` holds."""

    format: str
    version: int
    document: Document


class _Head(Struct):
    format: str = ""
    version: int = 0


def dumps(document: Document) -> bytes:
    """The bytes of a .kavlet file. Equal documents give equal bytes."""
    bare = tuple(msgspec.structs.replace(picture, content=b"") for picture in document.pictures)
    held = msgspec.structs.replace(document, pictures=bare)
    text = msgspec.json.format(encoded(msgspec.json.encode, Content("kavlet", VERSION, held)), indent=1)
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
        archive.writestr(zipfile.ZipInfo(MEMBER, _STAMP), text, zipfile.ZIP_DEFLATED)
        for number, picture in enumerate(document.pictures):
            if picture.content:
                archive.writestr(zipfile.ZipInfo(PICTURE.format(number), _STAMP), picture.content, zipfile.ZIP_STORED)
    return buffer.getvalue()


def loads(content: bytes, name: str) -> Document:
    """The document of a .kavlet file.

    Raises KavletError with one sentence when it is broken, newer, or holds what would be lost.
    """
    broken = KavletError(say("{file} is not a Kavlet document, or it is damaged.", file=name))
    with untrusted(name, broken.what):
        return _loads(content, name, broken)


def _loads(content: bytes, name: str, broken: KavletError) -> Document:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            infos = archive.infolist()
            pictures = [info for info in infos if _PICTURE.fullmatch(info.filename)]
            if archive.getinfo(MEMBER).file_size > MAX_MEMBER or sum(info.file_size for info in pictures) > MAX_SUM:
                raise KavletError(say("{file} claims to be larger than any Kavlet document.", file=name))
            large = next((info for info in pictures if info.file_size > MAX_PICTURE), None)
            if large is not None:
                raise KavletError(say("{file} holds a picture that is too large.", file=name), where=large.filename)
            _check_members(infos, name)
            with archive.open(MEMBER) as member:
                text = member.read(MAX_MEMBER)
            contents = {info.filename: archive.read(info) for info in pictures}
    except (zipfile.BadZipFile, KeyError, zlib.error, EOFError, RuntimeError, NotImplementedError, OSError):
        raise broken from None
    try:
        head = msgspec.json.decode(text, type=_Head)
        if head.format != "kavlet":
            raise broken
        if head.version > VERSION:
            raise KavletError(
                say("{file} was saved by a newer Kavlet.", file=name), remedy=say("Update Kavlet to open it.")
            )
        document = msgspec.json.decode(text, type=Content).document
    except (msgspec.DecodeError, RecursionError) as error:
        where = str(error).partition(" - at `")[2].rstrip("`")
        unknown = re.search(r"contains unknown field `([^`]*)`", str(error))
        if unknown is not None:  # opening it without would lose it when it is saved
            what = say("{file} holds something that this Kavlet does not know: “{what}”.", file=name, what=unknown[1])
            raise KavletError(what, remedy=say("Update Kavlet to open it."), where=where) from None
        raise KavletError(broken.what, where=where) from None
    _check(document, name)
    filled = tuple(
        msgspec.structs.replace(picture, content=contents.get(PICTURE.format(number), b""))
        for number, picture in enumerate(document.pictures)
    )
    return msgspec.structs.replace(document, pictures=filled)


def _check_members(infos: list[zipfile.ZipInfo], name: str) -> None:
    """Every member is known, there once, and packed as Kavlet packs them; what is not would be lost, or is no file of
    Kavlet's."""
    names = [info.filename for info in infos]
    if len(set(names)) != len(names) or any(info.compress_type not in PACKED for info in infos):
        raise KavletError(say("{file} is not a Kavlet document, or it is damaged.", file=name))
    for one in names:
        if one != MEMBER and not _PICTURE.fullmatch(one):
            raise KavletError(
                say("{file} holds something that this Kavlet does not know: “{what}”.", file=name, what=one),
                remedy=say("Update Kavlet to open it."),
            )


def _check(document: Document, name: str) -> None:
    """What the schema can't say: columns of equal length, and charts on tables that are there."""
    tables = {table.id for table in document.tables}
    for index, table in enumerate(document.tables):
        if not table.columns or len({len(column.cells) for column in table.columns}) != 1 or not table.height:
            raise KavletError(
                say("{file} is damaged: a table’s columns differ in length.", file=name), where=f"tables[{index}]"
            )
    for index, chart in enumerate(document.charts):
        if not chart.recipe and chart.free is None:
            raise KavletError(say("{file} is damaged: a chart has no layers.", file=name), where=f"charts[{index}]")
        if not {chart.table, chart.reading.table if chart.reading is not None else chart.table} <= tables:
            raise KavletError(
                say("{file} is damaged: a chart’s table is missing.", file=name), where=f"charts[{index}]"
            )


def save(document: Document, path: Path) -> None:
    """Write the document atomically. Raises KavletError when the place can't be written."""
    atomic.write(path, dumps(document))


def load(path: Path) -> Document:
    """Read a document. Raises KavletError when it can't be read, is broken or newer."""
    return loads(atomic.read(path, MAX_BYTES), path.name)


def schema() -> dict[str, object]:
    """The JSON schema of `document.json`."""
    made = msgspec.json.schema(Content)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Kavlet document", **made}
