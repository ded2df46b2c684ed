"""The menus: made of the commands that the places declare."""

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QMenu, QMenuBar, QWidget

from kavlet.core.messages import say, words
from kavlet.desktop import recent_files
from kavlet.desktop.command import Command, Commands
from kavlet.desktop.deliver.button import DeliverButton
from kavlet.desktop.store import Store

if TYPE_CHECKING:
    from kavlet.export.outgoing import Export


Offer = tuple[str, Callable[[], object]]


def history_commands(store: Store) -> tuple[Command, ...]:
    """Undo and redo, of what is being typed first; what they would do stands in their names."""

    def undo() -> None:
        if not store.pending_text.undo():
            store.undo()

    def redo() -> None:
        if not store.pending_text.redo():
            store.redo()

    return (
        Command("undo", "Edit", "Undo", undo, "Ctrl+Z",
                lambda store: store.pending_text.can_undo or bool(store.history.undo_name), of_typing=True),
        Command("redo", "Edit", "Redo", redo, "Ctrl+Shift+Z",
                lambda store: store.pending_text.can_redo or bool(store.history.redo_name), of_typing=True),
    )  # fmt: skip


class Menus:
    """The menu bar and the context menus of a window."""

    def __init__(self, parent: QWidget, store: Store, declared: Iterable[Command]) -> None:
        self._parent, self._store = parent, store
        self.commands = Commands(store, parent, declared)
        store.pending_text.changed.connect(self.refresh_history)

    def fill_bar(self, bar: QMenuBar, open_path: Callable[[Path], None]) -> None:
        """All menus, in the order in which commands name them; files opened before below Open."""
        for name in self.commands.menus:
            menu = bar.addMenu(words(name))
            self.commands.fill(menu, name)
            if name == "File":
                self._recent = QMenu(words("Open recent"), self._parent)
                self._recent.aboutToShow.connect(lambda: self._fill_recent(open_path))
                menu.insertMenu(self.commands.actions["save"], self._recent)

    def deliver_button(self, deliver: Callable[[], object], outgoing: "Callable[[], Export]") -> DeliverButton:
        """The button at the bar's end, for what all work leads to."""
        made = DeliverButton(outgoing)
        made.clicked.connect(lambda _checked=False: deliver())
        return made

    def _fill_recent(self, open_path: Callable[[Path], None]) -> None:
        self._recent.clear()
        files = recent_files.recent()
        for path in files:
            action = self._recent.addAction(path.name)
            action.setToolTip(str(path))
            action.triggered.connect(lambda _checked=False, path=path: open_path(path))
        if not files:
            self._recent.addAction(words("No files yet")).setEnabled(False)

    def popup(self, name: str, place: QPoint, first: Iterable[Offer] = ()) -> None:
        """A context menu at a place of the screen: first what fits what is under the mouse, then its commands."""
        menu = QMenu(self._parent)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for text, do in first:
            menu.addAction(text).triggered.connect(lambda _checked=False, do=do: self._store.guard(do))
        self.commands.fill(menu, name)
        menu.popup(place)

    def refresh(self) -> None:
        """Which commands can be carried out now, and what undo and redo would do."""
        self.commands.refresh()
        self.refresh_history()

    def refresh_history(self) -> None:
        """What undo and redo would do: of what is being typed first."""
        history, pending = self._store.history, self._store.pending_text
        typing = say("typing")
        for name, edit in (
            ("undo", typing if pending.can_undo else history.undo_name),
            ("redo", typing if pending.can_redo else history.redo_name),
        ):
            word = words("Undo") if name == "undo" else words("Redo")
            self.commands.actions[name].setText(f"{word}: {edit}" if edit else word)
            self.commands.actions[name].setEnabled(bool(edit))
