"""What is typed into a field, read as a cell of the document is: numbers by its locale, formulas and cells."""

import re

from kavlet.core.charts.colouring import When, parsed
from kavlet.core.charts.fields import Field
from kavlet.core.charts.looks import TEXTS, parse
from kavlet.core.document.document import Document
from kavlet.core.messages import Message, named, say
from kavlet.core.recipes.recipe import Parameter, Setting, split_list
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.spreadsheet.cell_input import shown_for_editing, typed
from kavlet.core.spreadsheet.cells import ErrorValue, FormattedNumber, Formula, Value, text_of
from kavlet.core.spreadsheet.recalculate import Values
from kavlet.core.styling.colours import is_colour
from kavlet.core.text.numbers import decimal_sign, group_sign
from kavlet.core.values.errors import KavletError

LABEL_FIELDS = ("value", "name", "share", "step", "series")
RULE_WORDS: dict[When, Message] = {
    "largest": say("largest"), "smallest": say("smallest"), "first": say("first"), "last": say("last"),
    "above": say("above"), "below": say("below"),
}  # fmt: skip


def number_or_formula(text: str, locale: str, unit: str = "") -> float | str:
    """The number a text writes as a cell does, without the field's unit; a formula as the document keeps it.

    With the unit %, "50 %" and "50" are both 50; without it, "50 %" is the share 0.5. Raises KavletError otherwise.
    """
    bare = text.strip()
    if not bare.startswith("=") and unit:
        bare = bare.removesuffix(unit).strip()
    cell = typed(bare, decimal_sign(locale), group_sign(locale))
    if isinstance(cell, Formula):
        return cell.text
    if isinstance(cell, FormattedNumber) and cell.number.style != "date":
        return cell.value
    if not isinstance(cell, float):
        raise KavletError(
            say("“{text}” is not a number.", text=text.strip()),
            remedy=say("Write it as in the table, or a cell: {example}.", example="=B7"),
        )
    return cell


def numbers_or_formulas(text: str, locale: str, unit: str = "") -> str:
    """A list as typed, as the document keeps it. Raises KavletError for a part that is neither number nor formula."""
    return "; ".join(
        part if isinstance(part, str) else f"{part:.15g}"
        for part in (number_or_formula(part, locale, unit) for part in _parts(text, locale))
    )


def _parts(text: str, locale: str) -> list[str]:
    """The parts of a typed list: by semicolons; else by blanks, and by commas where they are no part of a number."""
    if ";" in text or text.lstrip().startswith("="):
        return split_list(text)
    found: list[str] = []
    for part in re.sub(r" +(?=%)", "\u00a0", text).split(" "):
        bare = part.strip(", ")
        is_one = not isinstance(typed(bare, decimal_sign(locale), group_sign(locale)), str)
        found += [bare] if is_one else bare.split(",")
    return [part.strip() for part in found if part.strip()]


def setting(document: Document, values: Values, table: str, parameter: Parameter, text: str) -> Setting:
    """What is typed for a setting; nothing gives it back. Raises KavletError where the setting can't be that."""
    bare = text.strip()
    if not bare:
        return parameter.default
    if parameter.type == "numbers":
        listed = numbers_or_formulas(bare, document.locale, parameter.unit)
        for part in split_list(listed):
            if part.startswith("="):
                checked_formula(values, table, part, named(parameter.name))
        return listed
    if parameter.type == "number":
        number = number_or_formula(bare, document.locale, parameter.unit)
        if isinstance(number, str):
            checked_setting(parameter, checked_formula(values, table, number, named(parameter.name)))
            return number
        return checked_setting(parameter, number)
    return checked_setting(parameter, words_or_formula(document, values, table, bare))


def look(document: Document, values: Values, table: str, offer: Field, text: str) -> object:
    """What is typed for a look; None gives it back. Raises KavletError where it can't be that."""
    bare = text.strip()
    if not bare and (offer.optional or offer.kind in ("colour", "rules")):
        return None
    if offer.kind == "rules":
        return rules(bare)
    if offer.kind == "number":
        number = number_or_formula(bare, document.locale, offer.unit)
        shown = checked_formula(values, table, number, say(offer.label)) if isinstance(number, str) else number
        _in_span(offer, shown * (offer.times if isinstance(number, str) else 1.0))
        return number if isinstance(number, str) else offer.stored(number)
    if offer.kind == "colour" and not is_colour(bare):
        raise KavletError(say("“{text}” is not a colour.", text=bare))
    if offer.kind == "colour":
        return bare
    if parse(offer.path).last not in TEXTS:
        return text
    said = words_or_formula(document, values, table, text)
    return template(document, values, table, said) if parse(offer.path).row is not None else said


def rules(text: str) -> str:
    """Rules for colours as the document holds them, from the reader's words for largest, above and the like.

    Raises KavletError for one that can't be read.
    """
    word_rules = {str(word).casefold(): when for when, word in RULE_WORDS.items()}

    def part(rule_text: str) -> str:
        word = rule_text.split(maxsplit=1)[0].rstrip(":") if rule_text.split() else ""
        return rule_text.replace(word, word_rules.get(word.casefold(), word.casefold()), 1)

    made = "; ".join(part(part_text.strip()) for part_text in text.split(";") if part_text.strip())
    parsed(made)
    return made


def shown_rules(text: str) -> str:
    """Rules for colours in the reader's words."""
    for when, word in RULE_WORDS.items():
        text = re.sub(rf"\b{when}\b", str(word), text)
    return text


def words_or_formula(document: Document, values: Values, table: str, text: str) -> str:
    """What is typed for a text: words, where `\\n` breaks the line, or a formula. Raises KavletError for an error."""
    if not text.lstrip().startswith("="):
        return text.replace("\\n", "\n")
    cell = typed(text, decimal_sign(document.locale), group_sign(document.locale))
    formula = cell.text if isinstance(cell, Formula) else text
    checked_text(values, table, formula)
    return formula


def template(document: Document, values: Values, table: str, text: str) -> str:
    """What labels are to say. Raises KavletError for a field that there is none of, or a cell that gives an error."""
    source = document.table(table)
    titles = (str(source.called(i)) for i in range(len(source.columns)))
    names = {*LABEL_FIELDS, *(column.id for column in source.columns), *(title.casefold() for title in titles)}
    for field in (match.strip() for match in re.findall(r"\{([^{}]*)\}", text)):
        if field.startswith("="):
            checked_text(values, table, field)
        elif field not in names and field.casefold() not in names:
            raise KavletError(
                say("There is no field {name} for labels.", name="{" + field + "}"),
                remedy=say("There are {names}.", names=["{" + name + "}" for name in LABEL_FIELDS]),
            )
    return text


def _in_span(offer: Field, number: float) -> None:
    if offer.span is None or offer.span[0] <= number <= offer.span[1]:
        return
    low, high = offer.span
    raise KavletError(
        say("{field} goes from {low} to {high} {unit}.", field=say(offer.label), low=low, high=high, unit=offer.unit)
    )


def shown(value: object, locale: str, times: float = 1.0) -> str:
    """The text of a field that, typed again, gives the same number, formula or list."""
    if isinstance(value, bool) or value is None:
        return ""
    if isinstance(value, float | int):
        return shown_for_editing(float(f"{value * times:.12g}"), decimal_sign(locale))
    text = str(value).replace("\n", "\\n")
    return shown_for_editing(Formula(text), decimal_sign(locale)) if text.startswith("=") else text


def shown_list(value: str, locale: str) -> str:
    """The text of a field for a list of numbers and formulas."""
    return "; ".join(shown(part if part.startswith("=") else float(part), locale) for part in split_list(value))


def checked_formula(values: Values, table: str, formula: str, name: Message) -> float:
    """What a formula gives now. Raises KavletError where that is no number."""
    found = _evaluated(values, table, formula)
    if not isinstance(found, float):
        what = say("nothing") if found is None else text_of(found)
        raise KavletError(
            say("{field} needs a number, but {text} gives {found}.", field=name, text=formula, found=what)
        )
    return found


def checked_text(values: Values, table: str, formula: str) -> None:
    """Raises KavletError where a formula for a text gives an error, or reads a cell that is not there."""
    _evaluated(values, table, formula)


def _evaluated(values: Values, table: str, formula: str) -> Value:
    found = values.evaluate(formula, table)
    if isinstance(found, ErrorValue):
        raise KavletError(
            say("{text} gives {found}.", text=formula, found=found.value),
            remedy=say("Mend the formula, or type the text itself."),
        )
    missing = values.beyond(formula, table)
    if missing:
        raise KavletError(say("There is no cell {cell}.", cell=missing))
    return found
