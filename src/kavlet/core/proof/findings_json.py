"""Findings as JSON holds them: in the record of a chart, and from the command line."""

import math
from collections.abc import Iterable
from typing import Any

from kavlet.core.document.document import Document
from kavlet.core.proof.finding import Finding, Location
from kavlet.core.spreadsheet.references import column_letters
from kavlet.core.values.errors import KavletError


def findings_json(findings: Iterable[Finding], document: Document) -> list[dict[str, Any]]:
    """Each finding with its check, severity, figure (null for none), message, chart or page, part and remedies."""
    return [_told(finding, document) for finding in findings]


def _told(finding: Finding, document: Document) -> dict[str, Any]:
    place = finding.place
    made: dict[str, Any] = {
        "check": finding.check,
        "severity": finding.severity,
        "figure": finding.figure if math.isfinite(finding.figure) else None,
        "message": str(finding.message),
    }
    for kind, name in (("chart", chart_name(document, place)), ("page", page_name(document, place))):
        if name:
            made[kind] = name
    part = part_of(place)
    if part:
        made["part"] = part
    made["remedies"] = [remedy.key for remedy in finding.remedies]
    if finding.silenced is not None:
        made["silenced"] = finding.silenced
    return made


def part_of(place: Location) -> dict[str, Any]:
    """Which part of the chart or page: the item, the layer and row, the cell, the kind of text."""
    part: dict[str, Any] = {}
    if place.item:
        part["item"] = place.item
    if place.layer:
        part["layer"] = place.layer
    if place.row is not None:
        part["row"] = place.row
    if place.text:
        part["text"] = place.text
    if place.cell is not None:
        part["cell"] = f"{column_letters(place.cell[0])}{place.cell[1] + 1}"
    return part


def chart_name(document: Document, place: Location) -> str:
    """What the chart of a place is called; empty for none."""
    try:
        return document.chart(place.chart).name if place.chart else ""
    except KavletError:
        return ""


def page_name(document: Document, place: Location) -> str:
    """What the page of a place is called; empty for none."""
    try:
        return document.page(place.page).name if place.page else ""
    except KavletError:
        return ""
