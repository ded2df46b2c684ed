"""What depends on cells: settings that are formulas, texts bound to cells, cells that labels name."""

import re
from collections.abc import Iterable

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import LITERAL, TEXTS, parse
from kavlet.core.charts.texts import Note, Text
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.messages import named, say
from kavlet.core.recipes.recipe import Parameter, Recipe, Setting, split_list
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.spreadsheet.cells import ErrorValue, Value, text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.text.numbers import written
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PLAIN

_CELL_FIELD = re.compile(r"\{(=[^{}]+)\}")


def settings_of(entry: ChartEntry, recipe: Recipe, values: Values) -> dict[str, Setting]:
    """All settings of the recipe: the author's, with formulas evaluated, over the defaults."""
    settings = recipe.defaults
    for name, value in entry.settings.items():
        parameter = recipe.parameter(name)
        if parameter is None:
            continue  # a setting of another recipe, kept for the way back
        settings[name] = checked_setting(parameter, evaluated(parameter, value, values, entry.table))
    return settings


def evaluated(parameter: Parameter, value: Setting, values: Values, table: str) -> Value:
    """A setting with its formulas replaced by what they give. Raises KavletError where that is no number."""

    def number(text: str) -> float:
        found = values.evaluate(text, table)
        if found is None:
            raise KavletError(
                say("The setting {name} needs a number, but {text} is empty.", name=named(parameter.name), text=text),
                remedy=say("Type one there, or choose another cell."),
            )
        if not isinstance(found, float):
            raise KavletError(
                say(
                    "The setting {name} needs a number, but {text} gives “{found}”.",
                    name=named(parameter.name),
                    text=text,
                    found=text_of(found),
                )
            )
        return found

    if not isinstance(value, str):
        return value
    if parameter.type == "numbers":
        parts = [number(part) if part.startswith("=") else part for part in split_list(value)]
        return "; ".join(part if isinstance(part, str) else f"{part:.15g}" for part in parts)
    if not value.startswith("="):
        return value
    if parameter.type == "number":
        return number(value)
    return text_of(values.evaluate(value, table)) if parameter.type in ("text", "symbol") else value


def bound_entry(entry: ChartEntry, document: Document, values: Values) -> ChartEntry:
    """A chart with its looks that are formulas replaced by what they give; one that gives nothing fit is left out."""
    formulas = _formulas(entry)
    if not formulas:
        return entry
    held = {path: value for path, value in entry.dress.overrides.items() if path not in formulas}
    for path, formula in formulas.items():
        found = values.evaluate(formula, entry.table)
        if parse(path).last in TEXTS:
            held[path] = _said(found, document)
        elif isinstance(found, float):
            held[path] = found
    return msgspec.structs.replace(entry, dress=msgspec.structs.replace(entry.dress, overrides=held))


def _formulas(entry: ChartEntry) -> dict[str, str]:
    """The looks of a chart that are formulas, by their paths."""
    return {
        path: value
        for path, value in entry.dress.overrides.items()
        if isinstance(value, str) and value.startswith("=") and parse(path).last not in LITERAL
    }


def failing(entry: ChartEntry, values: Values, cells: Iterable[str]) -> tuple[tuple[str, ErrorValue], ...]:
    """The formulas of a chart's texts, looks and labelled `cells` that give an error now, with that error."""
    texts = (entry.title, entry.subtitle, entry.source, *(note.text for note in entry.notes))
    asked = [text for text in texts if text.startswith("=")]
    found = {text: values.evaluate(text, entry.table) for text in (*asked, *_formulas(entry).values(), *cells)}
    return tuple((text, value) for text, value in found.items() if isinstance(value, ErrorValue))


def _said(value: Value, document: Document) -> str:
    """What a formula gives, as a text; an error says nothing, and Proof tells of it."""
    if isinstance(value, ErrorValue):
        return ""
    return written(value, PLAIN, document.locale) if isinstance(value, float) else text_of(value)


def bound(text: str, look: Text, document: Document, values: Values, entry: ChartEntry) -> Text:
    """A text as shown: what its formula gives, else the text itself."""
    if text.startswith("="):
        text = _said(values.evaluate(text, entry.table), document)
    return msgspec.structs.replace(look, text=text)


def bound_note(note: Note, document: Document, values: Values, entry: ChartEntry) -> Note:
    """A note with its text bound to cells."""
    return msgspec.structs.replace(note, text=bound(note.text, Text(), document, values, entry).text)


def cell_fields(spec: Chart) -> set[str]:
    """The cells that labels name as fields: {=B7}."""
    found: set[str] = set()
    for layer in spec.layers:
        if layer.label is not None:
            found.update(_CELL_FIELD.findall(layer.label.template))
            for row in layer.rows.values():
                found.update(_CELL_FIELD.findall(row.text or ""))
    return found
