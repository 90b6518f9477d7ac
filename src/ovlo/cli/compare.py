"""`ovlo compare`: do two programs draw the same picture?

ovlo compare kites.py:walked kites.py:by_corners -o diff.png
"""

from __future__ import annotations

from functools import partial
from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli.options import limit_options, output_option, pairs_option, seed_option, targets
from ovlo.cli.run import Run
from ovlo.cli.speech.saying import say
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import ProgramFailed
from ovlo.program.outcome import Outcome
from ovlo.program.running import Limits


@click.command()
@click.argument("first", metavar="A")
@click.argument("second", metavar="B")
@output_option("File that shows both pictures laid over each other: .svg, .png or .pdf; repeatable.")
@pairs_option("--set-a", "settings_a", "Set a parameter of A; repeatable.")
@pairs_option("--set-b", "settings_b", "Set a parameter of B; repeatable.")
@seed_option
@limit_options
def compare(
    first: str,
    second: str,
    settings_a: dict[str, str],
    settings_b: dict[str, str],
    seed: int | None,
    outputs: tuple[str, ...],
    limits: Limits,
) -> None:
    """Check whether two programs draw the same picture, and how they differ.

    A and B are each FILE[:NAME]. The order, direction and splitting of lines do not matter. The exit status
    is 0 if the pictures are the same, even if one is moved, turned, scaled or mirrored, and 1 if they differ,
    even in colour only.
    """
    common = fresh_seed() if seed is None else seed
    runs = Run(first, settings_a, common, limits), Run(second, settings_b, common, limits)
    paths = [run.program.path for run in runs]
    files = targets(outputs, "", outlets.check_target, *paths) if outputs else []
    a, b = (_drawn(run) for run in runs)
    comparison = outlets.compare(a, b, (Path(first).name, Path(second).name))
    if files:
        sheet = comparison._sheet()
        for file in files:
            outlets.save(sheet, file.path)
    say(str(comparison))
    for file in files:
        say(f"{file.name}: {sheet.width:.4g} × {sheet.height:.4g} px")
    if not comparison:
        raise SystemExit(1)


def _drawn(run: Run) -> Sheet:
    """What a program draws; one that fails is not compared."""
    conclusion = partial(_refuse, str(run.program.path))
    return conclusion(run.outcome(conclusion))


def _refuse(path: str, outcome: Outcome) -> Sheet:
    if outcome.trouble or outcome.sheet is None:
        raise ProgramFailed(outcome.trouble or f"{path} makes no sheet.")
    return outcome.sheet
