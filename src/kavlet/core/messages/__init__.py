"""All that is said to people: sentences by their English text, with fields, written late in the reader's language.

The English text is the key. Catalogues (`languages/*/LC_MESSAGES/kavlet.po`) are gettext's, kept by Babel;
`tools/words` renews them. `say` makes a message to be written later, `words` writes one now; Babel looks for both.
"""

import gettext
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from msgspec import Struct

LANGUAGES = {"en": "English", "de": "Deutsch"}
DOMAIN = "kavlet"


class Message(Struct, frozen=True):
    """Something to be said: its English text with fields in braces, and what stands in them.

    With `many`, that text is said of a `count` of other than one.
    """

    text: str
    fields: dict[str, Any] = {}
    many: str = ""

    def __str__(self) -> str:
        held = _catalogue(_current.language)
        if self.many:
            text = held.ngettext(self.text, self.many, int(self.fields["count"]))
        else:
            text = held.gettext(self.text) if self.text else ""
        return text.format(**self.fields) if self.fields else text

    def __bool__(self) -> bool:
        return bool(self.text)


def say(text: str, /, **fields: Any) -> Message:
    """A message with its fields, to be written when it is read."""
    return Message(text, fields)


def counted(one: str, many: str, count: int, **fields: Any) -> Message:
    """A message about a count, which is its field `count`."""
    return Message(one, {"count": count, **fields}, many)


def words(text: str, /, **fields: Any) -> str:
    """A message as text in the reader's language now."""
    return str(Message(text, fields))


class _Current:
    """The reader's language, of this process."""

    language = "en"


_current = _Current()


def language() -> str:
    """The language that messages are written in."""
    return _current.language


def speak(name: str) -> None:
    """Write all messages from here on in a language, by its code; English where there is no catalogue of it."""
    code = name.replace("-", "_").split("_")[0].split(".")[0].lower()
    _current.language = code if code in LANGUAGES or code == PSEUDO else "en"


PSEUDO = "xx"  # a language for tests: each message in marks, so that any text that is none stands out


class _Pseudo(gettext.NullTranslations):
    def gettext(self, message: str) -> str:
        return f"⟦{message}⟧"

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:
        return f"⟦{msgid1 if n == 1 else msgid2}⟧"


@lru_cache(maxsize=8)
def _catalogue(code: str) -> gettext.NullTranslations:
    if code == PSEUDO:
        return _Pseudo()
    folder = Path(str(files("kavlet"))) / "core" / "messages" / "languages"
    return gettext.translation(DOMAIN, folder, [code], fallback=True)
