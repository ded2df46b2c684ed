"""Recalculation: order, cycles, and that an edit gives what a fresh evaluation gives."""

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kavlet.core.spreadsheet import ranges
from kavlet.core.spreadsheet.cells import Cell, ErrorValue, Formula
from kavlet.core.spreadsheet.recalculate import Values, recalculate
from kavlet.core.spreadsheet.table import Column, Table


def table(*columns: list[Cell], name: str = "Here", table_id: str = "t") -> Table:
    return Table(table_id, name, tuple(Column(f"{table_id}{i}", ("head", *cells)) for i, cells in enumerate(columns)))


def column(values: Values, index: int = 0, of: str = "t") -> list[object]:
    return list(values.of(of)[index].values[1:])


def test_formulas_are_evaluated_after_what_they_read() -> None:
    here = table([Formula("=A3*2"), Formula("=A4+1"), 4.0])
    assert column(recalculate((here,))) == [10.0, 5.0, 4.0]


def test_an_empty_cell_is_no_value() -> None:
    here = table([None, 3.0], [Formula("=COUNT(A2:A3)"), Formula("=A2+1")])
    assert column(recalculate((here,)), 1) == [1.0, 1.0]
    assert recalculate((here,)).numbers("t", 0)[0] != recalculate((here,)).numbers("t", 0)[0]  # NaN


def test_a_cycle_is_an_error_in_its_own_cells_only() -> None:
    here = table([Formula("=A3"), Formula("=A2"), Formula("=IFERROR(A2;7)"), Formula("=A4")])
    loop = ErrorValue.LOOP
    assert column(recalculate((here,))) == [loop, loop, 7.0, 7.0]


def test_cycles_over_tables_and_ranges_are_found() -> None:
    here = table([Formula("=SUM(There!A2:A3)")])
    there = table([1.0, Formula("=Here!A2")], name="There", table_id="u")
    values = recalculate((here, there))
    assert column(values) == [ErrorValue.LOOP]
    assert column(values, of="u") == [1.0, ErrorValue.LOOP]


def test_a_missing_table_and_a_missing_function_are_named_errors() -> None:
    here = table([Formula("=Gone!A1"), Formula("=NOPE(1)"), Formula("=1+"), Formula("=1/0")])
    assert column(recalculate((here,))) == [
        ErrorValue.NAME,
        ErrorValue.NAME,
        ErrorValue.VALUE,
        ErrorValue.DIVISION,
    ]


def test_an_edit_leaves_untouched_columns_the_same_objects() -> None:
    here = table([1.0, 2.0], [Formula("=A2*10"), Formula("=A3*10")], [5.0, 6.0])
    before = recalculate((here,))
    cells = ("head", 7.0, 2.0)
    edited = msgspec.structs.replace(
        here, columns=(msgspec.structs.replace(here.columns[0], cells=cells), *here.columns[1:])
    )
    after = recalculate((edited,), before)
    assert column(after, 1) == [70.0, 20.0]
    assert after.of("t")[2] is before.of("t")[2]
    assert column(before, 1) == [10.0, 20.0]


@pytest.mark.parametrize("text", ["=" + "(" * 10_000 + "1" + ")" * 10_000, "=" + "1+" * 15_000 + "1"])
def test_deep_formulas_give_a_value_or_an_error_quickly(text: str) -> None:
    assert column(recalculate((table([Formula(text)]),)))[0] in (1.0, ErrorValue.VALUE)


def test_nested_calls_beyond_the_limit_are_an_error() -> None:
    text = "=" + "ABS(" * 5_000 + "1" + ")" * 5_000
    assert column(recalculate((table([Formula(text)]),))) == [ErrorValue.VALUE]


def test_running_sums_over_formulas() -> None:
    rows = 400
    here = table(
        [float(i) for i in range(rows)],
        [Formula(f"=A{i + 2}*2") for i in range(rows)],
        [Formula(f"=SUM(B$2:B{i + 2})") for i in range(rows)],
    )
    assert column(recalculate((here,)), 2)[-1] == float(rows * (rows - 1))


_cells = st.one_of(
    st.none(),
    st.integers(-9, 9).map(float),
    st.sampled_from(["a", "3"]),
    st.sampled_from(
        ["=A2+1", "=SUM(A2:A5)", "=B3/A3", "=SUM(B$2:B4)", "=IF(A2>0;B2;C2)", "=C5&A4", "=MAX(A2:C5)", "=D9"]
    ).map(Formula),
)
_grids = st.lists(st.lists(_cells, min_size=4, max_size=4), min_size=3, max_size=3)


@settings(max_examples=150, deadline=None)
@given(_grids, st.lists(st.tuples(st.integers(0, 2), st.integers(1, 4), _cells), max_size=5))
def test_edits_give_what_a_fresh_evaluation_gives(grid: list[list[Cell]], changes: list[tuple[int, int, Cell]]) -> None:
    here = table(*grid)
    values = recalculate((here,))
    for index, row, cell in changes:
        held = list(here.columns[index].cells)
        held[row] = cell
        columns = list(here.columns)
        columns[index] = msgspec.structs.replace(columns[index], cells=tuple(held))
        here = msgspec.structs.replace(here, columns=tuple(columns))
        values = recalculate((here,), values)
        fresh = recalculate((here,))
        assert [column(values, i) for i in range(3)] == [column(fresh, i) for i in range(3)]


_words = st.sampled_from(
    ["a", "A", "aa", "", "1", "01", "I", "ı", "ß", "SS", ">2", "a*", None, 1.0, 2.0, 0.0, -1.0, True]
)
_tests = [
    "=COUNTIF(A$2:A$40;A{row})", "=COUNTIF(A$2:A{row};A{row})", "=SUMIF(A$2:A$40;A{row};B$2:B$40)",
    "=SUMIFS(B$2:B$40;A$2:A$40;A{row};B$2:B$40;\">0\")", "=COUNTIFS(A$2:A$40;A{row};B$2:B$40;B{row})",
    "=AVERAGEIF(A$2:A$40;A{row};B$2:B$40)", "=RANK(B{row};B$2:B$40)", "=RANK(B{row};B$2:B{row};1)",
    "=LARGE(B$2:B$40;2)+SMALL(B$2:B$40;2)", "=SUMPRODUCT(INT(B$2:B$40))+ROW()", "=SUM(B$2:B$40)/MAX(B$2:B$40)",
    "=SUMPRODUCT((A$2:A$40=A{row})*1)+SUMPRODUCT(B$2:B$40*ROW())",
]  # fmt: skip


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.tuples(_words, st.integers(-3, 9).map(float)), min_size=6, max_size=12),
    st.lists(st.tuples(st.integers(0, 1), st.integers(1, 6), _words), max_size=4),
)
def test_what_formulas_share_is_what_each_would_find(
    rows: list[tuple[Cell, Cell]], changes: list[tuple[int, int, Cell]]
) -> None:
    """Accounts of columns and parts that all rows share, against looking at every cell in every formula."""

    def made() -> Table:
        tests = [[Formula(one.format(row=row + 2)) for row in range(len(rows))] for one in _tests]
        return table([one for one, _ in rows], [one for _, one in rows], *tests)

    def alone(of: Table) -> list[list[object]]:
        """Each formula in a table of its own, beside what it looks at, where nothing is shared."""
        found = []
        for column in of.columns[2:]:
            held = []
            for row in range(1, of.height):
                own = [one if i == row else None for i, one in enumerate(column.cells)]
                columns = (*of.columns[:2], msgspec.structs.replace(column, cells=tuple(own)))
                held.append(recalculate((msgspec.structs.replace(of, columns=columns),)).of("t")[2].values[row])
            found.append(held)
        return found

    with pytest.MonkeyPatch.context() as patch:
        here = made()
        patch.setattr(ranges, "SMALL", 0)
        values = recalculate((here,))
        for index, row, cell in changes:
            held = list(here.columns[index].cells)
            held[min(row, len(held) - 1)] = cell
            columns = list(here.columns)
            columns[index] = msgspec.structs.replace(columns[index], cells=tuple(held))
            here = msgspec.structs.replace(here, columns=tuple(columns))
            values = recalculate((here,), values)
        shared = [column(values, i) for i in range(2, len(here.columns))]
        patch.setattr(ranges, "SMALL", 10**9)
        assert shared == alone(here)
