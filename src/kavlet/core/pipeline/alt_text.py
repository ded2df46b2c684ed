"""A chart's alt text: its message from the figures in at most 250 characters, unless its author wrote another."""

import math

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.layer import Layer
from kavlet.core.document.document import AltText, ChartEntry
from kavlet.core.layout.data import Data
from kavlet.core.messages import say, words_in
from kavlet.core.recipes import sentences
from kavlet.core.recipes.facts import MAX_CHARACTERS, ChartFacts, SeriesFacts, ShownFigures, cut, fitting
from kavlet.core.recipes.recipe import Inputs, Recipe
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.text.numbers import DEFAULT_LOCALE, written
from kavlet.core.values.errors import KavletError

MAX_LISTED = 24  # rows that a long description goes through


def alt_text(entry: ChartEntry, recipe: Recipe | None, inputs: Inputs, spec: Chart, data: Data) -> str:
    """What the author wrote, else the message of the figures."""
    return entry.alt.text if entry.alt is not None else message(entry, recipe, inputs, spec, data)


def own_alt(text: str, said: str) -> AltText | None:
    """An alt text of the author's own for figures with that message (in English); None for none, which gives it back to
    the figures. Raises KavletError for one that is too long."""
    bare = " ".join(text.split())
    if len(bare) > MAX_CHARACTERS:
        raise KavletError(
            say(
                "An alt text has at most {most} characters; this one has {count}.", most=MAX_CHARACTERS, count=len(bare)
            )
        )
    return AltText(bare, said) if bare else None


def message(entry: ChartEntry, recipe: Recipe | None, inputs: Inputs, spec: Chart, data: Data) -> str:
    """The message of a chart's figures, in the language of what was read; `spec` as its recipe has made it."""
    one_figure = recipe is not None and recipe.repeats is not None and not entry.repeat
    if one_figure or (recipe is not None and recipe.steps is not None):
        return fitting([spec.alt_text])  # one figure, or period, of which the recipe says all there is
    if recipe is not None and recipe.name in RECIPES:
        return told(shown_by(recipe, inputs, data.timed), recipe.tells)
    return told(_shown(spec, data, recipe.title if recipe is not None else "Chart", inputs.locale))


def headline(entry: ChartEntry, recipe: Recipe | None, inputs: Inputs, spec: Chart, data: Data) -> str:
    """A title from the figures; empty where they have no message that goes without them."""
    if recipe is not None and recipe.name in RECIPES and (recipe.repeats is None or entry.repeat):
        return headline_of(shown_by(recipe, inputs, data.timed), recipe.tells)
    if recipe is None or recipe.name not in RECIPES:
        return headline_of(_shown(spec, data, "Chart", inputs.locale))
    return ""


def in_english(entry: ChartEntry, recipe: Recipe | None, inputs: Inputs, data: Data) -> str:
    """The message of a chart's figures in English, whatever the document's language: what is kept with an alt text, to
    tell whether the figures have moved on."""
    read = msgspec.structs.replace(inputs, locale=DEFAULT_LOCALE)
    spec = recipe.chart(read) if recipe is not None else entry.free
    assert spec is not None  # a chart has a recipe, or layers of its own
    return message(entry, recipe, read, spec, msgspec.structs.replace(data, locale=DEFAULT_LOCALE))


def long_text(recipe: Recipe | None, spec: Chart, data: Data) -> str:
    """A description of all that a chart shows: what its recipe says, else its layers row by row."""
    if recipe is not None:
        return spec.long_text or spec.alt_text
    names = data.names(spec.names)
    said = []
    for layer in _layers(spec):
        how = data.number_text(layer.figure_column)
        rows = [
            f"{names[row]} {written(float(figure), how, data.locale)}".strip()
            for row, figure in enumerate(data.column(layer.figure_column))
            if not math.isnan(figure)
        ]
        said.append(f"{layer.name}: {', '.join(rows[:MAX_LISTED])}.")
    return " ".join(said)


def _layers(spec: Chart) -> list[Layer]:
    return [layer for layer in spec.layers if not (layer.helper or layer.hidden or layer.joins)]


def _shown(spec: Chart, data: Data, title: str, locale: str) -> ShownFigures:
    """What a chart of layers of its own shows: the figures of those that are listed."""
    layers = [layer for layer in _layers(spec) if layer.listed] or _layers(spec)
    courses = tuple(
        SeriesFacts(
            layer.name, tuple(map(float, data.column(layer.figure_column))), data.number_text(layer.figure_column)
        )
        for layer in layers
    )  # fmt: skip
    what = courses[0].name if len(courses) == 1 else ""
    return ShownFigures(words_in(locale, title), what, tuple(data.names(spec.names)), courses, data.timed, locale)


ANY = ChartFacts()  # of charts of layers of their own


def shown_by(recipe: Recipe, inputs: Inputs, timed: bool) -> ShownFigures:
    """What a recipe's chart shows."""
    columns = [column for role in recipe.tells.roles for column in inputs.ids(role) if column in inputs.numbers]
    courses = tuple(
        SeriesFacts(
            inputs.titles.get(column, ""),
            tuple(float(one) for one in inputs.numbers[column]),
            inputs.number_texts.get(column, inputs.number_text("value")),
        )
        for column in columns
    )
    names = tuple(inputs.names) if inputs.has("name") else ()
    what = ", ".join(course.name for course in courses if course.name)
    whole = inputs.setting("whole") if "whole" in inputs.settings and inputs.is_set("whole") else 0.0
    kind = words_in(inputs.locale, recipe.tells.kind or recipe.title)
    return ShownFigures(kind, what, names, courses, timed, inputs.locale, whole)


def told(facts: ShownFigures, how: ChartFacts = ANY) -> str:
    """The message of a chart as sentences, its kind first, in at most 250 characters."""
    lead = f"{facts.kind}: {cut(facts.what, 60)}." if facts.what else f"{facts.kind}."
    if not any(course.held for course in facts.courses):
        return fitting([lead, facts.drawn("It holds no figures.")])
    sentences_told = (how.message or sentences.message)(facts)
    return fitting([lead, *(sentence for sentence in sentences_told if sentence)])


def headline_of(facts: ShownFigures, how: ChartFacts = ANY) -> str:
    """The message of a chart without its figures, as a title; empty where there is none."""
    if not any(course.held for course in facts.courses):
        return ""
    return (how.headline or sentences.headline)(facts)
