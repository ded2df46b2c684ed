"""The line that says where a table's figures come from, and when the file there has changed or is gone."""

from pathlib import Path

import msgspec
from PySide6.QtCore import QFileSystemWatcher, QTimer, Signal
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from kavlet.core.document.tables import source_updates
from kavlet.core.document.tables.source_updates import CellDifference
from kavlet.core.files import tables
from kavlet.core.messages import counted, say, words
from kavlet.core.text.numbers import decimal_sign
from kavlet.core.values.errors import KavletError
from kavlet.desktop.elided_label import ElidedLabel
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT

SETTLES_IN = 250  # milliseconds after a file's last change


class SourceBar(QWidget):
    """Watches the file of the table in view. `differing` tells which cells its file holds otherwise."""

    update_wanted = Signal()
    mine_wanted = Signal()
    otherwise_wanted = Signal()
    differing = Signal(list)

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._watched = ""
        self._known: tuple[tuple[str, int, int], str] = (("", 0, 0), "")
        self._watcher = QFileSystemWatcher(self)
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(SETTLES_IN)
        self._settle.timeout.connect(self.look)
        self._watcher.fileChanged.connect(lambda _: self._settle.start())
        self._watcher.directoryChanged.connect(lambda _: self._settle.start())
        self.says = ElidedLabel()
        self.says.setObjectName("quiet")
        self.always = QCheckBox(words("always"))
        self.always.setToolTip(words("Take over each change of the file automatically"))
        self.always.clicked.connect(self._set_always)
        self.follow = QPushButton(words("Follow"))
        self.follow.setToolTip(words("This document comes from elsewhere; the file is read only when you want it"))
        self.follow.clicked.connect(self._agree)
        self.take = QPushButton(words("Update"))
        self.take.clicked.connect(self.update_wanted)
        self.keep = QPushButton(words("Keep mine"))
        self.keep.setToolTip(words("Take over the file’s cells, except those that are edits of yours"))
        self.keep.clicked.connect(self.mine_wanted)
        self.otherwise = QPushButton(words("Read otherwise…"))
        self.otherwise.clicked.connect(self.otherwise_wanted)
        line = QHBoxLayout()
        line.setSpacing(2 * UNIT)
        line.addWidget(self.always)
        line.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(self.says)
        layout.addLayout(line)
        for widget in (self.follow, self.take, self.keep, self.otherwise):
            line.addWidget(widget)
        store.follow(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Follow the table in view; look at its file when that has become another one."""
        source = self._store.table.source
        self.setVisible(source is not None)
        may = source is not None and self._store.followed.may(source.path)
        path = source.path if source is not None and may else ""
        if path != self._watched:
            self._watched = path
            held = [*self._watcher.files(), *self._watcher.directories()]
            if held:
                self._watcher.removePaths(held)
            if path:
                self._watcher.addPaths([one for one in (path, str(Path(path).parent)) if Path(one).exists()])
        self.follow.setVisible(not may)
        if source is not None and may:
            self.always.setChecked(source.always)
            self.look()
        elif source is not None:
            self._ask(source.path)
        else:
            self.differing.emit([])

    def look(self) -> None:
        """Compare the table with its file, and say how they stand."""
        table = self._store.table
        if table.source is None or not self._store.followed.may(table.source.path):
            return
        path = Path(table.source.path)
        if path.exists() and str(path) not in self._watcher.files():
            self._watcher.addPath(str(path))  # some programs save by putting a new file in the old one's place
        try:
            if self._stamp(path) == table.source.seen:
                self._say(words("From {file}", file=path.name), [])
                return
            file_rows = tables.read_source(table.source, decimal_sign(self._store.document.locale)).cells
        except KavletError as error:
            lost_text = words("{file} is not there any more; the figures stay.", file=path.name)
            self._say(str(error) if path.exists() else lost_text, [], alarm=True)
            return
        changes = source_updates.differences(table, file_rows)
        own_count = sum(change.mine for change in changes)
        if table.source.always and len(changes) > own_count:
            self.mine_wanted.emit()
        elif changes:
            sentence = counted(
                "{file} has changed: {count} cell differs",
                "{file} has changed: {count} cells differ",
                len(changes),
                file=path.name,
            )
            if own_count:
                sentence = say(
                    "{differs}, {mine}", differs=sentence,
                    mine=counted("{count} of them an edit of yours", "{count} of them edits of yours", own_count),
                )  # fmt: skip
            self._say(str(sentence), changes)
        else:
            self._say(words("From {file}", file=path.name), [])

    def _ask(self, path: str) -> None:
        """Say which file would be followed; it is not touched."""
        self._say(words("Would follow {file} in {folder}", file=Path(path).name, folder=Path(path).parent), [])
        self.always.hide()
        self.otherwise.hide()

    def _agree(self) -> None:
        source = self._store.table.source
        if source is not None:
            self._store.followed.agree(source.path, self._store.path)
            self.refresh()

    def _stamp(self, path: Path) -> str:
        """The file's stamp, taken again only when its date or size has changed."""
        try:
            state = path.stat()
        except OSError:
            return tables.stamp(path)
        key = (str(path), state.st_mtime_ns, state.st_size)
        if key != self._known[0]:
            self._known = (key, tables.stamp(path))
        return self._known[1]

    def _say(self, text: str, found: list[CellDifference], alarm: bool = False) -> None:
        self.says.setText(text)
        self.says.setObjectName("alarm" if alarm or found else "quiet")
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        self.take.setVisible(bool(found))
        self.keep.setVisible(any(difference.mine for difference in found))
        self.always.setVisible(not alarm)
        self.otherwise.setVisible(not alarm and not found)
        self.differing.emit(found)

    def _set_always(self, always: bool) -> None:
        table = self._store.table
        if table.source is not None:
            source = msgspec.structs.replace(table.source, always=always)
            self._store.edit(say("follow source"), lambda document: source_updates.link(document, table.id, source))
