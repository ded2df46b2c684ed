"""Texts as XML can hold them, in whatever holds them."""

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.spreadsheet.cells import Formula
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.xml_text import encoded, with_xml_texts, xml_text


@pytest.mark.parametrize(
    ("text", "held"),
    [
        ("a\tb\nc", "a\tb\nc"),
        ("a\x00\x0bb", "ab"),
        ("\ud800x", "x"),
        ("\uffff\ufffd", "\ufffd"),
        ("👩 \x7f", "👩 \x7f"),
    ],
)
def test_characters_that_xml_cannot_hold_are_left_out(text: str, held: str) -> None:
    """XML 1.0, section 2.2, production Char."""
    assert xml_text(text) == held


def test_what_needs_nothing_stays_the_same_object() -> None:
    document, _ = edits.add_table(Document(), "Gates", [["gate", "visits"], ["North", 2.0]])
    assert with_xml_texts(document) is document


def test_texts_anywhere_in_a_document_are_cleaned() -> None:
    document, _ = edits.add_table(Document(), "Ga\x01tes", [["gate", "vi\ud800sits"], ["North", Formula("=B1&\x02")]])
    found = with_xml_texts(document).tables[0]
    assert (found.name, found.columns[1].cells) == ("Gates", ("visits", Formula("=B1&")))


def test_half_characters_do_not_keep_a_document_from_being_written() -> None:
    document, _ = edits.add_table(Document(), "T\ud800", [["a"], [1.0]])
    with pytest.raises(UnicodeEncodeError):
        msgspec.json.encode(document)
    assert b'"name":"T"' in encoded(msgspec.json.encode, document)
    assert encoded(msgspec.msgpack.encode, [["x\udfff"]]) == msgspec.msgpack.encode([["x"]])


def test_no_formula_makes_what_no_file_can_hold() -> None:
    document, _ = edits.add_table(Document(), "T", [["a"], [Formula("=CHAR(1)")], [Formula("=CHAR(10)")]])
    found = recalculate(document.tables).columns[0][0].values
    assert (getattr(found[1], "value", found[1]), found[2]) == ("#VALUE!", "\n")
