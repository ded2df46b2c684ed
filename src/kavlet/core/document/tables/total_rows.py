"""Total rows: which rows at a table's end sum up the others, and so are no parts of what a chart shows."""

import re

from kavlet.core.document.document import ChartEntry
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.spreadsheet.cells import Cell, Formula
from kavlet.core.spreadsheet.references import SCAN, column_letters, reference
from kavlet.core.spreadsheet.table import HEADER, Table

WORDS = frozenset(
    (
        *("total", "totals", "sum", "grand total", "altogether", "in all", "overall", "total sum"),
        *("gesamt", "summe", "gesamtsumme", "insgesamt", "zusammen", "alles zusammen"),
    )
)  # what such rows are called in the languages there are catalogues for


def counted_rows(table: Table, chart: ChartEntry, recipe: Recipe | None) -> int:
    """How many rows of figures a chart counts: without the total rows at the end, where they are left out."""
    return table.rows if counts_totals(chart, recipe) else table.rows - total_rows(table, chart, recipe)


def counts_totals(chart: ChartEntry, recipe: Recipe | None) -> bool:
    """Whether total rows stand among the others: as the author says, else not where the recipe adds its rows up."""
    return chart.totals if chart.totals is not None else recipe is None or not recipe.adds


def total_rows(table: Table, chart: ChartEntry, recipe: Recipe | None) -> int:
    """How many rows at the end sum up the others, by their name or by their formula; at least one row is left.

    None for a recipe that has totals of its own.
    """
    if recipe is None or recipe.role("total") is not None:
        return 0
    places = {column.id: i for i, column in enumerate(table.columns)}
    names = [places[one] for one in chart.roles.get("name", ()) if one in places]
    values = [places[one] for one in chart.roles.get("value", ()) if one in places]
    found = 0
    while found < table.rows - 1 and values and _is_total(table, table.rows - 1 - found, names, values):
        found += 1
    return found


def closing_rows(table: Table) -> int:
    """How many rows at a table's end sum up the others, whatever is drawn of it: they are called so, or read the rows
    above them in their own columns. At least one row is left."""
    own = [place for place, column in enumerate(table.columns) if column.helper is None]
    found = 0
    while found < table.rows - 1 and _closes(table, table.height - 1 - found, own):
        found += 1
    return found


def _closes(table: Table, row: int, own: list[int]) -> bool:
    cells = {place: table.columns[place].cells[row] for place in own}
    if any(_is_called_total(cell) for cell in cells.values()):
        return True
    return any(_reads_above(cell, place, row) for place, cell in cells.items())


def _is_called_total(cell: Cell) -> bool:
    return isinstance(cell, str) and cell.strip(" :").casefold() in WORDS


def _reads_above(cell: Cell, place: int, row: int) -> bool:
    """Whether a cell reads several rows that end above it in its own column, from the first on."""
    if not isinstance(cell, Formula):
        return False
    for match in SCAN.finditer(cell.text):
        held = reference(match[0]) if match["text"] is None else None
        if held is None or held.other is None or held.table or not held.one.column == place == held.other.column:
            continue
        if held.one.row <= HEADER < held.other.row < row:
            return True
    return False


def _is_total(table: Table, row: int, names: list[int], values: list[int]) -> bool:
    called = [table.columns[place].cells[row + HEADER] for place in names]
    if any(_is_called_total(name) for name in called):
        return True
    return all(_sums_above(table.columns[place].cells[row + HEADER], column_letters(place), row) for place in values)


def _sums_above(cell: Cell, letters: str, row: int) -> bool:
    """Whether a cell adds up all figures above it in its column."""
    first, last = HEADER + 1, row + HEADER
    area = rf"\$?{letters}\$?(?:{first}|{HEADER}):\$?{letters}\$?{last}"
    return (
        isinstance(cell, Formula) and re.fullmatch(rf"=SUM\({area}\)", cell.text.replace(" ", "").upper()) is not None
    )
