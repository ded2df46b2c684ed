"""Who owns what is set: a recipe's setting and the look it stands for are one thing, whichever of them is touched."""

from typing import Any

from kavlet.core.charts.looks import parse
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import ChartEntry, Document
from kavlet.core.recipes.recipe import Parameter, Setting


def owners(document: Document, chart: ChartEntry) -> dict[str, Parameter]:
    """The settings of the chart's recipe that own a look, by its path."""
    recipe = recipes_of(document).get(chart.recipe)
    return (
        {parameter.look: parameter for parameter in recipe.parameters if parameter.look} if recipe is not None else {}
    )


def setting_of(chart: ChartEntry, parameter: Parameter) -> Setting:
    """What a setting is in a chart: a look set by hand in an older document comes before it."""
    by_hand = chart.dress.overrides.get(parameter.look) if parameter.look else None
    return (
        parameter.from_look(by_hand) if by_hand is not None else chart.settings.get(parameter.name, parameter.default)
    )


def looks_of(document: Document, chart: ChartEntry) -> dict[str, Any]:
    """All looks set by hand, by their path: those the dress holds, and those that are settings; bound ones stay out."""
    found = dict(chart.dress.overrides)
    for path, parameter in owners(document, chart).items():
        if parameter.name in chart.settings and path not in found:
            value = parameter.as_look(chart.settings[parameter.name])
            found |= {path: value} if value is not None else {}
    return found


def is_moved_by(parameter: Parameter, path: str) -> bool:
    """Whether setting the parameter takes back what was set by hand at a path."""
    look = parse(path)
    inside = ".".join(look.field) if look.layer and look.row is None else ""
    return path == parameter.look or path in parameter.moves or (bool(inside) and inside in parameter.moves)
