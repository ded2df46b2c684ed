"""The record: what was computed for charts or pages, and what Proof finds in them, as JSON."""

from kavlet.core.files import record
from kavlet.core.pipeline.page_items import page_picture as paging
from kavlet.core.proof.findings_json import findings_json
from kavlet.core.proof.proofreading import drawn_chart, drawn_page, of_chart, of_page
from kavlet.export.outgoing import Export


def record_of(export: Export) -> bytes:
    """The record of one chart or page, or of several."""
    made = pages_told(export) if export.pages else charts_told(export)
    return record.dumps(made[0] if len(made) == 1 else made)


def charts_told(export: Export) -> list[dict[str, object]]:
    """What is told of each chart."""
    records = []
    for picture in export.chart_pictures:
        findings = findings_json(of_chart(drawn_chart(export.document, export.values, picture)), export.document)
        records.append(record.record(picture.build.entry.recipe, picture.build.helpers, picture.figure, findings))
    return records


def pages_told(export: Export) -> list[dict[str, object]]:
    """What is told of each page."""
    return [
        {
            **paging.record(one),
            "findings": findings_json(of_page(drawn_page(export.document, export.values, one)), export.document),
        }
        for one in export.page_pictures
    ]
