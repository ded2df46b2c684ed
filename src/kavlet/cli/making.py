"""kavlet make: a chart of a recipe from a table."""

import json
from pathlib import Path
from typing import Any

import click
import msgspec
from msgspec import Struct

from kavlet.cli.group import cli
from kavlet.cli.options import (
    AS,
    RAW,
    addressees,
    deliver,
    ending_of,
    is_folder,
    known_names,
    pair,
    put,
    read_table,
    table_name,
)
from kavlet.core.charts.overrides import expected
from kavlet.core.document.charts.chart_order import ChartRequest, chart_document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import palette as palette_files
from kavlet.core.files import tables as table_files
from kavlet.core.files.formats import As, ExportOptions
from kavlet.core.messages import words
from kavlet.core.pipeline.stages import picture
from kavlet.core.recipes.recipe import Parameter, Recipe, Setting
from kavlet.core.recipes.registry import RECIPES, recipe
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.lengths import size as read_size
from kavlet.export.outgoing import Export, slug
from kavlet.export.ways import all_endings


@cli.command()
@click.argument("recipe_name", metavar="RECIPE")
@click.argument("table", type=click.Path(path_type=Path))
@click.option(
    "-o", "--output", "out", required=True, type=click.Path(path_type=Path), help="Where to; its ending chooses."
)
@click.option("--role", "roles", multiple=True, metavar="NAME=COLUMN", help="Which column is for what.")
@click.option("--set", "settings", multiple=True, metavar="PARAMETER=VALUE", help="A parameter of the recipe.")
@click.option("--sheet", default=None, help="Which sheet of a workbook; the first when not said.")
@click.option("--range", "part", default=None, help="Which part of a sheet, such as A1:C9.")
@click.option(
    "--size", "size_text", default=None, help="Width and height, in points or units; the recipe's own if not."
)
@click.option("--theme", default=None, help="The look.")
@click.option("--dark", is_flag=True, help="The theme's dark ground.")
@click.option("--palette", default=None, help="A palette by name, a .gpl file, or hex codes.")
@click.option("--look", "looks", multiple=True, metavar="PATH=VALUE", help="A look set by hand, by its path.")
@click.option("--repeat", is_flag=True, help="One chart for each row or group, for recipes that show one.")
@click.option("--across", default="", metavar="ROW", help="Read across a row, by its name or number.")
@click.option("--title", default=None, help="The title, or a formula such as =B1.")
@click.option("--subtitle", default="", help="The line below the title.")
@click.option("--source", default="", help="The line below the chart.")
@click.option("--scale", default=1.0, show_default=True, help="Pixels per point, for PNG.")
@click.option("--outlines", is_flag=True, help="Write texts as outlines, for SVG.")
@click.option("--raw", is_flag=True, help=RAW)
@click.option("--format", "format_", default="", metavar="ENDING", help="The format, where the name does not say it.")
@click.option("--as", "as_", default="chart", type=click.Choice(AS), help="In office files: real charts or pictures.")
@click.option("--bare", is_flag=True, help="Without a ground.")
@click.option("--to", "to", default="", help="Addressees, for a mail draft.")
@click.option("--subject", default="", help="The subject, for a mail draft.")
def make(recipe_name: str, table: Path, out: Path, **options: Any) -> None:
    """Build a chart of RECIPE from a table; the ending of the output chooses the format."""
    wish = msgspec.convert(options, _Make)
    ending = ending_of(out, wish.format_, (*all_endings(), kavlet_file.SUFFIX))
    if recipe_name not in RECIPES:
        raise click.UsageError(
            words("There is no recipe “{name}”. There are: {names}.", name=recipe_name, names=list(RECIPES))
        )
    by_recipe = recipe(recipe_name)
    roles = _roles(by_recipe, [pair(text, "--role") for text in wish.roles])
    setting_pairs = [pair(text, "--set") for text in wish.settings]
    known_names("--set", [name for name, _ in setting_pairs], [parameter.name for parameter in by_recipe.parameters])
    order = ChartRequest(
        recipe=recipe_name,
        rows=table_files.named(read_table(table, wish.sheet, wish.part)),
        name=table_name(table),
        roles=roles,
        settings=_settings(by_recipe, setting_pairs),
        size=read_size(wish.size_text) if wish.size_text is not None else None,
        theme=wish.theme,
        dark=wish.dark,
        palette=palette_files.asked(wish.palette) if wish.palette is not None else None,
        looks={path: _look(text) for path, text in (pair(look, "--look") for look in wish.looks)},
        repeat=wish.repeat,
        across=wish.across,
        title=wish.title,
        subtitle=wish.subtitle,
        source=wish.source,
    )
    document, chart_id = chart_document(order)
    drawing = picture(document, recalculate(document.tables), chart_id)
    for path, value in order.looks.items():
        expected(drawing.build.chart, path, value)
    if ending == kavlet_file.SUFFIX:
        put(out, kavlet_file.dumps(document))
        return
    if is_folder(out):
        out = out / f"{slug(document.chart(chart_id).name)}{ending}"
    name, to = document.chart(chart_id).name, addressees(wish.to)
    how = ExportOptions(
        ending, wish.scale, wish.outlines, wish.as_, not wish.bare, to=to, subject=wish.subject, raw=wish.raw
    )
    deliver(Export(document, (chart_id,), title=name), how, out, as_json=False)


class _Make(Struct, frozen=True):
    """The options of `kavlet make`, as click gives them."""

    roles: tuple[str, ...]
    settings: tuple[str, ...]
    sheet: str | None
    part: str | None
    size_text: str | None
    theme: str | None
    dark: bool
    palette: str | None
    looks: tuple[str, ...]
    repeat: bool
    across: str
    title: str | None
    subtitle: str
    source: str
    scale: float
    outlines: bool
    raw: bool
    format_: str
    as_: As
    bare: bool
    to: str
    subject: str


def _roles(chosen: Recipe, pairs: list[tuple[str, str]]) -> dict[str, tuple[str, ...]]:
    """Columns by role; naming a role twice gives it both."""
    known_names("--role", [name for name, _ in pairs], [role.name for role in chosen.roles])
    roles: dict[str, tuple[str, ...]] = {}
    for name, text in pairs:
        roles[name] = (*roles.get(name, ()), text)
    return roles


def _look(text: str) -> object:
    """A look's value: JSON where it is any, else the text itself."""
    try:
        return json.loads(text)
    except ValueError:
        return text


def _settings(chosen: Recipe, pairs: list[tuple[str, str]]) -> dict[str, Setting]:
    settings: dict[str, Setting] = {}
    for name, text in pairs:
        parameter = next(one for one in chosen.parameters if one.name == name)
        value = _setting(parameter, text)
        if value != parameter.default:
            settings[name] = value
    return settings


def _setting(parameter: Parameter, text: str) -> Setting:
    if parameter.type == "flag" and text.lower() in ("yes", "true", "1", "on", "no", "false", "0", "off"):
        return text.lower() in ("yes", "true", "1", "on")
    if parameter.type == "number" and not text.startswith("="):
        try:
            return float(text)
        except ValueError:
            return text
    return text
