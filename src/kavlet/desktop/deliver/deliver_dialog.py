"""The Deliver sheet: what will leave as it will be, beside what to choose; for chart, page and all of them."""

from collections.abc import Callable

import msgspec
from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from kavlet.core.files import mail
from kavlet.core.files.formats import AnimationOptions, ExportOptions
from kavlet.core.messages import Message, counted, named, say, words
from kavlet.core.scene.readers import READERS, TITLES, as_read_by
from kavlet.core.spreadsheet.cell_input import typed_number
from kavlet.core.values.errors import attempt
from kavlet.core.values.geometry import Size
from kavlet.core.values.lengths import size as read_size
from kavlet.core.values.sizes import CHARTS, MM
from kavlet.desktop.deliver.differences_list import differences
from kavlet.desktop.deliver.last_delivery import DeliveryChoice, To, What, offered, outgoing
from kavlet.desktop.deliver.preview import Preview
from kavlet.desktop.deliver.ways_field import LABELS, WaysField
from kavlet.desktop.dress.fields import ChoiceField, PickField, TextField
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT
from kavlet.desktop.worker import Worker
from kavlet.export.outgoing import Export, WrittenFile
from kavlet.export.ways import ExportFormat, format_of, written

SIDE = 372  # pixels of the column of choices

MAX_SECONDS = 20.0
WHATS: dict[What, Message] = {
    "chart": say("This chart"), "charts": say("All charts"), "page": say("This page"), "pages": say("All pages"),
}  # fmt: skip
PER_INCH = (72, 96, 144, 150, 192, 300, 600)
OWN = "own"
MAIL_TO = (("file", say("A file")), ("program", say("Mail program")), ("outbox", say("Outbox")))
PAGE_TO = (("file", say("A file")), ("showcase", say("Showcase")))
DONE: dict[To, Message] = {
    "file": say("Save…"), "program": say("Open"), "outbox": say("Send"), "showcase": say("Publish"),
}  # fmt: skip
AS = (("chart", say("Real charts")), ("picture", say("Pictures")), ("both", say("Both")))


class DeliverDialog(QDialog):
    """Chooses what leaves and how; says what the file will be and what it can't hold; hands a choice on when it is
    accepted. What is to be copied or printed is told at once."""

    wished = Signal(object)
    copied = Signal(object)
    printed = Signal(object)

    def __init__(self, store: Store, choice: DeliveryChoice, worker: Worker, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(words("Deliver"))
        self._store, self._worker = store, worker
        possible = offered(store)
        if choice.what not in possible and possible:
            choice = msgspec.structs.replace(choice, what=possible[0])
        self.choice = choice
        self._leaving: Export | None = None
        self.preview = Preview()
        self.preview.turned.connect(lambda _: self._show())
        self.what = ChoiceField(words("What"), [(one, str(WHATS[one])) for one in possible])
        self.what.chosen.connect(self._choose_what)
        self.what.setVisible(len(possible) > 1)
        self.format = WaysField()
        self.format.chosen.connect(lambda ending: self._wish(ending=ending))
        self._fields()
        self.says = QLabel()
        self.says.setObjectName("quiet")
        self.says.setWordWrap(True)
        self.differs = QLabel()
        self.differs.setWordWrap(True)
        self.differs.setAccessibleName(words("What looks different there"))
        self.differs.setTextFormat(Qt.TextFormat.RichText)
        self.differs.linkActivated.connect(self._turn_chart)
        self._lay_out()
        self._asks = QTimer(self)
        self._asks.setSingleShot(True)
        self._asks.setInterval(120)
        self._asks.timeout.connect(self._ask)
        self._refresh()

    # What there is to choose

    def _fields(self) -> None:
        self.as_ = ChoiceField(words("As"), AS)
        self.as_.chosen.connect(lambda as_: self._wish(as_=as_))
        names = [(OWN, words("its own")), *((name, str(named(name))) for name in CHARTS)]
        self.size_name = PickField(words("Size"), names)
        self.size_name.chosen.connect(self._choose_size)
        self.size_text = TextField(words("Size as width × height"), "160mm x 90mm")
        self.size_text.setToolTip(words("Width × height in mm, cm, in, px or pt, such as 160mm x 90mm"))
        self.size_text.committed.connect(self._type_size)
        self.resolution = PickField(
            words("Resolution"), [(str(one), words("{count} pixels per inch", count=one)) for one in PER_INCH]
        )
        self.resolution.chosen.connect(lambda text: self._wish(scale=float(text) / 72))
        self.ground = QCheckBox(words("Without a ground"))
        self.ground.setToolTip(words("What lies behind shines through"))
        self.ground.clicked.connect(lambda on: self._wish(ground=not on))
        self.outlines = QCheckBox(words("Texts as outlines"))
        self.outlines.setToolTip(words("For programs that don’t read the embedded face"))
        self.outlines.clicked.connect(lambda on: self._wish(outlines=on))
        self.reader = PickField(words("As seen by"), [(one, named(TITLES[one])) for one in READERS])
        self.reader.setToolTip(words("Pictures are written so too, for a check"))
        self.reader.chosen.connect(lambda one: self._wish(reader=one))
        self.raw = QCheckBox(words("Texts as they are"))
        self.raw.setToolTip(words("Else an apostrophe keeps other programs from taking a text for a formula"))
        self.raw.clicked.connect(lambda on: self._wish(raw=on))
        self.hold = self._seconds(words("Seconds each step stays"), 0.1, lambda value: self._move(hold=value))
        self.way_on = self._seconds(words("Seconds from step to step"), 0.0, lambda value: self._move(move=value))
        self.easing = ChoiceField(
            words("Way from step to step"), [("soft", words("Softly")), ("even", words("Evenly"))]
        )
        self.easing.chosen.connect(lambda one: self._move(soft=one == "soft"))
        self.again = QCheckBox(words("Begin again at the end"))
        self.again.clicked.connect(lambda on: self._move(again=on))
        self.mail_to = ChoiceField(words("Where to"), MAIL_TO)
        self.page_to = ChoiceField(words("Where to"), PAGE_TO)
        for field in (self.mail_to, self.page_to):
            field.chosen.connect(self._choose_to)
        self.to = TextField(words("To"), words("name@example.org"))
        self.to.setToolTip(words("Addressees, apart by commas; they can be filled in later"))
        self.to.committed.connect(self._type_addressees)
        self.subject = TextField(words("Subject"))
        self.subject.committed.connect(lambda text: self._wish(subject=text))

    def _seconds(self, name: str, least: float, do: Callable[[float], object]) -> TextField:
        made = TextField(name)
        made.setToolTip(name)

        def take(text: str) -> None:
            value = typed_number(text.strip().removesuffix("s").strip())
            if value is None or not least <= value <= MAX_SECONDS:
                made.refuse(words("Between {least} and {most} seconds.", least=least, most=MAX_SECONDS))
                return
            do(float(value))

        made.committed.connect(take)
        return made

    def _buttons(self) -> QDialogButtonBox:
        """What is done with the choice; what is done at once stands below the preview."""
        self.copy, self.print_it = QPushButton(words("Copy as picture")), QPushButton(words("Print…"))
        self.copy.clicked.connect(lambda _checked=False: self.copied.emit(self.leaving.alone(self.preview.place)))
        self.print_it.clicked.connect(lambda _checked=False: self.printed.emit(self.leaving))
        made = QDialogButtonBox()
        self.save = QPushButton(words("Save…"))
        self.save.setObjectName("main")
        self.save.setDefault(True)
        made.addButton(self.save, QDialogButtonBox.ButtonRole.AcceptRole)
        made.addButton(words("Cancel"), QDialogButtonBox.ButtonRole.RejectRole)
        made.accepted.connect(self.accept)
        made.rejected.connect(self.reject)
        self.accepted.connect(lambda: self.wished.emit(self.choice))
        return made

    def _rows(self) -> QFormLayout:
        """All fields with their words; those that mean nothing for a way are hidden."""
        made = QFormLayout()
        made.setContentsMargins(0, 0, 0, 0)
        made.setSpacing(UNIT)
        made.setFieldGrowthPolicy(QFormLayout.FieldGrowthPolicy.ExpandingFieldsGrow)
        rows: tuple[tuple[str | Message, QWidget], ...] = (
            (say("As"), self.as_), (say("Size"), self.size_name), ("", self.size_text),
            (say("Resolution"), self.resolution), ("", self.ground), ("", self.outlines), ("", self.raw),
            (say("As seen by"), self.reader),
            (say("Each step stays"), self.hold), (say("From step to step"), self.way_on),
            ("", self.easing), ("", self.again), (say("To"), self.to), (say("Subject"), self.subject),
            (say("Where to"), self.mail_to), (say("Where to"), self.page_to),
        )  # fmt: skip
        for text, field in rows:
            label = QLabel(str(text))
            label.setObjectName("quiet")
            label.setFixedWidth(LABELS)
            label.setWordWrap(True)
            made.addRow(label, field)
        return made

    def _lay_out(self) -> None:
        buttons = self._buttons()
        self._form = self._rows()
        inner = QWidget()
        choices = QVBoxLayout(inner)
        choices.setContentsMargins(0, 0, 2 * UNIT, 0)
        choices.setSpacing(3 * UNIT)
        choices.addWidget(self.format)
        choices.addLayout(self._form)
        choices.addWidget(self.differs)
        choices.addStretch(1)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setFrameShape(QScrollArea.Shape.NoFrame)
        area.setWidget(inner)
        side = QVBoxLayout()
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(3 * UNIT)
        side.addWidget(self.what)
        side.addWidget(area, 1)
        side.addWidget(self.says)
        side.addWidget(buttons)
        column = QWidget()
        column.setLayout(side)
        column.setFixedWidth(SIDE)
        left = QVBoxLayout()
        left.setSpacing(2 * UNIT)
        left.addWidget(self.preview, 1)
        row = QHBoxLayout()
        row.addWidget(self.copy)
        row.addWidget(self.print_it)
        row.addStretch(1)
        left.addLayout(row)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(5 * UNIT, 5 * UNIT, 5 * UNIT, 5 * UNIT)
        layout.setSpacing(5 * UNIT)
        layout.addLayout(left, 1)
        layout.addWidget(column)
        self.resize(1000, 660)

    # Choosing

    @property
    def wish(self) -> ExportOptions:
        """How it is to leave."""
        return self.choice.wish

    @property
    def way(self) -> ExportFormat:
        """The way that is chosen."""
        return format_of(self.wish.ending)

    def _choose_what(self, what: str) -> None:
        self.choice = msgspec.structs.replace(self.choice, what=what, one="", out="")
        self._leaving = None
        self._refresh()

    def _choose_to(self, to: str) -> None:
        self.choice = msgspec.structs.replace(self.choice, to=to)
        self._show_fields(self.wish)

    def choose(self, ending: str) -> None:
        """Choose a format."""
        self._wish(ending=ending)

    def _wish(self, **changes: object) -> None:
        size_before = (self.wish.width, self.wish.height)
        self.choice = msgspec.structs.replace(self.choice, wish=msgspec.structs.replace(self.wish, **changes))
        if (self.wish.width, self.wish.height) != size_before:
            self._leaving = None
        self._refresh()

    def _move(self, **changes: object) -> None:
        self._wish(motion=msgspec.structs.replace(self.wish.motion, **changes))

    def _choose_size(self, name: str) -> None:
        if name == OWN:
            self._wish(width=None, height=None)
        elif name in CHARTS:
            self._wish(width=CHARTS[name].width, height=CHARTS[name].height)

    def _type_size(self, text: str) -> None:
        if not text.strip():
            self._wish(width=None, height=None)
            return
        attempt(lambda: self._wish_size(read_size(text)), self.size_text.refuse)

    def _wish_size(self, size: Size) -> None:
        self._wish(width=size.width, height=size.height)

    def _type_addressees(self, text: str) -> None:
        attempt(lambda: self._wish(to=mail.addresses(text)), self.to.refuse)

    # Showing

    @property
    def leaving(self) -> Export:
        """What leaves, composed once for all ways."""
        if self._leaving is None:
            made = outgoing(self.choice, self._store)
            self._leaving = msgspec.structs.replace(made, width=self.wish.width, height=self.wish.height)
        return self._leaving

    def _possible(self) -> dict[str, str]:
        """Why each way can't be gone; empty where it can."""
        pages, steps = self.choice.what in ("page", "pages"), bool(self.leaving.periods(0))
        found = {}
        for ending in self.format.buttons:
            format_ = format_of(ending)
            if pages and not format_.for_pages:
                found[ending] = words("Charts leave so, pages don’t")
            elif format_.steps and not steps:
                found[ending] = words("Only what goes through periods moves")
            elif format_.steps and len(self.leaving.names) > 1:
                found[ending] = words("One at a time: choose a chart or page")
        return found

    def _refresh(self) -> None:
        possible = self._possible()
        if possible.get(self.wish.ending):
            self.choice = msgspec.structs.replace(self.choice, wish=msgspec.structs.replace(self.wish, ending=".pdf"))
        format_, options = self.way, self.wish
        charts = self.choice.what in ("chart", "charts")
        office, moving, by_mail = format_.group == "office", format_.group == "animation", format_.group == "mail"
        for field, shown in (
            (self.as_, office), (self.size_name, charts and format_.sized), (self.size_text, charts and format_.sized),
            (self.resolution, format_.raster), (self.ground, format_.ground and options.as_ is not None),
            (self.outlines, format_.ending == ".svg"), (self.reader, format_.group not in ("data", "mail")),
            (self.raw, format_.ending == ".csv"),
            (self.hold, moving), (self.way_on, moving), (self.easing, moving),
            (self.again, moving), (self.to, by_mail), (self.subject, by_mail),
            (self.mail_to, by_mail), (self.page_to, format_.group == "web"),
        ):  # fmt: skip
            self._form.setRowVisible(field, shown)
        self.what.show_choice(self.choice.what)
        self.format.show_ways(possible)
        self.format.show_choice(options.ending)
        self._show_fields(options)
        self.preview.show_names(self.leaving.names)
        self._show()
        self.says.setText(words("Looking how large it gets …"))
        self.differs.hide()
        self.save.setEnabled(False)
        self._asks.start()

    def _show_fields(self, options: ExportOptions) -> None:
        motion: AnimationOptions = options.motion
        self.hold.show_text(words("{count} s", count=motion.hold))
        self.way_on.show_text(words("{count} s", count=motion.move))
        self.as_.show_choice(options.as_)
        self.easing.show_choice("soft" if motion.soft else "even")
        self.again.setChecked(motion.again)
        self.ground.setChecked(not options.ground)
        self.outlines.setChecked(options.outlines)
        self.reader.show_choice(options.reader)
        self.raw.setChecked(options.raw)
        self.resolution.show_choice(str(round(options.scale * 72)))
        named = next(
            (name for name, one in CHARTS.items() if (one.width, one.height) == (options.width, options.height)), OWN
        )
        self.size_name.show_choice(named)
        if options.width is not None and options.height is not None:
            self.size_text.show_text(f"{options.width / MM:.4g}mm x {options.height / MM:.4g}mm")
        else:
            self.size_text.show_text("")
        by_way: dict[str, tuple[str, ...]] = {"mail": ("program", "outbox"), "web": ("showcase",)}
        if self.choice.to not in (*by_way.get(self.way.group, ()), "file"):
            self.choice = msgspec.structs.replace(self.choice, to="file")
        self.mail_to.show_choice(self.choice.to)
        self.page_to.show_choice(self.choice.to)
        self.save.setText(str(DONE[self.choice.to]))
        self.to.show_text(", ".join(options.to))
        self.subject.show_text(options.subject)

    def _show(self) -> None:
        attempt(self._show_scene, self.says.setText)

    def done(self, result: int) -> None:
        """Leave; nobody wants to know any more how large the file would be."""
        self._asks.stop()
        self._worker.give_up("size")
        super().done(result)

    def _show_scene(self) -> None:
        """The picture of what is chosen to be seen of it. Raises KavletError where it can't be drawn."""
        seen = self.leaving.alone(self.preview.place) if len(self.leaving.names) > 1 else self.leaving
        scene = as_read_by(seen.scenes[0], self.wish.reader)
        self.preview.sheet.show_scene(scene if self.wish.ground else msgspec.structs.replace(scene, ground=None))

    def _ask(self) -> None:
        """Write the file beside the window, to say how large it is and what it can't hold."""
        options, leaving, place = self.wish, self.leaving, self.preview.place
        separate = not self.way.many and len(leaving.names) > 1
        export = leaving.alone(place) if separate else leaving
        self._worker.ask(
            "size", say("Encoding"), lambda: written(export, options), lambda made: self._say(options, made, separate),
            self.says.setText, self,
        )  # fmt: skip

    def _say(self, options: ExportOptions, made: WrittenFile, separate: bool) -> None:
        """How large the file is, and what is different there."""
        if options != self.wish:
            return
        self.save.setEnabled(True)
        self.made = made
        if self.way.ending == ".csv":
            self.preview.sheet.show_text(made.content.decode())
        if self.way.raster and self.way.group in ("picture", "animation"):
            self.preview.sheet.show_bytes(made.content, self.way.group == "animation")
        self.says.setText(self._size_said(made, separate))
        said = differences(made.told, self.wish.as_of) if self.way.group == "office" else ""
        self.differs.setText(said)
        self.differs.setVisible(bool(said))

    def _turn_chart(self, chart: str) -> None:
        """Let one of several charts leave as a picture, or as a real chart again."""
        held = dict(self.wish.as_of)
        if held.pop(chart, None) is None:
            held[chart] = "picture"
        self._wish(as_of=held)

    def _size_said(self, made: WrittenFile, separate: bool) -> str:
        size = self.leaving.alone(self.preview.place).scenes[0].size
        wide, tall = (round(side / MM) for side in (size.width, size.height))
        length = _bytes(len(made.content))
        parts = []
        if self.way.raster and self.way.group != "mail":
            parts.append(words("{across} × {down} pixels", across=round(size.width * self.wish.scale),
                               down=round(size.height * self.wish.scale)))  # fmt: skip
        elif self.way.group in ("picture", "web"):
            parts.append(words("Sharp at every size"))
        if self.way.group != "data":
            parts.append(words("{wide} × {tall} mm", wide=wide, tall=tall))
        parts.append(length)
        if separate:
            parts.append(str(counted("{count} file like this", "{count} files like this", len(self.leaving.names))))
        return " · ".join(parts)


def _bytes(length: int) -> str:
    """The length of a file in kB or MB."""
    if length < 1_000_000:
        return words("{kilobytes} kB", kilobytes=max(1, round(length / 1000)))
    return words("{megabytes} MB", megabytes=round(length / 1_000_000, 1))
