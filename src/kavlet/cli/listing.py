"""The other commands: open, pages, calc, recipes, suggest, showcase."""

import json
import sys
import threading
from collections.abc import Callable
from pathlib import Path

import click
import msgspec

from kavlet.cli.group import cli
from kavlet.cli.options import RAW, known_ending, read_table, table_name
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.pages.page_edits import item_name
from kavlet.core.document.tables.table_advice import suggestions
from kavlet.core.files import atomic, csv
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import tables as table_files
from kavlet.core.files.formats import TABLES, endings, renamings, table_content
from kavlet.core.files.table_texts import calculated
from kavlet.core.messages import say, words
from kavlet.core.pages.arrangements import places
from kavlet.core.pages.page import Page
from kavlet.core.recipes.recipe import QUESTIONS, Parameter, Recipe
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.values.errors import KavletError
from kavlet.core.values.sizes import MM

SUGGESTED = 5  # recipes that are said of each table


def _window() -> Callable[..., int]:
    """What opens the window. Raises KavletError where Qt is not installed."""
    try:
        from kavlet.desktop.main import run
    except ImportError as missing:
        if "PySide6" not in str(missing):
            raise
        raise KavletError(
            say("The window needs Qt."), remedy=say("Install it: pip install 'kavlet[window]'.")
        ) from None
    return run


@cli.command()
def demo() -> None:
    """Open the demo document in the window."""
    sys.exit(_window()(demo=True))


@cli.command(name="open")
@click.argument("file", required=False, type=click.Path(path_type=Path))
def open_file(file: Path | None) -> None:
    """Open a document or a table in the window."""
    if file is not None and not file.exists():
        raise KavletError(say("{file} is not there.", file=file))
    sys.exit(_window()(file))


@cli.command(name="showcase")
def show_published() -> None:
    """Show what was published, on this machine alone, until Ctrl+C."""
    from kavlet.sharing import showcase
    from kavlet.sharing.server import Server

    server = Server()
    server.start()
    for page in showcase.index().pages:
        if not page.taken_back:
            click.echo(f"{showcase.address(page)}  {page.title}")
    click.echo(words("Showing it at port {port}; Ctrl+C ends it.", port=str(server.port)))
    try:
        threading.Event().wait()
    except KeyboardInterrupt:
        server.stop()


@cli.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="As JSON: name, size in points, items with kinds and bounds.")
def pages(file: Path, as_json: bool) -> None:
    """List the pages of a document."""
    document = kavlet_file.load(file)
    held = [_listed_page(document, page) for page in document.pages]
    if as_json:
        click.echo(json.dumps(held, ensure_ascii=False, indent=1))
        return
    for number, page in enumerate(document.pages, 1):
        size = f"{page.width / MM:.0f} × {page.height / MM:.0f} mm"
        click.echo(f"{number:3}  {page.name:30} {size}")


def _listed_page(document: Document, page: Page) -> dict[str, object]:
    boxes = places(page)
    return {
        "name": page.name, "width": page.width, "height": page.height,
        "items": [
            {"kind": item.kind, "name": item_name(document, item), "bounds": msgspec.structs.astuple(boxes[item.id])}
            for item in page.items
        ],
    }  # fmt: skip


@cli.command()
@click.argument("table", type=click.Path(path_type=Path))
@click.option(
    "-o", "--output", "out", default=None, type=click.Path(path_type=Path), help="A file to write; its ending chooses."
)
@click.option("--sheet", default=None, help="Which sheet of a workbook; the first when not said.")
@click.option("--range", "part", default=None, help="Which part of a sheet, such as A1:C9.")
@click.option("--raw", is_flag=True, help=RAW)
def calc(table: Path, out: Path | None, sheet: str | None, part: str | None, raw: bool) -> None:
    """Evaluate the formulas of a table, cell by cell in place: to print as CSV, or to write as any table format."""
    read = read_table(table, sheet, part)
    if out is None or out.suffix.lower() in csv.SUFFIXES:
        text = csv.dumps(calculated(read.cells, table.stem, raw))
        if out is not None:
            atomic.write(out, text.encode())
        else:
            click.echo(text.replace("\r\n", "\n"), nl=False)
        return
    known_ending(out, endings(TABLES, "table"))
    document, table_id = edits.add_table(Document(), table_name(table), read.cells)
    held = (document.table(table_id), recalculate(document.tables))
    atomic.write(out, table_content([held], out.suffix, raw))
    for note in renamings([held], out.suffix):
        click.echo(f"kavlet: {out.name}: {note}", err=True)


@cli.command()
@click.option("--json", "as_json", is_flag=True, help="As JSON, with roles, parameters and helper columns.")
def recipes(as_json: bool) -> None:
    """List every recipe with what it needs."""
    if as_json:
        click.echo(json.dumps([declared(recipe) for recipe in RECIPES.values()], ensure_ascii=False, indent=1))
        return
    for recipe in RECIPES.values():
        click.echo(f"{recipe.name:16} {words(QUESTIONS[recipe.question])} {words(recipe.needs)}")


@cli.command()
@click.argument("tables", nargs=-1, required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="As JSON: recipe, reason, roles by header, proposed settings.")
def suggest(tables: tuple[Path, ...], as_json: bool) -> None:
    """Say which recipes suit TABLES (CSV, TSV, XLSX, ODS, JSON), the best first."""
    offers = {str(path): _suggested(path) for path in tables}
    if as_json:
        printed: object = offers if len(offers) > 1 else next(iter(offers.values()))
        click.echo(json.dumps(printed, ensure_ascii=False, indent=1))
        return
    for path, suggested in offers.items():
        if len(offers) > 1:
            click.echo(path)
        for offer in suggested[:SUGGESTED]:
            click.echo(f"{offer['recipe']:16} {words(str(offer['reason']))}")


def _suggested(path: Path) -> list[dict[str, object]]:
    document, table = edits.add_table(Document(), table_name(path), table_files.named(read_table(path, None, None)))
    heads = {column.id: str(document.table(table).called(i)) for i, column in enumerate(document.table(table).columns)}
    return [
        {
            "recipe": one.recipe,
            "reason": one.suited.reason,
            "roles": {role: [heads[column] for column in held] for role, held in one.roles.items()},
            "settings": one.settings,
            **({"across": "1"} if one.across else {}),
        }
        for one in suggestions(document, table)
    ]


def declared(recipe: Recipe) -> dict[str, object]:
    """Name, question, roles, parameters with their meaning, default and span, and helper columns of a recipe."""
    return {
        "name": recipe.name,
        "title": recipe.title,
        "question": QUESTIONS[recipe.question],
        "needs": recipe.needs,
        "roles": [
            {"name": r.name, "type": r.kind, "required": r.required, "many": r.many, "meaning": r.meaning}
            for r in recipe.roles
        ],
        "parameters": [_parameter(parameter) for parameter in recipe.parameters],
        "helpers": [{"name": helper.name, "meaning": helper.meaning} for helper in recipe.helpers],
    }


def _parameter(parameter: Parameter) -> dict[str, object]:
    allowed: object = list(parameter.choices) if parameter.type == "choice" else None
    if parameter.type == "number":
        allowed = [parameter.minimum, parameter.maximum]
    default: object = None if parameter.optional and parameter.default == "" else parameter.default
    return {
        "name": parameter.name, "type": parameter.type, "default": default, "range": allowed,
        "unit": parameter.unit, "meaning": parameter.meaning,
    }  # fmt: skip
