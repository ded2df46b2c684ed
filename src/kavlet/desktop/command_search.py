"""All that can be found by its words: commands, recipes, fields of Dress, sizes, charts and tables."""

from collections.abc import Callable, Iterable, Mapping
from functools import partial
from typing import TYPE_CHECKING

from msgspec import Struct
from PySide6.QtGui import QAction, QKeySequence

from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.messages import named, say, words
from kavlet.core.values.sizes import CHARTS
from kavlet.desktop.store import Store
from kavlet.desktop.workspaces import Workspaces

if TYPE_CHECKING:
    from kavlet.desktop.dress.panel import DressPanel


class Findable(Struct, frozen=True):
    """Something to be found: its words, what it is, what it does; `also` are words it is found by and not shown."""

    text: str
    kind: str
    do: Callable[[], object]
    also: str = ""
    keys: str = ""
    enabled: bool = True

    def fits(self, typed: Iterable[str]) -> bool:
        """Whether each typed word begins one of its own."""
        own = f"{self.text} {self.kind} {self.also}".casefold().replace("…", "").replace(",", " ").split()
        return all(any(part.startswith(word) for part in own) for word in typed)


def of_actions(actions: Mapping[str, QAction]) -> list[Findable]:
    """The commands of the menus."""
    return [
        Findable(
            action.text().replace("&", ""), words("command"), action.trigger,
            keys=action.shortcut().toString(QKeySequence.SequenceFormat.NativeText), enabled=action.isEnabled(),
        )
        for action in actions.values()
    ]  # fmt: skip


def of_recipes(store: Store, take: Callable[[str], object]) -> list[Findable]:
    """The recipes, by what people call them; each builds on the table in view."""
    return [
        Findable(
            words(recipe.title),
            words("recipe"),
            partial(take, name),
            f"{recipe.known_as} {words(recipe.known_as)}",
            enabled=store.has_table,
        )
        for name, recipe in recipes_of(store.document).items()
    ]  # fmt: skip


def of_fields(dress: "DressPanel") -> list[Findable]:
    """The settings of the recipe and the fields of what is chosen, each gone to where it stands."""
    settings = [
        Findable(str(named(name)), words("setting"), partial(dress.go_to, field))
        for name, field in dress.settings.items()
        if dress.part is None
    ]
    fields = [
        Findable(words(row.offer.label), words("field"), partial(dress.go_to, row.field), words(row.offer.group))
        for row in dress.rows.values()
    ]
    return [*settings, *fields]


def of_document(store: Store, places: Workspaces, set_size: Callable[[str], object]) -> list[Findable]:
    """The document's charts, tables and pages, and the sizes a chart can have."""
    held = store.document
    charts = [Findable(one.name, words("chart"), partial(places.go_to_chart, one.id)) for one in held.charts]
    tables = [Findable(one.name, words("table"), partial(places.go_to_table, one.id)) for one in held.tables]
    pages = [Findable(one.name, words("page"), partial(places.go_to_page, one.id)) for one in held.pages]
    sizes = [
        Findable(str(named(name)), words("size"), partial(set_size, name), enabled=store.has_chart) for name in CHARTS
    ]
    return [*charts, *tables, *pages, *sizes]


def of_formats(store: Store, deliver: Callable[[str], object]) -> list[Findable]:
    """The formats a chart leaves in; each opens Deliver with it."""
    from kavlet.export.ways import EXPORT_FORMATS

    return [
        Findable(
            words(format_.title), words("format"), partial(deliver, format_.endings[0]),
            " ".join(format_.endings).replace(".", " "), enabled=store.has_chart,
        )
        for format_ in EXPORT_FORMATS
    ]  # fmt: skip


PROMPT = say("Find a command, a recipe, a field, a chart …")
