"""Every field of a page and of its items says what it does, and can be read and set."""

import itertools

import pytest

from kavlet.core.charts.fields import Field
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import item_fields
from kavlet.core.interaction.meanings import meaning
from kavlet.core.pages import fields
from kavlet.core.pages.items.chart_frame import ChartFrame
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.items.shared_legend import SharedLegend
from kavlet.core.pages.items.step_control import StepControl
from kavlet.core.pages.page import AnyItem, Page
from kavlet.core.values.errors import KavletError

ALL = [*itertools.chain(*fields.OF_KIND.values()), *fields.PLACE, *fields.OF_PAGE]
UNITS = {"pt": "points", "%": "%"}  # millimetres may be points by choice, and stand beside the field


@pytest.mark.parametrize("field", ALL, ids=lambda one: f"{one.group} {one.label}")
def test_each_field_says_what_it_does_in_a_sentence(field: Field) -> None:
    does = meaning(field)
    assert does is not None
    assert does.text == field.does
    assert does.text[0].isupper()
    assert does.text.rstrip("2f}7").endswith((".", "#b33"))
    assert UNITS.get(field.unit, "") in does.text


@pytest.mark.parametrize("kind", fields.OF_KIND, ids=lambda one: one.__name__)
def test_each_field_is_one_of_its_item_and_can_be_set(kind: type) -> None:
    item = kind("")
    for field in fields.of_item(item):
        held = fields.value(item, field)
        name = field.path.partition(".")[0]
        assert name in fields.changes(item, field, held)


def test_every_field_of_an_item_is_offered() -> None:
    """What an item holds can be set in the window: but for its identity, its name and what is typed or grouped."""
    apart = {"id", "name", "bay", "group", "paragraphs"}
    for kind, offered in fields.OF_KIND.items():
        paths = {field.path.partition(".")[0] for field in (*offered, *fields.PLACE)}
        assert set(kind.__struct_fields__) - apart == paths, kind.__name__  # type: ignore[attr-defined]


def test_every_field_of_a_page_is_offered() -> None:
    elsewhere = {
        "id",
        "items",
        "shares",
        "columns",
        "theme",
        "silenced",
    }  # the strip, the seams, a list of their own, Proof
    paths = {field.path.partition(".")[0] for field in fields.OF_PAGE}
    assert set(Page.__struct_fields__) - elsewhere == paths


def made() -> Document:
    document, table = edits.add_table(Document(), "Gates", [["Gate", "Spring", "Summer"], ["North", 1.0, 2.0]])
    document, _ = edits.add_table(document, "Walks", [["Walk", "Number"], ["Short", 3.0]])
    return edits.add_chart(document, table, "columns", {"name": ("c1",), "value": ("c2",)})[0]


def test_charts_and_tables_are_offered_by_their_names() -> None:
    document = made()
    frame, excerpt, legend = (
        {field.path: field for field in item_fields.of_item(document, item)}
        for item in (ChartFrame(""), Excerpt(""), SharedLegend(""))
    )
    assert [str(text) for _, text in frame["chart"].choices] == [document.charts[0].name]
    assert [(one, str(text)) for one, text in excerpt["table"].choices] == [("t1", "Gates"), ("t2", "Walks")]
    assert [one for one, _ in legend["charts"].choices] == ["", "k1"]


def test_columns_are_typed_by_name_or_letter_and_shown_by_name() -> None:
    document, item = made(), Excerpt("", table="t1")
    assert item_fields.columns_typed(document, item, "Gate, summer") == ("c1", "c3")
    assert item_fields.columns_typed(document, item, "A, C") == ("c1", "c3")
    assert item_fields.columns_typed(document, item, "  ") == ()
    assert item_fields.columns_shown(document, Excerpt("", table="t1", columns=("c1", "c3"))) == "Gate, Summer"
    assert item_fields.columns_shown(document, Excerpt("", table="gone", columns=("c1",))) == ""
    with pytest.raises(KavletError, match="Autumn"):
        item_fields.columns_typed(document, item, "Gate, Autumn")


def test_another_table_takes_no_columns_or_rows_of_the_one_before_along() -> None:
    item = Excerpt("", table="t1", columns=("c3",), first=4, last=9)
    table = next(field for field in fields.OF_KIND[Excerpt] if field.path == "table")
    assert fields.changes(item, table, "t2") == {"table": "t2", "columns": (), "first": 1, "last": None}


@pytest.mark.parametrize(
    ("item", "said"),
    [(ChartFrame("", chart="k1"), "Chart: Columns"), (Excerpt("", table="t2"), "Table: Walks"),
     (DrawnShape("", form="ellipse"), "Shape: ellipse"), (StepControl(""), "Steps"), (SharedLegend(""), "Legend"),
     (StepControl("", name="Years"), "Steps: Years")],
)  # fmt: skip
def test_an_item_is_called_what_it_is_and_what_it_shows(item: AnyItem, said: str) -> None:
    document = made()
    named = edits.change_chart(document, "k1", name="Columns")
    assert item_fields.headed(named, item) == said
