"""Edits of a chart's looks: values set by hand, given back, copied and pasted."""

from collections.abc import Iterable, Mapping
from typing import Any, Literal

import msgspec

from kavlet.core.charts.chart import Chart
from kavlet.core.charts.looks import parse
from kavlet.core.charts.overrides import leads
from kavlet.core.document import edits
from kavlet.core.document.charts.recipe_lookup import find_recipe
from kavlet.core.document.document import ChartEntry, Document, with_chart
from kavlet.core.document.looks.setting_owner import is_moved_by, looks_of, owners
from kavlet.core.messages import say
from kavlet.core.recipes.recipe import Setting
from kavlet.core.recipes.settings import checked_setting
from kavlet.core.styling.palettes import Palette
from kavlet.core.styling.style import resolve
from kavlet.core.values.errors import KavletError

What = Literal["all", "labels", "colours", "numbers"]
_COLOURS = ("fill", "edge", "colour", "rules", "tone")


def set_looks(document: Document, chart_id: str, looks: Mapping[str, Any]) -> Document:
    """Values set by hand, by their path; None gives one back. One that a setting of the recipe owns sets the setting.

    Raises KavletError for a value that the setting can't have.
    """
    chart = document.chart(chart_id)
    owned = {path: one for path, one in owners(document, chart).items() if path in looks}
    overrides = {path: value for path, value in chart.dress.overrides.items() if path not in looks}
    overrides |= {path: value for path, value in looks.items() if value is not None and path not in owned}
    document = _with(document, chart, overrides)
    for path, parameter in owned.items():
        value = looks[path]
        setting = None if value is None else checked_setting(parameter, parameter.from_look(value))
        document = set_setting(document, chart_id, parameter.name, setting)
    return document


def set_setting(document: Document, chart_id: str, name: str, value: Setting | None) -> Document:
    """Set a parameter of the chart's recipe; None, or its default, gives it back to the recipe.

    What was set by hand where the parameter decides is given back with it: the last word counts.
    """
    chart = document.chart(chart_id)
    parameter = find_recipe(document, chart.recipe).parameter(name)
    if parameter is None:
        raise KavletError(say("The recipe {recipe} has no setting “{name}”.", recipe=chart.recipe, name=name))
    settings = {key: held for key, held in chart.settings.items() if key != name}
    if value is not None and value != parameter.default:
        settings[name] = value
    overrides = {path: held for path, held in chart.dress.overrides.items() if not is_moved_by(parameter, path)}
    return edits.change_chart(_with(document, chart, overrides), chart_id, settings=settings)


def give_back(document: Document, chart_id: str, paths: Iterable[str]) -> Document:
    """Values given back to recipe and theme: those at the paths, and all that lie below them."""
    chart = document.chart(chart_id)
    doomed = [parse(path) for path in paths]

    def goes(path: str) -> bool:
        return any(parse(path).within(one) for one in doomed)

    document = _with(document, chart, {path: value for path, value in chart.dress.overrides.items() if not goes(path)})
    back = [one.name for path, one in owners(document, chart).items() if goes(path) and one.name in chart.settings]
    for name in back:
        document = set_setting(document, chart_id, name, None)
    return document


def give_all_back(document: Document, chart_id: str) -> Document:
    """Everything set by hand on a chart given back."""
    chart = document.chart(chart_id)
    return give_back(document, chart_id, looks_of(document, chart))


def _with(document: Document, chart: ChartEntry, overrides: dict[str, Any]) -> Document:
    dress = msgspec.structs.replace(chart.dress, overrides=overrides)
    return with_chart(document, msgspec.structs.replace(document.chart(chart.id), dress=dress))


def copied(document: Document, chart_id: str, what: What = "all", layer: str = "") -> dict[str, Any]:
    """What of a chart's looks is copied; with a `layer`, only that layer's. Looks of single rows stay behind."""
    found: dict[str, Any] = {}
    for path, value in looks_of(document, document.chart(chart_id)).items():
        look = parse(path)
        if look.row is not None or (layer and look.layer != layer):
            continue
        is_number = "number" in look.field or "numbers" in look.field
        is_label = "label" in look.field and not is_number
        fits = {
            "all": True,
            "labels": is_label or is_number,
            "colours": look.last in _COLOURS or "fill" in look.field,
            "numbers": is_number,
        }[what]
        if fits:
            found[path] = value
    return found


def with_own_colours(document: Document, picture: str, on: bool) -> Document:
    """A picture of the document drawn in the colours of its file, or in one, wherever it is used."""
    pictures = tuple(
        msgspec.structs.replace(one, own_colours=on) if one.name == picture else one for one in document.pictures
    )
    return msgspec.structs.replace(document, pictures=pictures)


def with_common_palette(document: Document, chart_id: str, on: bool) -> Document:
    """The chart's palette as the document's, which all charts without one of their own have; or the document's given
    up, and kept by the chart."""
    chart = document.chart(chart_id)
    common = chart.dress.palette or document.palette if on else None
    own = None if on else chart.dress.palette or document.palette
    dress = msgspec.structs.replace(chart.dress, palette=own)
    document = with_chart(document, msgspec.structs.replace(chart, dress=dress))
    return msgspec.structs.replace(document, palette=common)


def with_named_palette(document: Document, chart_id: str, name: str) -> Document:
    """The colours a chart's palette has now, kept by a name in the document, and the chart's palette from then on; a
    palette of that name is replaced, wherever it is used."""
    dress = document.chart(chart_id).dress
    colours = document.house.colours_of(dress.palette if dress.palette is not None else document.palette)
    colours = colours or tuple(one.hex for one in resolve(dress, document.house).palette)
    kept = tuple(one for one in document.palettes if one.name != name)
    document = msgspec.structs.replace(document, palettes=(*kept, Palette(name, name, "qualitative", colours)))
    return edits.change_chart(document, chart_id, dress=msgspec.structs.replace(dress, palette=name))


def without_palette(document: Document, name: str) -> Document:
    """The document without one of its named palettes; what has it keeps the colours."""
    colours = document.house.colours_of(name)
    charts = tuple(
        msgspec.structs.replace(one, dress=msgspec.structs.replace(one.dress, palette=colours))
        if one.dress.palette == name
        else one
        for one in document.charts
    )
    common = colours if document.palette == name else document.palette
    left = tuple(one for one in document.palettes if one.name != name)
    return msgspec.structs.replace(document, charts=charts, palette=common, palettes=left)


def settings_of_looks(document: Document, chart_id: str) -> dict[str, Setting]:
    """The settings that differ from the recipe's and change only how its chart looks: no helper column knows them."""
    chart = document.chart(chart_id)
    recipe = find_recipe(document, chart.recipe)
    found: dict[str, Setting] = {}
    for name, value in chart.settings.items():
        parameter = recipe.parameter(name)
        if parameter is None or parameter.look or parameter.type not in ("flag", "choice", "colour", "symbol"):
            continue  # what a look stands for is copied as that look
        if set_setting(document, chart_id, name, None).tables == document.tables:
            found[name] = value
    return found


def pasted(
    document: Document, chart_id: str, looks: Mapping[str, Any], old: str = "", keys: tuple[str, ...] = ()
) -> Document:
    """Copied looks put on another chart; those of the layer `old` go to all of the layers `keys`."""
    return set_looks(document, chart_id, limited(document, chart_id, moved(looks, old, keys)))


def limited(document: Document, chart_id: str, looks: Mapping[str, Any]) -> dict[str, Any]:
    """Looks as far as the settings that own them go: for gestures, and for what another recipe has had."""
    held = dict(looks)
    for path, parameter in owners(document, document.chart(chart_id)).items():
        value = held.get(path)
        if isinstance(value, float | int) and parameter.type == "number":
            low, high = parameter.minimum, parameter.maximum
            value = max(value, low / parameter.times) if low is not None else value
            held[path] = min(value, high / parameter.times) if high is not None else value
        elif value is not None and parameter.type == "choice" and parameter.from_look(value) not in parameter.choices:
            del held[path]
    return held


def moved(looks: Mapping[str, Any], old: str, keys: tuple[str, ...]) -> dict[str, Any]:
    """Looks with those of the layer `old` put on the layers `keys` instead; with none named they stay."""
    put: dict[str, Any] = {}
    for path, value in looks.items():
        look = parse(path)
        if old and look.layer == old:
            put |= {look.on(key).text: value for key in keys or (old,)}
        else:
            put[path] = value
    return put


def leftovers(chart: ChartEntry, spec: Chart) -> list[str]:
    """The paths of values set by hand that lead nowhere in what the chart is now; they are kept for the way back."""
    return [path for path in chart.dress.overrides if not leads(spec, path)]
