"""The command `ovlo`: its group, and how errors reach the user.

ovlo draw kite.py -o kite.svg
"""

from __future__ import annotations

from importlib import import_module
from typing import cast

import click

import ovlo
from ovlo.core.errors import OvloError, ProgramFailed

COMMANDS = ("draw", "vary", "demo")
"""Each is a module of this package with a function of the same name, loaded when it is called for."""


class Group(click.Group):
    """Commands that are loaded late, and end with Ovlo's own errors as one sentence, not a traceback."""

    def list_commands(self, context: click.Context) -> list[str]:
        """The commands in the order a user meets them."""
        return list(COMMANDS)

    def get_command(self, context: click.Context, name: str) -> click.Command | None:
        """Load a command."""
        if name not in COMMANDS:
            return None
        return cast(click.Command, getattr(import_module(f"ovlo.cli.{name}"), name))

    def invoke(self, context: click.Context) -> object:
        """Run the command."""
        try:
            return super().invoke(context)
        except ProgramFailed as error:
            click.echo(str(error), err=True)
            context.exit(error.exit_status)
        except OvloError as error:
            click.echo(f"Error: {error}", err=True)
            context.exit(error.exit_status)


@click.group(cls=Group, context_settings={"help_option_names": ["--help", "-h"]})
@click.version_option(ovlo.__version__, prog_name="ovlo", message="%(prog)s %(version)s")
def main() -> None:
    """Draw pictures by steering a pen."""
