"""Statistical functions (ODF 1.3 part 4, 6.18), and counting and adding by criteria."""

import math
import statistics
from bisect import bisect_left, bisect_right
from collections.abc import Iterator

from kavlet.core.spreadsheet.cells import ErrorValue, Value
from kavlet.core.spreadsheet.functions.criteria import Criterion
from kavlet.core.spreadsheet.functions.registry import (
    Argument,
    Failure,
    block,
    everything,
    function,
    number,
    numbers,
    ordered,
    truth,
    whole,
)
from kavlet.core.spreadsheet.ranges import Block
from kavlet.core.values.sums import exact_sum


@function("MIN", "number; …", "The smallest of the numbers; 0 when there are none.", 1, takes="ranges")
def _min(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return float(min(found) if isinstance(found, list) else found.min()) if len(found) else 0.0


@function("MAX", "number; …", "The largest of the numbers; 0 when there are none.", 1, takes="ranges")
def _max(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return float(max(found) if isinstance(found, list) else found.max()) if len(found) else 0.0


@function("AVERAGE", "number; …", "The mean of the numbers.", 1, takes="ranges")
def _average(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return exact_sum(found) / len(found) if len(found) else ErrorValue.DIVISION


@function("MEDIAN", "number; …", "The middle one of the numbers.", 1, takes="ranges")
def _median(*arguments: Argument) -> Value:
    found = numbers(arguments)
    return float(statistics.median(found)) if len(found) else ErrorValue.NUMBER


@function("STDEV", "number; …", "The standard deviation of a sample.", 1, takes="ranges")
def _stdev(*arguments: Argument) -> Value:
    found = [float(one) for one in numbers(arguments)]
    return statistics.stdev(found) if len(found) > 1 else ErrorValue.DIVISION


@function("COUNT", "value; …", "How many of the values are numbers.", 1, takes="ranges and errors")
def _count(*arguments: Argument) -> Value:
    return float(sum(type(value) is float for value in everything(arguments)))


@function("COUNTA", "value; …", "How many of the values are not empty.", 1, takes="ranges and errors")
def _count_all(*arguments: Argument) -> Value:
    return float(sum(value is not None for value in everything(arguments)))


@function("COUNTBLANK", "range", "How many cells are empty.", 1, 1, takes="ranges")
def _count_blank(of: Argument) -> Value:
    held = block(of)
    empty = sum(value is None or value == "" for value in held.values())
    return float(empty + (held.height - held.used) * held.width)


@function(
    "RANK",
    "number; range; [1 for ascending]",
    "The place of a number among others, 1 the largest.",
    2,
    3,
    takes="ranges",
)
def _rank(value: Argument, among: Argument, ascending: Argument = False) -> Value:
    wanted, others = number(value), ordered(among)
    first = bisect_left(others, wanted)
    if first == len(others) or others[first] != wanted:
        return ErrorValue.MISSING
    return 1.0 + float(first if truth(ascending) else len(others) - bisect_right(others, wanted))


@function("LARGE", "range; place", "The number at a place, counted from the largest.", 2, 2, takes="ranges")
def _large(among: Argument, place: Argument) -> Value:
    held = ordered(among)
    return _at(held, len(held) + 1 - whole(place))


@function("SMALL", "range; place", "The number at a place, counted from the smallest.", 2, 2, takes="ranges")
def _small(among: Argument, place: Argument) -> Value:
    return _at(ordered(among), whole(place))


def _at(held: list[float], place: int) -> Value:
    return held[place - 1] if 1 <= place <= len(held) else ErrorValue.NUMBER


@function("PERCENTILE", "range; share", "The number below which that share of the numbers lies.", 2, 2, takes="ranges")
def _percentile(among: Argument, share: Argument) -> Value:
    """Linear between neighbours, the ends included (Hyndman and Fan 1996, definition 7)."""
    held, part = ordered(among), number(share)
    if not held or not 0 <= part <= 1:
        return ErrorValue.NUMBER
    place = part * (len(held) - 1)
    low = math.floor(place)
    high = min(low + 1, len(held) - 1)
    return float(held[low] + (held[high] - held[low]) * (place - low))


@function("COUNTIF", "range; criterion", "How many cells meet a criterion.", 2, 2, takes="ranges")
def _count_if(among: Argument, test: Argument) -> Value:
    of, wanted = block(among), Criterion(test)
    return float(sum(wanted.meets(of.at(*place)) for place in _among([(of, wanted)])))


@function("SUMIF", "range; criterion; [range to add]", "Adds where cells meet a criterion.", 2, 3, takes="ranges")
def _sum_if(among: Argument, test: Argument, added: Argument | None = None) -> Value:
    return exact_sum(_picked(block(added if added is not None else among), [(block(among), test)], same_size=False))


@function(
    "AVERAGEIF", "range; criterion; [range to average]", "The mean where cells meet a criterion.", 2, 3, takes="ranges"
)
def _average_if(among: Argument, test: Argument, averaged: Argument | None = None) -> Value:
    source = block(averaged if averaged is not None else among)
    found = list(_picked(source, [(block(among), test)], same_size=False))
    return exact_sum(found) / len(found) if found else ErrorValue.DIVISION


@function("SUMIFS", "range to add; range; criterion; …", "Adds where all criteria are met.", 3, takes="ranges")
def _sum_ifs(added: Argument, *pairs: Argument) -> Value:
    return exact_sum(_picked(block(added), _pairs(pairs)))


@function(
    "AVERAGEIFS", "range to average; range; criterion; …", "The mean where all criteria are met.", 3, takes="ranges"
)
def _average_ifs(averaged: Argument, *pairs: Argument) -> Value:
    found = list(_picked(block(averaged), _pairs(pairs)))
    return exact_sum(found) / len(found) if found else ErrorValue.DIVISION


@function("COUNTIFS", "range; criterion; …", "How many rows meet all criteria.", 2, takes="ranges")
def _count_ifs(*pairs: Argument) -> Value:
    tests = [(of, Criterion(test)) for of, test in _pairs(pairs)]
    first = tests[0][0]
    if any((of.height, of.width) != (first.height, first.width) for of, _ in tests):
        return ErrorValue.VALUE
    return float(sum(all(wanted.meets(of.at(*place)) for of, wanted in tests) for place in _among(tests)))


def _among(tests: list[tuple[Block, Criterion]]) -> Iterator[tuple[int, int]]:
    """The rows and columns, from 0, where all tests can be met: those that the most telling of them leaves."""
    height, width = max(of.used for of, _ in tests), tests[0][0].width
    rows = min((wanted.rows(of) for of, wanted in tests if wanted.keys is not None), key=len, default=range(height))
    return ((row, column) for row in rows for column in range(width))


def _pairs(arguments: tuple[Argument, ...]) -> list[tuple[Block, Argument]]:
    if len(arguments) % 2:
        raise Failure(ErrorValue.VALUE)
    return [(block(of), test) for of, test in zip(arguments[::2], arguments[1::2], strict=True)]


def _picked(source: Block, pairs: list[tuple[Block, Argument]], same_size: bool = True) -> Iterator[float]:
    """The numbers of `source` at the places where all tests are met; an error at such a place ends the evaluation."""
    tests = [(of, Criterion(test)) for of, test in pairs]
    if same_size and any((of.height, of.width) != (source.height, source.width) for of, _ in tests):
        raise Failure(ErrorValue.VALUE)
    for row, column in _among(tests):
        if all(wanted.meets(of.at(row, column)) for of, wanted in tests):
            value = source.at(row, column)
            if isinstance(value, ErrorValue):
                raise Failure(value)
            if type(value) is float:
                yield value
