"""Formulas: reading and printing, arrays, whole columns, locale, and input meant to harm."""

import math
import time

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.spreadsheet.cell_input import shown_for_editing, typed
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Formula, Value
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.spreadsheet.nodes import Call, Literal, Node, Operation, Refer
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.references import CellReference, RangeReference
from kavlet.core.spreadsheet.syntax import parse, printed, tidied
from kavlet.core.spreadsheet.table import Column, Table


def value(formula: str, *columns: list[Cell]) -> Value:
    held = columns or ([1.0, 2.0, 3.0], [10.0, None, 30.0], ["a", "b", "A"])
    table = Table("t", "T", tuple(Column(f"c{i}", tuple(cells)) for i, cells in enumerate(held)))
    return recalculate((table,)).evaluate(formula, "t")


_corners = st.builds(CellReference, st.integers(0, 30), st.integers(0, 99), st.booleans(), st.booleans())
_leaves: st.SearchStrategy[Node] = st.one_of(
    st.floats(0, 1e9).map(Literal),
    st.text("ab \"'=", max_size=5).map(Literal),
    st.booleans().map(Literal),
    st.sampled_from(list(ErrorValue)).map(Literal),
    st.builds(
        RangeReference, _corners, st.none() | _corners, st.sampled_from(["", "Gates", "Two summers", "A1", "it's"])
    ).map(Refer),
)


def _branches(inner: st.SearchStrategy[Node]) -> st.SearchStrategy[Node]:
    signs = st.sampled_from(["+", "-", "*", "/", "^", "&", "=", "<>", "<", "<=", ">", ">="])
    return st.one_of(
        st.builds(lambda sign, a, b: Operation(sign, (a, b), 0), signs, inner, inner),
        st.builds(lambda sign, a: Operation(sign, (a,), 0), st.sampled_from(["+", "-", "%"]), inner),
        st.builds(
            lambda name, args: Call(name, tuple(args), 0),
            st.sampled_from(sorted(FUNCTIONS)),
            st.lists(inner, max_size=3),
        ),
    )


def _plain(node: Node) -> object:
    """A tree without its depths, so that made and read trees compare."""
    if isinstance(node, Operation):
        return node.sign, [_plain(one) for one in node.operands]
    if isinstance(node, Call):
        return node.function, [_plain(one) for one in node.arguments]
    return node.value if isinstance(node, Literal) else getattr(node, "to", getattr(node, "text", None))


@settings(max_examples=300, deadline=None)
@given(st.recursive(_leaves, _branches, max_leaves=12))
def test_what_is_printed_reads_back_as_the_same_tree(tree: Node) -> None:
    text = printed(tree)
    assert _plain(parse(f"={text}")) == _plain(tree)
    assert printed(parse(f"={text}")) == text


def test_typed_formulas_are_tidied() -> None:
    assert tidied("= sum( b2:b6 , 3 ) * ( 1 + 2 ) ") == "=SUM(B2:B6;3)*(1+2)"
    assert tidied("=((a1))+1") == "=A1+1"
    assert tidied("=1+") == "=1+"


@pytest.mark.parametrize(
    ("formula", "result"),
    [
        ("=SUM(A1:A3*B1:B3)", 100.0),
        ("=SUMPRODUCT((A1:A3>1)*(B1:B3))", 30.0),
        ('=SUMPRODUCT((C1:C3="a")*A1:A3)', 4.0),
        ("=SUMPRODUCT(INT(A1:A3/2))", 2.0),
        ("=SUM(-A1:A3)", -6.0),
        ("=MAX(A1:A3&\"0\")", 0.0),
        ("=SUM(A:A)", 6.0),
        ("=SUM($A:$B)", 46.0),
        ("=COUNT(1:2)", 3.0),
        ("=SUM(A1:XFD1048576)", 46.0),
        ("=A1:A3", ErrorValue.VALUE),
        ("=INDEX(A1:B3;0;1)", ErrorValue.VALUE),
        ("=SUM(INDEX(A1:B3;0;2))", 40.0),
        ("=XFD1048576", None),
        ("=COUNTIF(C1:C3;\"A\")", 2.0),
        ('=COUNTIF(C1:C3;"?")', 3.0),
        ('=SUMIF(C1:C3;"<>a";A1:A3)', 2.0),
        ('=COUNTIF(B1:B3;"")', 1.0),
        ("=AVERAGEIF(A1:A3;\">1\")", 2.5),
        ('=SUMIFS(A1:A3;C1:C3;"a";B1:B3;">10")', 3.0),
        ('=AVERAGEIFS(A1:A3;C1:C3;"a";B1:B3;">10")', 3.0),
        ('=AVERAGEIFS(A1:A3;C1:C3;"a")', 2.0),
        ("=PERCENTILE(A1:A3;0.25)", 1.5),
        ("=STDEV(A1:A3)", 1.0),
        ("=IFS(A1>5;1;A2=2;\"two\")", "two"),
        ("=IFS(A1>5;1)", ErrorValue.MISSING),
        ("=HLOOKUP(10;A1:B3;3;FALSE)", 30.0),
        ("=VLOOKUP(2.5;A1:C3;3)", "b"),
        ("=CHOOSE(4;1;2)", ErrorValue.VALUE),
        ("=ROW()+COLUMN()", 2.0),
        ("=ROW(B3)*10+COLUMN(B3)", 32.0),
        ("=ROWS(A1:B3)*10+COLUMNS(A1:B3)", 32.0),
        ("=TEXT(1234.567;\"#,##0.0\")", "1,234.6"),
        ("=TEXT(0.375;\"0.0%\")", "37.5%"),
        ("=TEXT(DATE(2026;3;1);\"yyyy-MM-dd\")", "2026-03-01"),
        ("=DATE(2026;14;1)-DATE(2027;2;1)", 0.0),
        ("=YEAR(DATE(2026;3;0))*100+MONTH(DATE(2026;3;0))", 202602.0),
        ("=TEXTJOIN(\", \";TRUE;C1:C3)", "a, b, A"),
        ("=VALUE(\"12 %\")", 0.12),
        ("=MID(\"reed\";2;9)&RIGHT(\"bed\";1)&REPT(\"-\";2)", "eedd--"),
        ("=TRIM(\"  a   b \")", "a b"),
        ("=UPPER(\"ab\")&LOWER(\"AB\")&LEN(\"abc\")", "ABab3"),
        ("=TRUNC(-1.29;1)", -1.2),
        ("=ROUND(-2.5)", -3.0),
        ("=LARGE(A1:A3;9)", ErrorValue.NUMBER),
        ("=MEDIAN(A1:B3)", 3.0),
        ("=LN(0)", ErrorValue.NUMBER),
        ("=EXP(1000)", ErrorValue.NUMBER),
        ("=IF(B2=\"\";\"empty\";1)", "empty"),
        ("=IF(B2=0;\"zero\";1)", "zero"),
        ("=ISBLANK(B2)", True),
        ("=SUM(;1)", 1.0),
        ("=PI(1)", ErrorValue.VALUE),
    ],
)  # fmt: skip
def test_functions(formula: str, result: Value) -> None:
    found = value(formula)
    assert found == (pytest.approx(result) if type(result) is float else result)


def test_every_function_says_what_it_does() -> None:
    wanted = """SUM PRODUCT MIN MAX AVERAGE MEDIAN COUNT COUNTA COUNTIF SUMIF SUMIFS AVERAGEIF SUMPRODUCT ROUND ROUNDUP
        ROUNDDOWN INT TRUNC MOD ABS SIGN SQRT POWER EXP LN LOG10 PI SIN COS TAN ATAN2 RADIANS DEGREES RANK LARGE SMALL
        PERCENTILE STDEV IF IFS IFERROR ISBLANK ISNUMBER AND OR NOT INDEX MATCH VLOOKUP HLOOKUP CHOOSE ROW COLUMN ROWS
        COLUMNS TEXT VALUE LEFT RIGHT MID LEN TRIM UPPER LOWER CONCAT TEXTJOIN REPT DATE YEAR MONTH DAY TODAY NA"""
    assert set(wanted.split()) <= set(FUNCTIONS)
    for function in FUNCTIONS.values():
        assert function.help.endswith(".")
        assert function.least <= function.most


def test_formulas_in_a_locale_with_a_decimal_comma() -> None:
    cell = typed("=1,5*ROUND(B2;1)&\"2,5\"&'T 1,2'!A1", ",", ".")
    assert cell == Formula("=1.5*ROUND(B2;1)&\"2,5\"&'T 1,2'!A1")
    assert shown_for_editing(cell, ",") == "=1,5*ROUND(B2;1)&\"2,5\"&'T 1,2'!A1"
    assert shown_for_editing(Formula("=IF(A1,1.5,2)"), ",") == "=IF(A1;1,5;2)"


@pytest.mark.parametrize(
    "formula",
    [
        "=" + "SUM(" * 9_999 + "1" + ")" * 9_999,
        "=" + "-" * 30_000 + "1",
        '="' + "x" * 1_000_000 + '"',
        "=" + "A1:" * 10_000 + "A1",
        "=REPT(\"x\";1000000000)",
        "=SUMPRODUCT(A:A*B:B*C:C)",
        "=SUM(A1:XFD1048576*1)",
        "=9^9^9^9^9^9",
        "=DATE(1E300;1;1)",
        "=ROUND(1E300;-400)",
        "=INDEX(A:A;1E14)",
        "=" + "(" * 500_000,
        "=\x00",
        "='unclosed!A1",
    ],
    ids=range(14),
)  # fmt: skip
def test_harmful_formulas_end_quickly_in_a_value_or_an_error(formula: str) -> None:
    start = time.perf_counter()
    found = value(formula)
    assert found is None or isinstance(found, ErrorValue | float | str | bool)
    assert time.perf_counter() - start < 3


@pytest.mark.parametrize(
    ("formula", "value"),
    [
        ("=COUNT(1;1/0;2)", 2.0), ("=COUNTA(1;1/0;2)", 3.0), ("=COUNT(A1:A4)", 1.0), ("=COUNTA(A1:A4)", 4.0),
        ("=COUNTIF(A1:A4;TRUE)", 1.0), ("=COUNTIF(A1:A4;1)", 1.0), ('="1_000"+1', ErrorValue.VALUE),
        ("=SUM(1;1/0)", ErrorValue.DIVISION),
    ],
)  # fmt: skip
def test_errors_and_truth_are_counted_as_what_they_are(formula: str, value: object) -> None:
    """OpenFormula 1.3, 6.13.6 COUNT, 6.13.7 COUNTA, 6.13.9 COUNTIF; a text that is no number gives an error (6.3.5)."""
    cells = (1.0, True, Formula("=1/0"), "text")
    table = Table("t", "T", (Column("a", cells),))
    assert recalculate((table,)).evaluate(formula, "t") == value


@pytest.mark.parametrize(
    ("formula", "value"),
    [("=COUNTIF(A1:A4;A1)", 3.0), ("=COUNTIF(A1:A4;A3)", 1.0), ('=COUNTIF(A1:A4;"<>2023")', 1.0),
     ('=SUMIF(A1:A4;"2023";B1:B4)', 7.0)],
)  # fmt: skip
def test_years_typed_as_texts_are_found_by_their_text(formula: str, value: float) -> None:
    """A criterion that reads as a number meets the number and the same text (common practice)."""
    table = Table("t", "T", (Column("a", ("2023", "2023", 2023.0, "2024")), Column("b", (1.0, 2.0, 4.0, 8.0))))
    assert recalculate((table,)).evaluate(formula, "t") == value


@pytest.mark.parametrize(
    ("formula", "value"),
    [
        ('=FIND("e";"here there")', 2.0), ('=FIND("e";"here there";3)', 4.0), ('=FIND("E";"here")', ErrorValue.VALUE),
        ('=SEARCH("E";"here")', 2.0), ('=SEARCH("t*e";"here there")', 6.0), ('=SEARCH("r?";"here")', 3.0),
        ('=SEARCH("~?";"who?")', 4.0), ('=SEARCH("x";"here")', ErrorValue.VALUE), ('=FIND("";"abc")', 1.0),
        ('=FIND("a";"abc";0)', ErrorValue.VALUE),
    ],
)  # fmt: skip
def test_parts_of_texts_are_found(formula: str, value: object) -> None:
    """OpenFormula 1.3, 6.20.9 FIND and 6.20.22 SEARCH (sections from memory)."""
    assert recalculate((Table("t", "T", (Column("a", ("x",)),)),)).evaluate(formula, "t") == value


@pytest.mark.parametrize(
    ("formula", "result"),
    [
        ("=COUNTBLANK(A1:B3)", 2.0),  # over two columns
        ("=COUNTBLANK(A1:A9)", 7.0),  # cells beyond the table are blank, too
        ("=STDEV(B1:B2)", math.sqrt(50.0)),  # of two figures
        ("=SUMIFS(B1:B3;A1:A3;\">0\")", 10.0),
        ("=COUNTIF(C1:C3;\">0\")", 1.0),  # TRUE is no number
        ("=COUNTIF(D1:D3;\"a*b\")", 3.0),  # over a line break
        ("=COUNTIF(D1:D3;\"a?b\")", 2.0),
    ],
)  # fmt: skip
def test_edges_of_counting(formula: str, result: float) -> None:
    columns: tuple[list[Cell], ...] = ([1.0, None, -2.0], [10.0, 20.0, None], [True, 3.0, "x"], ["a\nb", "a b", "ab"])
    assert value(formula, *columns) == pytest.approx(result)


@pytest.mark.parametrize("text", ["1e2%", "1e400", "-1e2%"])
def test_numbers_with_an_exponent_end_in_a_value_or_a_text(text: str) -> None:
    found = value(f'=VALUE("{text}")')
    assert isinstance(found, float | ErrorValue)


def test_sums_by_several_criteria_ask_for_ranges_of_one_size() -> None:
    """ODF 1.3 part 4, 6.16.63: ranges of unlike sizes are an error, never a sum of some of them."""
    assert isinstance(value('=SUMIFS(A1:A3;B1:B2;">0")', [1.0, 2.0, 3.0], [1.0, 1.0, 1.0]), ErrorValue)
