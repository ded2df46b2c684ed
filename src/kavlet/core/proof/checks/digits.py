"""Labels of more digits than are read, or of mixed decimals.

Source: A. S. C. Ehrenberg 1977 (J. Royal Statistical Society A 140(3)): figures are compared by two or three digits;
four as the most is common practice.
"""

import re
from collections.abc import Iterator

from kavlet.core.charts.chart import AnyLayer
from kavlet.core.charts.looks import of_layer
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding, Remedy
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.text.numbers import decimal_sign

MAX_DIGITS = 4


def significant(text: str, decimal: str) -> int:
    """The significant digits of a written number: without leading zeros, nor trailing ones of a whole number."""
    before, _, after = text.partition(decimal)
    whole = re.sub(r"\D", "", before).lstrip("0")
    if not after:
        return len(whole.rstrip("0"))
    return len(whole + re.sub(r"\D", "", after)) if whole else len(re.sub(r"\D", "", after).lstrip("0"))


def decimals(text: str, decimal: str) -> int:
    """The decimals of a written number."""
    return len(re.sub(r"\D", "", text.partition(decimal)[2]))


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Of each layer whose labels write values: the one of most digits; else whether their decimals are mixed."""
    sign = decimal_sign(subject.document.locale)
    for layer in subject.layers:
        label = layer.label
        if label is None or "{value}" not in label.template:
            continue
        texts = [
            (text, numbers[0])
            for text in subject.labels
            if text.key == layer.key and (numbers := _numbers(text.text, sign))
        ]
        if not texts:
            continue
        text, number = max(texts, key=lambda entry: significant(entry[1], sign))
        most = significant(number, sign)
        mixed = {decimals(entry, sign) for _, entry in texts}
        if most > MAX_DIGITS:
            message = say(
                "“{text}” has {count} digits that count; readers compare two or three.", text=number, count=most
            )
        elif len(mixed) > 1 and len(texts) > 1:
            message = say("The labels have {low} to {high} decimals.", low=min(mixed), high=max(mixed))
        else:
            continue
        yield Finding(
            CHECK.name,
            "note",
            float(most if most > MAX_DIGITS else max(mixed)),
            message,
            subject.text_place(text),
            tuple(_round(subject, layer, most)),
        )
        return


def _numbers(text: str, sign: str) -> list[str]:
    """The first number of a text that is one figure alone, with what parts its digits."""
    found = re.findall(r"\d(?:[\d.,'’\u00a0\u202f ]*\d)?", text)
    del sign
    return [one.strip() for one in found] if len(found) == 1 else []


def _round(subject: ChartSubject, layer: AnyLayer, most: int) -> Iterator[Remedy]:
    """Three digits at most, by an abbreviation where the figures are large; or the same decimals for all."""
    figures = [abs(figure) for _, figure in subject.figures(layer) if figure]
    if not figures:
        return
    label = layer.label
    how = (
        label.number
        if label is not None and label.number is not None
        else subject.inputs.number_texts.get(layer.figure_column)
    )
    path = of_layer(layer.key, "label", "number")
    shown = [100 * figure for figure in figures] if how is not None and how.style == "percent" else figures
    largest = max(shown)
    looks: dict[str, object]
    if largest >= 10_000:
        looks = {
            f"{path}.style": "short",
            f"{path}.least_decimals": 0,
            f"{path}.most_decimals": 0 if most > MAX_DIGITS else 1,
        }
        looks[f"{path}.significant"] = 0
        if largest < 100_000 or min(shown) < 10_000:
            looks |= {f"{path}.least_decimals": 1, f"{path}.most_decimals": 1}
    else:
        places = 0 if largest >= 100 else 1
        looks = {f"{path}.least_decimals": places, f"{path}.most_decimals": places, f"{path}.significant": 0}
        if how is not None and how.style != "number":
            looks[f"{path}.style"] = how.style
    if how is not None:
        keep = {"prefix": how.prefix, "suffix": how.suffix, "currency": how.currency, "sign": how.sign}
        looks |= {f"{path}.{name}": value for name, value in keep.items() if value and value != "auto"}
    yield subject.looks("round", say("Round the labels"), looks)


CHECK = Check("digits", "Labels of too many digits, or mixed decimals", "Ehrenberg 1977; four digits", of_chart=check)
