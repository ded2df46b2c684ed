"""Sample figures of the reserve for each question a chart can answer: a table with its chart, to be typed over."""

from functools import lru_cache
from importlib.resources import files

from msgspec import Struct

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.tables.table_advice import with_proposals
from kavlet.core.recipes.recipe import QUESTIONS, Question
from kavlet.core.spreadsheet.cells import Cell

LANGUAGES = ("en", "de")


class Sample(Struct, frozen=True):
    """A small table with the recipe that suits it, and the question it answers."""

    question: Question
    recipe: str
    name: str
    rows: tuple[tuple[Cell, ...], ...]


@lru_cache(maxsize=len(LANGUAGES))
def samples(language: str) -> tuple[Sample, ...]:
    """All sample tables in a language, English where there are none in it; three for each question."""
    name = language if language in LANGUAGES else LANGUAGES[0]
    text = (files("kavlet") / "assets" / "samples" / f"{name}.txt").read_text("utf-8")
    lines = [line for line in text.splitlines() if line and not line.startswith("#")]
    return tuple(_sample([part.strip() for part in line.split("|")]) for line in lines)


def _sample(parts: list[str]) -> Sample:
    asked, recipe, name, head, *rows = parts
    question = next(one for one in QUESTIONS if one == asked)
    figures = [tuple(map(_cell, row.split(";"))) for row in rows]
    return Sample(question, recipe, name, (tuple(head.split(";")), *figures))


def _cell(text: str) -> Cell:
    bare = text.strip()
    return float(bare) if bare.lstrip("-").replace(".", "", 1).isdigit() else bare or None


def with_sample(document: Document, sample: Sample) -> tuple[Document, str]:
    """The document with a sample's table and its chart. Returns it and the chart's id."""
    document, table = edits.add_table(document, sample.name, [list(row) for row in sample.rows])
    document, chart = edits.add_chart(document, table, sample.recipe)
    return with_proposals(document, chart), chart
