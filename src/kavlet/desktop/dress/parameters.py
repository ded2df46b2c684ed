"""The recipe's own settings, under its own words: each a number, a cell, a choice, a switch, or a symbol."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QAction, QColor, QIcon, QPainter, QPen
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QMenu, QSlider, QVBoxLayout, QWidget, QWidgetAction

from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.looks.setting_owner import setting_of
from kavlet.core.document.tables import input_parsing
from kavlet.core.messages import named, say, shown_number, symbol_named, upper_first, words
from kavlet.core.pipeline.validation import check_scales
from kavlet.core.recipes.recipe import Parameter, Recipe, Setting
from kavlet.core.shapes.symbol import named_as
from kavlet.core.styling.style import Style, resolve
from kavlet.desktop.drawn_icon import RedrawOnNewLook, drawn_icon
from kavlet.desktop.dress.fields import LABEL_WIDTH, SHORT, ChoiceField, PickField, TextField
from kavlet.desktop.dress.swatches import ColourField
from kavlet.desktop.dress.symbol_shelf import SymbolShelf
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import UNIT, colours, qcolor


class ParameterFields(QWidget):
    """Built from what the recipe declares; each change is one undoable edit, and redraws at once."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._recipe: Recipe | None = None
        self.fields: dict[str, QWidget] = {}
        self.sliders: dict[str, QSlider] = {}
        self.chips: dict[str, QAction] = {}
        self.shelf = SymbolShelf(store, self)
        self._symbol_for = ""
        self.shelf.chosen.connect(lambda name: self._set(self._symbol_for, name))
        self.current_cell: Callable[[], str] = str  # the window says where to ask
        self._form = QVBoxLayout(self)
        self._form.setContentsMargins(0, 0, 0, 0)
        self._form.setSpacing(UNIT)
        RedrawOnNewLook(self, self.refresh)

    def refresh(self) -> None:
        """Show the settings of the chart in view."""
        chart = self._store.chart
        recipe = self._store.recipe
        if recipe is not self._recipe:
            self._recipe = recipe
            self._build()
        if recipe is None:
            return
        for parameter in recipe.parameters:
            value = setting_of(chart, parameter)
            _show(self.fields[parameter.name], _shown(parameter, value, self._store.document.locale))
            if parameter.name in self.chips:
                self.chips[parameter.name].setIcon(_colour_icon(self._hex(str(value))))
            slider = self.sliders.get(parameter.name)
            if slider is not None:
                slider.blockSignals(True)
                slider.setEnabled(isinstance(value, float | int))
                if isinstance(value, float | int):
                    slider.setValue(round(float(value)))
                slider.blockSignals(False)

    def _build(self) -> None:
        while self._form.count():
            item = self._form.takeAt(0)
            widget = item.widget() if item is not None else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.fields, self.sliders, self.chips = {}, {}, {}
        if self._recipe is None:
            return
        head = QLabel(words(self._recipe.title))
        head.setObjectName("head")
        head.setContentsMargins(0, 2 * UNIT, 0, 0)
        self._form.addWidget(head)
        for parameter in self._recipe.parameters:
            field = self._field(parameter)
            field.setToolTip(words(parameter.meaning))
            self.fields[parameter.name] = field
            if parameter.type == "flag":
                self._form.addWidget(field)
                continue
            self._form.addWidget(self._labelled(parameter, field))

    def _labelled(self, parameter: Parameter, field: QWidget) -> QWidget:
        unit = f" ({parameter.unit})" if parameter.unit else ""
        label = QLabel(upper_first(str(named(parameter.name))) + unit)
        label.setObjectName("quiet")
        label.setBuddy(field)
        label.setFixedWidth(LABEL_WIDTH)
        label.setToolTip(words(parameter.meaning))
        line = QWidget()
        layout = QHBoxLayout(line)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(UNIT)
        layout.addWidget(label)
        layout.addWidget(field, 1)
        slider = self._slider(parameter)
        if slider is not None:
            field.setMaximumWidth(86)
            layout.addWidget(slider, 1)
        return line

    def _slider(self, parameter: Parameter) -> QSlider | None:
        """A slider for numbers within a span of percents, degrees and the like."""
        low, high = parameter.minimum, parameter.maximum
        if parameter.type != "number" or low is None or high is None or high - low > 720 or parameter.optional:
            return None
        slider = QSlider(Qt.Orientation.Horizontal)
        slider.setRange(round(low), round(high))
        slider.setAccessibleName(str(named(parameter.name)))
        slider.setToolTip(words(parameter.meaning))
        slider.valueChanged.connect(lambda value, name=parameter.name: self._slide(name, value))
        slider.sliderReleased.connect(lambda name=parameter.name: self._set(name, float(self.sliders[name].value())))
        self.sliders[parameter.name] = slider
        return slider

    def _slide(self, name: str, value: int) -> None:
        """Live while the slider is held; one edit when it is let go."""
        if not self.sliders[name].isSliderDown():
            self._set(name, float(value))
            return
        chart = self._store.here
        self._store.try_out(look_edits.set_setting(self._store.document, chart.id, name, float(value)))

    def _field(self, parameter: Parameter) -> QWidget:
        name, label = parameter.name, str(named(parameter.name))
        if parameter.type == "flag":
            box = QCheckBox(upper_first(label))
            box.clicked.connect(lambda on: self._set(name, on))
            return box
        if parameter.type == "choice":
            choices = [(one, str(named(one))) for one in parameter.choices]
            short = sum(len(text) for _, text in choices) <= SHORT and len(choices) < 4
            made = ChoiceField(label, choices) if short else PickField(label, choices)
            made.chosen.connect(lambda value: self._set(name, value))
            return made
        hints = {"number": words("number, or =B7"), "numbers": "40; 70"}
        automatic = words("automatic") if parameter.optional else words("text, or =B7")
        field = TextField(label, hints.get(parameter.type, automatic) if not parameter.optional else automatic)
        field.committed.connect(lambda text: self._typed(parameter, text))
        if parameter.type == "number":
            action = field.addAction(_cell_icon(), TextField.ActionPosition.TrailingPosition)
            RedrawOnNewLook(field, lambda: action.setIcon(_cell_icon()))
            action.setText(words("Take the current cell for {setting}", setting=label))
            action.setToolTip(words("Take the current cell"))
            action.triggered.connect(lambda: self.take_cell(parameter))
        if parameter.type == "colour":
            field.setPlaceholderText(words("the theme’s"))
            action = field.addAction(_colour_icon(""), TextField.ActionPosition.TrailingPosition)
            action.setText(words("Choose {setting}", setting=label))
            action.triggered.connect(lambda: self._open_colours(name, field))
            self.chips[name] = action
        if parameter.type == "symbol":
            action = field.addAction(self.shelf.windowIcon(), TextField.ActionPosition.TrailingPosition)
            action.setText(words("Choose a symbol"))
            field.setPlaceholderText(words("click to choose"))
            field.pressed.connect(lambda: self._open_shelf(name, field))
        return field

    def take_cell(self, parameter: Parameter) -> None:
        """Bind a parameter to the cell that is current in the grid."""
        reference = self.current_cell()
        if reference:
            self._set(parameter.name, f"={reference}")
        else:
            self._store.tell(
                f"{words('No cell of this chart’s table is current.')} {words('Click the cell, then this button.')}"
            )

    def _style(self) -> Style:
        return resolve(self._store.chart.dress, self._store.document.house)

    def _hex(self, text: str) -> str:
        """The hex code of a colour text in the chart's theme; empty for none."""
        return self._style().colour(text).hex if text else ""

    def _open_colours(self, name: str, field: QWidget) -> None:
        """The theme's colours and their tints, to pick one for a setting."""
        menu = QMenu(self)
        colours_of = ColourField(str(named(name)))
        tones = tuple(colour.hex for colour in self._style().palette)
        held = self._hex(str(self._store.chart.settings.get(name, "")))
        ground = self._store.picture.figure.ground.hex
        colours_of.show_colour(tones, held or tones[0], bool(held), ground)
        for wish in (colours_of.chosen, colours_of.typed):
            wish.connect(lambda text: self._set(name, text))
            wish.connect(menu.close)
        colours_of.given_back.connect(lambda: self._set(name, ""))
        colours_of.given_back.connect(menu.close)
        colours_of.refused.connect(self._store.tell)
        action = QWidgetAction(menu)
        action.setDefaultWidget(colours_of)
        menu.addAction(action)
        menu.popup(field.mapToGlobal(field.rect().bottomLeft()))

    def _open_shelf(self, name: str, field: QWidget) -> None:
        self._symbol_for = name
        self.shelf.open_at(field.mapToGlobal(field.rect().bottomLeft()))

    def _set(self, name: str, value: Setting) -> None:
        if name:
            self._store.edit_chart(
                say("set {what}", what=named(name)),
                lambda document, chart: look_edits.set_setting(document, chart.id, name, value),
            )

    def _typed(self, parameter: Parameter, text: str) -> None:
        """A typed number, a formula, or nothing, which gives the setting back to the recipe."""
        if parameter.type == "symbol":
            self._set(parameter.name, named_as(text.strip()) if text.strip() else parameter.default)
            return

        def edit(document: Document, chart: ChartEntry) -> Document:
            value = input_parsing.setting(document, self._store.values, chart.table, parameter, text)
            made = look_edits.set_setting(document, chart.id, parameter.name, value)
            return check_scales(made, self._store.values, chart.id) if parameter.look.startswith("frame.") else made

        self._store.edit_chart(say("set {what}", what=named(parameter.name)), edit)


def _shown(parameter: Parameter, value: Setting, locale: str) -> Setting:
    """What a field shows of a setting: numbers as the document's tables write them."""
    if parameter.type == "symbol":
        return str(symbol_named(str(value)))
    if parameter.type == "numbers":
        return input_parsing.shown_list(str(value), locale)
    return input_parsing.shown(value, locale) if parameter.type in ("number", "text") else value


def _show(widget: QWidget, value: Setting) -> None:
    if isinstance(widget, QCheckBox):
        widget.setChecked(bool(value))
    elif isinstance(widget, ChoiceField | PickField):
        widget.show_choice(str(value))
    elif isinstance(widget, TextField):
        widget.show_text(shown_number(value) if isinstance(value, float | int) else str(value))


def _cell_icon() -> QIcon:
    """A cell among others."""

    def draw(painter: QPainter) -> None:
        c = colours()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        painter.setPen(QPen(qcolor(c.quiet), 1.0))
        painter.drawRect(QRectF(2.5, 3.5, 11, 9))
        painter.drawLine(QPointF(8, 3.5), QPointF(8, 12.5))
        painter.drawLine(QPointF(2.5, 8), QPointF(13.5, 8))
        painter.fillRect(QRectF(8.5, 8.5, 5, 4), qcolor(c.accent))

    return drawn_icon(16, draw)


def _colour_icon(hex_code: str) -> QIcon:
    """A dot in a colour; a ring where there is none."""

    def draw(painter: QPainter) -> None:
        painter.setPen(QPen(qcolor(colours().line), 1))
        painter.setBrush(QColor(hex_code) if hex_code else Qt.BrushStyle.NoBrush)
        painter.drawEllipse(QRectF(1, 1, 12, 12))

    return drawn_icon(14, draw)
