"""What is done with the items of a page: copied, grouped, ordered, aligned, put anew."""

from collections.abc import Callable, Iterable, Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QObject, QPoint, QPointF
from PySide6.QtWidgets import QFileDialog, QMenu, QWidget

from kavlet.core.document.charts import period_steps
from kavlet.core.document.document import Document, with_picture
from kavlet.core.document.pages import page_edits
from kavlet.core.messages import Message, say, words
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.key_figure import KeyFigure
from kavlet.core.pages.items.placed_picture import PlacedPicture
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.items.words import Words, plain
from kavlet.core.pages.page import AnyItem
from kavlet.core.values.errors import KavletError
from kavlet.core.values.geometry import Rect
from kavlet.desktop.command import Command
from kavlet.desktop.store import Store

Boxes = Sequence[Rect]
ALIGNED: "tuple[tuple[Align, Message], ...]" = (
    ("left", say("Align left sides")), ("centre", say("Align middles across")), ("right", say("Align right sides")),
    ("top", say("Align upper sides")), ("middle", say("Align middles down")), ("bottom", say("Align lower sides")),
)  # fmt: skip
ORDERED = (
    ("front", say("To the front"), "Ctrl+Shift+]"), ("forward", say("Forward"), "Ctrl+]"),
    ("backward", say("Backward"), "Ctrl+["), ("back", say("To the back"), "Ctrl+Shift+["),
)  # fmt: skip

if TYPE_CHECKING:
    from kavlet.core.pages.placing import Align
    from kavlet.desktop.on_demand import OnDemand
    from kavlet.desktop.pages.panel import PagesPanel


class ItemCommands(QObject):
    """Each method carries out one command on the page in view; what the core refuses is said in one sentence."""

    def __init__(self, parent: QWidget, store: Store, pages: "OnDemand[PagesPanel]", is_shown: Callable[[], bool],
                 drawing_wanted: Callable[[], object]) -> None:  # fmt: skip
        from kavlet.desktop.dress.symbol_shelf import SymbolShelf

        super().__init__(parent)
        self._store, self._pages, self._shown = store, pages, is_shown
        self.shelf = SymbolShelf(store, parent)
        self.shelf.chosen.connect(self._take_symbol)
        self.shelf.add_wanted.connect(self._ask_picture)
        self.shelf.draw_wanted.connect(drawing_wanted)
        self._symbol_for: Callable[[str], object] = self._put_picture
        here, has_chosen, several, three = self._here, self._some, self._several, self._three
        page = ("page",)
        self.commands = (
            Command("cut_items", "Item", "Cut items", self.cut, "Ctrl+X", has_chosen, page, own_keys=True),
            Command("copy_items", "Item", "Copy items", self.copy, "Ctrl+C", has_chosen, page, own_keys=True),
            Command("paste_items", "Item", "Paste items", self.paste, "Ctrl+V", here, page, own_keys=True),
            Command("duplicate_items", "Item", "Duplicate items", self.duplicate, "Ctrl+D", has_chosen, page,
                    own_keys=True),
            Command("delete_items", "Item", "Delete items", self.delete, "Delete", has_chosen, page, own_keys=True),
            Command("choose_all_items", "Item", "Choose all items", self.choose_all, "Ctrl+A", here, own_keys=True),
            Command("group_items", "Item", "Group", lambda: self.group(True), "Ctrl+G", several, page, True,
                    own_keys=True),
            Command("ungroup_items", "Item", "Ungroup", lambda: self.group(False), "Ctrl+Shift+G", has_chosen, page,
                    own_keys=True),
            Command("lock_items", "Item", "Locked", self.lock, "Ctrl+L", has_chosen, page, own_keys=True,
                    is_on=lambda: any(item.locked for item in store.items)),
            *(
                Command(f"order_{to}", "Item", text.text, partial(self.order, to), key, has_chosen, page, to == "front",
                        own_keys=True)
                for to, text, key in ORDERED
            ),
            *(
                Command(f"align_{how}", "Item", text.text, partial(self.align, how), needs=has_chosen, also=page,
                        line_before=how == "left")
                for how, text in ALIGNED
            ),
            Command("distribute_across", "Item", "Equal gaps across", lambda: self.distribute(False), needs=three,
                    also=page, line_before=True),
            Command("distribute_down", "Item", "Equal gaps down", lambda: self.distribute(True), needs=three,
                    also=page),
            Command("same_size", "Item", "Same size as the first", self.same_size, needs=several, also=page),
        )  # fmt: skip
        pages.when_made(self._follow)

    def _follow(self, panel: "PagesPanel") -> None:
        store = self._store
        canvas = panel.canvas
        canvas.take_keys(self.commands)
        canvas.dropped.connect(lambda item, what, point: store.guard(lambda: self.drop(item, what, point)))
        canvas.steps_wanted.connect(self.offer_periods)
        panel.put_wanted.connect(lambda kind: store.guard(lambda: self.put(kind)))
        panel.fields.symbol_wanted.connect(self._choose_symbol)

    @property
    def _panel(self) -> "PagesPanel":
        return self._pages()

    # When

    def _here(self, store: Store) -> bool:
        return store.has_page and self._shown()

    def _some(self, store: Store) -> bool:
        return self._here(store) and bool(store.items)

    def _several(self, store: Store) -> bool:
        return self._here(store) and len(store.items) > 1

    def _three(self, store: Store) -> bool:
        return self._here(store) and len(store.items) > 2

    # Clipboard

    def _placed(self) -> tuple[AnyItem, ...]:
        """What is chosen, where it stands."""
        boxes = self._store.page_picture().boxes
        return tuple(page_edits.at_place(item, boxes[item.id]) for item in self._store.items)

    def copy(self) -> None:
        """Copy items with all that they need: charts, tables with their sources, pictures."""
        from kavlet.core.document.copy_between import copied_parts
        from kavlet.desktop.deliver.clipboard import of_items
        from kavlet.desktop.pages import clipboard

        store, items = self._store, self._placed()
        mime = of_items(store.page_picture(), {item.id for item in items})
        clipboard.put(copied_parts(store.document, (), items), mime)

    def cut(self) -> None:
        self.copy()
        self._remove(say("cut items"))

    def paste(self) -> None:
        """Items of this or another document; charts that were copied alone; words that another program copied."""
        from kavlet.core.document.copy_between import pasted_document
        from kavlet.desktop.pages import clipboard

        store, load, text, page = self._store, clipboard.held(), clipboard.text(), self._store.page.id
        if load is None and not text:
            raise KavletError(say("The clipboard holds nothing for a page."), remedy=say("Copy items or words first."))

        def pasted(document: Document) -> tuple[Document, tuple[str, ...]]:
            if load is None:
                document, new = page_edits.put(document, page, Words("", paragraphs=plain(text), width=220, height=80))
                return document, (new,)
            if load.items:
                result = pasted_document(document, load, page)
                return result.document, result.items
            result, made = pasted_document(document, load), []
            document = result.document
            for chart in result.charts:
                document, _, item = page_edits.send_to_page(document, chart, page)
                made.append(item)
            return document, tuple(made)

        self._choose(store.make(say("paste items"), pasted))

    def duplicate(self) -> None:
        items, page = self._placed(), self._store.page.id
        self._choose(
            self._store.make(say("duplicate items"), lambda document: page_edits.pasted(document, page, items))
        )

    def _choose(self, made: Iterable[str] | None) -> None:
        """Choose what was made; nothing where it was refused."""
        if made is not None:
            self._store.choose_items(*made)

    def delete(self) -> None:
        self._remove(say("delete items"))

    def _remove(self, name: Message) -> None:
        gone = self._store.chosen.items
        self._store.choose_items()
        self._store.edit_page(name, lambda document, page: page_edits.delete_items(document, page.id, gone))

    def choose_all(self) -> None:
        self._store.choose_items(*(item.id for item in self._store.page.items))

    # Among each other

    def group(self, together: bool) -> None:
        """Have items chosen together from now on, or each alone."""
        items = self._store.chosen.items
        name = say("group items") if together else say("ungroup items")
        self._store.edit_page(name, lambda document, page: page_edits.grouped(document, page.id, items, together))

    def lock(self) -> None:
        """Keep items where they are, or let them be moved again."""
        items = self._store.chosen.items
        on = not any(item.locked for item in self._store.items)
        self._store.edit_page(
            say("lock items") if on else say("unlock items"),
            lambda document, page: page_edits.change_items(
                document, page.id, lambda item: msgspec.structs.replace(item, locked=on), items
            ),
        )

    def order(self, to: str) -> None:
        """To the front or back, or one step."""
        items = self._store.chosen.items
        self._store.edit_page(
            say("order items"), lambda document, page: page_edits.ordered(document, page.id, items, to)
        )

    def align(self, how: "Align") -> None:
        """Items to one side of all of them; a single one to the page's margins."""
        from kavlet.core.pages.placing import aligned

        page, alone = self._store.page, len(self._store.items) == 1
        self._place(say("align items"), lambda boxes: aligned(boxes, how, page.inner if alone else None))

    def distribute(self, down: bool) -> None:
        """Equal gaps between items."""
        from kavlet.core.pages.placing import distributed

        self._place(say("distribute items"), lambda boxes: distributed(boxes, down))

    def same_size(self) -> None:
        """All as large as the one that was chosen first."""
        from kavlet.core.pages.placing import same_size

        self._place(say("same size"), same_size)

    def _place(self, name: Message, arrange: Callable[[Boxes], Boxes]) -> None:
        boxes = self._store.page_picture().boxes
        order = [item for item in self._store.chosen.items if item in boxes]
        new = dict(zip(order, arrange([boxes[item] for item in order]), strict=True))
        self._store.edit_page(name, lambda document, page: page_edits.placed(document, page.id, new))

    # New ones

    def put(self, kind: str) -> None:
        """An item of a kind, into the next free bay or the middle of the page, ready to be filled in."""
        if kind == "picture":
            self._symbol_for = self._put_picture
            button = self._panel.puts[kind]
            self.shelf.open_at(button.mapToGlobal(QPoint(0, -self.shelf.sizeHint().height())))
            return
        self._put(self._fresh(kind))
        if kind == "words":
            self._panel.canvas.open(self._store.items[0])

    def _fresh(self, kind: str) -> AnyItem:
        """A new item with what is at hand: the table in view, its first figure."""
        store = self._store
        match kind:
            case "words":
                return Words("", paragraphs=plain(words("Words")), width=220, height=72)
            case "key figure":
                return KeyFigure("", value=self._first_figure(), caption=words("What it says"), width=150, height=84)
            case "table":
                return Excerpt("", table=store.there.id, width=280, height=150)
            case "legend":
                return SharedLegend("", width=260, height=24)
            case "steps":
                return StepControl("", width=260, height=40)
            case _:
                return DrawnShape("", width=140, height=90)

    def _first_figure(self) -> str:
        """A formula that names the first cell of the table in view that holds a number."""
        return page_edits.first_figure(self._store.document, self._store.values, self._store.table.id)

    def _put(self, item: AnyItem) -> None:
        store, page = self._store, self._store.page.id
        made = store.make(say("put on page"), lambda document: page_edits.put(document, page, item))
        if made is not None:
            store.choose_items(made)
            self._panel.canvas.setFocus()

    def _put_picture(self, name: str) -> None:
        """A picture or symbol of that name, as wide as a quarter of the page, in its own proportion."""
        from kavlet.core.pipeline.page_items.placed_picture import proportion

        store = self._store
        wide = 0.25 * min(store.page.width, store.page.height)
        ratio = proportion(store.document, name)
        self._put(PlacedPicture("", picture=name, width=wide, height=wide / ratio))

    def _choose_symbol(self, place: QPoint) -> None:
        """Another picture for the one that is chosen."""
        self._symbol_for = lambda name: self._panel.fields.set_path("picture", name)
        self.shelf.open_at(place - QPoint(self.shelf.width() - 60, 0))

    def _ask_picture(self) -> None:
        """A picture from a file, as the one that is wanted."""
        from kavlet.core.files import pictures

        kinds = " ".join(f"*{one}" for one in pictures.KINDS)
        name, _ = QFileDialog.getOpenFileName(
            self._panel, words("Add a picture"), "", words("Pictures ({kinds})", kinds=kinds)
        )
        if name:
            self._store.guard(lambda: self.add_picture(Path(name)))

    def add_picture(self, path: Path) -> None:
        """A picture from a file onto the document's shelf, and to where one was asked for."""
        from kavlet.core.files import pictures

        picture = pictures.load(path).picture
        self._store.edit(say("add picture"), lambda document: with_picture(document, picture))
        self._symbol_for(picture.name)

    def _take_symbol(self, name: str) -> None:
        self._store.guard(lambda: self._symbol_for(name))

    def drop(self, item: str, what: str, point: QPointF) -> None:
        """A colour on an item fills it; a symbol or a picture file becomes one of the page."""
        from kavlet.core.files import pictures
        from kavlet.core.pipeline.page_items.placed_picture import proportion

        store = self._store
        if what.startswith("#"):
            self._fill(item, what)
            return
        name, loaded = what, None
        if Path(what).suffix.lower() in pictures.KINDS:
            loaded = pictures.load(Path(what)).picture
            name = loaded.name
        wide = 0.25 * min(store.page.width, store.page.height)
        page = store.page

        def put(document: Document) -> tuple[Document, str]:
            document = with_picture(document, loaded) if loaded is not None else document
            target = next((item_ for item_ in page.items if item_.id == item), None)
            if isinstance(target, PlacedPicture):
                return page_edits.change_item(document, page.id, target.id, picture=name), target.id
            tall = wide / proportion(document, name)
            box = Rect(point.x() - wide / 2, point.y() - tall / 2, wide, tall)
            return page_edits.put(document, page.id, PlacedPicture("", picture=name), box)

        new_id = store.make(say("put on page"), put)
        if new_id is not None:
            store.choose_items(new_id)

    def _fill(self, item: str, colour: str) -> None:
        """A colour dropped: words and shapes are filled, a key figure is written in it; the page itself is its
        ground."""
        store = self._store
        if not item:
            store.edit_page(say("colour ground"), lambda document, page: page_edits.change_page(document, page.id,
                            ground=colour))  # fmt: skip
            return
        field = {Words: "fill", DrawnShape: "fill", KeyFigure: "colour", PlacedPicture: "colour"}.get(
            type(store.page.item(item))
        )
        if field is None:
            raise KavletError(say("This item has no colour of its own."))
        store.edit_page(
            say("fill by dropping"),
            lambda document, page: page_edits.change_item(document, page.id, item, **{field: colour}),
        )

    # Steps

    def offer_periods(self, item: str) -> None:
        """The periods that a step control goes through, to choose one."""
        store = self._store
        held = store.page.item(item)
        only = held.charts if isinstance(held, StepControl) else ()
        found = period_steps.stepping(store.document, store.values, store.page, only)
        if found is None:
            return
        menu = QMenu(self._panel)
        for number, name in enumerate(found.periods, 1):
            action = menu.addAction(name)
            action.setCheckable(True)
            action.setChecked(number == round(found.at))
            action.triggered.connect(lambda _on=False, number=number: self.step(found.charts, number))
        box = self._panel.canvas.on_screen(store.page_picture().boxes[item])
        menu.popup(self._panel.canvas.mapToGlobal(box.bottomLeft().toPoint()))

    def step(self, charts: tuple[str, ...], to: int) -> None:
        """Charts at another of their periods."""
        store = self._store
        store.edit(
            say("step to another period"),
            lambda document: period_steps.stepped(document, store.values, charts, float(to)),
        )
