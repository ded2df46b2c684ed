"""Names that are too long, shortened so that each can still be told from the others.

"Visitors at the north hide" and "Visitors at the south hide" begin alike, so it is their ends that count::

    cut at the end         Visitors at the …        Visitors at the …
    cut where they agree   Visitors … north hide    Visitors … south hide
"""

from collections import defaultdict
from collections.abc import Sequence
from itertools import takewhile

from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import ELLIPSIS, pieces, wrapped

MIN_HEAD = 3  # letters of a beginning that are worth their room


def disambiguated(
    names: Sequence[str], face: str, size: float, most_width: float, most_lines: int = 1
) -> list[tuple[str, ...]]:
    """Each name in at most so many lines of at most `most_width` points: wrapped; shortened at a word where that is not
    enough, in the middle where their beginnings are alike. Names that are alike as a whole stay so.
    """

    def fits(text: str) -> bool:
        lines = wrapped(text, face, size, most_width, most_lines)
        return not any(line.endswith(ELLIPSIS) for line in lines) or (text.endswith(ELLIPSIS) and _whole(text, lines))

    def cut(name: str, keep: int) -> tuple[str, ...]:
        """The name with the part from `keep` on, and as much of its beginning as there is room for."""
        tail = name[keep:]
        heads = ["".join(words) for words in _beginnings(name[:keep])]
        for head in heads:
            text = f"{head.rstrip()} {ELLIPSIS} {tail}" if tail[:1] != " " and name[keep - 1 : keep] == " " else (
                f"{head.rstrip()}{ELLIPSIS}{tail}"
            )  # fmt: skip
            if fits(text):
                return wrapped(text, face, size, most_width, most_lines)
        return wrapped(ELLIPSIS + tail, face, size, most_width, most_lines)

    plain = [wrapped(name, face, size, most_width, most_lines) for name in names]
    lines = [_at_a_word(name, held, face, size, most_width) for name, held in zip(names, plain, strict=True)]
    for i in {i for group in _alike(names, lines) for i in group}:
        lines[i] = plain[i]  # a few letters more may do
    starts = [0] * len(names)
    for _ in range(4):  # each time, those that still look alike agree in a longer beginning
        groups = _alike(names, lines)
        for group in groups:
            differs = _common({names[i] for i in group}, max(starts[i] for i in group))
            for i in group:
                starts[i] = differs
                lines[i] = cut(names[i], differs)
        if not groups:
            return lines
    for i in {i for group in _alike(names, lines) for i in group}:
        lines[i] = plain[i]  # there is no room to tell them apart
    return lines


def _alike(names: Sequence[str], lines: Sequence[tuple[str, ...]]) -> list[list[int]]:
    """Names that differ, but look the same."""
    groups: dict[tuple[str, ...], list[int]] = defaultdict(list)
    for i, held in enumerate(lines):
        groups[held].append(i)
    return [group for group in groups.values() if len({names[i] for i in group}) > 1]


def _whole(text: str, lines: tuple[str, ...]) -> bool:
    return "".join(text.split()) == "".join("".join(lines).split())


def _at_a_word(name: str, lines: tuple[str, ...], face: str, size: float, most_width: float) -> tuple[str, ...]:
    """A wrapped name, whose last line is cut after a whole word if more than half of the line is left."""
    if not lines or not lines[-1].endswith(ELLIPSIS) or name.endswith(ELLIPSIS):
        return lines
    last = lines[-1].removesuffix(ELLIPSIS)
    words = pieces(last)
    kept = "".join(words[:-1]).rstrip(" ,;:–-")
    if len(words) > 1 and width(kept, face, size) > 0.5 * most_width:
        return (*lines[:-1], kept + ELLIPSIS)
    return lines


def _beginnings(text: str) -> list[list[str]]:
    """A text's beginnings by whole words, the longest first; those of a single word by letters too."""
    words = list(pieces(text))
    whole = [words[:count] for count in range(len(words), 0, -1)]
    letters = words[0] if len(words) == 1 else ""
    return [*whole, *([letters[:count]] for count in range(len(letters) - 1, MIN_HEAD - 1, -1))]


def _common(names: set[str], after: int) -> int:
    """Where names that begin alike first differ, at the beginning of a word if one begins soon before."""
    held = sorted(names)
    first, last = held[0], held[-1]
    same = sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(first, last, strict=False)))
    word = first.rfind(" ", 0, same) + 1
    return word if word > after else max(after, same)
