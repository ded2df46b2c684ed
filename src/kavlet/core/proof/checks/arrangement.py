"""Checks of what lies on each other, and of rows without an order."""

import math
import re
from collections.abc import Iterator
from itertools import pairwise

import msgspec

from kavlet.core.document.document import Document, with_page
from kavlet.core.document.pages.page_edits import arranged, change_item, placed
from kavlet.core.layout.figure import Figure, PlacedText
from kavlet.core.layout.kinds import kind_of
from kavlet.core.layout.words.free_space import body_of
from kavlet.core.messages import counted, say
from kavlet.core.pages.arrangements import MULTIPLES
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.page import AnyItem, with_items
from kavlet.core.proof.chart_changes import larger_chart, sorted_rows, tried
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject, PageSubject
from kavlet.core.values.geometry import Rect

# Texts over texts, items of a page over each other or off it, and words that overflow their box.
#
# Source: the layout; boxes that only touch do not overlap.

TEXTS, ITEMS = 0.12, 0.02  # of the smaller box: ascenders may reach into a line's room, seams may touch


def shared(box: Rect, other: Rect) -> float:
    """The area that two boxes share; 0 where they only touch."""
    wide = min(box.right, other.right) - max(box.x, other.x)
    tall = min(box.bottom, other.bottom) - max(box.y, other.y)
    return wide * tall if wide > 0 and tall > 0 else 0.0


def overlaps(box: Rect, other: Rect, share: float) -> bool:
    """Whether two boxes share more than a share of the smaller one."""
    smaller = min(box.width * box.height, other.width * other.height)
    return smaller > 0 and shared(box, other) > share * smaller


def check_overlap(subject: ChartSubject) -> Iterator[Finding]:
    """Texts that lie on each other, or a label moved by hand that lies on another row's mark."""
    moved_labels = _moved(subject)
    texts = [*lying(subject.figure), *_on_marks(subject, moved_labels)]
    if not texts:
        return
    first = next((text_ for text_ in texts if (text_.key, text_.row) in moved_labels), texts[0])
    message = counted(
        "{count} text lies on something else: “{text}”.", "{count} texts lie on something else, such as “{text}”.",
        len(texts), text=first.text.split("\n")[0],
    )  # fmt: skip
    back = {path: None for path in subject.entry.dress.overrides if path.endswith((".dx", ".dy"))}
    put = subject.looks("put back", say("Put texts back to their places"), back)
    picture = tried(subject, put) if back else None
    helps = picture is not None and not lying(picture.figure)
    remedies = (put,) if helps else larger_chart(subject, lambda larger: not lying(larger.figure))
    yield Finding(OVERLAP.name, "warning", float(len(texts)), message, subject.text_place(first), remedies)


def lying(figure: Figure) -> list[PlacedText]:
    """The texts that another one lies on."""
    texts = sorted((text for text in figure.texts if text.text and not text.angle), key=lambda text: text.bounds.y)
    found = []
    for place, one in enumerate(texts):
        for other in texts[place + 1 :]:
            if other.bounds.y >= one.bounds.bottom:
                break
            if overlaps(one.bounds, other.bounds, TEXTS):
                found.append(one)
    return found


def _on_marks(subject: ChartSubject, moved: set[tuple[str, int | None]]) -> list[PlacedText]:
    """The labels moved by hand that lie on a mark of another row."""
    if not moved or subject.figure.faces:
        return []
    bodies = [body for mark in subject.marks if (body := body_of(mark)) is not None]
    return [
        text
        for text in subject.labels
        if (text.key, text.row) in moved
        and any(
            body.under(text.bounds.inset(*(4 * (0.15 * text.size,))))
            for body in bodies
            if (body.row, body.key) != (text.row, text.key)
        )
    ]


def _moved(subject: ChartSubject) -> set[tuple[str, int | None]]:
    """The labels that were moved by hand."""
    return {
        (layer.key, row)
        for layer in subject.chart.layers
        for row, own in layer.rows.items()
        if own.dx or own.dy
    }  # fmt: skip


def check_overlap_on_page(subject: PageSubject) -> Iterator[Finding]:
    """Items over each other, those that reach off the page, and words that overflow."""
    boxes, sheet = subject.picture.boxes, Rect(0.0, 0.0, subject.page.width, subject.page.height)
    for item in subject.page.items:
        box = boxes[item.id]
        if not sheet.holds(box, 1.0) and not isinstance(item, DrawnShape | PlacedPicture):
            message = say("“{name}” reaches off the page.", name=subject.picture.names[item.id])
            yield Finding(OVERLAP.name, "warning", 1.0, message, subject.place(item.id), (_into(subject, item, sheet),))
        if item.id in subject.picture.overflowing:
            message = say("“{name}” does not hold all that it should.", name=subject.picture.names[item.id])
            yield Finding(OVERLAP.name, "warning", 1.0, message, subject.place(item.id), tuple(_taller(subject, item)))
    items = [one for one in subject.page.items if not isinstance(one, DrawnShape | PlacedPicture)]
    for place, one in enumerate(items):
        for other in items[place + 1 :]:
            if overlaps(boxes[one.id], boxes[other.id], ITEMS):
                names = subject.picture.names
                message = say("“{one}” and “{other}” lie on each other.", one=names[one.id], other=names[other.id])
                yield Finding(
                    OVERLAP.name, "warning", 1.0, message, subject.place(other.id), (_arrange(subject, len(items)),)
                )
                return


def _into(subject: PageSubject, item: AnyItem, sheet: Rect) -> Remedy:
    """The item moved onto the page, and made as small as that is."""
    box = subject.picture.boxes[item.id]
    box = Rect(box.x, box.y, min(box.width, sheet.width), min(box.height, sheet.height))
    dx, dy = box.way_into(sheet)
    into = Rect(box.x + dx, box.y + dy, box.width, box.height)
    page = subject.page.id
    return Remedy("move", say("Move it onto the page"), lambda document: placed(document, page, {item.id: into}))


def _taller(subject: PageSubject, item: AnyItem) -> Iterator[Remedy]:
    """A box that is taller, down to the page's lower margin at most."""
    box, page = subject.picture.boxes[item.id], subject.page.id
    room = subject.page.height - box.y
    if room > box.height + 1:
        tall = Rect(box.x, box.y, box.width, min(room, 1.6 * box.height))
        name = say("Make it taller")
        yield Remedy("taller", name, lambda document: placed(document, page, {item.id: tall}))
    size = getattr(item, "size", None)
    if size is not None and size > 8:

        def smaller(document: Document) -> Document:
            return change_item(document, page, item.id, size=max(7.0, 0.75 * size))

        yield Remedy("smaller type", say("Smaller type"), smaller)


def _arrange(subject: PageSubject, count: int) -> Remedy:
    """All that is no mere shape or picture, in a grid of equal bays."""
    page = subject.page.id
    columns = 1 if count < 2 else 2 if count <= 6 else 3
    grid = (-(-count // columns), columns)

    def edit(document: Document) -> Document:
        document = arranged(document, page, "free")
        old = document.page(page)
        new = msgspec.structs.replace(old, arrangement=MULTIPLES, shares={}, grid=grid)
        framed_items = [item for item in new.items if not isinstance(item, DrawnShape | PlacedPicture)]
        framed_items.sort(key=lambda item: (subject.picture.boxes[item.id].y, subject.picture.boxes[item.id].x))
        items = [msgspec.structs.replace(item, bay=rank) for rank, item in enumerate(framed_items) if not item.locked]
        return with_page(document, with_items(new, items))

    return Remedy("arrange", say("Arrange the page"), edit)


OVERLAP = Check(
    "overlap", "Things that lie on each other", "the layout", of_drawing=check_overlap, of_page=check_overlap_on_page
)


# Rows without an order of their own that stand as they came, where sorted they would be compared at a glance.
#
# Source: common practice (more than five rows); W. S. Cleveland, The Elements of Graphing Data (1985), on ordering.

MAX_ROWS = 5
_RANKS = frozenset(
    (
        *("first", "second", "third", "fourth", "fifth", "low", "lower", "medium", "high", "higher", "small", "large"),
        *("never", "seldom", "sometimes", "often", "always", "none", "some", "most", "all", "disagree", "agree"),
        *("erste", "zweite", "dritte", "niedrig", "mittel", "hoch", "klein", "groß", "nie", "selten", "manchmal"),
        *("oft", "immer"),
    )
)


def has_order(names: list[str]) -> bool:
    """Whether names have an order of their own: most hold a number, or are words of a rank."""
    held = [name for name in names if name]
    ranked = sum(
        bool(re.search(r"\d", name)) or bool(_RANKS & set(re.findall(r"\w+", name.casefold()))) for name in held
    )
    return 2 * ranked > len(held)


def check_unsorted(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed; and a single series of bars, symbols or parts in the table's order."""
    yield from subject.notices(
        UNSORTED.name, *(() if subject.inputs.totals else (_sort_table(subject, restates=True),))
    )
    single = [one for one in subject.layers if one.figure_column == subject.inputs.id("value")] or subject.layers
    recipe = subject.picture.recipe
    compared = all(kind_of(one).is_compared for one in subject.layers)
    if recipe is None or recipe.ordered or not compared or len(subject.inputs.ids("value")) != 1:
        return
    names = subject.inputs.names
    data = subject.picture.build.panels[0].data
    if len(subject.picture.build.panels) > 1 or data.timed or has_order(names) or not any(names) or not single:
        return
    if _in_order(subject):
        return
    parts = subject.inputs.rows - (len(subject.inputs.totals) if subject.inputs.counts_totals else 0)
    figures = [float(one) for one in subject.inputs.figures("value")[:parts] if math.isfinite(one)]
    if len(figures) <= MAX_ROWS:
        return
    rising, falling = (
        all(a <= b for a, b in pairwise(figures)), all(a >= b for a, b in pairwise(figures))
    )  # fmt: skip
    if rising or falling:
        return
    message = say("{count} rows stand in no order; sorted, they would be compared at a glance.", count=len(figures))
    yield Finding(UNSORTED.name, "note", float(len(figures)), message, subject.place(), (_sort(subject),))


def _in_order(subject: ChartSubject) -> bool:
    held = subject.picture.recipe.sorted_by if subject.picture.recipe is not None else None
    return held is not None and subject.inputs.settings.get(held[0]) == held[1]


def _sort(subject: ChartSubject) -> Remedy:
    held = subject.picture.recipe.sorted_by if subject.picture.recipe is not None else None
    if held is not None:
        return subject.setting("sort", say("Sort by value"), {held[0]: held[1]})
    return _sort_table(subject)


def _sort_table(subject: ChartSubject, restates: bool = False) -> Remedy:
    chart = subject.entry.id

    def edit(document: Document) -> Document:
        return sorted_rows(document, chart, subject)

    return Remedy("sort", say("Sort the table by value"), edit, restates)


UNSORTED = Check("unsorted", "Rows in no order that sorted would say more", "common practice", of_chart=check_unsorted)
