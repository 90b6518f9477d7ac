"""What the command line says: text that cannot play tricks on a terminal, and what there is to tell of a run.

say(f"{path}: saved")
"""

from __future__ import annotations

import os
import sys

import click

from ovlo.program.running import Outcome


def say(words: str, err: bool = False) -> None:
    """Print a line; control characters from a program, a value or a file name are written out."""
    try:
        click.echo("".join(_harmless(character) for character in words), err=err)
    except OSError:
        # Nobody listens any more, or the disk is full: that is no error of the picture.
        os.dup2(os.open(os.devnull, os.O_WRONLY), (sys.stderr if err else sys.stdout).fileno())


def _harmless(character: str) -> str:
    if character.isprintable() or character in "\n\t":
        return character
    return character.encode("unicode_escape", "backslashreplace").decode()


def warn(words: str) -> None:
    """Print a warning, each only once."""
    told = click.get_current_context().find_root().meta.setdefault(f"{__name__}.told", set())
    if words not in told:
        told.add(words)
        say(f"Warning: {words}", err=True)


def tell_trouble(outcome: Outcome, seed: int | None = None) -> None:
    """Say what went wrong, which lines do nothing, and that a seed was given in vain."""
    if outcome.trouble:
        say(outcome.trouble, err=True)
    for notice in outcome.notices:
        warn(notice)
    sheet = outcome.sheet
    if seed is not None and not outcome.trouble and sheet is not None and not sheet.dice._is_used:
        warn("--seed: this drawing throws no dice, so the seed changes nothing.")
