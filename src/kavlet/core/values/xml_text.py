"""Texts as XML can hold them."""

import re
from collections.abc import Callable
from typing import Any, TypeVar, cast

import msgspec

Held = TypeVar("Held")
_NEVER = re.compile("[^\t\n\r -\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")


def xml_text(text: str) -> str:
    """The text without characters that XML 1.0 cannot hold (section 2.2, production Char)."""
    return _NEVER.sub("", text)


def with_xml_texts(held: Held) -> Held:
    """The same, whatever it is made of, with all its texts as XML can hold them; itself where they are."""
    return cast(Held, _cleaned(held))


def encoded(encode: Callable[[Any], bytes], held: object) -> bytes:
    """What an encoder makes of it; halves of characters, which come from broken clipboards and no text has, are left
    out rather than that nothing could be written."""
    try:
        return encode(held)
    except UnicodeEncodeError:
        return encode(_cleaned(held))


def _cleaned(held: object) -> object:
    if isinstance(held, str):
        return xml_text(held) if _NEVER.search(held) else held
    if isinstance(held, tuple):
        entries = [_cleaned(entry) for entry in held]
        return held if all(a is b for a, b in zip(held, entries, strict=True)) else tuple(entries)
    if isinstance(held, list):
        return [_cleaned(entry) for entry in held]
    if isinstance(held, dict):
        pairs = [(_cleaned(key), _cleaned(value)) for key, value in held.items()]
        same = all(a is b for a, pair in zip(held.items(), pairs, strict=True) for a, b in zip(a, pair, strict=True))
        return held if same else dict(pairs)
    if isinstance(held, msgspec.Struct):
        fields = {name: getattr(held, name) for name in held.__struct_fields__}
        changes = {name: new for name, old in fields.items() if (new := _cleaned(old)) is not old}
        return msgspec.structs.replace(held, **changes) if changes else held
    return held
