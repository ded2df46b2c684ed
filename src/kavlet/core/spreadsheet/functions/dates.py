"""Dates (ODF 1.3 part 4, 6.10): numbers that count days from 30 December 1899."""

from datetime import date, timedelta

from kavlet.core.spreadsheet.cells import EPOCH, ErrorValue, Value
from kavlet.core.spreadsheet.functions.registry import Argument, Failure, function, number, whole

MAX_DAYS = (date.max - EPOCH).days


def as_date(days: float) -> date:
    """The date of a number of days. Fails when it is before the year 1 or after 9999."""
    whole_days = int(days // 1)
    if not -693_593 <= whole_days <= MAX_DAYS:
        raise Failure(ErrorValue.NUMBER)
    return EPOCH + timedelta(days=whole_days)


def as_days(of: date) -> float:
    """The number of a date."""
    return float((of - EPOCH).days)


@function("DATE", "year; month; day", "The date of a year, month and day; months and days may run over.", 3, 3)
def _date(year: Argument, month: Argument, day: Argument) -> Value:
    years, months = divmod(whole(month) - 1, 12)
    in_year = whole(year) + years
    if not 1 <= in_year <= 9999:
        return ErrorValue.NUMBER
    days = as_days(date(in_year, months + 1, 1)) + whole(day) - 1
    return days if abs(days) <= MAX_DAYS else ErrorValue.NUMBER


@function("YEAR", "date", "The year of a date.", 1, 1)
def _year(of: Argument) -> Value:
    return float(as_date(number(of)).year)


@function("MONTH", "date", "The month of a date, 1 to 12.", 1, 1)
def _month(of: Argument) -> Value:
    return float(as_date(number(of)).month)


@function("DAY", "date", "The day of a date in its month.", 1, 1)
def _day(of: Argument) -> Value:
    return float(as_date(number(of)).day)


@function("TODAY", "", "Today’s date.", 0, 0)
def _today() -> Value:
    return as_days(date.today())
