"""What a chart says, in a sentence or two: for alt texts of at most 250 characters, and for titles from the figures.

The message comes first: what is largest and how large its share, what changed, the trend, what stands out. All of it is
read from the figures, in the document's language. Which sentences, a recipe declares (`Telling`).
"""

from kavlet.core.messages import words_in
from kavlet.core.recipes import sentences
from kavlet.core.recipes.facts import ChartFacts, SeriesFacts, ShownFigures, cut, fitting
from kavlet.core.recipes.recipe import Inputs, Recipe

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


def headline(facts: ShownFigures, how: ChartFacts = ANY) -> str:
    """The message of a chart without its figures, as a title; empty where there is none."""
    if not any(course.held for course in facts.courses):
        return ""
    return (how.headline or sentences.headline)(facts)
