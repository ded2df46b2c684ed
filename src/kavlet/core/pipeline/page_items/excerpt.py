"""Sets a part of a table: names at the left, figures at the right, rules between rows."""

from msgspec import Struct

from kavlet.core.charts.colouring import parsed
from kavlet.core.messages import words_in
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.scene.path import recorded
from kavlet.core.scene.pens import Pen
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.spreadsheet.table import HEADER, Table
from kavlet.core.text.faces import face, metrics, tabular
from kavlet.core.text.numbers import written
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import shortened
from kavlet.core.values.colour import Colour
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect
from kavlet.core.values.number_text import NumberText

PITCH = 1.85  # from row to row, in sizes of type
PLAIN = NumberText(most_decimals=2)


class ExcerptColumn(Struct, frozen=True):
    """What a column says, row by row, whether it holds figures, and how wide its longest text is."""

    head: str
    texts: tuple[str, ...]
    values: tuple[Value, ...]
    figures: bool
    wide: float


def compose(item: Excerpt, box: Rect, context: PageContext) -> ComposedItem:
    """The rows that find room, from the top; the others are told."""
    try:
        table = context.document.table(item.table)
    except KavletError as error:
        return ComposedItem(refused=str(error))
    style = context.style
    made_of = arranged(item, table, box, context)
    columns, size, pitch, lefts, wides = (
        made_of.columns, made_of.size, made_of.pitch, made_of.lefts, made_of.wides,
    )  # fmt: skip
    if not columns:
        return ComposedItem(refused=words_in(context.document.locale, "There are no columns to show."))
    count, fits = made_of.count, made_of.fits
    rows_shown = range(min(count, fits))
    primitives: list[Primitive] = []
    y = box.y
    if item.header:
        for column, left_edge, wide in zip(columns, lefts, wides, strict=True):
            primitives.append(
                _cell(column.head, column.figures, Rect(left_edge, y, wide, pitch), style.bold, size, style.ink)
            )
        y += pitch
        primitives.append(_rule(box, y, style.ink, style.strokes.axis))
    for row in rows_shown:
        last = item.total and row == count - 1
        if item.rules == "bands" and row % 2:
            primitives.append(Shape(recorded(box_outline, Rect(box.x, y, box.width, pitch)), style.named["track"]))
        if last:
            primitives.append(_rule(box, y, style.ink, style.strokes.axis))
        elif item.rules == "lines" and row:
            primitives.append(_rule(box, y, style.line, style.strokes.hair))
        for column, left_edge, wide in zip(columns, lefts, wides, strict=True):
            key = style.bold if last else style.face
            key = tabular(key) if column.figures else key
            ink = ink_of(item, column, row, context)
            primitives.append(_cell(column.texts[row], column.figures, Rect(left_edge, y, wide, pitch), key, size, ink))
        y += pitch
    return ComposedItem(
        tuple(writing for writing in primitives if not isinstance(writing, Writing) or writing.text),
        count > fits,
        says=table.name,
    )


class ExcerptLayout(Struct, frozen=True):
    """Columns with where each begins and how wide it is, the size of type, the rows' pitch, how many rows there are and
    how many find room."""

    columns: list[ExcerptColumn]
    lefts: list[float]
    wides: list[float]
    size: float
    pitch: float
    count: int
    fits: int


def arranged(item: Excerpt, table: Table, box: Rect, context: PageContext) -> ExcerptLayout:
    """The columns of an excerpt in its box."""
    size = item.size or context.style.small_size + 0.5
    columns = _columns(item, table, context, size)
    pitch = PITCH * size
    count = len(columns[0].texts) if columns else 0
    fits = max(0, int((box.height - (pitch if item.header else 0.0)) / pitch + 1e-6))
    lefts, wides = _places(columns, box, size) if columns else ([], [])
    return ExcerptLayout(columns, lefts, wides, size, pitch, count, fits)


def _columns(item: Excerpt, table: Table, context: PageContext, size: float) -> list[ExcerptColumn]:
    excerpt_columns: list[ExcerptColumn] = []
    values = context.values.of(table.id)
    last = table.rows if item.last is None else min(item.last, table.rows)
    rows = range(max(1, item.first) - 1, last)
    for i, column in enumerate(table.columns):
        if (item.columns and column.id not in item.columns) or (not item.columns and column.helper is not None):
            continue
        cells = tuple(values[i].values[HEADER + row] for row in rows)
        how = column.writes or PLAIN
        locale = context.document.locale
        texts = tuple(written(cell, how, locale) if isinstance(cell, float) else text_of(cell) for cell in cells)
        figures = sum(isinstance(cell, float) for cell in cells) > len(cells) / 2
        head = table.called(i).said_in(locale)
        key = tabular(context.style.face) if figures else context.style.face
        wide = max([width(text, key, size) for text in texts] + [width(head, face(context.style.family, True), size)])
        excerpt_columns.append(ExcerptColumn(head, texts, cells, figures, wide))
    return excerpt_columns


def _places(columns: list[ExcerptColumn], box: Rect, size: float) -> tuple[list[float], list[float]]:
    """Where columns begin and how wide they are: as wide as their texts, what is left shared; the widest
    words shrink first."""
    gap = 1.6 * size
    free = box.width - gap * (len(columns) - 1)
    wides = [column.wide for column in columns]
    more = free - sum(wides)
    if more >= 0:
        wides = [wide + more / len(wides) for wide in wides]
    else:
        words = [i for i, column in enumerate(columns) if not column.figures] or list(range(len(columns)))
        room = free - sum(wide for i, wide in enumerate(wides) if i not in words)
        most = _cap([wides[i] for i in words], room)
        wides = [max(size, min(wide, most)) if i in words else wide for i, wide in enumerate(wides)]
    lefts = [box.x + sum(wides[:i]) + gap * i for i in range(len(wides))]
    return lefts, wides


def _cap(wides: list[float], room: float) -> float:
    """The width that none of some columns may pass, so that they find room together: short ones keep theirs."""
    left = sorted(wides)
    for number, wide in enumerate(left):
        share = room / (len(left) - number)
        if wide > share:
            return share
        room -= wide
    return left[-1] if left else 0.0


def _cell(text: str, right: bool, area: Rect, key: str, size: float, ink: Colour) -> Writing:
    held = shortened(text, key, size, area.width) if text else ""
    long = width(held, key, size)
    base = area.center[1] + metrics(key).cap_height * size / 2
    return Writing(held, area.right - long if right else area.x, base, long, key, size, ink)


def ink_of(item: Excerpt, column: ExcerptColumn, row: int, context: PageContext) -> Colour:
    """A cell's colour: by the rules in the reader's words, where one picks it."""
    value = column.values[row]
    if isinstance(value, ErrorValue):
        return context.style.named["alarm"]
    if item.highlights and column.figures:
        figures = [one if isinstance(one, float) else float("nan") for one in column.values]
        try:
            for rule in parsed(item.highlights):
                if rule.picks(row, figures):
                    return context.style.colour(rule.colour)
        except KavletError:
            return context.style.ink
    return context.style.ink


def _rule(box: Rect, y: float, ink: Colour, thick: float) -> Shape:
    def line(pen: Pen) -> None:
        pen.move_to(box.x, y)
        pen.line_to(box.right, y)

    return Shape(recorded(line), None, ink, thick, cap="flat")
