"""Writes the demo document: Mirefen's year, a table and a chart for each recipe, and its report on pages.

All names and figures are invented.
"""

import sys
from pathlib import Path
from typing import Any

import msgspec

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.spreadsheet.cells import Cell, FormattedNumber
from kavlet.core.values.number_text import WHOLE_PERCENT

sys.path.insert(0, str(Path(__file__).parent.parent))

from tools.demo_pages import with_pages

TARGET = Path(__file__).parent.parent / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def percent(share: float) -> Cell:
    return FormattedNumber(share, WHOLE_PERCENT)


def rows(head: str, *lines: tuple[object, ...]) -> list[list[Cell]]:
    """A table's cells from its names, parted by commas, and its lines."""
    names: list[Cell] = [name.strip() for name in head.split(",")]
    body: list[list[Cell]] = [
        [float(cell) if isinstance(cell, int) else cell for cell in line]  # type: ignore[misc]
        for line in lines
    ]
    return [names, *body]


# Name of the table, its cells, the recipe, and what of the chart is set: settings, texts, dress.
CHARTS: tuple[tuple[str, list[list[Cell]], str, dict[str, Any]], ...] = (
    (
        "Visitor path",
        rows(
            "stage, people",
            ("Visits", 18400),
            ("Guided walks", 6900),
            ("Newsletter", 2760),
            ("Donations", 1035),
            ("Members", 310),
        ),
        "funnel",
        {
            "title": '="One in "&ROUND(B2/B6;0)&" visitors becomes a member"',
            "subtitle": "From the gate to the members’ list, Mirefen reserve, 2025",
            "source": "Source: Mirefen visitor desk",
        },
    ),
    (
        "Boardwalk appeal",
        rows(
            "giver, given",
            ("Members", 14200),
            ("Walks’ collection box", 6340),
            ("Village fair", 3900),
            ("Kessel bakery", 2700),
            ("Legacy", 8500),
        ),
        "thermometer",
        {
            "title": "Three quarters of the new boardwalk are paid for",
            "subtitle": "Given until December 2025, in crowns; the goal is 48,000",
            "settings": {"goal": 48000.0, "milestones": "24000"},
        },
    ),
    (
        "Water clarity",
        rows("pond, clarity", ("Long Mere", 63), ("Otter Pool", 78), ("Reed Ditch", 41), ("Mill Leat", 55)),
        "gauge",
        {
            "title": "Long Mere is clear enough to see the bottom",
            "subtitle": "Water clarity index, yearly mean, 0 to 100",
            "settings": {"bands": "40; 70", "colours": "low to high", "target": 80.0},
        },
    ),
    (
        "Habitat cover",
        rows(
            "habitat, cover",
            ("Reedbed", 41.6),
            ("Open water", 23.3),
            ("Wet meadow", 19.8),
            ("Alder carr", 11.2),
            ("Paths and hides", 4.1),
        ),
        "waffle",
        {
            "title": "Reed covers two fifths of the reserve",
            "subtitle": "Each cell is one hundredth of Mirefen’s 212 hectares",
        },
    ),
    (
        "Nesting pairs",
        rows(
            "species, pairs",
            ("Reed warbler", 88),
            ("Great crested grebe", 34),
            ("Marsh harrier", 12),
            ("Water rail", 27),
            ("Bittern", 5),
        ),
        "pictogram",
        {
            "title": "Reed warblers lead the count of nesting pairs",
            "subtitle": "Breeding season 2025",
            "settings": {"unit": 10.0},
        },
    ),
    (
        "Pump hours",
        rows(
            "month, hours",
            ("January to March", 210),
            ("April to June", 96),
            ("July to September", 42),
            ("October on", 96),
        ),
        "battery",
        {
            "title": "63 % of the pump’s hours are left",
            "subtitle": "Licence for 1,200 hours a year",
            "settings": {"budget": 1200.0},
        },
    ),
    (
        "Reed planting",
        rows(
            "plot, planted, target",
            ("North bank", 420, 400),
            ("Mere edge", 310, 380),
            ("Otter Pool", 265, 250),
            ("Mill Leat", 180, 240),
            ("East dyke", 330, 300),
        ),
        "target-columns",
        {
            "title": "Three of five plots met their planting plan",
            "subtitle": "Reed plants set in spring 2025, against the plan",
        },
    ),
    (
        "Reserve fund",
        rows(
            "item, thousand crowns",
            ("Start of year", 212),
            ("Donations", 86),
            ("Grants", 48),
            ("Café", 19),
            ("Wages", -94),
            ("Boardwalk", -63),
            ("Upkeep", -27),
            ("End of year", 181),
        ),
        "bridge",
        {"title": "The boardwalk took more than the grants brought", "subtitle": "Reserve fund 2025, thousand crowns"},
    ),
    (
        "Survey by parcel",
        rows(
            "parcel, hours",
            ("Long Mere", 58),
            ("North bank", 45),
            ("Alder carr", 37),
            ("Wet meadow", 29),
            ("East dyke", 16),
        ),
        "radial-bars",
        {
            "title": "Long Mere took most of the survey’s hours",
            "subtitle": "Hours of survey, 2025",
            "settings": {"maximum": 60.0},
        },
    ),
    (
        "Species by habitat",
        rows(
            "family, habitat, species",
            ("Birds", "Reedbed", 38),
            ("Insects", "Reedbed", 54),
            ("Plants", "Reedbed", 17),
            ("Fish", "Open water", 14),
            ("Birds", "Open water", 26),
            ("Dragonflies", "Open water", 19),
            ("Plants", "Wet meadow", 61),
            ("Insects", "Wet meadow", 43),
            ("Fungi", "Alder carr", 31),
            ("Mosses", "Alder carr", 22),
        ),
        "two-level-ring",
        {
            "title": "Reedbed and wet meadow hold most species",
            "subtitle": "Species recorded in 2025, by habitat and kind",
        },
    ),
    (
        "Dawn and dusk",
        rows(
            "bird, seen at dawn",
            ("Bittern", percent(0.82)),
            ("Water rail", percent(0.61)),
            ("Marsh harrier", percent(0.34)),
            ("Kingfisher", percent(0.17)),
        ),
        "capsule",
        {"title": "Bitterns are best looked for at dawn", "subtitle": "Share of sightings within an hour of sunrise"},
    ),
    (
        "Visitors by gate",
        rows(
            "gate, visitors",
            ("Mill gate", 6120),
            ("Station path", 5240),
            ("East dyke", 3310),
            ("Village", 2480),
            ("Ferry", 1250),
        ),
        "highlight-bars",
        {"title": "A third of all visitors come by the mill gate", "subtitle": "Counted visitors, 2025"},
    ),
    (
        "Two summers",
        rows(
            "species, 2024, 2025",
            ("Swallowtail", 46, 71),
            ("Marsh fritillary", 18, 24),
            ("Emerald damselfly", 205, 214),
            ("Large copper", 39, 31),
            ("Norfolk hawker", 62, 40),
        ),
        "growth-bars",
        {
            "title": "Swallowtails gained most between two summers",
            "subtitle": "Counts along the transect, June to August",
        },
    ),
    (
        "Hours by task",
        rows("task, hours", ("Reed cutting", 960), ("Guiding", 540), ("Repairs", 300)),
        "pie",
        {
            "title": "A quarter of the volunteers’ hours is still free",
            "subtitle": "Of 2,400 hours promised for 2025",
            "settings": {"whole": 2400.0, "hole": 56.0, "place": "outside", "left over": "not yet planned"},
        },
    ),
    (
        "Storm month",
        rows(
            "month, rain",
            *zip(MONTHS, (52, 48, 61, 39, 44, 58, 66, 71, 63, 402, 77, 59), strict=True),
        ),
        "capped-bars",
        {
            "title": "October’s storm brought seven months’ rain",
            "subtitle": "Rain at the mill gauge, millimetres",
            "settings": {"cap": 110.0},
        },
    ),
    (
        "Monthly counts",
        rows(
            "species, birds, month",
            *(
                (species, count, month)
                for month, counts in (
                    ("March", (120, 340, 80, 45)),
                    ("April", (260, 290, 140, 60)),
                    ("May", (410, 180, 220, 95)),
                    ("June", (380, 120, 260, 130)),
                )
                for species, count in zip(("Warblers", "Ducks", "Terns", "Herons"), counts, strict=True)
            ),
        ),
        "stepping",
        {
            "title": "Warblers arrive as the ducks leave",
            "subtitle": "Birds counted at the hide, month by month",
            "settings": {"step": 2.0},
        },
    ),
    (
        "Path surfaces",
        rows(
            "path, boards, gravel, grass",
            ("Mere loop", 1200, 400, 900),
            ("Carr trail", 650, 150, 1100),
            ("Dyke walk", 200, 1600, 700),
            ("Mill path", 90, 820, 150),
        ),
        "stacked-bars",
        {"title": "Only the Mere loop is mostly boards", "subtitle": "Surface of the paths, share of their length"},
    ),
    (
        "Trees planted",
        rows("year, trees", ("2021", 140), ("2022", 210), ("2023", 180), ("2024", 320), ("2025", 390)),
        "picture-bars",
        {"title": "Every year more alders are planted", "subtitle": "Young trees set by school classes"},
    ),
    (
        "Guided walks",
        rows(
            "season, 2023, 2024, 2025",
            ("Spring", 24, 31, 36),
            ("Summer", 41, 44, 52),
            ("Autumn", 28, 26, 33),
            ("Winter", 9, 12, 15),
        ),
        "columns",
        {"title": "Walks grew in every season", "subtitle": "Guided walks held"},
    ),
    (
        "Helpers’ days",
        rows(
            "group, days",
            ("School classes", 64),
            ("Company days", 41),
            ("Saturday group", 118),
            ("Interns", 76),
            ("Neighbours", 23),
        ),
        "bars",
        {
            "title": "The Saturday group gives most days",
            "subtitle": "Days of help in 2025",
            "settings": {"labels": "values", "axis": False, "form": "rounded"},
        },
    ),
    (
        "Water level",
        rows(
            "month, Long Mere, Reed Ditch",
            *zip(
                MONTHS,
                (61, 64, 66, 62, 55, 48, 41, 37, 39, 58, 63, 65),
                (44, 46, 49, 45, 39, 33, 27, 24, 26, 41, 45, 46),
                strict=True,
            ),
        ),
        "lines",
        {
            "title": "The mere fell by a third until August",
            "subtitle": "Water level, centimetres above the sill",
            "settings": {"course": "smooth", "points": False, "labels": "ends"},
        },
    ),
    (
        "Visitors through the year",
        rows(
            "month, on foot, by bicycle, by boat",
            *zip(
                MONTHS,
                (410, 460, 720, 980, 1310, 1480, 1620, 1590, 1120, 760, 480, 390),
                (60, 80, 210, 380, 560, 690, 780, 740, 430, 220, 90, 50),
                (0, 0, 40, 120, 210, 320, 410, 380, 160, 40, 0, 0),
                strict=True,
            ),
        ),
        "areas",
        {
            "title": "Summer brings boats and bicycles",
            "subtitle": "Visitors by way of arrival",
            "settings": {"course": "smooth"},
        },
    ),
    (
        "Ponds",
        rows(
            "pond, depth, species",
            ("Long Mere", 310, 41),
            ("Otter Pool", 180, 36),
            ("Reed Ditch", 60, 22),
            ("Mill Leat", 90, 19),
            ("Heron Hole", 140, 31),
            ("New Scrape", 40, 27),
            ("Carr Pond", 110, 24),
        ),
        "points",
        {
            "title": "Deeper ponds hold more species",
            "subtitle": "Depth in centimetres against species found",
            "roles": {"x": "depth", "value": "species"},
        },
    ),
    (
        "Hides",
        rows(
            "hide, distance, sightings, visitors",
            ("Mere hide", 250, 64, 5200),
            ("Reed tower", 900, 91, 3100),
            ("Carr hide", 1400, 58, 1200),
            ("Dyke screen", 600, 37, 2100),
            ("Island hide", 1900, 103, 640),
        ),
        "bubbles",
        {
            "title": "The best hide is the least visited",
            "subtitle": "Metres from the gate against species seen; size: visitors",
            "roles": {"x": "distance", "value": "sightings", "size": "visitors"},
        },
    ),
    (
        "Ages of members",
        rows(
            "age, women, men",
            ("under 20", 18, 21),
            ("20 to 34", 42, 33),
            ("35 to 49", 61, 54),
            ("50 to 64", 73, 66),
            ("65 and more", 58, 49),
        ),
        "mirrored-bars",
        {"title": "Most members are between 35 and 64", "subtitle": "Members by age, 2025"},
    ),
    (
        "Café and rain",
        rows(
            "month, guests, rainy days",
            *zip(
                MONTHS,
                (310, 290, 420, 510, 640, 700, 820, 790, 560, 480, 330, 300),
                (14, 12, 13, 10, 9, 10, 11, 10, 12, 16, 15, 14),
                strict=True,
            ),
        ),
        "combined",
        {
            "title": "Rain does not keep the café’s guests away",
            "subtitle": "Guests of the reserve’s café, and days with rain",
            "roles": {"value": "guests", "line": "rainy days"},
            "settings": {"second": True},
        },
    ),
    (
        "Market stall",
        rows(
            "goods, crowns",
            ("Reed baskets", 2220),
            ("Honey", 1460),
            ("Seeds", 1070),
            ("Postcards", 810),
            ("Nest boxes", 560),
        ),
        "highlight-bars",
        {
            "title": "Reed baskets sell best at the market",
            "subtitle": "Taken at the reserve’s stall in 2025, in crowns",
            "look": {
                "solid.turn": -24.0,
                "solid.tilt": 16.0,
                "solid.perspective": 0.3,
                "solid.form": "round",
                "solid.edge": 2.0,
                "solid.walls": True,
            },
        },
    ),
)


def demo() -> Document:
    """All tables, charts and pages."""
    document = Document()
    for name, cells, recipe, made in CHARTS:
        document, table = edits.add_table(document, name, cells)
        ids = {str(column.cells[0]): column.id for column in document.table(table).columns}
        roles: dict[str, tuple[str, ...]] = {role: (ids[column],) for role, column in made.get("roles", {}).items()}
        document, chart = edits.add_chart(document, table, recipe, roles)
        texts = {key: value for key, value in made.items() if key in ("title", "subtitle", "source", "settings")}
        document = edits.change_chart(document, chart, **texts)
        if "look" in made:
            dress = msgspec.structs.replace(document.chart(chart).dress, overrides=made["look"])
            document = edits.change_chart(document, chart, dress=dress)
    return with_pages(document)


if __name__ == "__main__":
    kavlet_file.save(demo(), TARGET)
