"""The sentences that charts are told in, by what they show: a ranking, parts, a trend, changes, steps, a relation."""

import math
from collections.abc import Sequence
from itertools import pairwise

from kavlet.core.recipes.facts import SeriesFacts, ShownFigures
from kavlet.core.text.numbers import written
from kavlet.core.values.apportion import rounded_shares
from kavlet.core.values.number_text import PERCENT, WHOLE_PERCENT, NumberText
from kavlet.core.values.sums import exact_sum

RELATED = 0.5  # the least correlation that is called one (common practice)
TURNING = 2.0  # times the change from first to last, that highest and lowest lie apart where a course turns
STANDS_OUT = 1.5  # times the next, from which on the largest is said to stand out


def message(facts: ShownFigures) -> list[str]:
    """The sentences of any chart's message, the most important first."""
    if len(facts.courses) > 1:
        return courses(facts)
    return trend(facts) if facts.timed and len(facts.courses[0].held) > 2 else ranking(facts)


def headline(facts: ShownFigures) -> str:
    """The message of any chart without its figures, as a title: it stays true as long as the order of things does."""
    series = [course for course in facts.courses if course.held]
    course = series[0]
    most, first = max(course.held, key=lambda series_: series_[0])
    if len(series) > 1:
        _, name_of_best = max((max(series_.held)[0], series_.name) for series_ in series)
        return facts.drawn("{name} reaches the most", name=name_of_best) if name_of_best else ""
    if facts.timed and len(course.held) > 2:
        if _turns(course):
            return facts.drawn("{what} is highest in {name}", what=course.name or facts.kind, name=facts.name(first))
        rises = course.held[-1][0] > course.held[0][0]
        fields = {"what": course.name or facts.kind, "end": facts.name(course.held[-1][1])}
        return facts.drawn("{what} rises up to {end}" if rises else "{what} falls down to {end}", **fields)
    others = sorted((figure for figure, _ in course.held), reverse=True)
    if len(others) < 2 or others[0] == others[1]:
        return ""
    stands = others[1] > 0 and most >= STANDS_OUT * others[1]
    return facts.drawn("{name} stands out" if stands else "{name} comes first", name=facts.name(first))


def who_grows(facts: ShownFigures) -> str:
    """A title for what has changed."""
    if len(facts.courses) < 2:
        return headline(facts)
    pairs = zip(facts.courses[0].figures, facts.courses[1].figures, strict=False)
    rates = [(b / a, row) for row, (a, b) in enumerate(pairs) if math.isfinite(a) and math.isfinite(b) and a > 0]
    return facts.drawn("{name} grows most", name=facts.name(max(rates)[1])) if rates and max(rates)[0] > 1 else ""


def who_has_most(facts: ShownFigures) -> str:
    """A title for two figures that go together."""
    along = facts.courses[-1]
    return facts.drawn("{name} has the largest {y}", name=facts.name(_top(along)), y=along.name) if along.held else ""


def where_lost(facts: ShownFigures) -> str:
    """A title for stages."""
    rates = [(b / a, row) for (a, _), (b, row) in pairwise(facts.courses[0].held) if a > 0]
    return facts.drawn("Most are lost before {name}", name=facts.name(min(rates)[1])) if rates else ""


def what_made_it(facts: ShownFigures) -> str:
    """A title for steps from one total to another."""
    steps = facts.courses[0].held[1:-1] or facts.courses[0].held
    row = max(steps, key=lambda one: abs(one[0]))[1]
    return facts.drawn("{name} makes the difference", name=facts.name(row))


def ranking(facts: ShownFigures) -> list[str]:
    """The largest against the next and the smallest."""
    course = facts.courses[0]
    ranked = sorted(course.held, key=lambda entry: (-entry[0], entry[1]))
    if len(ranked) < 2:
        figure, row = ranked[0]
        return [facts.drawn("{name} has {figure}.", name=facts.name(row), figure=facts.said(figure, course.how))]
    (most, first), (next_, second), (least, last) = ranked[0], ranked[1], ranked[-1]
    if most == least:
        return [facts.drawn("All {count} are {figure}.", count=len(ranked), figure=facts.said(most, course.how))]
    stands = next_ > 0 and most >= STANDS_OUT * next_
    sentences_ = [
        facts.drawn(
            "{name} stands out with {figure}, {times} times the next, {next}."
            if stands
            else "{name} is the largest of {count} with {figure}, before {next} with {second}.",
            name=facts.name(first), figure=facts.said(most, course.how), count=len(ranked), next=facts.name(second),
            second=facts.said(next_, course.how),
            times=written(most / next_, NumberText(most_decimals=1), facts.locale) if stands else "",
        )
    ]  # fmt: skip
    if len(ranked) > 2:
        smallest = facts.drawn(
            "The smallest is {name} with {figure}.", name=facts.name(last), figure=facts.said(least, course.how)
        )
        sentences_.append(smallest)
    return sentences_


def parts(facts: ShownFigures) -> list[str]:
    """The largest part and its share, then the next."""
    course = facts.courses[0]
    groups: dict[str, float] = {}
    for figure, row in course.held:
        groups[facts.name(row)] = groups.get(facts.name(row), 0.0) + figure
    total = exact_sum(groups.values())
    ranked = sorted(groups.items(), key=lambda entry: -entry[1])
    if total <= 0 or len(ranked) < 2:
        return ranking(facts)
    left_over = max(0.0, facts.whole - total)
    shares = rounded_shares([*(figure for _, figure in ranked), left_over], 0)  # those that the labels say
    share = [written(entry, WHOLE_PERCENT, facts.locale) for entry in shares]
    sentences_ = [
        facts.drawn(
            "{name} is the largest of {count} parts with {share} ({figure}).",
            name=ranked[0][0], count=len(ranked), share=share[0], figure=facts.said(ranked[0][1], course.how),
        ),
        facts.drawn("{name} follows with {share}.", name=ranked[1][0], share=share[1]),
    ]  # fmt: skip
    if len(ranked) > 2:
        sentences_.append(facts.drawn("The smallest is {name} with {figure}.", name=ranked[-1][0], figure=share[-2]))
    return sentences_


def trend(facts: ShownFigures) -> list[str]:
    """From the first to the last, how much that is, and the highest on the way; what goes up and down, the other way
    round."""
    course = facts.courses[0]
    ways = _from_to(facts, course), _peak(facts, course)
    return [*ways[1], *ways[0]] if _turns(course) else [*ways[0], *ways[1]]


def _turns(course: SeriesFacts) -> bool:
    """Whether a course goes up and down more than it changes from its first to its last figure, as seasons do."""
    figures = [figure for figure, _ in course.held]
    return max(figures) - min(figures) > TURNING * abs(figures[-1] - figures[0])


def _from_to(facts: ShownFigures, course: SeriesFacts) -> list[str]:
    (first, start), (last, end) = course.held[0], course.held[-1]
    steps = [b - a for (a, _), (b, _) in pairwise(course.held)]
    steady = len(steps) > 2 and (all(step > 0 for step in steps) or all(step < 0 for step in steps))
    plain = course.how.style == "percent" or first <= 0 or last < 0
    sentence = facts.drawn(
        "{what} is {last} in {end} as in {start}."
        if first == last
        else "{what} goes from {first} in {start} to {last} in {end}."
        if plain
        else "{what} rises steadily from {first} in {start} to {last} in {end}, by {change}."
        if last > first and steady
        else "{what} rises from {first} in {start} to {last} in {end}, by {change}."
        if last > first
        else "{what} falls steadily from {first} in {start} to {last} in {end}, by {change}."
        if steady
        else "{what} falls from {first} in {start} to {last} in {end}, by {change}.",
        what=course.name or facts.kind,
        first=facts.said(first, course.how),
        last=facts.said(last, course.how),
        start=facts.name(start),
        end=facts.name(end),
        change=written(abs(last - first) / abs(first), WHOLE_PERCENT, facts.locale) if first else "",
    )
    return [sentence]


def _peak(facts: ShownFigures, course: SeriesFacts) -> list[str]:
    """The highest and the lowest, where they are not at the ends."""
    ends = {course.held[0][1], course.held[-1][1]}
    peaks = []
    most, row = max(course.held, key=lambda entry: entry[0])
    if row not in ends:
        peaks.append(
            facts.drawn("The highest is {figure} in {name}.", figure=facts.said(most, course.how), name=facts.name(row))
        )
    least, row = min(course.held, key=lambda entry: entry[0])
    if row not in ends:
        peaks.append(
            facts.drawn("The lowest is {figure} in {name}.", figure=facts.said(least, course.how), name=facts.name(row))
        )
    return peaks


def courses(facts: ShownFigures) -> list[str]:
    """Several series: over time the one that changes most, else where the largest figure stands, and the sums."""
    series = [course for course in facts.courses if course.held]
    if not facts.timed or any(len(course.held) < 3 for course in series):
        figure, course, row = max(
            ((figure, course, row) for course in series for figure, row in course.held), key=lambda entry: entry[0]
        )
        sentences_ = [
            facts.drawn(
                "The largest figure is {figure}: {series}, {name}.",
                figure=facts.said(figure, course.how), series=course.name, name=facts.name(row),
            )
        ]  # fmt: skip
        return [*sentences_, *_sums(facts, series)]

    def change(course: SeriesFacts) -> float:
        first, last = course.held[0][0], course.held[-1][0]
        return abs(last - first) / abs(first) if first else 0.0

    sentences_ = []
    for course in sorted(series, key=change, reverse=True)[:3]:
        most, row = max(course.held, key=lambda entry: entry[0])
        sentences_ += (
            [
                facts.drawn(
                    "{series} is highest in {name} with {figure}.",
                    series=course.name, name=facts.name(row), figure=facts.said(most, course.how),
                )
            ]
            if _turns(course)
            else _from_to(facts, course)
        )  # fmt: skip
    return sentences_


def _sums(facts: ShownFigures, series: Sequence[SeriesFacts]) -> list[str]:
    """Which series is the largest in all, where their figures can be added."""
    if any(course.how.style == "percent" or any(figure < 0 for figure, _ in course.held) for course in series):
        return []
    if len({(course.how.style, course.how.suffix, course.how.currency) for course in series}) > 1:
        return []
    sums = sorted(
        ((exact_sum(figure for figure, _ in course.held), course) for course in series), key=lambda entry: -entry[0]
    )
    if len(sums) < 2 or sums[0][0] == sums[-1][0]:
        return []
    (most, course), (least, other) = sums[0], sums[-1]
    return [
        facts.drawn(
            "In all, {series} has most with {figure}, {other} least with {least}.",
            series=course.name, figure=facts.said(most, course.how), other=other.name,
            least=facts.said(least, other.how),
        )
    ]  # fmt: skip


def changes(facts: ShownFigures) -> list[str]:
    """Before and after: who grows most and who falls most."""
    if len(facts.courses) < 2:
        return ranking(facts)
    before, after = facts.courses[0], facts.courses[1]
    rates = [
        (b / a - 1, row) for row, (a, b) in enumerate(zip(before.figures, after.figures, strict=False))
        if math.isfinite(a) and math.isfinite(b) and a > 0
    ]  # fmt: skip
    if not rates:
        return courses(facts)
    found = []
    (most, up), (least, down) = max(rates), min(rates)
    signed = NumberText(style="percent", most_decimals=0, sign="always")
    if most > 0:
        rate = written(most, signed, facts.locale)
        found.append(facts.drawn("{name} grows most, by {rate}.", name=facts.name(up), rate=rate))
    if least < 0:
        rate = written(least, signed, facts.locale)
        found.append(facts.drawn("{name} falls most, by {rate}.", name=facts.name(down), rate=rate))
    if most > 0 and least >= 0 and len(rates) > 1:
        found.append(facts.drawn("All grow or stay; {name} least.", name=facts.name(down)))
    return found or [facts.drawn("Nothing changes.")]


def bridge(facts: ShownFigures) -> list[str]:
    """Where it starts and ends, and the largest step."""
    course = facts.courses[0]
    if len(course.held) < 3:
        return ranking(facts)
    (first, start), *steps = course.held
    level, totals = first, []
    moves: list[tuple[float, int]] = []
    for figure, row in steps:
        if abs(figure - level) <= 1e-9 * max(1.0, abs(figure)):  # a total that the steps lead to
            totals.append(row)
            continue
        level += figure
        moves.append((figure, row))
    if not moves:
        return ranking(facts)
    signed = NumberText(
        style=course.how.style, most_decimals=course.how.most_decimals, prefix=course.how.prefix,
        suffix=course.how.suffix, currency=course.how.currency, sign="always",
    )  # fmt: skip
    step, row = max(moves, key=lambda one: abs(one[0]))
    return [
        facts.drawn(
            "From {first} ({start}) to {last}: {change}.",
            first=facts.said(first, course.how), start=facts.name(start), last=facts.said(level, course.how),
            change=facts.said(level - first, signed),
        ),
        facts.drawn("The largest step is {name} with {figure}.", name=facts.name(row), figure=facts.said(step, signed)),
    ]  # fmt: skip


def funnel(facts: ShownFigures) -> list[str]:
    """How many get through, and where most are lost."""
    course = facts.courses[0]
    if len(course.held) < 2 or course.held[0][0] <= 0:
        return ranking(facts)
    first, (last, end) = course.held[0][0], course.held[-1]
    rates = [(b / a, row) for (a, _), (b, row) in pairwise(course.held) if a > 0]
    found = [
        facts.drawn(
            "{last} of {first} reach {end}, {share}.",
            last=facts.said(last, course.how), first=facts.said(first, course.how), end=facts.name(end),
            share=written(last / first, PERCENT, facts.locale),
        )
    ]  # fmt: skip
    if rates and len(rates) > 1:
        rate, row = min(rates)
        found.append(
            facts.drawn(
                "Most are lost before {name}: {share} get there.",
                name=facts.name(row), share=written(rate, WHOLE_PERCENT, facts.locale),
            )
        )  # fmt: skip
    return found


def relation(facts: ShownFigures) -> list[str]:
    """How the second figure goes with the first (Pearson's correlation), and the row where it is largest."""
    if len(facts.courses) < 2:
        return ranking(facts)
    across, along = facts.courses[0], facts.courses[1]
    pairs = [
        (a, b, row) for row, (a, b) in enumerate(zip(across.figures, along.figures, strict=False))
        if math.isfinite(a) and math.isfinite(b)
    ]  # fmt: skip
    sentences_ = []
    r = correlation([(a, b) for a, b, _ in pairs])
    if len(pairs) > 3 and not math.isnan(r):
        number = written(r, NumberText(least_decimals=2, most_decimals=2), facts.locale)
        sentence = facts.drawn(
            "The more {x}, the more {y} (correlation {r})."
            if r >= RELATED
            else "The more {x}, the less {y} (correlation {r})."
            if r <= -RELATED
            else "{y} hardly goes with {x} (correlation {r}).",
            x=across.name,
            y=along.name,
            r=number,
        )
        sentences_.append(sentence)
    if pairs:
        _, most, row = max(pairs, key=lambda entry: entry[1])
        sentences_.append(
            facts.drawn(
                "{name} has the largest {y}, {figure}.",
                name=facts.name(row), y=along.name, figure=facts.said(most, along.how),
            )
        )  # fmt: skip
    return sentences_


def correlation(pairs: Sequence[tuple[float, float]]) -> float:
    """Pearson's correlation of pairs; NaN where one side does not vary."""
    if len(pairs) < 2:
        return math.nan
    scale = max(max(abs(a), abs(b)) for a, b in pairs) or 1.0
    held = [(a / scale, b / scale) for a, b in pairs]  # so that no square is beyond all numbers
    mean_a, mean_b = exact_sum(a for a, _ in held) / len(held), exact_sum(b for _, b in held) / len(held)
    both = exact_sum((a - mean_a) * (b - mean_b) for a, b in held)
    squares = exact_sum((a - mean_a) ** 2 for a, _ in held) * exact_sum((b - mean_b) ** 2 for _, b in held)
    return max(-1.0, min(1.0, both / math.sqrt(squares))) if squares > 0 else math.nan


def _top(course: SeriesFacts) -> int:
    return max(course.held, key=lambda one: one[0])[1]
