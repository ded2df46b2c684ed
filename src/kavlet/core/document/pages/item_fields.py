"""The fields of a page's items that depend on the document: which charts and tables there are to choose among."""

import msgspec

from kavlet.core.charts.fields import Choices, Field
from kavlet.core.document.charts.chart_order import columns_of
from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import item_name
from kavlet.core.messages import named, say
from kavlet.core.pages import fields
from kavlet.core.pages.items.drawn_shape import DrawnShape
from kavlet.core.pages.items.excerpt import Excerpt
from kavlet.core.pages.page import AnyItem


def of_item(document: Document, item: AnyItem) -> tuple[Field, ...]:
    """The fields of an item, with the charts and tables that they may name."""
    charts: Choices = tuple((one.id, say("{name}", name=one.name)) for one in document.charts)
    tables: Choices = tuple((one.id, say("{name}", name=one.name)) for one in document.tables)
    filled = {"chart": charts, "table": tables, "charts": (("", named("all")), *charts)}
    return tuple(
        msgspec.structs.replace(field, choices=filled[field.path]) if field.path in filled else field
        for field in fields.of_item(item)
    )


def headed(document: Document, item: AnyItem) -> str:
    """What an item is, with its name or what it shows where that says more."""
    kind, own = fields.called(item), item_name(document, item)
    match item:
        case DrawnShape() if not item.name:
            return str(say("{kind}: {name}", kind=kind, name=named(item.form)))
        case _ if own in ("", item.kind):
            return str(kind)
    return str(say("{kind}: {name}", kind=kind, name=own))


def columns_shown(document: Document, item: Excerpt) -> str:
    """The columns of an excerpt by their names, as they are typed; empty for all."""
    table = next((one for one in document.tables if one.id == item.table), None)
    if table is None:
        return ""
    return ", ".join(str(table.called(i)) for i, one in enumerate(table.columns) if one.id in item.columns)


def columns_typed(document: Document, item: Excerpt, text: str) -> tuple[str, ...]:
    """The columns that are typed, by names or letters. Raises KavletError for one that there is not."""
    return columns_of(document.table(item.table), text) if text.strip() else ()
