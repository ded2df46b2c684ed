"""What commands share: endings, pairs, tables, and writing what leaves."""

import json
import re
import sys
from pathlib import Path

import click

from kavlet.core.files import atomic
from kavlet.core.files import tables as table_files
from kavlet.core.files.formats import ExportOptions
from kavlet.core.files.worksheet import Worksheet
from kavlet.core.messages import say, upper_first, words
from kavlet.core.values.errors import KavletError
from kavlet.export.outgoing import Export, ExportNote
from kavlet.export.ways import files

STDOUT = "-"
RAW = "Leave texts of tables as they are, even where other programs take them for formulas."
AS = ("chart", "picture", "both")


def known_ending(out: Path, endings: tuple[str, ...]) -> None:
    if out.suffix.lower() not in endings:
        raise click.UsageError(
            words("{file}: the ending is none of {endings}.", file=out.name, endings=" ".join(endings))
        )


def pair(text: str, option: str) -> tuple[str, str]:
    name, sign, value = text.partition("=")
    if not sign or not name:
        raise click.UsageError(words("{option} takes NAME=VALUE, not “{text}”.", option=option, text=text))
    return name.strip(), value


def known_names(option: str, given: list[str], known: list[str]) -> None:
    for name in given:
        if name not in known:
            raise click.UsageError(
                words("{option}: there is no “{name}”. There are: {names}.", option=option, name=name, names=known)
            )


def table_name(path: Path) -> str:
    return upper_first(re.sub(r"[_\-]+", " ", path.stem).strip()) or words("Table")


def read_table(table: Path, sheet: str | None, part: str | None) -> Worksheet:
    """A table's cells; what could not be taken over is said."""
    read = table_files.read(table, sheet, part)
    for note in read.notes:
        click.echo(f"kavlet: {table.name}: {note}", err=True)
    return read


def deliver(export: Export, how: ExportOptions, out: Path, as_json: bool) -> None:
    """Write what leaves; say what a format could not hold."""
    output_files = list(files(export, how, out))
    if str(out) == STDOUT:
        put(out, output_files[0].content)
    else:
        atomic.write_all((output_file.path, output_file.content) for output_file in output_files)
    reports = [
        {"out": str(output_file.path), "charts": [_as_told(chart) for chart in output_file.told]}
        for output_file in output_files
    ]
    if as_json:
        click.echo(
            json.dumps(reports[0] if len(reports) == 1 else reports, ensure_ascii=False, indent=1),
            err=str(out) == STDOUT,
        )
        return
    for output_file in output_files:
        for chart in output_file.told:
            if chart.differs:
                parts = "; ".join(map(str, chart.differs))
                click.echo(f"kavlet: {words('“{name}” differs there: {what}', name=chart.name, what=parts)}", err=True)


def is_folder(out: Path) -> bool:
    """Whether a folder is meant: one that is there, or a name without an ending, which is made then."""
    if str(out) == STDOUT or not (out.is_dir() or not out.suffix):
        return False
    try:
        out.mkdir(exist_ok=True)
    except OSError as error:
        raise KavletError(say("{file} can’t be written: {reason}.", file=out, reason=atomic.reason(error))) from None
    return True


def _as_told(chart: ExportNote) -> dict[str, object]:
    return {"name": chart.name, "as": chart.as_, "differs": [str(message) for message in chart.differs]}


def put(out: Path, content: bytes) -> None:
    if str(out) == STDOUT:
        sys.stdout.buffer.write(content)
    else:
        atomic.write(out, content)


def ending_of(out: Path, given: str, known: tuple[str, ...]) -> str:
    """The ending that says the format: as given, else the name's own. A folder or standard output needs one."""
    ending = ("." + given.lower().lstrip(".")) if given else out.suffix.lower()
    if ending not in known:
        raise click.UsageError(
            words("{file}: the ending is none of {endings}.", file=out.name or str(out), endings=" ".join(known))
        )
    return ending


def addressees(text: str) -> tuple[str, ...]:
    from kavlet.core.files import mail

    return mail.addresses(text) if text else ()
