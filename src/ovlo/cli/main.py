"""The command `ovlo`: its group, and how errors reach the user.

ovlo draw kite.py -o kite.svg
"""

from __future__ import annotations

import gc
import os
import re
import sys
import threading
import warnings
from contextlib import suppress
from importlib import import_module
from typing import NoReturn, TextIO, cast

import click

import ovlo
from ovlo.cli.speech.saying import printing, say, warn
from ovlo.core.values.arguments import near
from ovlo.core.values.errors import NoEffect, OvloError, ProgramFailed

COMMANDS = {
    "draw": "Run a program and save its picture.",
    "vary": "Draw every combination of parameter values on one captioned contact sheet.",
    "check": "Find out why a picture is not what you intended.",
    "steps": "List the steps of a drawing, each with its line of the program.",
    "compare": "Check whether two programs draw the same picture, and how they differ.",
    "animate": "Save an animation of the drawing as it is drawn.",
    "live": "Open the studio: write the program in the browser and see its picture follow.",
    "plot": "Convert a picture to pen-plotter or cutter output.",
    "new": "Create a first program, FILE, that runs as it is.",
    "demo": "Draw every example into FOLDER (default: ovlo-demo), with a page that shows them all.",
}
"""Each command and what it does. A command is a module of this package with a function of the same name,
loaded when it is called; its help begins with these words."""


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

    def format_commands(self, context: click.Context, formatter: click.HelpFormatter) -> None:
        """List the commands without loading them."""
        with formatter.section("Commands"):
            formatter.write_dl(list(COMMANDS.items()))

    def resolve_command(
        self, context: click.Context, args: list[str]
    ) -> tuple[str | None, click.Command | None, list[str]]:
        """Find a command, or name those that come near."""
        if args and args[0] not in COMMANDS and (close := near(args[0], COMMANDS)):
            context.fail(f"There is no command {args[0]!r}{close}.")
        return super().resolve_command(context, args)

    def parse_args(self, context: click.Context, args: list[str]) -> list[str]:
        """Read what stands before the command; its help is printed here."""
        try:
            with printing():
                return super().parse_args(context, args)
        except OvloError as error:
            return _fail(context, error)

    def invoke(self, context: click.Context) -> object:
        """Run the command."""
        try:
            with warnings.catch_warnings(), printing():
                warnings.showwarning = _tell
                return super().invoke(context)
        except click.UsageError as error:
            if pair := re.search(r"unexpected extra arguments? \(([^()\s]+=\S*)", error.message):
                words = f"{error.message}. Each value takes an option of its own: --set {pair[1].rstrip(')')}"
                raise click.UsageError(words, error.ctx) from None
            raise
        except OvloError as error:
            _fail(context, error)


def _fail(context: click.Context, error: OvloError) -> NoReturn:
    """Say an error in a sentence, and end."""
    say(f"{'' if isinstance(error, ProgramFailed) else 'Error: '}{error}", err=True)
    context.exit(error._exit_status)


def _tell(
    message: Warning | str,
    category: type[Warning],
    filename: str,
    lineno: int,
    file: TextIO | None = None,
    line: str | None = None,
) -> None:
    """A warning as a sentence, without the place in Ovlo's own code it comes from."""
    warn(f"{filename}, line {lineno}: {message}" if issubclass(category, NoEffect) else str(message))


def _load(words: list[str]) -> None:
    """Load the command that was called for, once and for good.

    Nobody need look for garbage in it: not while it is loaded, nor in a run, nor at the end, which would
    take a tenth of the time of a small picture.
    """
    gc.disable()
    for name in words:
        if name in COMMANDS:
            import_module(f"ovlo.cli.{name}")
    gc.freeze()
    gc.enable()


def run() -> None:
    """The command line as a process, which ends when it is done, whatever threads were left running."""
    _load(sys.argv[1:2])
    try:
        main()
    finally:
        left = [thread for thread in threading.enumerate() if not thread.daemon]
        if left != [threading.main_thread()]:
            leaving = sys.exception()
            for stream in (sys.stdout, sys.stderr):
                with suppress(OSError, ValueError):
                    stream.flush()
            code = leaving.code if isinstance(leaving, SystemExit) else 1
            os._exit(code if isinstance(code, int) else 0)


@click.group(cls=Group, context_settings={"help_option_names": ["--help", "-h"]})
@click.version_option(ovlo.__version__, prog_name="ovlo", message="%(prog)s %(version)s")
def main() -> None:
    """Turtle graphics: draw pictures by steering a pen.

    `ovlo COMMAND --help` explains a command.
    """
