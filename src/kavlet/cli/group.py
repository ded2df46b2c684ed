"""The group of all commands. A command's file is loaded when it is asked for, so that the version costs nothing."""

import importlib

import click

import kavlet
from kavlet.core.messages import words

FILES = {
    "calc": "listing", "check": "checking", "demo": "listing", "make": "making", "open": "listing", "pages": "listing",
    "recipes": "listing", "render": "rendering", "showcase": "listing", "suggest": "listing",
}  # fmt: skip


class CommandGroup(click.Group):
    """Commands by name, each with its words in the language that is spoken."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        """The names of all commands, in their order."""
        del ctx
        return list(FILES)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        """A command, with the file that declares it loaded; None where there is none of that name."""
        if cmd_name not in FILES:
            return None
        known = self.commands.get(cmd_name)
        if known is not None:
            return known
        before = set(self.commands)
        importlib.import_module(f"kavlet.cli.{FILES[cmd_name]}")
        for name in self.commands.keys() - before:
            _translate(self.commands[name])
        return super().get_command(ctx, cmd_name)


def _translate(command: click.Command) -> None:
    """Say a command and its options in the language that is spoken."""
    command.help = words(command.help or "")
    for option in command.params:
        if isinstance(option, click.Option) and option.help:
            option.help = words(option.help)


@click.group(cls=CommandGroup, context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(kavlet.__version__, prog_name="kavlet")
def cli() -> None:
    """Turns small tables into charts that no chart menu offers."""
