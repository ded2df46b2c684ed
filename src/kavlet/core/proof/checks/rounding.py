"""Rounded shares that do not add up to 100 as they are shown.

Source: Mosteller, Youtz and Zahn 1967 (Demography 4(2)): three shares rounded each add up to 100 three times out of
four; Diaconis and Freedman 1979 (J. American Statistical Association 74(366)). The remedy is the largest remainder
(Hamilton 1792).
"""

import math
from collections.abc import Iterator

from kavlet.core.charts.looks import of_layer
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.values.number_text import NumberText
from kavlet.core.values.sums import exact_sum


def rounded(figures: list[float], decimals: int) -> list[float]:
    """Shares of 1 as percents with so many decimals, half away from zero."""
    unit = 10**decimals
    return [math.floor(100 * figure * unit + 0.5 + 1e-9) / unit for figure in figures]


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Labels that write a column of percents by itself, where the exact figures add up to 100 % and those shown do
    not. Shares that the program works out are rounded so that they add up."""
    for layer in subject.layers:
        label = layer.label
        if label is None or "{value}" not in label.template or label.when != "all":
            continue
        how = label.numbers.get("value") or label.number or _column(subject, layer.figure_column)
        figures = [figure for _, figure in subject.figures(layer)]
        if how.style != "percent" or how.significant or len(figures) < 2 or min(figures) < 0:
            continue
        total = 100 * exact_sum(figures)
        shown = exact_sum(rounded(figures, how.decimals))
        if abs(total - 100) > 1e-6 or abs(shown - 100) < 1e-6:
            continue
        template = label.template.replace("{value}", "{share}")
        remedy = subject.looks(
            "largest remainder",
            say("Round so that they add up"),
            {
                of_layer(layer.key, "label", "template"): template,
                of_layer(layer.key, "label", "numbers", "share", "style"): "percent",
                of_layer(layer.key, "label", "numbers", "share", "most_decimals"): how.decimals,
            },
        )
        message = say("The shares as shown add up to {sum}, not to 100\u00a0%.", sum=f"{round(shown, 6):g}\u00a0%")
        yield Finding(CHECK.name, "note", shown, message, subject.place(layer=layer.key), (remedy,))


def _column(subject: ChartSubject, column: str) -> NumberText:
    return subject.inputs.number_texts.get(column, NumberText())


CHECK = Check(
    "rounding", "Rounded shares that do not add up to 100 %", "Mosteller, Youtz and Zahn 1967", of_chart=check
)
