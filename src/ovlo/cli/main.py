"""The command `ovlo`: its group, and how errors reach the user.

ovlo draw kite.py -o kite.svg
"""

from __future__ import annotations

import click

import ovlo
from ovlo.cli.demo import demo
from ovlo.cli.draw import draw
from ovlo.cli.vary import vary
from ovlo.core.errors import OvloError


class Group(click.Group):
    """A group whose commands end with Ovlo's own errors as one sentence, not as a traceback."""

    def invoke(self, context: click.Context) -> object:
        """Run the command."""
        try:
            return super().invoke(context)
        except OvloError as error:
            click.echo(f"Error: {error}", err=True)
            context.exit(error.exit_status)


@click.group(cls=Group, context_settings={"help_option_names": ["--help", "-h"]})
@click.version_option(ovlo.__version__, prog_name="ovlo", message="%(prog)s %(version)s")
def main() -> None:
    """Draw pictures by steering a pen."""


main.add_command(draw)
main.add_command(vary)
main.add_command(demo)
