"""The boundary of what is read from outside: whatever a file holds, it gives its content or one sentence.

Readers are our own or libraries, and each raises what it will for bytes that nobody foresaw. An exception that is not
Kavlet's own never passes here.
"""

from collections.abc import Iterator
from contextlib import contextmanager

from kavlet.core.messages import Message, say
from kavlet.core.values.errors import KavletError


@contextmanager
def untrusted(name: str, what: Message | None = None) -> Iterator[None]:
    """Within it, any failure is that a file of that name is damaged. Raises KavletError."""
    try:
        yield
    except KavletError:
        raise
    except MemoryError:
        raise KavletError(say("{file} holds more than can be read.", file=name)) from None
    except (Exception, RecursionError):
        raise KavletError(what or say("{file} is damaged, or not what its ending says.", file=name)) from None
