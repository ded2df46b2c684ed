"""The current document and all earlier ones, each named by the edit that came after it."""

from collections.abc import Sequence

from kavlet.core.document.document import Document
from kavlet.core.messages import NOTHING, Message
from kavlet.core.values.patches import Patch, difference, patched

WHOLE_STEPS = 300  # that hold their documents; those before them hold what leads back from the step after


class Step:
    """An edit by its name, and the document it led to. One of long ago is made again when it is asked for: a document
    shares with the next what the edit between them left alone, but each holds the columns that it changed."""

    __slots__ = ("_after", "_back", "_whole", "name")

    def __init__(self, name: Message, document: Document) -> None:
        self.name = name
        self._whole: Document | None = document
        self._after: Step | None = None
        self._back: Patch = None

    @property
    def document(self) -> Document:
        """The document that the edit led to."""
        way: list[Step] = []
        step, document = self, self._whole
        while document is None:
            assert step._after is not None
            way.append(step)
            step = step._after
            document = step._whole
        for one in reversed(way):
            document = patched(document, one._back)
        self._whole = document
        return document

    def fold(self, after: "Step") -> None:
        """Hold what leads back from the step after it instead of the document."""
        if self._whole is not None:
            self._after, self._back = after, difference(after.document, self._whole)
            self._whole = None


class History:
    """Undo is a list of documents. Holds the only reference that is ever replaced."""

    def __init__(self, document: Document) -> None:
        self._steps = [Step(NOTHING, document)]
        self._at = 0
        self._saved: Document | None = document

    @staticmethod
    def of(steps: Sequence[Step], place: int, saved: Document | None) -> "History":
        """A history that was kept elsewhere: its steps, where it stands, and the document that a file holds."""
        made = History(steps[0].document)
        made._steps, made._at, made._saved = list(steps), place, saved
        return made

    @property
    def steps(self) -> tuple[Step, ...]:
        """All steps, those that were undone too."""
        return tuple(self._steps)

    @property
    def place(self) -> int:
        """Where it stands among them."""
        return self._at

    @property
    def held(self) -> Document | None:
        """The document that a file holds."""
        return self._saved

    @property
    def current(self) -> Document:
        """The document as it is now."""
        return self._steps[self._at].document

    def apply(self, name: Message, document: Document) -> bool:
        """Take a new document; nothing is noted when it equals the current one. Returns whether it was taken."""
        if document is self.current or document == self.current:
            return False
        del self._steps[self._at + 1 :]
        self._steps.append(Step(name, document))
        self._at += 1
        old = self._at - WHOLE_STEPS
        if old >= 0:
            self._steps[old].fold(self._steps[old + 1])
        return True

    @property
    def earlier(self) -> Document | None:
        """The document that undo would go back to; None where there is none."""
        return self._steps[self._at - 1].document if self._at else None

    @property
    def later(self) -> Document | None:
        """The document that redo would go on to; None where there is none."""
        return self._steps[self._at + 1].document if self._at + 1 < len(self._steps) else None

    @property
    def undo_name(self) -> str:
        """The edit that undo would take back; empty when there is none."""
        return str(self._steps[self._at].name) if self._at else ""

    @property
    def redo_name(self) -> str:
        """What would be done again; empty where there is nothing."""
        return str(self._steps[self._at + 1].name) if self._at + 1 < len(self._steps) else ""

    def undo(self) -> bool:
        """Go one step back; whether there was one."""
        if not self._at:
            return False
        self._at -= 1
        return True

    def redo(self) -> bool:
        """Go one step forth; whether there was one."""
        if self._at + 1 >= len(self._steps):
            return False
        self._at += 1
        return True

    def saved(self) -> None:
        """Note that the current document is what the file holds."""
        self._saved = self.current

    def unsaved(self) -> None:
        """Note that no file holds any of these documents."""
        self._saved = None

    @property
    def changed(self) -> bool:
        """Whether the current document differs from what the file holds."""
        return self._saved is None or (self._saved is not self.current and self._saved != self.current)
