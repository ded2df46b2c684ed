"""Sets words: paragraphs of runs, broken into lines where Unicode lets them break."""

from collections.abc import Iterator

from msgspec import Struct

from kavlet.core.pages.items.words import Align, Paragraph, Run, Words
from kavlet.core.pipeline.page_items.page_context import ComposedItem, PageContext
from kavlet.core.pipeline.page_items.text_fields import filled
from kavlet.core.scene.path import recorded
from kavlet.core.scene.primitives import Primitive, Shape, Writing
from kavlet.core.shapes.box import box as box_outline
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.styling.style import Style
from kavlet.core.text.faces import face, metrics
from kavlet.core.text.shaping import width
from kavlet.core.text.wrapping import pieces, shortened
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect

ABOVE = 0.2  # sizes of type from the box's top to the top of capitals
HANG = 1.4  # sizes of type that lists are set in
TAB = "\t"


class _Look(Struct, frozen=True):
    """How a piece of text is set."""

    face: str
    size: float
    colour: Colour


class _Piece(Struct, frozen=True):
    """Text of one look that does not break, with the spaces after it."""

    text: str
    look: _Look

    @property
    def width(self) -> float:
        """Its advance with its spaces."""
        return width(self.text, self.look.face, self.look.size)


class _Line(Struct):
    """Pieces on one line, their paragraph's alignment, how far they are set in, and the list's mark before them."""

    pieces: list[_Piece]
    align: Align
    indent: float = 0.0
    mark: _Piece | None = None
    first: bool = False

    def size(self, plain: float) -> float:
        """The largest type on it."""
        return max((piece.look.size for piece in self.pieces), default=plain)


def compose(item: Words, box: Rect, context: PageContext) -> ComposedItem:
    """The words of an item in its box; lines that find no room are left out, and told."""
    style = context.style
    made: list[Primitive] = []
    if item.fill or item.edge:
        ground = style.colour(item.fill) if item.fill else None
        edge = style.colour(item.edge) if item.edge else None
        made.append(Shape(recorded(box_outline, box, style.corner), ground, edge, style.strokes.rim if edge else 0.0))
    area = box.inset(item.inset, item.inset, item.inset, item.inset)
    behind = style.colour(item.fill) if item.fill else None
    plain = look_of(item, style, behind)
    breaking = _Breaking(item, area.width, plain, context)
    lines = list(breaking.lines())
    tall = _height(lines, plain.size, item)
    y = area.y + {"top": 0.0, "middle": (area.height - tall) / 2, "bottom": area.height - tall}[item.upright]
    y = max(area.y, y)
    over = False
    for number, line in enumerate(lines):
        size = line.size(plain.size)
        if line.first and number:
            y += item.after * plain.size
        base = y + (ABOVE + metrics(plain.face).cap_height) * size
        if base > area.bottom + 0.12 * size:
            over = True
            break
        made += _set(line, area, base)
        y += item.spacing * size
    says = " ".join("".join(piece.text for piece in line.pieces).strip() for line in lines)
    return ComposedItem(tuple(made), over, tuple(breaking.failed), says=says)


def look_of(item: Words, style: Style, behind: Colour | None = None) -> _Look:
    """The look of an item's words where a run has none of its own."""
    sizes = {"title": 1.5 * style.title_size, "heading": style.title_size, "text": style.text_size,
             "small": style.small_size}  # fmt: skip
    bold = item.style in ("title", "heading")
    quiet = style.quiet if item.style == "small" else style.ink
    ink = style.colour(item.colour) if item.colour else style.on(behind) if behind is not None else quiet
    return _Look(face(item.family or style.family, bold), item.size or sizes[item.style], ink)


class SetRun(Struct, frozen=True):
    """A run of text with its fields filled, and how it is set: the face's key, size in points, colour."""

    text: str
    face: str
    size: float
    colour: Colour


def set_runs(item: Words, context: PageContext) -> list[list[SetRun]]:
    """The runs of each paragraph, for who breaks lines by itself."""
    style = context.style
    plain = look_of(item, style, style.colour(item.fill) if item.fill else None)
    made = []
    for paragraph in item.paragraphs:
        looks = [_look(run, item, plain, style) for run in paragraph.runs]
        made.append([
            SetRun(filled(run.text, context)[0], look.face, look.size, look.colour)
            for run, look in zip(paragraph.runs, looks, strict=True)
        ])  # fmt: skip
    return made


class _Breaking:
    """Breaks an item's paragraphs into lines of a width; keeps the formulas of fields that failed."""

    def __init__(self, item: Words, wide: float, plain: _Look, context: PageContext) -> None:
        self._item, self._wide, self._plain, self._sheet = item, wide, plain, context
        self.failed: list[tuple[str, ErrorValue]] = []

    def lines(self) -> Iterator[_Line]:
        """All lines, from the first."""
        count = 0
        for paragraph in self._item.paragraphs:
            count = count + 1 if paragraph.listing == "numbers" else 0
            yield from self._paragraph(paragraph, count)

    def _paragraph(self, paragraph: Paragraph, count: int) -> Iterator[_Line]:
        looks = [_look(run, self._item, self._plain, self._sheet.style) for run in paragraph.runs]
        texts: list[str] = []
        for run in paragraph.runs:
            text, wrong = filled(run.text, self._sheet)
            texts.append(text)
            self.failed += wrong
        indent = HANG * self._plain.size if paragraph.listing else 0.0
        mark = {"dots": "•", "numbers": f"{count}."}.get(paragraph.listing, "")
        line = _Line([], paragraph.align, indent, _Piece(mark, self._plain) if mark else None, True)
        room, used = max(1.0, self._wide - indent), 0.0
        for together in _unbroken(texts, looks):
            held, long = together, sum(piece.width for piece in together)
            bare = _long(together)
            tabbed = any(piece.text == TAB for piece in (*line.pieces, *together))
            if line.pieces and used + bare > room and not tabbed:
                yield line
                line, used = _Line([], paragraph.align, indent), 0.0
            if bare > room:  # a word longer than a whole line
                look = together[0].look
                held = [_Piece(shortened("".join(one.text for one in together), look.face, look.size, room), look)]
                long = held[0].width
            line.pieces += held
            used += long
        yield line


def _look(run: Run, item: Words, plain: _Look, style: Style) -> _Look:
    bold = run.bold or item.style in ("title", "heading")
    key = face(run.family or item.family or style.family, bold, run.italic)
    return _Look(key, run.size or plain.size, style.colour(run.colour) if run.colour else plain.colour)


def _unbroken(texts: list[str], looks: list[_Look]) -> Iterator[list[_Piece]]:
    """What may not be parted, piece after piece; one may change its look in the middle."""
    ends: list[int] = []
    for text in texts:
        ends.append((ends[-1] if ends else 0) + len(text))
    at = 0
    whole = "".join(texts)
    for part in [piece for stretch in _kept_tabs(whole) for piece in pieces(stretch)]:
        made: list[_Piece] = []
        start, stop = at, at + len(part)
        for end, look in zip(ends, looks, strict=True):
            if start < min(stop, end):
                made.append(_Piece(whole[start : min(stop, end)], look))
                start = min(stop, end)
        at = stop
        if made:
            yield made


def _kept_tabs(text: str) -> list[str]:
    """A text parted before and after its tabs."""
    made: list[str] = []
    for number, part in enumerate(text.split(TAB)):
        made += [TAB] if number else []
        made += [part] if part else []
    return made


def _height(lines: list[_Line], plain: float, item: Words) -> float:
    return sum(
        item.spacing * line.size(plain) + (item.after * plain if line.first and number else 0.0)
        for number, line in enumerate(lines)
    )


def _set(line: _Line, area: Rect, base: float) -> Iterator[Primitive]:
    left = area.x + line.indent
    if line.mark is not None:
        yield _written(line.mark, area.x, base)
    texts = [piece for piece in line.pieces if piece.text != TAB]
    tab = next((i for i, piece in enumerate(line.pieces) if piece.text == TAB), None)
    if tab is not None:
        yield from _row(line.pieces[:tab], left, base)
        after = [piece for piece in line.pieces[tab:] if piece.text != TAB]
        yield from _row(after, area.right - _long(after), base)
        return
    room = area.width - line.indent - _long(texts)
    yield from _row(texts, left + {"start": 0.0, "middle": room / 2, "end": room}[line.align], base)


def _row(texts: list[_Piece], x: float, base: float) -> Iterator[Primitive]:
    """Pieces after each other; those of one look as one text."""
    together: list[_Piece] = []
    for piece in texts:
        if together and together[-1].look == piece.look:
            together[-1] = _Piece(together[-1].text + piece.text, piece.look)
        else:
            together.append(piece)
    for piece in together:
        if piece.text.strip():
            yield _written(piece, x, base)
        x += piece.width


def _long(texts: list[_Piece]) -> float:
    """How long pieces are without the spaces at their end."""
    if not texts:
        return 0.0
    last = texts[-1]
    return sum(piece.width for piece in texts[:-1]) + width(last.text.rstrip(), last.look.face, last.look.size)


def _written(piece: _Piece, x: float, base: float) -> Writing:
    text = piece.text.rstrip()
    look = piece.look
    return Writing(text, x, base, width(text, look.face, look.size), look.face, look.size, look.colour)
