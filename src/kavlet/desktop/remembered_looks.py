"""Looks an author wants a recipe to have from now on, in every document: kept with the program's settings."""

import msgspec
from PySide6.QtCore import QSettings

from kavlet.core.document import edits
from kavlet.core.document.charts import chart_edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.pipeline.stages import main_layer
from kavlet.core.recipes.recipe import Setting
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.styling.style import Dress

_KEY = "remembered looks"


class RememberedLook(msgspec.Struct, frozen=True):
    """What is remembered: the look, the layer its values were set on first, and settings that are only looks."""

    layer: str
    dress: Dress
    settings: dict[str, Setting] = {}


def remembered(recipe: str) -> RememberedLook | None:
    """The look remembered for a recipe; None when there is none, or it can't be read any more."""
    held = QSettings().value(f"{_KEY}/{recipe}")
    if not isinstance(held, str):
        return None
    try:
        return msgspec.json.decode(held, type=RememberedLook)
    except msgspec.MsgspecError:
        return None


def remember(recipe: str, look: RememberedLook) -> None:
    """Keep a look for a recipe."""
    QSettings().setValue(f"{_KEY}/{recipe}", msgspec.json.encode(look).decode())


def with_remembered_look(document: Document, chart: str, old: str = "") -> Document:
    """A chart with the looks set by hand on the layer `old`, with what is remembered for its recipe, and what that
    proposes for want of either."""
    from kavlet.core.document.tables.table_advice import with_proposals

    own = document.chart(chart).settings
    document = with_proposals(document, chart)
    entry = document.chart(chart)
    look = remembered(entry.recipe)
    if look is None and not old:
        return document
    main = main_layer(document, recalculate(document.tables), chart)
    if main is None:
        return document  # the table does not fit the recipe; there is nothing to dress
    overrides = chart_edits.carried_over(entry.dress.overrides, old, main.key, main.vary)
    dress = msgspec.structs.replace(entry.dress, overrides=overrides)
    if look is None:
        return edits.change_chart(document, chart, dress=dress)
    plain = not old and entry.dress == Dress()
    base = msgspec.structs.replace(look.dress, overrides=overrides) if plain else dress
    document = edits.change_chart(document, chart, dress=base)
    mine = look_edits.moved(look.dress.overrides, look.layer, (main.key,))
    mine = {path: value for path, value in mine.items() if path not in overrides}
    document = look_edits.set_looks(document, chart, look_edits.limited(document, chart, mine))
    for name, value in look.settings.items():
        if name not in own:
            document = look_edits.set_setting(document, chart, name, value)
    return document


def forget(recipe: str) -> None:
    """Give the recipe back its own look."""
    QSettings().remove(f"{_KEY}/{recipe}")
