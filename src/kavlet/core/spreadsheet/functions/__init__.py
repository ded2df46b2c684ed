"""The functions of formulas (OASIS ODF 1.3 part 4, 6), by family. Importing this package registers them all."""

from kavlet.core.spreadsheet.functions import arithmetic, dates, logic, lookup, statistics, texts
from kavlet.core.spreadsheet.functions.registry import FUNCTIONS, Function

__all__ = ["FUNCTIONS", "Function", "arithmetic", "dates", "logic", "lookup", "statistics", "texts"]
