"""What a chart shows, as what its message is told from."""

import math
from collections.abc import Callable, Sequence

from msgspec import Struct

from kavlet.core.messages import words_in
from kavlet.core.text.numbers import written
from kavlet.core.values.number_text import NumberText

MAX_CHARACTERS = 250  # characters of an alt text
MAX_NAME_CHARACTERS = 48  # of a name in it


class SeriesFacts(Struct, frozen=True):
    """One series: what it is called, its figures by row (NaN is no value), and how they are written."""

    name: str
    figures: tuple[float, ...]
    how: NumberText

    @property
    def held(self) -> list[tuple[float, int]]:
        """Its figures with their rows."""
        return [(figure, row) for row, figure in enumerate(self.figures) if math.isfinite(figure)]


class ShownFigures(Struct, frozen=True):
    """What a chart shows: a word for it, what of, the names of its rows, its series, and whether rows are times."""

    kind: str
    what: str
    names: tuple[str, ...]
    courses: tuple[SeriesFacts, ...]
    timed: bool
    locale: str
    whole: float = 0.0  # that the figures are parts of, where it is stated

    def name(self, row: int) -> str:
        """A row's name, or its number; a long one is cut."""
        held = self.names[row].strip() if row < len(self.names) else ""
        held = held or words_in(self.locale, "row {row}", row=row + 1)
        return held if len(held) <= MAX_NAME_CHARACTERS else held[: MAX_NAME_CHARACTERS - 1].rstrip() + "…"

    def said(self, figure: float, how: NumberText) -> str:
        """A figure as the chart's column writes it."""
        return written(figure, how, self.locale)

    def drawn(self, text: str, /, **fields: object) -> str:
        """Words in the document's language."""
        return words_in(self.locale, text, **fields)


class ChartFacts(Struct, frozen=True):
    """How a recipe's chart is told: the roles whose columns are its series, the sentences of its message, and a title
    without figures. Where a function is None, what goes for any chart. `kind` is a word for it where that is not the
    recipe's title."""

    roles: tuple[str, ...] = ("value",)
    message: Callable[[ShownFigures], list[str]] | None = None
    headline: Callable[[ShownFigures], str] | None = None
    kind: str = ""


def fitting(sentences: Sequence[str], most: int = MAX_CHARACTERS) -> str:
    """As many of the sentences as fit; the first, if need be, cut."""
    made = cut(sentences[0], most) if sentences else ""
    for one in sentences[1:]:
        if len(made) + 1 + len(one) > most:
            break
        made = f"{made} {one}"
    return made


def cut(text: str, most: int) -> str:
    """A text of so many characters at most."""
    return text if len(text) <= most else text[: most - 1].rstrip() + "…"
