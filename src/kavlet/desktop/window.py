"""The window: its places and commands, wired."""

from kavlet.desktop.command_registry import connect, declared
from kavlet.desktop.shell import Shell
from kavlet.desktop.store import Store


class Window(Shell):
    """All of the program's places with one document, each of which knows who carries out what it asks for."""

    def __init__(self, store: Store) -> None:
        super().__init__(store)
        self.take_commands(declared(self))
        connect(self)
        store.setParent(self)  # the last of what ends with the window
        self.restore_places()
        self.refresh()
