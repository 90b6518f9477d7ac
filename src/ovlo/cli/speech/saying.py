"""What the command line says: text that cannot play tricks on a terminal, and what there is to tell of a run.

say(f"{path}: saved")
"""

from __future__ import annotations

import errno
import os
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from typing import TYPE_CHECKING, TextIO

import click

from ovlo.core.values.errors import CannotWrite

if TYPE_CHECKING:
    from ovlo.cli.options import Target
    from ovlo.program.outcome import Outcome


FULL = (errno.ENOSPC, errno.EFBIG, errno.EDQUOT)
"""How a system says that there is no room for more."""


def say(words: str, err: bool = False) -> None:
    """Print a line; control characters from a program, a value or a file name are written out."""
    if not words.replace("\n", "").replace("\t", "").isprintable():
        words = "".join(_harmless(character) for character in words)
    try:
        _write_whole(f"{words}\n", sys.stderr if err else sys.stdout)
    except (OSError, ValueError) as error:
        _silence("stderr" if err else "stdout")
        # Nobody listens any more, or the program closed it: no error of the picture. A full disk is one.
        if (
            isinstance(error, OSError)
            and error.errno not in (errno.EPIPE, errno.EBADF, errno.EIO)
            and not err
        ):
            raise _not_printed(error) from error


@contextmanager
def printing() -> Iterator[None]:
    """A block in which the library that reads the command line prints: its help, its version."""
    try:
        yield
    except OSError as error:
        if error.errno not in FULL:
            raise
        _silence("stdout")
        raise _not_printed(error) from error


def _not_printed(error: OSError) -> CannotWrite:
    return CannotWrite(f"What is printed cannot be written ({error.strerror}); check the free space.")


def _write_whole(words: str, stream: TextIO | None) -> None:
    """Write all of a text: a stream without a buffer may take a part of it and say nothing."""
    if stream is None:  # a process without a console
        return
    binary = getattr(stream, "buffer", None)
    if binary is None:
        stream.write(words)
        stream.flush()
        return
    stream.flush()
    left = memoryview(words.replace("\n", os.linesep).encode(stream.encoding, stream.errors or "strict"))
    while left:
        left = left[binary.write(left) :]
    binary.flush()


def _silence(name: str) -> None:
    """Send what else is said into the void."""
    nowhere = open(os.devnull, "w")  # noqa: SIM115
    with suppress(OSError, ValueError):
        os.dup2(nowhere.fileno(), getattr(sys, f"__{name}__").fileno())
    setattr(sys, name, nowhere)


def _harmless(character: str) -> str:
    if character.isprintable() or character in "\n\t":
        return character
    return character.encode("unicode_escape", "backslashreplace").decode()


@contextmanager
def progress(count: int, label: str) -> Iterator[Callable[[int], object]]:
    """A block with a progress bar, if there is a terminal; the function it yields advances it."""
    if not sys.stdout.isatty():
        yield lambda more: None
        return
    try:
        bar = click.progressbar(length=count, label=label, show_pos=True)
        bar.__enter__()
    except (OSError, ValueError):
        _silence("stdout")
        yield lambda more: None
        return

    def advance(more: int) -> None:
        with suppress(OSError, ValueError):
            bar.update(more)

    yield advance
    with suppress(OSError, ValueError):
        bar.__exit__(None, None, None)


def warn(words: str) -> None:
    """Print a warning, each only once."""
    context = click.get_current_context(silent=True)
    told = set() if context is None else context.find_root().meta.setdefault(f"{__name__}.told", set())
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
        if outcome.has_chance_of_its_own:
            warn(
                "--seed sets nib.dice, but this drawing takes its random numbers from Python's random module."
            )
        else:
            warn("--seed: this drawing uses no random numbers, so the seed changes nothing.")


def tell_empty(files: Sequence[Target]) -> None:
    """Say that a program failed before it drew anything, so that no picture is replaced by an empty one."""
    words = "Nothing was drawn before the error"
    kept = [file.name for file in files if file.path.exists()]
    if len(kept) == 1:
        words += f"; {kept[0]} is unchanged"
    elif kept:
        words += f"; {', '.join(kept[:-1])} and {kept[-1]} are unchanged"
    say(f"{words}.")
