"""kavlet check: what a careful reader would object to in a document."""

import json
import sys
from collections.abc import Iterator
from pathlib import Path

import click

from kavlet.cli.group import cli
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.source_states import source_states
from kavlet.core.messages import counted, named, words
from kavlet.core.proof.finding import Finding
from kavlet.core.proof.findings_json import chart_name, findings_json, page_name
from kavlet.core.proof.proofreading import Proof, proofread

GRAVE = 3  # exit code with --strict, where one finding is a warning or worse


@cli.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Print the findings as JSON.")
@click.option("--strict", is_flag=True, help="End with exit code 3 where one is a warning or worse.")
@click.option("--sources", is_flag=True, help="Look at the files that tables follow, too.")
def check(file: Path, as_json: bool, strict: bool, sources: bool) -> None:
    """Print what Proof finds in a document: check, severity, sentence, chart or page."""
    document = kavlet_file.load(file)
    proof = proofread(document, sources=source_states(document, lambda _path: sources))
    if as_json:
        click.echo(json.dumps(findings_json(proof.all, document), ensure_ascii=False, indent=1))
    else:
        for line in _lines(proof, document):
            click.echo(line)
    if strict and any(finding.severity != "note" for finding in proof.open):
        sys.exit(GRAVE)


def _lines(proof: Proof, document: Document) -> Iterator[str]:
    """A heading for each chart and page of which something is to be said, its findings below it."""
    if not proof.all:
        yield str(counted("Nothing found in {count} check.", "Nothing found in {count} checks.", proof.checks))
        return
    here: str | None = None
    for finding in proof.all:
        title = page_name(document, finding.place) or chart_name(document, finding.place) or words("The document")
        if title != here:
            if here is not None:
                yield ""
            yield title
            here = title
        yield _line(finding)
    count = len(proof.open)
    yield ""
    yield str(
        counted(
            "{count} finding in {checks} checks.", "{count} findings in {checks} checks.", count, checks=proof.checks
        )
    )


def _line(finding: Finding) -> str:
    grave = named(finding.severity)
    end = f"  ({words('silenced: {reason}', reason=finding.silenced)})" if finding.silenced is not None else ""
    return f"  {grave}  {finding.check}: {finding.message}{end}"
