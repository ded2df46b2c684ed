"""Writes the demo document: Mirefen's year. All names and figures are invented."""

from pathlib import Path

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file

TARGET = Path(__file__).parent.parent / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
VISITOR_PATH = (
    ("Visits", 18400.0),
    ("Guided walks", 6900.0),
    ("Newsletter", 2760.0),
    ("Donations", 1035.0),
    ("Members", 310.0),
)


def demo() -> Document:
    """One table and its funnel."""
    document, table = edits.add_table(Document(), "Visitor path", [["stage", "people"], *map(list, VISITOR_PATH)])
    document, chart = edits.add_chart(document, table, "funnel")
    return edits.change_chart(
        document,
        chart,
        title='="One in "&ROUND(1/E6;0)&" visitors becomes a member"',
        subtitle="From the gate to the members’ list, Mirefen reserve, 2025",
        source="Source: Mirefen visitor desk",
    )


if __name__ == "__main__":
    kavlet_file.save(demo(), TARGET)
