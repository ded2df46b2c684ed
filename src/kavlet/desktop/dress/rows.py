"""One row of the Dress place: the words, the field, and the dot of what is set by hand."""

from collections.abc import Callable
from typing import Any

import msgspec
from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from kavlet.core.charts.fields import Field
from kavlet.core.document.tables import input_parsing
from kavlet.core.interaction.meanings import meaning
from kavlet.core.messages import say, words
from kavlet.desktop.dress.fields import LABEL_WIDTH, SHORT, ChoiceField, PickField, ProseField, TextField
from kavlet.desktop.dress.fill_field import FillField
from kavlet.desktop.stylesheet import UNIT


class DressRow(QWidget):
    """Shows an offer.

    `set` tells the new value, `typed` what was typed into a field; `back` that it is given back; `symbol_wanted` opens
    the shelf.
    """

    set = Signal(object)
    typed = Signal(str)
    back = Signal()
    symbol_wanted = Signal(object)
    own_colours = Signal(str, bool)
    refused = Signal(str)

    def __init__(self, offer: Field, columns: tuple[tuple[str, str], ...], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.offer, self.columns = offer, columns
        self._says = ""  # what the labels say now, where it says so
        self.field = self._field(list(columns))
        self.dot = QToolButton()
        self.dot.setObjectName("plain")
        self.dot.setText("●")
        self.dot.setToolTip(words("Set by hand. Give back to theme."))
        self.dot.setAccessibleName(words("Give {field} back", field=say(offer.label)))
        self.dot.clicked.connect(self.back)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2)
        head = QHBoxLayout()
        head.setSpacing(UNIT)
        label = QLabel(words(offer.label) + (f" ({offer.unit})" if offer.unit else ""))
        label.setObjectName("quiet")
        label.setBuddy(self.field)
        does = meaning(offer)
        if does is not None and not self.field.toolTip():
            for widget in (label, self.field):
                widget.setToolTip(str(does))
        if offer.kind == "flag":
            head.addWidget(self.field, 1)
        elif offer.kind == "fill":
            self.dot.hide()
        elif offer.kind != "prose":
            label.setFixedWidth(LABEL_WIDTH)
            head.addWidget(label)
            head.addWidget(self.field, 1)
        head.addWidget(self.dot)
        layout.addLayout(head)
        if offer.kind == "fill":
            layout.addWidget(self.field)
        elif offer.kind == "prose":
            layout.addWidget(label)
            layout.addWidget(self.field)

    def _field(self, columns: list[tuple[str, str]]) -> QWidget:
        offer, label = self.offer, words(self.offer.label)
        # Lambdas, since a signal of one type can't be connected to one of another.
        if offer.kind == "flag":
            box = QCheckBox(words(offer.label))
            box.clicked.connect(lambda on: self.set.emit(on))  # noqa: PLW0108
            return box
        if offer.kind == "fill":
            fill = FillField(words(offer.label))
            fill.chosen.connect(lambda value: self.set.emit(value))  # noqa: PLW0108
            fill.given_back.connect(lambda: self.back.emit())  # noqa: PLW0108
            fill.symbol_wanted.connect(lambda place: self.symbol_wanted.emit(place))  # noqa: PLW0108
            fill.typed.connect(lambda text: self.typed.emit(text))  # noqa: PLW0108
            fill.own_colours.connect(lambda name, on: self.own_colours.emit(name, on))  # noqa: PLW0108
            fill.refused.connect(lambda why: self.refused.emit(why))  # noqa: PLW0108
            return fill
        if offer.kind in ("choice", "column", "says"):
            choices = columns if offer.kind == "column" else _choices(offer, columns)
            made: ChoiceField | PickField
            short = sum(len(text) for _, text in choices) <= SHORT and len(choices) < 4
            made = ChoiceField(label, choices) if short else PickField(label, choices)
            made.chosen.connect(lambda value: self.set.emit(value or None))
            if offer.kind == "says" and isinstance(made, PickField):
                made.take_own_texts()
                made.said.connect(self._said_in(made))
            return made
        if offer.kind == "symbol":
            button = QToolButton()
            button.setText("…")
            button.setAccessibleName(label)
            button.clicked.connect(lambda: self.symbol_wanted.emit(button.mapToGlobal(button.rect().bottomLeft())))
            return button
        if offer.kind == "prose":
            prose = ProseField(label)
            prose.committed.connect(self.typed)
            return prose
        hint = words("automatic") if offer.optional or offer.kind == "colour" else ""
        text = TextField(label, words("above 100: #b3372f") if offer.kind == "rules" else hint)
        text.committed.connect(self.typed)
        return text

    def _said_in(self, pick: PickField) -> Callable[[str], None]:
        """Take what a label shall say: a choice by its words, or a text of its own."""

        def take(typed: str) -> None:
            chosen = pick.findText(typed)
            said = str(pick.itemData(chosen)) if chosen >= 0 else typed.replace("\\n", "\n")
            if said.strip() and said != self._says:
                self.set.emit(said)

        return take

    def show_value(self, value: Any, by_hand: bool, locale: str, mixed: bool = False) -> None:
        """Show what the chart holds; `mixed` where the chosen parts differ."""
        field, offer = self.field, self.offer
        self.dot.setVisible(by_hand and offer.kind != "fill")
        if isinstance(field, QCheckBox):
            field.setTristate(mixed)
            field.setChecked(bool(value))
        elif isinstance(field, PickField):
            if field.is_changed():
                return
            field.show_choice("" if value is None else str(value))
            self._says = str(value or "")
            if field.isEditable() and field.lineEdit() is not None and field.findData(str(value)) < 0:
                field.show_text(str(value or "").replace("\n", "\\n"))
        elif isinstance(field, ChoiceField):
            field.show_choice(str(value))
        elif isinstance(field, ProseField):
            field.show_text(str(value))
        elif isinstance(field, TextField):
            if offer.kind == "rules":
                value = input_parsing.shown_rules(str(value or ""))
            field.show_text(words("mixed") if mixed else input_parsing.shown(value, locale, offer.times))
        elif isinstance(field, QToolButton):
            field.setText(str(value) or "…")


def _choices(offer: Field, columns: list[tuple[str, str]]) -> list[tuple[str, str]]:
    """What can be chosen, in the reader's words; a label may say the fields, and any column."""
    if offer.kind != "says":
        return [(str(value), str(text)) for value, text in offer.choices]
    fixed = [
        ("{value}", words("value")), ("{name}", words("name")), ("{share}", words("share")),
        ("{step}", words("step rate")), ("{series}", words("series")), ("{name}\n{value}", words("name and value")),
        ("{name}\n{share}", words("name and share")),
    ]  # fmt: skip
    return [*fixed, *((f"{{{column}}}", words("column: {name}", name=name)) for column, name in columns)]


def as_fill(value: Any) -> Any:
    """A fill from what an override holds."""
    from kavlet.core.styling.fills import Fill

    try:
        return msgspec.convert(value, Fill | None)
    except msgspec.ValidationError:
        return None
