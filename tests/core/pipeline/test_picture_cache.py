"""Pictures are kept as long as nothing they read has changed, and no longer."""

import msgspec
import pytest

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.document import edits
from kavlet.core.document.document import Document, with_chart
from kavlet.core.document.looks import look_edits
from kavlet.core.pipeline.chart_inputs import MAX_ROWS
from kavlet.core.pipeline.picture_cache import Pictures
from kavlet.core.styling.theme import theme
from kavlet.core.values.errors import KavletError
from tests.making import document, table

ROWS = table(["pond", "visits"], ["Mere", "Carr"], [40.0, 25.0])


def changed(one: Document, what: str) -> Document:
    if what == "theme":
        return msgspec.structs.replace(one, theme=msgspec.structs.replace(theme("clay"), name="house"))
    if what == "locale":
        return msgspec.structs.replace(one, locale="de")
    if what == "cell":
        return edits.set_cells(one, "t1", {(1, 1): 41.0})
    return look_edits.set_setting(one, "k1", "gap", 20.0)


@pytest.mark.parametrize("what", ["theme", "locale", "cell", "setting"])
def test_a_picture_is_made_again_when_what_it_reads_has_changed(what: str) -> None:
    kept, before = Pictures(), document("columns", ROWS)
    first = kept.picture(before, "k1")
    assert kept.picture(before, "k1") is first
    assert kept.picture(changed(before, what), "k1") is not first


def test_another_table_does_not_matter() -> None:
    kept, before = Pictures(), document("columns", ROWS)
    before, other = edits.add_table(before, "Other", ROWS)
    first = kept.picture(before, "k1")
    assert kept.picture(edits.set_cells(before, other, {(1, 1): 41.0}), "k1") is first


def test_the_most_rows_a_chart_shows() -> None:
    def rows(count: int) -> Document:
        return document("columns", table(["n", "v"], [f"r{i}" for i in range(count)], [1.0] * count))

    assert len(Pictures().picture(rows(MAX_ROWS), "k1").build.inputs.names) == MAX_ROWS
    with pytest.raises(KavletError, match=f"{MAX_ROWS + 1:,} rows"):
        Pictures().picture(rows(MAX_ROWS + 1), "k1")


def test_what_a_label_of_a_chart_of_its_own_layers_reads_is_known() -> None:
    """A template names a cell of another table: that is read, and so the picture follows it; nothing lists it."""
    before, other = edits.add_table(document("columns", ROWS), "Other", ROWS)
    layer = Bars("b", "visits", "c2", label=Label(template="{=Other!B2}"))
    entry = msgspec.structs.replace(
        before.chart("k1"), recipe="", roles={}, free=Chart(Cartesian(), (layer,), names="c1")
    )
    before, kept = with_chart(before, entry), Pictures()
    first = kept.picture(before, "k1")
    assert {text.text for text in first.figure.texts if text.kind == "label"} == {"40"}
    now = kept.picture(edits.set_cells(before, other, {(1, 1): 41.0}), "k1")
    assert {text.text for text in now.figure.texts if text.kind == "label"} == {"41"}
