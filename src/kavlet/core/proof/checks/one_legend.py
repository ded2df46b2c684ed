"""A legend of one entry, or one that repeats what labels at the marks say.

Source: common practice; E. R. Tufte 1983, chapter 6, on ink that says nothing new.
"""

from collections.abc import Iterator

from kavlet.core.messages import say
from kavlet.core.proof.check import Check
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject


def check(subject: ChartSubject) -> Iterator[Finding]:
    """Entries are compared with labels and names by their texts."""
    names = [key.name for key in subject.figure.keys]
    if not names or len(subject.picture.build.panels) > 1:
        return
    drop = subject.looks("drop legend", say("Leave the legend out"), {"legend.side": "none"})
    if len(names) == 1 and not subject.chart.legend.key:
        message = say("The legend has one entry only.")
        yield Finding(CHECK.name, "note", 1.0, message, subject.place(text="legend"), (drop,))
        return
    said = [text.text.casefold() for text in subject.texts("label", "name")]
    if len(names) > 1 and all(any(name.casefold() in text for text in said) for name in names if name):
        message = say("The legend repeats what the labels say.")
        yield Finding(CHECK.name, "note", float(len(names)), message, subject.place(text="legend"), (drop,))


CHECK = Check("one-legend", "A legend that says nothing new", "Tufte 1983, chapter 6", of_drawing=check)
