"""The command line: kavlet demo | open | make | render | check | pages | calc | recipes | suggest.

Exit codes: 0 done, 1 a defect, 2 wrong usage, 3 the input is at fault (one sentence on standard error, nothing
written).
"""

import sys

import click

from kavlet.cli import checking, listing, making, rendering
from kavlet.cli.group import cli
from kavlet.core.messages import desktop_language, speak, words
from kavlet.core.values.errors import KavletError

__all__ = ["checking", "cli", "listing", "main", "making", "rendering"]


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
