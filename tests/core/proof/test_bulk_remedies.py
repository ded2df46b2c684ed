"""All findings of a kind mended as one edit; findings silenced with a reason; what is told of them."""

import json

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages import page_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.proof.bulk_remedies import mended
from kavlet.core.proof.findings_json import findings_json
from kavlet.core.proof.proofreading import proofread
from kavlet.core.values.errors import KavletError
from tests.making import table


def three() -> Document:
    """Two charts with a legend of one entry each, and one without a title."""
    document = Document()
    for number in range(3):
        name = f"T{number}"
        document, made = edits.add_table(document, name, table(["a", "v"], ["x", "y"], [3 + number, 5]))
        document, chart = edits.add_chart(document, made, "columns")
        document = edits.change_chart(document, chart, title="What it says")
        if number < 2:
            dress = document.chart(chart).dress
            looks = {**dress.overrides, "legend.side": "right"}
            document = edits.change_chart(document, chart, dress=type(dress)(overrides=looks))
    return document


def test_all_of_a_kind_are_mended() -> None:
    made, count = mended(three(), "one-legend", "drop legend")
    assert count == 2
    assert not [one for one in proofread(made).all if one.check == "one-legend"]
    assert [chart.dress.overrides.get("legend.side") for chart in made.charts] == ["none", "none", None]


def test_silenced_findings_stay_as_they_are() -> None:
    document = edits.silenced(three(), "one-legend", "The house style asks for it.", chart="k1")
    made, count = mended(document, "one-legend")
    assert count == 1
    assert made.chart("k1") == document.chart("k1")
    with pytest.raises(KavletError, match="None of these"):
        mended(made, "one-legend")


def test_silencing_needs_a_reason_and_stays_in_the_file() -> None:
    document = three()
    with pytest.raises(KavletError, match="needs a reason"):
        edits.silenced(document, "one-legend", "  ", chart="k1")
    with pytest.raises(KavletError, match="longer than"):
        edits.silenced(document, "one-legend", "x" * 501, chart="k1")
    for where in ({"chart": "k1"}, {}):
        quiet = edits.silenced(document, "one-legend", "Asked  for.", **where)
        back = kavlet_file.loads(kavlet_file.dumps(quiet), "x")
        assert back == quiet
        found = [one for one in proofread(back).all if one.check == "one-legend"]
        assert [one.silenced for one in found] == (["Asked for.", None] if where else ["Asked for.", "Asked for."])
        assert edits.listened_to(quiet, "one-legend", "k1") == document
    assert len(proofread(document).open) == len(proofread(quiet).open) + 2


def test_a_page_is_silenced_by_itself() -> None:
    document, page = page_edits.add_page(three(), "A4", name="P")
    quiet = edits.silenced(document, "overlap", "A collage.", page=page)
    assert quiet.page(page).silenced == {"overlap": "A collage."}
    assert edits.listened_to(quiet, "overlap", page=page) == document


def test_what_is_told_is_plain_json() -> None:
    document = edits.silenced(three(), "one-legend", "Asked for.", chart="k1")
    held = json.loads(json.dumps(findings_json(proofread(document).all, document)))
    first = next(one for one in held if one["check"] == "one-legend")
    assert first == {
        "check": "one-legend", "severity": "note", "figure": 1.0, "message": "The legend has one entry only.",
        "chart": "T0", "part": {"text": "legend"}, "remedies": ["drop legend"], "silenced": "Asked for.",
    }  # fmt: skip
