"""Guards before a zip-based workbook is read: size, number and ratio of its members, and XML without entities."""

import io
import zipfile
import zlib

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

MAX_MEMBERS = 5_000
MAX_UNPACKED = 300_000_000
MAX_RATIO = 250  # times; ordinary sheets stay far below, bombs go to a thousand


def members(content: bytes, name: str, wanted: tuple[str, ...]) -> dict[str, bytes]:
    """Check the archive and return the members whose names end as wanted. Raises KavletError when it is unsound."""
    found: dict[str, bytes] = {}
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            infos = archive.infolist()
            unpacked = sum(info.file_size for info in infos)
            bombs = any(info.file_size > MAX_RATIO * max(1, info.compress_size) > 250_000 for info in infos)
            if len(infos) > MAX_MEMBERS or unpacked > MAX_UNPACKED or bombs:
                raise KavletError(
                    say("{file} would unpack to more than a workbook ever holds, so it is not opened.", file=name)
                )
            for info in infos:
                if info.filename.lower().endswith(".xml"):
                    with archive.open(info) as member:
                        head = member.read(2048)
                    if b"<!DOCTYPE" in head or b"<!ENTITY" in head:
                        raise KavletError(say("{file} defines its own entities, so it is not opened.", file=name))
                if info.filename.endswith(wanted):
                    found[info.filename] = archive.read(info)
    except (zipfile.BadZipFile, zlib.error, EOFError, RuntimeError, NotImplementedError, OSError, ValueError):
        raise KavletError(say("{file} is no workbook, or it is damaged.", file=name)) from None
    return found
