"""Sample figures: three for each question in each language, each with a chart that suits it."""

from collections import Counter

import pytest

from kavlet.core.document.document import Document
from kavlet.core.document.tables.samples import LANGUAGES, samples, with_sample
from kavlet.core.pipeline.stages import picture
from kavlet.core.recipes.recipe import QUESTIONS
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.recalculate import recalculate
from tests.typesetting import faults


@pytest.mark.parametrize("language", LANGUAGES)
def test_three_samples_answer_each_question(language: str) -> None:
    held = samples(language)
    assert Counter(one.question for one in held) == dict.fromkeys(QUESTIONS, 3)
    for one in held:
        document, chart = with_sample(Document(), one)
        made = picture(document, recalculate(document.tables), chart)
        assert RECIPES[one.recipe].question == one.question
        assert [mark for mark in made.figure.marks if mark.visible]
        assert not faults(made, look=False)


def test_languages_hold_the_same_figures_and_others_are_english() -> None:
    def figures(language: str) -> list[object]:
        return [[cell for row in one.rows for cell in row if isinstance(cell, float)] for one in samples(language)]

    assert figures("en") == figures("de")
    assert samples("fr") == samples("en")
