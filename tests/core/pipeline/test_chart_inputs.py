"""What a recipe reads of a table: columns by role, how numbers are written, helpers, pictures."""

import msgspec
import pytest

from kavlet.core.document.document import Document, PictureFile
from kavlet.core.pipeline.chart_inputs import data_of, helpers_of, inputs_of
from kavlet.core.recipes.recipe import Inputs
from kavlet.core.recipes.registry import recipe
from kavlet.core.shapes.symbol import Symbol
from kavlet.core.spreadsheet.cells import FormattedNumber, Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import Table
from kavlet.core.values.errors import KavletError
from kavlet.core.values.number_text import PERCENT, PLAIN, NumberText
from tests.making import document, table

ROWS = table(["stage", "people", ""], ["Visits", "Walks"], [40.0, 20.0], [1.0, 2.0])


def _read(made: Document, by: str = "funnel") -> tuple[Table, Inputs]:
    entry = made.charts[0]
    held = made.table(entry.table)
    return held, inputs_of(made, recalculate(made.tables), entry, held, recipe(by))


def _with(made: Document, column: int, **changes: object) -> Document:
    held = made.tables[0]
    columns = list(held.columns)
    columns[column] = msgspec.structs.replace(columns[column], **changes)
    return msgspec.structs.replace(made, tables=(msgspec.structs.replace(held, columns=tuple(columns)),))


def test_columns_are_read_without_their_head() -> None:
    made = document("funnel", ROWS, {"name": "stage", "value": "people"})
    held, inputs = _read(made)
    value = inputs.id("value")
    assert list(inputs.numbers[value]) == [40.0, 20.0]
    assert inputs.values[inputs.id("name")] == ["Visits", "Walks"]
    assert (inputs.rows, inputs.table_name, inputs.places[value]) == (2, "Figures", 1)
    assert inputs.titles["c3"] == "column C"
    assert set(inputs.helpers) == {"offset", "step", "overall"}
    german = msgspec.structs.replace(made, locale="de")
    assert _read(german)[1].titles["c3"] == "Spalte C"
    del held


def test_a_column_writes_as_it_says_else_as_its_first_cell_was_typed() -> None:
    made = document("funnel", ROWS, {"name": "stage", "value": "people"})
    assert "c2" not in _read(made)[1].number_texts
    typed = _with(made, 1, cells=("people", 40.0, FormattedNumber(0.2, PERCENT)))
    assert _read(typed)[1].number_texts["c2"] == PERCENT
    formula = _with(made, 1, cells=("people", Formula("=1/2", number=PERCENT), 20.0))
    assert _read(formula)[1].number_texts["c2"] == PERCENT
    bare = _with(made, 1, cells=("people", Formula("=1/2"), 20.0))
    assert "c2" not in _read(bare)[1].number_texts
    own = NumberText(suffix=" m")
    both = _with(typed, 1, number=own)
    assert _read(both)[1].number_texts["c2"] == own
    assert _read(both)[1].number_text("value") == own
    assert _read(made)[1].number_text("value") == PLAIN


def test_what_is_missing_is_said() -> None:
    made = document("funnel", ROWS, {"name": "stage", "value": "people"})
    entry = msgspec.structs.replace(made.charts[0], roles={"name": ("c1",), "value": ("gone",)})
    with pytest.raises(KavletError, match="No column is chosen as value"):
        _read(msgspec.structs.replace(made, charts=(entry,)))
    bare = msgspec.structs.replace(made.tables[0], columns=tuple(
        msgspec.structs.replace(column, cells=column.cells[:1]) for column in made.tables[0].columns
    ))  # fmt: skip
    with pytest.raises(KavletError, match="has no rows of figures"):
        _read(msgspec.structs.replace(made, tables=(bare,)))


def test_pictures_are_symbols_or_pixels() -> None:
    made = document("funnel", ROWS, {"name": "stage", "value": "people"})
    drawn = PictureFile("drop", "M0 0L1 0L1 1Z")
    seen = PictureFile("photo", "", b"\x89PNG", 30, 20)
    made = msgspec.structs.replace(made, pictures=(drawn, seen))
    _held, inputs = _read(made)
    data = data_of(made, inputs)
    assert data.pictures["drop"] == Symbol("drop", "M0 0L1 0L1 1Z")
    photo = data.pictures["photo"]
    assert not isinstance(photo, Symbol)
    assert (photo.content, photo.width, photo.height) == (b"\x89PNG", 30, 20)
    assert data.ids == (0, 1)


def test_only_a_chart_s_own_helpers_are_its_helpers() -> None:
    made = document("funnel", ROWS, {"name": "stage", "value": "people"})
    held = made.tables[0]
    values = recalculate(made.tables)
    built = helpers_of(held, values, made.charts[0])
    assert [one.name for one in built] == ["offset", "step", "overall"]
    assert built[0].formulas[0].startswith("=(MAX(")
    assert built[0].values == (0.0, 10.0)
    other = msgspec.structs.replace(made.charts[0], id="other")
    assert helpers_of(held, values, other) == ()
