"""A command: where it stands in the menus, its words and keys, when it can be carried out, and what does it."""

from collections.abc import Callable, Iterable

from msgspec import Struct
from PySide6.QtCore import QObject, Qt
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMenu

from kavlet.core.messages import words
from kavlet.desktop.store import Store

Need = Callable[[Store], bool]


def anything(store: Store) -> bool:
    """It can always be carried out."""
    del store
    return True


def a_table(store: Store) -> bool:
    return store.has_table


def a_chart(store: Store) -> bool:
    return store.has_chart


def a_recipe(store: Store) -> bool:
    return store.recipe is not None


def a_named_palette(store: Store) -> bool:
    return any(palette.name == store.chart.dress.palette for palette in store.document.palettes)


def a_copied_dress(store: Store) -> bool:
    return store.has_chart and store.dress_copied is not None


class Command(Struct, frozen=True):
    """One command, declared by the place that carries it out.

    `also` names the context menus it stands in too. With `own_keys`, the widget that has the focus handles its keys
    itself; here they only stand in the menu. `is_on` tells of a choice whether it holds; its entry has a mark then.
    `text` is English; it is shown in the reader's language.
    """

    name: str
    menu: str
    text: str
    do: Callable[[], object]
    shortcut: str = ""
    needs: Need = anything
    also: tuple[str, ...] = ()
    line_before: bool = False
    own_keys: bool = False
    is_on: Callable[[], bool] | None = None
    of_typing: bool = False  # it is about what is being typed; all others take that first


class Commands:
    """All commands of a window with their actions."""

    def __init__(self, store: Store, parent: QObject, declared: Iterable[Command]) -> None:
        self._store = store
        self.all = tuple(declared)
        self.actions = {command.name: self._action(command, parent) for command in self.all}

    def _action(self, command: Command, parent: QObject) -> QAction:
        action = QAction(words(command.text), parent)
        action.triggered.connect(lambda _checked=False: self._carry_out(command))
        action.setCheckable(command.is_on is not None)
        if command.shortcut:
            action.setShortcut(QKeySequence(command.shortcut))
        if command.own_keys:
            action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
        return action

    def _carry_out(self, command: Command) -> None:
        if not command.of_typing:
            self._store.pending_text.take()  # which belongs to what is in view now
        self._store.guard(command.do)
        self.refresh()

    @property
    def menus(self) -> tuple[str, ...]:
        """The names of the menus, in the order in which commands name them."""
        return tuple(dict.fromkeys(command.menu for command in self.all))

    def fill(self, menu: QMenu, name: str) -> None:
        """Put the commands of a menu, or of a context menu, into it."""
        before = ""
        for command in self.all:
            if command.menu != name and name not in command.also:
                continue
            if not menu.isEmpty() and (command.line_before or command.menu != before):
                menu.addSeparator()
            menu.addAction(self.actions[command.name])
            before = command.menu

    def refresh(self) -> None:
        """Which commands can be carried out now, and which choices hold."""
        for command in self.all:
            action = self.actions[command.name]
            action.setEnabled(command.needs(self._store))
            if command.is_on is not None:
                action.setChecked(command.is_on())
