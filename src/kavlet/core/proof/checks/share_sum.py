"""Parts of a whole that do not add up to it.

Source: the whole is what the author states, or 100 % where the figures are written as percents; a sum within what
rounding of each figure explains is no finding (Mosteller, Youtz and Zahn 1967, Demography 4(2)).
"""

import math
from collections.abc import Iterator, Sequence

from kavlet.core.layout.kinds import kind_of
from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject
from kavlet.core.text.numbers import written
from kavlet.core.values.sums import exact_sum

CLOSE = 0.08  # of the whole: figures near 100 % are meant to add up to it, others are a part of something else


def within_rounding(claimed: Sequence[float], unit: float, whole: float) -> bool:
    """Whether figures rounded to a unit each could add up to the whole exactly."""
    return abs(exact_sum(claimed) - whole) <= unit / 2 * len(claimed) + 1e-9 * abs(whole)


def check(subject: ChartSubject) -> Iterator[Finding]:
    """What a recipe noticed of a whole that was stated; and percents near 100 % that miss it by more than rounding."""
    yield from subject.notices(CHECK.name)
    parts = [layer for layer in subject.layers if kind_of(layer).shares_whole(layer, subject.chart.frame)]
    how = subject.inputs.number_text("value")
    if not parts or how.style != "percent" or subject.inputs.settings.get("whole") not in ("", None):
        return
    figures = [float(layer) for layer in subject.inputs.figures("value") if math.isfinite(layer)]
    total = exact_sum(figures)
    unit = 0.01 / 10**how.decimals
    if len(figures) < 2 or abs(total - 1) > CLOSE or within_rounding(figures, unit, 1.0):
        return
    total_text = written(total, how, subject.document.locale)
    if total < 1:
        message = say("The parts add up to {total}, so something of the whole is not shown.", total=total_text)
        remedy = subject.setting("show the left-over", say("Show what is left over"), {"whole": 1.0}, restates=True)
    else:
        message = say("The parts add up to {total}, more than the whole.", total=total_text)
        remedy = subject.setting("whole is the sum", say("Take the sum as the whole"), {"whole": total}, restates=True)
    if subject.has_setting("whole"):
        yield Finding(CHECK.name, "warning", total, message, subject.place(layer=parts[0].key), (remedy,))


CHECK = Check("share-sum", "Parts that do not add up to their whole", "Mosteller, Youtz and Zahn 1967", of_chart=check)
