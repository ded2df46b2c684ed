"""The command line: kavlet demo | open | make | render | check | pages | calc | recipes | suggest.

Exit codes: 0 done, 1 a defect, 2 wrong usage, 3 the input is at fault (one sentence on standard error, nothing
written).
"""

import sys

import click

from kavlet.cli.group import cli
from kavlet.core.messages import desktop_language, speak, words
from kavlet.core.values.errors import KavletError

__all__ = ["cli", "main"]


def main() -> None:
    """Run the command line; errors of the input end it with one sentence and exit code 3."""
    speak(desktop_language())
    cli.help = words(cli.help or "")
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
