"""Options that several commands share.

@click.command()
@program_argument
@limit_options
def live(program: str, limits: Limits) -> None: ...
"""

from __future__ import annotations

import functools
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any, NamedTuple

import click

from ovlo.core.values.errors import BadUse
from ovlo.program.running import STEP_LIMIT, Limits
from ovlo.render.files import checked_path, here
from ovlo.render.formats.table import is_page
from ovlo.render.page import TEXTS

Decorated = Callable[..., Any]

program_argument = click.argument("program", metavar="FILE[:NAME]")
program_or_none = click.argument("program", metavar="[FILE[:NAME]]", default="")
"""For a command that also has something to do without a program."""


def choice_option(name: str, allowed: Sequence[str], about: str) -> Callable[[Decorated], Decorated]:
    """An option that takes one of some words, the first of them by default."""
    return click.option(name, type=click.Choice(allowed), default=allowed[0], show_default=True, help=about)


def _pairs(texts: tuple[str, ...], option: str) -> dict[str, str]:
    """`name=value` texts by name; the one place that reads them."""
    found = {}
    for text in texts:
        name, equals, value = text.partition("=")
        if not equals or not name.strip():
            raise BadUse(f"{option}: write name=value, as in {option} sides=7, not {text!r}.")
        if name.strip() in found:
            raise BadUse(f"{option}: {name.strip()} is given twice; give it once.")
        found[name.strip()] = value
    return found


def output_option(words: str) -> Callable[[Decorated], Decorated]:
    """`--output`, which may be given several times; `words` say what goes there."""
    return click.option("--output", "-o", "outputs", multiple=True, metavar="OUT", help=words)


class Target(NamedTuple):
    """A file to be written: as it was asked for, and where that is, wherever a program goes."""

    name: str
    path: Path

    @property
    def is_page(self) -> bool:
        """Whether it is a page that replays the drawing."""
        return is_page(self.path.suffix)


def targets(
    outputs: tuple[str, ...], default: str, check: Callable[[Path, str], object], *programs: Path
) -> list[Target]:
    """The files of `-o`, or the one of the default, each checked before anything is run."""
    found = []
    for output in outputs or (default,):
        path = checked_path(output, "-o")
        check(path, "-o")
        for program in programs:
            if path.exists() and program.exists() and path.samefile(program):
                raise BadUse(f"-o: {output} is the program itself; choose another name.")
        found.append(Target(output, path if path.is_absolute() else here("-o") / path))
    return found


def spelt(name: str) -> str:
    """How a value is named on the command line."""
    return f"--{name.replace('_', '-')}"


def pairs_option(option: str, name: str, words: str, metavar: str = "NAME=VALUE") -> Decorated:
    """An option `name=value`, which may be given several times; the command gets the texts by name."""
    return click.option(
        option,
        name,
        multiple=True,
        metavar=metavar,
        help=words,
        callback=lambda context, parameter, texts: _pairs(texts, option),
    )


set_option = pairs_option("--set", "settings", "Set a parameter; repeatable.")
scale_option = click.option(
    "--scale",
    type=click.FloatRange(min=0, min_open=True),
    default=1.0,
    show_default=True,
    help="Size of the picture relative to the sheet.",
)
dpi_option = click.option(
    "--dpi",
    type=click.FloatRange(min=0, min_open=True),
    help="PNG resolution in pixels per inch (default 96); replaces --scale.",
)
text_option = choice_option(
    "--text", TEXTS, "How to save text: as editable text, or as outlines, which look the same everywhere."
)


def check_dpi(dpi: float | None, scale: float, files: list[Target]) -> None:
    """Refuse a resolution where there is none."""
    if dpi is None:
        return
    if scale != 1:
        raise BadUse("--dpi: replaces --scale; leave one of them out.")
    if others := [file.name for file in files if file.path.suffix.lower() != ".png"]:
        raise BadUse(f"--dpi: only a PNG has a resolution; {others[0]} does not.")


def _overlay_names(context: click.Context, option: click.Parameter, overlay: str) -> tuple[str, ...]:
    if not overlay:
        return ()
    from ovlo.render.additions.overlays import checked_overlays  # most pictures have none

    return checked_overlays(overlay, "--overlay")


overlay_option = click.option(
    "--overlay",
    metavar="NAME,…",
    default="",
    help="Overlays, separated by commas: grid, axes, steps, angles, pointer, findings.",
    callback=_overlay_names,
)

loops_option = click.option(
    "--loops",
    type=click.IntRange(min=0),
    default=0,
    show_default=True,
    metavar="TIMES",
    help="How many times it plays; 0 repeats it forever. An SVG plays once.",
)
only_option = click.option(
    "--only",
    metavar="FUNCTION",
    default="",
    help="Show the marks of one function in full colour and the rest pale.",
)
seed_option = click.option("--seed", type=click.IntRange(min=0), help="Seed of the random numbers.")


def limit_options(command: Decorated) -> Decorated:
    """`--step-limit` and `--time-limit`; the command gets `limits`."""

    @functools.wraps(command)
    def limited(*, step_limit: int, time_limit: float | None, **options: Any) -> object:
        return command(limits=Limits(step_limit, time_limit), **options)

    timed = click.option(
        "--time-limit",
        type=click.FloatRange(min=0, min_open=True),
        metavar="SECONDS",
        help="Stop the program after this time and keep what it drew so far.",
    )(limited)
    return click.option(
        "--step-limit",
        type=click.IntRange(min=1),
        default=STEP_LIMIT,
        show_default=True,
        help="Stop the program after this many steps and keep what it drew so far.",
    )(timed)
