"""The chart's own look: theme, ground, palette, face, how the document writes numbers, and what gives all back."""

from operator import itemgetter

import msgspec
from PySide6.QtWidgets import QCheckBox, QLabel, QPushButton, QVBoxLayout, QWidget

from kavlet.core.document import edits
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.looks.setting_owner import looks_of
from kavlet.core.messages import Message, language, named, say, words
from kavlet.core.pipeline.stages import NO_PICTURE, Picture
from kavlet.core.styling.palettes import palettes
from kavlet.core.styling.style import Dress
from kavlet.core.styling.theme import theme, themes
from kavlet.core.text.faces import Family
from kavlet.core.text.numbers import LOCALES, listed_locale, locale_title
from kavlet.desktop.dress.fields import ChoiceField, PickField
from kavlet.desktop.dress.size_fields import SizeFields
from kavlet.desktop.dress.theme_field import ThemeField
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT

Colours = str | tuple[str, ...]
OWN = "own"
FAMILIES: dict[Family, Message] = {
    "text": named("text"),
    "narrow": named("narrow"),
    "serif": named("serif"),
    "easy": named("easy"),
}


class LookFields(QWidget):
    """Each change is one undoable edit."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.theme = ThemeField(
            self._store, words("Theme"), [(one.name, words(one.title)) for one in themes().values()]
        )
        self.theme.chosen.connect(lambda name: self._dress(say("choose theme"), theme=name))
        self.dark = QCheckBox(words("Dark ground"))
        self.dark.clicked.connect(lambda on: self._dress(say("choose ground"), dark=on))
        self.palette_field = PickField(words("Palette"), [])
        self.palette_field.chosen.connect(self._choose_palette)
        self.for_document = QCheckBox(words("For the whole document"))
        self.for_document.setToolTip(words("All charts without a palette of their own, and new ones, have it too."))
        self.for_document.clicked.connect(self._palette_for_document)
        self.family = ChoiceField(words("Face"), list(FAMILIES.items()))
        self.family.chosen.connect(self._choose_family)
        self.numbers = PickField(
            words("Numbers as in"), sorted(((one, locale_title(one, language())) for one in LOCALES), key=itemgetter(1))
        )
        self.numbers.setToolTip(words("How the whole document writes and reads numbers and dates."))
        self.numbers.chosen.connect(
            lambda name: self._store.edit(say("choose locale"), lambda document: edits.set_locale(document, name))
        )
        self.size_fields = SizeFields(store)
        self.leftover = QLabel()
        self.leftover.setObjectName("quiet")
        self.leftover.setWordWrap(True)
        self.drop_leftover = QPushButton(words("Drop them"))
        self.drop_leftover.clicked.connect(self._drop_leftovers)
        self.give_all = QPushButton(words("Give all looks back to theme"))
        self.give_all.clicked.connect(self.give_all_back)
        self.give_settings = QPushButton(words("Give all settings back to recipe"))
        self.give_settings.clicked.connect(self._give_settings_back)
        form = QVBoxLayout(self)
        form.setContentsMargins(0, 0, 0, 0)
        form.setSpacing(UNIT)
        looks: tuple[tuple[str, QWidget], ...] = (
            (words("Theme"), self.theme),
            ("", self.dark),
            (words("Palette"), self.palette_field),
            ("", self.for_document),
            (words("Face"), self.family),
            (words("Size"), self.size_fields),
            (words("Numbers of the document"), self.numbers),
        )
        for text, widget in looks:
            if text:
                form.addWidget(quiet(text, widget))
            form.addWidget(widget)
        form.addWidget(self.give_all)
        form.addWidget(self.give_settings)
        form.addWidget(self.leftover)
        form.addWidget(self.drop_leftover)

    def refresh(self, picture: Picture) -> None:
        """Show what the chart in view holds."""
        chart, document = self._store.chart, self._store.document
        self.size_fields.refresh()
        self.theme.show_choice(chart.dress.theme)
        self.dark.setChecked(chart.dress.dark)
        self.numbers.show_choice(listed_locale(document.locale))
        self._show_palettes(chart.dress.palette, document)
        self.family.show_choice(chart.dress.family or theme(chart.dress.theme).family)
        self.give_all.setEnabled(bool(looks_of(self._store.document, chart)))
        self.give_settings.setEnabled(bool(chart.settings))
        left = look_edits.leftovers(chart, picture.build.chart) if picture is not NO_PICTURE else []
        self.leftover.setText(words("Set by hand, but this chart has no such part: {looks}", looks=left))
        for widget in (self.leftover, self.drop_leftover):
            widget.setVisible(bool(left))

    def give_all_back(self) -> None:
        self._store.edit_chart(
            say("give all looks back to theme"), lambda document, chart: look_edits.give_all_back(document, chart.id)
        )

    def _give_settings_back(self) -> None:
        self._store.edit_chart(
            say("give all settings back to recipe"),
            lambda document, chart: edits.change_chart(document, chart.id, settings={}),
        )

    def _show_palettes(self, own: Colours | None, document: Document) -> None:
        """All palettes there are to choose from: the house's first, then the shipped ones, and the chart's own."""
        common = document.palette
        first = words("the theme’s") if common is None else words("the document’s: {name}", name=_palette_title(common))
        named_here = [palette.name for palette in document.palettes]
        kinds = [("", first), *((name, name) for name in named_here)]
        kinds += [
            (palette.name, words(palette.title)) for palette in palettes().values() if palette.name not in named_here
        ]
        if isinstance(own, tuple):
            kinds.append((OWN, _palette_title(own)))
        self.palette_field.set_choices(kinds)
        self.palette_field.show_choice(OWN if isinstance(own, tuple) else own or "")
        self.for_document.setEnabled(own is not None or common is not None)
        self.for_document.setChecked(common is not None and own in (None, common))

    def _choose_palette(self, name: str) -> None:
        if name != OWN:
            self._dress(say("choose palette"), palette=name or None)

    def _palette_for_document(self, on: bool) -> None:
        """The chart's palette as that of the document, or the document's taken back, which the chart then keeps."""
        self._store.edit_chart(
            say("choose palette"), lambda document, chart: look_edits.with_common_palette(document, chart.id, on)
        )

    def _drop_leftovers(self) -> None:
        """Drop the values set by hand that lead nowhere."""
        left = look_edits.leftovers(self._store.here, self._store.spec)
        self._store.edit_chart(
            say("drop values without a part"), lambda document, chart: look_edits.give_back(document, chart.id, left)
        )

    def _dress(self, name: Message, **changes: object) -> None:
        def dressed(document: Document, chart: ChartEntry) -> Document:
            dress: Dress = msgspec.structs.replace(chart.dress, **changes)
            return edits.change_chart(document, chart.id, dress=dress)

        self._store.edit_chart(name, dressed)

    def _choose_family(self, family: str) -> None:
        own = theme(self._store.here.dress.theme).family
        self._dress(say("choose face"), family=None if family == own else family)


def _palette_title(palette: Colours) -> str:
    if isinstance(palette, str):
        return words(palettes()[palette].title) if palette in palettes() else palette
    return words("own, {count} colours", count=len(palette))


def quiet(text: str, field: QWidget) -> QLabel:
    """The words over a field."""
    label = QLabel(text)
    label.setObjectName("quiet")
    label.setBuddy(field)
    return label
