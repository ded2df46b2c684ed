"""What changed between two documents, as plain values that can be written and taken over again.

Documents share what an edit did not touch, so that what is the same object needs no look. A patch is ``None`` for no
change, or a list of its kind and content:

    ["=", value]                      another value
    ["s", {field: patch}]             fields of a structure
    ["t", {index: patch}]             entries of a tuple of the same length
    ["c", start, removed, [values]]   a part of a tuple that another takes the place of
    ["d", [[key, patch]], [keys]]     entries of a mapping, and keys that are gone
"""

import types
from functools import lru_cache
from typing import Any, TypeVar, Union, get_args, get_origin, get_type_hints

import msgspec

Patch = list[Any] | None
Held = TypeVar("Held")


def difference(old: Any, new: Any) -> Patch:
    """The patch that makes the new value of the old one."""
    if old is new:
        return None
    if isinstance(new, msgspec.Struct) and type(old) is type(new):
        fields = {name: difference(getattr(old, name), getattr(new, name)) for name in new.__struct_fields__}
        changed = {name: patch for name, patch in fields.items() if patch is not None}
        return ["s", changed] if changed else None
    if isinstance(new, tuple) and isinstance(old, tuple):
        return _of_tuples(old, new)
    if isinstance(new, dict) and isinstance(old, dict):
        return _of_mappings(old, new)
    return None if type(old) is type(new) and old == new else ["=", msgspec.to_builtins(new, builtin_types=(bytes,))]


def _of_tuples(old: tuple[Any, ...], new: tuple[Any, ...]) -> Patch:
    if len(old) == len(new):
        pairs = enumerate(zip(old, new, strict=True))
        changed = {i: patch for i, (a, b) in pairs if a is not b and (patch := difference(a, b))}
        return ["t", changed] if changed else None
    start, most = 0, min(len(old), len(new))
    while start < most and _same(old[start], new[start]):
        start += 1
    end = 0
    while end < most - start and _same(old[-1 - end], new[-1 - end]):
        end += 1
    values = msgspec.to_builtins(new[start : len(new) - end], builtin_types=(bytes,))
    return ["c", start, len(old) - end - start, list(values)]


def _same(one: Any, other: Any) -> bool:
    return one is other or (type(one) is type(other) and one == other)


def _of_mappings(old: dict[Any, Any], new: dict[Any, Any]) -> Patch:
    gone = [key for key in old if key not in new]
    changed = []
    for key, value in new.items():
        patch = difference(old[key], value) if key in old else ["=", msgspec.to_builtins(value, builtin_types=(bytes,))]
        if patch is not None:
            changed.append([key, patch])
    if not gone and not changed and list(old) != list(new):  # the order is part of it
        return ["=", msgspec.to_builtins(new, builtin_types=(bytes,))]
    return ["d", changed, gone] if changed or gone else None


def patched(old: Held, patch: Patch, kind: Any = None) -> Held:
    """The old value with a patch taken over. Raises ValueError or a msgspec error for a patch that does not fit it."""
    return _patched(old, patch, type(old) if kind is None else kind)  # type: ignore[no-any-return]


def _patched(old: Any, patch: Patch, kind: Any) -> Any:
    if patch is None:
        return old
    match patch:
        case ["=", value]:
            return msgspec.convert(value, kind)
        case ["s", fields] if isinstance(old, msgspec.Struct):
            hints = _hints(type(old))
            changes = {name: _patched(getattr(old, name), change, hints[name]) for name, change in fields.items()}
            return msgspec.structs.replace(old, **changes)
        case ["t", entries] if isinstance(old, tuple):
            held = list(old)
            for index, change in entries.items():
                held[int(index)] = _patched(held[int(index)], change, _entry(kind, int(index)))
            return tuple(held)
        case ["c", start, removed, values] if isinstance(old, tuple):
            new = tuple(msgspec.convert(value, _entry(kind, start + i)) for i, value in enumerate(values))
            return (*old[:start], *new, *old[start + removed :])
        case ["d", changed, gone] if isinstance(old, dict):
            mapping = {key: value for key, value in old.items() if key not in gone}
            for key, change in changed:
                mapping[key] = _patched(mapping.get(key), change, _value(kind))
            return mapping
    raise ValueError("The patch does not fit.")


@lru_cache(maxsize=256)
def _hints(kind: type) -> dict[str, Any]:
    return get_type_hints(kind)


def _of(kind: Any, origin: type) -> tuple[Any, ...]:
    """The arguments of a generic kind, also where it is one of several."""
    if get_origin(kind) is origin:
        return get_args(kind)
    if get_origin(kind) in (Union, types.UnionType):
        for one in get_args(kind):
            if get_origin(one) is origin:
                return get_args(one)
    return ()


def _entry(kind: Any, index: int) -> Any:
    """The kind of an entry of a tuple."""
    arguments = _of(kind, tuple)
    if len(arguments) == 2 and arguments[1] is Ellipsis:
        return arguments[0]
    return arguments[index] if index < len(arguments) else Any


def _value(kind: Any) -> Any:
    """The kind of a mapping's values."""
    arguments = _of(kind, dict)
    return arguments[1] if len(arguments) == 2 else Any
