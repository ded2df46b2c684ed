"""All that is said to people: sentences by their English text, with fields, written late in the reader's language.

The English text is the key. Catalogues (`languages/*/LC_MESSAGES/kavlet.po`) are gettext's; `tools/words.py` renews and
compiles them with Babel. `say` makes a message to be written later, `words` writes one now, `words_in` in a language
of its own, such as a document's. What is only declared (a recipe's title, a field's label) is English too, and whoever
shows it asks `words`; names of settings, roles and helper columns ask `named`, for one word may name other things.
"""

import gettext
import os
from collections.abc import Iterable
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from msgspec import Struct

LANGUAGES = {"en": "English", "de": "Deutsch"}
ENGLISH = "en"
DOMAIN = "kavlet"
SYMBOL = "symbol"  # the context of what symbols are called
NAME = "name"  # the context of what names a setting, a role or a helper column
MAX_WRITTEN_OUT = 1e20  # from there on, a number has an exponent
PSEUDO = "xx"  # a language for tests: each message in marks, so that any text that is none stands out
FOLDER = Path(str(files("kavlet"))) / "core" / "messages" / "languages"


class Message(Struct, frozen=True):
    """Something to be said: its English text with fields in braces, and what stands in them.

    With `many`, that text is said of a `count` of other than one. A `context` tells apart what is one word in English.
    Numbers in fields are written as the language does, lists with commas, messages in the same language.
    """

    text: str
    fields: dict[str, Any] = {}
    many: str = ""
    context: str = ""

    def __str__(self) -> str:
        return self.said_in(_current.language)

    def said_in(self, language: str) -> str:
        """The message in a language, by the code of it or of a locale."""
        code = _code(language)
        held = _catalogue(code)
        if self.many:
            text = held.ngettext(self.text, self.many, int(self.fields["count"]))
        elif self.context:
            text = held.pgettext(self.context, self.text) if self.text else ""
        else:
            text = held.gettext(self.text) if self.text else ""
        return (
            text.format(**{name: _written(value, code) for name, value in self.fields.items()}) if self.fields else text
        )

    def __bool__(self) -> bool:
        return bool(self.text)


NOTHING = Message("")


class Percent(Struct, frozen=True):
    """A share as a field of a message, written as a whole percent by the language."""

    share: float


def say(text: str, /, **fields: Any) -> Message:
    """A message with its fields, to be written when it is read."""
    return Message(text, fields)


def counted(one: str, many: str, count: int, **fields: Any) -> Message:
    """A message about a count, which is its field `count`."""
    return Message(one, {"count": count, **fields}, many)


def named(text: str) -> Message:
    """The name of a setting, a role or a helper column, or what a setting can be."""
    return Message(text, context=NAME)


def symbol_named(text: str) -> Message:
    """The name of a symbol."""
    return Message(text, context=SYMBOL)


def words(text: str, /, **fields: Any) -> str:
    """A message as text in the reader's language now."""
    return str(Message(text, fields))


def words_in(language: str, text: str, /, **fields: Any) -> str:
    """A message as text in a language, by the code of it or of a locale: what stands in a document's pictures."""
    return Message(text, fields).said_in(language)


def shown_number(value: float, pattern: str = "0.############") -> str:
    """A number in the reader's language now, without signs between its groups: as a field shows it."""
    return number_in(language(), value, pattern)


def upper_first(text: str) -> str:
    """The text with a capital at its beginning, as a label has it."""
    return text[:1].upper() + text[1:]


def number_in(language: str, value: float, pattern: str = "#,##0.######") -> str:
    """A number as a language writes it, by a pattern (Unicode TR 35); at most six decimals where none is given."""
    from babel.numbers import format_decimal, format_scientific

    locale = ENGLISH if language == PSEUDO else language
    if abs(value) >= MAX_WRITTEN_OUT:
        return str(format_scientific(value, "0.######E0", locale=locale))
    return str(format_decimal(value, pattern, locale=locale))


def _written(value: Any, code: str) -> str:
    if isinstance(value, Message):
        return value.said_in(code)
    if isinstance(value, str):
        return value
    if isinstance(value, Percent):
        if abs(value.share) >= MAX_WRITTEN_OUT:
            return f"{number_in(code, value.share)} × 100%".replace("-", "−")
        from babel.numbers import format_percent

        return str(format_percent(value.share, locale=ENGLISH if code == PSEUDO else code)).replace("-", "−")
    if isinstance(value, float | int) and not isinstance(value, bool):
        return number_in(code, value).replace("-", "−")
    if isinstance(value, Iterable):
        return ", ".join(_written(one, code) for one in value)
    return str(value)


class _Current:
    """The reader's language, of this process."""

    language = ENGLISH


_current = _Current()


def language() -> str:
    """The language that messages are written in."""
    return _current.language


def speak(name: str) -> None:
    """Write all messages from here on in a language, by its code; English where there is no catalogue of it."""
    _current.language = _code(name)


def desktop_language() -> str:
    """The language that the desktop asks for, by its code: the first there is of the list in LANGUAGE (GNU gettext,
    2.3.3), else that of the locale for messages (IEEE 1003.1, 8.2).
    """
    listed = os.environ.get("LANGUAGE", "").split(":")
    locale = next((text for name in ("LC_ALL", "LC_MESSAGES", "LANG") if (text := os.environ.get(name))), "")
    return next((code for text in (*listed, locale) if (code := _base(text)) in LANGUAGES), ENGLISH)


def _base(name: str) -> str:
    return name.replace("-", "_").split("_")[0].split(".")[0].lower()


@lru_cache(maxsize=64)
def _code(name: str) -> str:
    code = _base(name)
    return code if code in LANGUAGES or code == PSEUDO else ENGLISH


class _Pseudo(gettext.NullTranslations):
    """Marks what the catalogues hold, and leaves what they lack as it is."""

    def __init__(self) -> None:
        super().__init__()
        self._known = gettext.translation(DOMAIN, FOLDER, [code for code in LANGUAGES if code != ENGLISH])
        self._known.add_fallback(_Lacking())

    def gettext(self, message: str) -> str:
        return f"⟦{message}⟧" if self._known.gettext(message) else message

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:
        text = msgid1 if n == 1 else msgid2
        return f"⟦{text}⟧" if self._known.ngettext(msgid1, msgid2, n) else text

    def pgettext(self, context: str, message: str) -> str:
        return f"⟦{message}⟧" if self._known.pgettext(context, message) else message


class _Lacking(gettext.NullTranslations):
    def gettext(self, message: str) -> str:  # noqa: ARG002 - gettext’s own signature
        return ""

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:  # noqa: ARG002 - gettext’s own signature
        return ""

    def pgettext(self, context: str, message: str) -> str:  # noqa: ARG002 - gettext’s own signature
        return ""


@lru_cache(maxsize=8)
def _catalogue(code: str) -> gettext.NullTranslations:
    return _Pseudo() if code == PSEUDO else gettext.translation(DOMAIN, FOLDER, [code], fallback=True)
