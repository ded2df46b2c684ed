"""The command line: kavlet demo | open | make | render | pages | calc | recipes | suggest.

Exit codes: 0 done, 1 a defect, 2 wrong usage, 3 the input is at fault (one sentence on standard error, nothing
written).
"""

import json
import re
import sys
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any

import click
import msgspec
from msgspec import Struct

import kavlet
from kavlet.core.building.stages import picture
from kavlet.core.charts.overrides import expected
from kavlet.core.document import edits
from kavlet.core.document.advice import suggestions
from kavlet.core.document.document import Document
from kavlet.core.document.ordering import Order, ordered
from kavlet.core.document.paging import item_name
from kavlet.core.figures.recalculate import recalculate
from kavlet.core.files import atomic, csv, mail
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import palette as palette_files
from kavlet.core.files import tables as table_files
from kavlet.core.files.calculated import calculated
from kavlet.core.files.formats import TABLES, As, Motion, Wish, endings, renamings, table_content
from kavlet.core.files.sheet import ReadSheet
from kavlet.core.messages import desktop_language, say, speak, upper_first, words
from kavlet.core.pages.arrangements import places
from kavlet.core.pages.page import Page
from kavlet.core.recipes.declared import declared
from kavlet.core.recipes.recipe import QUESTIONS, Parameter, Recipe, Setting
from kavlet.core.recipes.registry import RECIPES, recipe
from kavlet.core.values.errors import KavletError
from kavlet.core.values.lengths import size as read_size
from kavlet.core.values.sizes import MM
from kavlet.export.outgoing import Outgoing, Told
from kavlet.export.ways import all_endings, files, slug, way_of

STDOUT = "-"
AS = ("chart", "picture", "both")
SUGGESTED = 5  # recipes that are said of each table


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(kavlet.__version__, prog_name="kavlet")
def cli() -> None:
    """Turns small tables into charts that no chart menu offers."""


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
@click.option("--format", "format_", default="", metavar="ENDING", help="The format, where the name does not say it.")
@click.option("--as", "as_", default="chart", type=click.Choice(AS), help="In office files: real charts or pictures.")
@click.option("--bare", is_flag=True, help="Without a ground.")
@click.option("--to", "to", default="", help="Addressees, for a mail draft.")
@click.option("--subject", default="", help="The subject, for a mail draft.")
def make(recipe_name: str, table: Path, out: Path, **given: Any) -> None:
    """Build a chart of RECIPE from a table (CSV, TSV, XLSX, ODS, JSON): .svg .png .jpg .pdf .pptx .docx .xlsx .odp .odt
    .ods .html .gif .apng .webp .eml .csv .json, or .kavlet."""
    wish = msgspec.convert(given, _Make)
    ending = _ending(out, wish.format_, (*all_endings(), kavlet_file.SUFFIX))
    if recipe_name not in RECIPES:
        raise click.UsageError(
            words("There is no recipe “{name}”. There are: {names}.", name=recipe_name, names=list(RECIPES))
        )
    chosen = recipe(recipe_name)
    roles = _roles(chosen, [_pair(text, "--role") for text in wish.roles])
    setting_pairs = [_pair(text, "--set") for text in wish.settings]
    _known_names("--set", [name for name, _ in setting_pairs], [one.name for one in chosen.parameters])
    order = Order(
        recipe=recipe_name,
        rows=table_files.named(_read(table, wish.sheet, wish.part)),
        name=_table_name(table),
        roles=roles,
        settings=_settings(chosen, setting_pairs),
        size=read_size(wish.size_text) if wish.size_text is not None else None,
        theme=wish.theme,
        dark=wish.dark,
        palette=palette_files.asked(wish.palette) if wish.palette is not None else None,
        looks={path: _look(text) for path, text in (_pair(one, "--look") for one in wish.looks)},
        repeat=wish.repeat,
        across=wish.across,
        title=wish.title,
        subtitle=wish.subtitle,
        source=wish.source,
    )
    document, chart_id = ordered(order)
    made = picture(document, recalculate(document.tables), chart_id)
    for path, value in order.looks.items():
        expected(made.build.chart, path, value)
    if ending == kavlet_file.SUFFIX:
        _put(out, kavlet_file.dumps(document))
        return
    if _is_folder(out):
        out = out / f"{slug(document.chart(chart_id).name)}{ending}"
    name, to = document.chart(chart_id).name, _addressees(wish.to)
    how = Wish(ending, wish.scale, wish.outlines, wish.as_, not wish.bare, to=to, subject=wish.subject)
    _deliver(Outgoing(document, (chart_id,), title=name), how, out, as_json=False)


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
    format_: str
    as_: As
    bare: bool
    to: str
    subject: str


def _roles(chosen: Recipe, pairs: list[tuple[str, str]]) -> dict[str, tuple[str, ...]]:
    """Columns by role; naming a role twice gives it both."""
    _known_names("--role", [name for name, _ in pairs], [role.name for role in chosen.roles])
    roles: dict[str, tuple[str, ...]] = {}
    for name, text in pairs:
        roles[name] = (*roles.get(name, ()), text)
    return roles


def _read(table: Path, sheet: str | None, part: str | None) -> ReadSheet:
    """A table's cells; what could not be taken over is said."""
    read = table_files.read(table, sheet, part)
    for note in read.notes:
        click.echo(f"kavlet: {table.name}: {note}", err=True)
    return read


@cli.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "-o", "--output", "out", required=True, type=click.Path(path_type=Path),
    help="A file, whose ending chooses; a folder; a pattern with {name} or {number}; - for standard output.",
)  # fmt: skip
@click.option("--chart", "name", default=None, help="Which chart, by name.")
@click.option("--all", "every", is_flag=True, help="Every chart, in one file where it holds several.")
@click.option("--page", "page", default=None, help="Which page, by name or number.")
@click.option("--pages", "all_pages", is_flag=True, help="All pages, in one file where it holds several.")
@click.option("--scale", default=1.0, show_default=True, help="Pixels per point, for pictures of pixels.")
@click.option("--size", "size_text", default=None, help="A chart’s width and height, in points or units.")
@click.option("--outlines", is_flag=True, help="Write texts as outlines, for SVG.")
@click.option("--format", "format_", default="", metavar="ENDING", help="The format, where the name does not say it.")
@click.option("--as", "as_", default="chart", type=click.Choice(AS), help="In office files: real charts or pictures.")
@click.option("--bare", is_flag=True, help="Without a ground.")
@click.option("--hold", default=1.2, show_default=True, help="Seconds that each step stays, for animations.")
@click.option("--move", default=0.8, show_default=True, help="Seconds from step to step, for animations.")
@click.option("--rate", default=20, show_default=True, help="Pictures a second, for animations.")
@click.option("--even", is_flag=True, help="Go evenly from step to step, for animations.")
@click.option("--once", is_flag=True, help="Play an animation once.")
@click.option("--to", "to", default="", help="Addressees, for a mail draft.")
@click.option("--subject", default="", help="The subject, for a mail draft.")
@click.option("--json", "as_json", is_flag=True, help="Print what was written and what a format could not hold.")
def render(file: Path, out: Path, **wish: Any) -> None:
    """Write the charts or pages of a document: .svg .png .jpg .pdf .pptx .docx .xlsx .odp .odt .ods .html .gif .apng
    .webp .eml .csv .json."""
    what = msgspec.convert(wish, _What)
    if sum((what.name is not None, what.every, what.page is not None, what.all_pages)) > 1:
        raise click.UsageError(words("--chart, --all, --page and --pages exclude each other."))
    paged = what.page is not None or what.all_pages
    ending = _ending(out, what.format_, all_endings(paged))
    document = kavlet_file.load(file)
    pages = _chosen_pages(document, file, what) if paged else ()
    charts = () if paged else _chosen_charts(document, file, what)
    title = file.stem if len(charts) + len(pages) != 1 else (document.chart(charts[0]).name if charts else file.stem)
    size = read_size(what.size_text) if what.size_text is not None else None
    how = Wish(
        ending, what.scale, what.outlines, what.as_, not what.bare,
        width=size.width if size else None, height=size.height if size else None,
        motion=Motion(what.hold, what.move, what.rate, not what.even, not what.once),
        to=_addressees(what.to), subject=what.subject,
    )  # fmt: skip
    leaving = Outgoing(document, charts, pages, title, whole=what.every)
    if _is_folder(out):
        out = out / (f"{slug(title)}{ending}" if way_of(ending, paged).many or len(charts) + len(pages) == 1
                     else f"{'{number}-' if paged else ''}{{name}}{ending}")  # fmt: skip
    if (what.every or what.all_pages) and not way_of(ending, paged).many:
        separate = "{number}" in out.name or "{name}" in out.name or str(out) == STDOUT
        if str(out) == STDOUT and len(charts) + len(pages) > 1:
            raise click.UsageError(words("Several files can’t go to standard output."))
        out = out if separate else out.with_name(f"{out.stem}-{{{'number' if paged else 'name'}}}{out.suffix}")
    _deliver(leaving, how, out, what.as_json)


class _What(msgspec.Struct, frozen=True):
    """What of a document is drawn, and how."""

    name: str | None
    every: bool
    page: str | None
    all_pages: bool
    scale: float
    size_text: str | None
    outlines: bool
    format_: str
    as_: As
    bare: bool
    hold: float
    move: float
    rate: int
    even: bool
    once: bool
    to: str
    subject: str
    as_json: bool


def _chosen_charts(document: Document, file: Path, what: _What) -> tuple[str, ...]:
    """The ids of the charts that are meant."""
    charts = [chart for chart in document.charts if what.name is None or chart.name == what.name]
    if not charts:
        raise KavletError(
            say("{file} has no chart “{name}”.", file=file.name, name=what.name)
            if what.name
            else say("{file} has no chart.", file=file.name)
        )
    if len(charts) > 1 and not what.every:
        names = [f"“{chart.name}”" for chart in document.charts]
        raise click.UsageError(
            words("{file} has several charts: {names}. Choose with --chart, or say --all.", file=file.name, names=names)
        )
    return tuple(chart.id for chart in charts)


def _chosen_pages(document: Document, file: Path, what: _What) -> tuple[str, ...]:
    """The ids of the pages that are meant."""
    if not document.pages:
        raise KavletError(say("{file} has no page.", file=file.name))
    chosen = list(document.pages)
    if what.page is not None:
        by_number = {str(number): page for number, page in enumerate(document.pages, 1)}
        chosen = [page for page in document.pages if page.name == what.page] or (
            [by_number[what.page]] if what.page in by_number else []
        )
    if not chosen:
        raise KavletError(
            say("{file} has no page “{name}”.", file=file.name, name=what.page),
            remedy=say("There are {names}.", names=[page.name for page in document.pages]),
        )
    return tuple(page.id for page in chosen)


def _deliver(what: Outgoing, how: Wish, out: Path, as_json: bool) -> None:
    """Write what leaves; say what a format could not hold."""
    made = list(files(what, how, out))
    for one in made:
        _put(out if str(out) == STDOUT else one.path, one.content)
    told = [{"out": str(one.path), "charts": [_as_told(chart) for chart in one.told]} for one in made]
    if as_json:
        click.echo(
            json.dumps(told[0] if len(told) == 1 else told, ensure_ascii=False, indent=1), err=str(out) == STDOUT
        )
        return
    for one in made:
        for chart in one.told:
            if chart.differs:
                parts = "; ".join(map(str, chart.differs))
                click.echo(f"kavlet: {words('“{name}” differs there: {what}', name=chart.name, what=parts)}", err=True)


def _is_folder(out: Path) -> bool:
    """Whether a folder is meant: one that is there, or a name without an ending."""
    return str(out) != STDOUT and (out.is_dir() or not out.suffix)


def _as_told(chart: Told) -> dict[str, object]:
    return {"name": chart.name, "as": chart.as_, "differs": [str(one) for one in chart.differs]}


def _put(out: Path, content: bytes) -> None:
    if str(out) == STDOUT:
        sys.stdout.buffer.write(content)
    else:
        out.parent.mkdir(parents=True, exist_ok=True)
        atomic.write(out, content)


def _ending(out: Path, given: str, known: tuple[str, ...]) -> str:
    """The ending that says the format: as given, else the name's own. A folder or standard output needs one."""
    ending = ("." + given.lower().lstrip(".")) if given else out.suffix.lower()
    if ending not in known:
        raise click.UsageError(
            words("{file}: the ending is none of {endings}.", file=out.name or str(out), endings=" ".join(known))
        )
    return ending


def _addressees(text: str) -> tuple[str, ...]:
    return mail.addresses(text) if text else ()


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
def calc(table: Path, out: Path | None, sheet: str | None, part: str | None) -> None:
    """Evaluate the formulas of a table, cell by cell in place: to print as CSV, or to write as any table format."""
    read = _read(table, sheet, part)
    if out is None or out.suffix.lower() in csv.SUFFIXES:
        text = csv.dumps(calculated(read.cells, table.stem))
        if out is not None:
            atomic.write(out, text.encode())
        else:
            click.echo(text.replace("\r\n", "\n"), nl=False)
        return
    _known_ending(out, endings(TABLES, "table"))
    document, table_id = edits.add_table(Document(), _table_name(table), read.cells)
    held = (document.table(table_id), recalculate(document.tables))
    atomic.write(out, table_content([held], out.suffix))
    for note in renamings([held], out.suffix):
        click.echo(f"kavlet: {out.name}: {note}", err=True)


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
@click.option("--json", "as_json", is_flag=True, help="As JSON, with roles, parameters and helper columns.")
def recipes(as_json: bool) -> None:
    """List every recipe with what it needs."""
    if as_json:
        click.echo(json.dumps([declared(one) for one in RECIPES.values()], ensure_ascii=False, indent=1))
        return
    for one in RECIPES.values():
        click.echo(f"{one.name:16} {words(QUESTIONS[one.question])} {words(one.needs)}")


@cli.command()
@click.argument("tables", nargs=-1, required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="As JSON: recipe, reason, roles by header, proposed settings.")
def suggest(tables: tuple[Path, ...], as_json: bool) -> None:
    """Say which recipes suit TABLES (CSV, TSV, XLSX, ODS, JSON), the best first."""
    found = {str(path): _suggested(path) for path in tables}
    if as_json:
        held: object = found if len(found) > 1 else next(iter(found.values()))
        click.echo(json.dumps(held, ensure_ascii=False, indent=1))
        return
    for path, made in found.items():
        if len(found) > 1:
            click.echo(path)
        for one in made[:SUGGESTED]:
            click.echo(f"{one['recipe']:16} {words(str(one['reason']))}")


def _suggested(path: Path) -> list[dict[str, object]]:
    document, table = edits.add_table(Document(), _table_name(path), table_files.named(_read(path, None, None)))
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


def _known_ending(out: Path, endings: tuple[str, ...]) -> None:
    if out.suffix.lower() not in endings:
        raise click.UsageError(
            words("{file}: the ending is none of {endings}.", file=out.name, endings=" ".join(endings))
        )


def _pair(text: str, option: str) -> tuple[str, str]:
    name, sign, value = text.partition("=")
    if not sign or not name:
        raise click.UsageError(words("{option} takes NAME=VALUE, not “{text}”.", option=option, text=text))
    return name.strip(), value


def _known_names(option: str, given: list[str], known: list[str]) -> None:
    for name in given:
        if name not in known:
            raise click.UsageError(
                words("{option}: there is no “{name}”. There are: {names}.", option=option, name=name, names=known)
            )


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


def _table_name(path: Path) -> str:
    return upper_first(re.sub(r"[_\-]+", " ", path.stem).strip()) or words("Table")


def main() -> None:
    """Run the command line; errors of the input end it with one sentence and exit code 3."""
    speak(desktop_language())
    for command in (cli, *cli.commands.values()):
        command.help = words(command.help or "")
        for option in command.params:
            if isinstance(option, click.Option) and option.help:
                option.help = words(option.help)
    try:
        cli(standalone_mode=False)
    except KavletError as error:
        click.echo(f"kavlet: {error}", err=True)
        sys.exit(3)
    except click.ClickException as error:
        error.show()
        sys.exit(error.exit_code)
    except click.exceptions.Exit as end:
        sys.exit(end.exit_code)
    except click.Abort:
        sys.exit(130)


if __name__ == "__main__":
    main()
