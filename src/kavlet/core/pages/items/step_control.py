"""A slider for the period that charts of a page show."""

from kavlet.core.pages.items.item import Item


class StepControl(Item, frozen=True, tag_field="item", tag="steps", omit_defaults=True, forbid_unknown_fields=True):
    """Drives all charts of the page that step, or some by their ids; shows the period it stands at."""

    charts: tuple[str, ...] = ()
    slider: bool = True
    buttons: bool = True
