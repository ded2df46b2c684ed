"""The fields beside the page: of the items that are chosen, or of the page where nothing is."""

from collections.abc import Iterator
from typing import Any

import msgspec
from PySide6.QtCore import Signal
from PySide6.QtWidgets import QFrame, QLabel, QScrollArea, QVBoxLayout, QWidget

from kavlet.core.charts.fields import Field
from kavlet.core.document.document import Document
from kavlet.core.document.pages import item_fields, page_edits
from kavlet.core.document.tables import input_parsing
from kavlet.core.messages import named, say, words
from kavlet.core.pages import fields
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.page import SIZES, AnyItem, Page, named_size
from kavlet.core.styling.colours import is_colour
from kavlet.core.styling.theme import themes
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sizes import MM
from kavlet.desktop.debounce import Debounce
from kavlet.desktop.dress.fields import PickField, give_up_in
from kavlet.desktop.dress.look_fields import quiet
from kavlet.desktop.dress.row_stock import RowStock
from kavlet.desktop.dress.rows import DressRow
from kavlet.desktop.incremental import IncrementalTask
from kavlet.desktop.pages.rulers import in_points
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.tab_order import fields_of, in_tab_order

FORMULAS = ("value", "against")
SIZED = ("width", "height")


class ItemFields(QFrame):
    """Each change is one undoable edit of all items of the first one's kind that are chosen."""

    symbol_wanted = Signal(object)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._shape: object = None
        self._of = ("", "")
        self._rows: dict[str, DressRow] = {}
        self._stock = RowStock(self._wire)
        self.setObjectName("panel")
        self.head = QLabel()
        self.head.setObjectName("head")
        self.size_field = PickField(
            words("Size by name"), [("", words("own size")), *((one, str(named(one))) for one in SIZES)]
        )
        self.size_field.chosen.connect(self._take_size)
        choices = [("", words("as the charts")), *((one.name, words(one.title)) for one in themes().values())]
        self.theme = PickField(words("Theme of the page"), choices)
        self.theme.chosen.connect(
            lambda name: store.edit_page(
                say("choose theme"), lambda document, page: page_edits.change_page(document, page.id, theme=name)
            )
        )
        self._of_page = QWidget()
        page = QVBoxLayout(self._of_page)
        page.setContentsMargins(0, 0, 0, 0)
        page.setSpacing(UNIT)
        for name, field in ((words("Size"), self.size_field), (words("Theme"), self.theme)):
            page.addWidget(quiet(name, field))
            page.addWidget(field)
        inner = QWidget()
        self._of_page.setParent(inner)
        self._of_page.hide()
        self._form = QVBoxLayout(inner)
        self._form.setContentsMargins(0, 0, 2 * UNIT, 0)
        self._form.setSpacing(UNIT)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setWidget(inner)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(3 * UNIT, 3 * UNIT, UNIT, 3 * UNIT)
        layout.setSpacing(2 * UNIT)
        self.note = QLabel()
        self.note.setObjectName("alarm")
        self.note.setWordWrap(True)
        layout.addWidget(self.head)
        layout.addWidget(self.note)
        layout.addWidget(self._scroll, 1)
        self._bits = IncrementalTask(self._built, inner)
        self._rest = Debounce(store, self.refresh, self)
        store.follow(self._rest.wait)
        store.selected.connect(self._rest.wait)
        self._rest.wait()

    @property
    def rows(self) -> dict[str, DressRow]:
        """The fields of what is chosen, by their paths."""
        self._rest.now()
        self._bits.finish()
        return self._rows

    @property
    def _held(self) -> AnyItem | Page:
        """What the fields are of: the first item that is chosen, else the page."""
        return self._store.items[0] if self._store.items else self._store.page

    def refresh(self) -> None:
        """Show what the document holds; build the fields anew only when another kind of thing is chosen."""
        held, store = self._held, self._store
        if self._of != (store.page.id, held.id):
            self._of = store.page.id, held.id
            give_up_in(self)
        offers: tuple[Field, ...] = ()
        if store.has_page:
            offers = fields.of_page(held) if isinstance(held, Page) else item_fields.of_item(store.document, held)
        shape = (type(held), offers)
        if shape != self._shape:
            self._shape = shape
            self._build(offers)  # which ends with a refresh
            return
        if not store.has_page:
            self.head.setText(words("Page"))
            return
        self._of_page.setVisible(isinstance(held, Page))
        if isinstance(held, Page):
            self.head.setText(words("Page: {name}", name=held.name))
            self.theme.show_choice(held.theme)
            self.size_field.show_choice(_size_name(held))
        else:
            more = len(store.items) - 1
            text = item_fields.headed(store.document, held)
            self.head.setText(text + (f"  + {more}" if more else ""))
        self._show_note(held)
        boxes = store.page_picture().boxes
        for path, row in self._rows.items():
            value = fields.value(held, row.offer)
            if not isinstance(held, Page) and path in ("x", "y", *SIZED) and held.id in boxes:
                value = getattr(boxes[held.id], path)
            if isinstance(held, Excerpt) and path == "columns":
                value = item_fields.columns_shown(store.document, held)
            row.show_value(_rounded(row.offer, value), False, store.document.locale)

    def _show_note(self, held: AnyItem | Page) -> None:
        """What of the item does not fit, or fails."""
        composed_item = None if isinstance(held, Page) else self._store.page_picture().made.get(held.id)
        notes: list[str] = []
        if composed_item is not None:
            if composed_item.refused:
                notes.append(composed_item.refused)
            if composed_item.overflows:
                notes.append(words("Not all of it fits: make it larger, or its type smaller."))
            notes += [words("{formula} gives {error}.", formula=formula, error=error.value)
                      for formula, error in composed_item.failed]  # fmt: skip
        self.note.setText("\n".join(notes))
        self.note.setVisible(bool(notes))

    def _build(self, offers: tuple[Field, ...]) -> None:
        self._stock.clear(self._form, (self._of_page,))
        self._rows = {}
        if offers and isinstance(self._held, Page):
            self._form.addWidget(self._of_page)
            self._of_page.show()
        self._bits.begin(self._laid_out(offers))

    def _laid_out(self, offers: tuple[Field, ...]) -> Iterator[None]:
        """Field after field, so that the window need not wait for all of them."""
        group = ""
        for offer in map(_in_unit, offers):
            if offer.group != group:
                group = offer.group
                head = QLabel(words(group))
                head.setObjectName("head")
                head.setContentsMargins(0, 2 * UNIT if self._form.count() else 0, 0, 0)
                self._form.addWidget(head)
            row = self._rows[offer.path] = self._stock.take(offer)
            self._form.addWidget(row)
            yield
        self._form.addStretch(1)

    def _built(self) -> None:
        """All fields stand."""
        self._stock.let_go()
        self.refresh()
        in_tab_order(fields_of(self._form))

    def _wire(self, row: DressRow) -> None:
        offer = row.offer
        row.set.connect(lambda value: self.set_value(offer, value))
        row.typed.connect(lambda text: self._typed(offer, text))
        row.symbol_wanted.connect(self.symbol_wanted)

    def _typed(self, offer: Field, text: str) -> None:
        self._store.guard(lambda: self.set_value(offer, self._read(offer, text)))

    def _read(self, offer: Field, text: str) -> object:
        """What is typed for a field. Raises KavletError where it can't be that."""
        bare, document = text.strip(), self._store.document
        if offer.kind == "number":
            if not bare and offer.optional:
                return None
            number = input_parsing.number_or_formula(bare, document.locale, offer.unit)
            if isinstance(number, str):
                raise KavletError(say("“{text}” is not a number.", text=bare))
            low, high = offer.span or (-1e12, 1e12)
            if not low <= number <= high:
                raise KavletError(
                    say("{field} goes from {low} to {high} {unit}.", field=say(offer.label), low=low, high=high,
                        unit=offer.unit)
                )  # fmt: skip
            return offer.stored(number)
        if offer.kind == "colour":
            if bare and not is_colour(bare):
                raise KavletError(say("“{text}” is not a colour.", text=bare))
            return bare
        if offer.kind == "rules":
            return input_parsing.rules(bare) if bare else ""
        if offer.path == "columns" and isinstance(self._held, Excerpt):
            return item_fields.columns_typed(document, self._held, bare)
        if offer.path in FORMULAS and bare.startswith("=") and document.tables:
            return input_parsing.words_or_formula(document, self._store.values, document.tables[0].id, bare)
        return text

    def set_value(self, offer: Field, value: Any) -> None:
        """Set a field of all items of a kind that are chosen, or of the page."""
        store, held = self._store, self._held
        if isinstance(held, Page):
            self._set_page(offer, value)
            return
        chosen = [item for item in store.items if type(item) is type(held)]

        def changed(document: Document, page: Page) -> Document:
            boxes = store.page_picture().boxes
            for item in chosen:
                new = fields.changes(item, offer, value)
                if offer.path in ("x", "y", *SIZED):  # who leaves its bay stands where it stood
                    box = boxes[item.id]
                    new = {"x": box.x, "y": box.y, "width": box.width, "height": box.height, "bay": None, **new}
                document = page_edits.change_item(document, page.id, item.id, **new)
            return document

        store.edit_page(say("change {field}", field=offer.called), changed)

    def set_path(self, path: str, value: Any) -> None:
        """Set the field of a path."""
        self.set_value(self._rows[path].offer, value)

    def _set_page(self, offer: Field, value: Any) -> None:
        def changed(document: Document, page: Page) -> Document:
            if offer.path == "arrangement":
                return page_edits.arranged(document, page.id, str(value))
            return page_edits.change_page(document, page.id, **fields.changes(page, offer, value))

        self._store.edit_page(say("change {field}", field=offer.called), changed)

    def _take_size(self, name: str) -> None:
        if not name:
            return
        size = named_size(name)
        self._store.edit_page(
            say("set size"),
            lambda document, page: page_edits.change_page(document, page.id, width=size.width, height=size.height),
        )

    def change_unit(self) -> None:
        """Give lengths in the unit that is chosen now."""
        self._shape = None
        self.refresh()

    def go_to_first(self) -> None:
        """Type into the first field."""
        row = next(iter(self._rows.values()), None)
        if row is not None:
            row.field.setFocus()


def _size_name(page: Page) -> str:
    """The name of a page's size; empty for one of its own."""
    for name in SIZES:
        size = named_size(name)
        if abs(size.width - page.width) < 0.5 and abs(size.height - page.height) < 0.5:
            return name
    return ""


def _in_unit(offer: Field) -> Field:
    """A field whose length is in the unit chosen."""
    if offer.unit != "mm" or not in_points():
        return offer
    span = (offer.span[0] * MM, offer.span[1] * MM) if offer.span else None
    return msgspec.structs.replace(offer, unit="pt", times=1.0, span=span)


def _rounded(offer: Field, value: object) -> object:
    """A length as it is shown: to a hundredth of its unit."""
    if isinstance(value, float | int) and offer.unit in ("mm", "pt"):
        return round(value * offer.times, 2) / offer.times
    return value
