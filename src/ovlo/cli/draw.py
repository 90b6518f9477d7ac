"""`ovlo draw`: run a program and save its picture.

ovlo draw kites.py:row_of_kites --set most=6 -o kites.svg -o kites.png
"""

from __future__ import annotations

from pathlib import Path

import click

from ovlo import outlets
from ovlo.cli import parameters, wording
from ovlo.cli.options import (
    limit_options,
    only_option,
    output_option,
    overlay_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
)
from ovlo.cli.saying import say, tell_trouble
from ovlo.program.loading import Program, load
from ovlo.program.running import Limits, Outcome, run_program
from ovlo.render.additions.overlays import checked_overlays


@click.command()
@program_argument
@output_option(
    "Where to save the picture: .svg, .png or .pdf; repeatable. "
    "Without it, an SVG named after the program, in this folder."
)
@set_option
@seed_option
@click.option("--ask", is_flag=True, help="Ask for each parameter, and then whether to draw another.")
@click.option("--list", "is_list", is_flag=True, help="Show the drawings in the file and their parameters.")
@scale_option
@click.option("--fit", is_flag=True, help="Zoom the view so that all marks are seen.")
@overlay_option
@only_option
@limit_options
def draw(
    program: str,
    outputs: tuple[str, ...],
    settings: tuple[str, ...],
    ask: bool,
    is_list: bool,
    seed: int | None,
    fit: bool,
    scale: float,
    overlay: str,
    only: str,
    step_limit: int,
    time_limit: float | None,
) -> None:
    """Run a program and save its picture.

    FILE is a Python file; NAME picks one of several drawings in it.
    """
    loaded = load(program)
    if is_list:
        parameters.show_list(loaded)
        return
    targets = [Path(output) for output in outputs] or [Path(f"{loaded.name or loaded.path.stem}.svg")]
    for target in targets:
        outlets.check_target(target, "-o")
    how = outlets.How(scale=scale, fit=fit, overlay=checked_overlays(overlay, "--overlay"), only=only)
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)
    if ask:
        parameters.draw_each(
            loaded, given, targets, lambda values, files: _draw(loaded, values, seed, bounds, files, how)
        )
        return
    if not _draw(loaded, given, seed, bounds, targets, how):
        raise SystemExit(1)


def _draw(
    program: Program,
    values: dict[str, str],
    seed: int | None,
    bounds: Limits,
    targets: list[Path],
    how: outlets.How,
) -> bool:
    """Run once and save; whether all went well."""
    traced = bool(how["only"]) or "findings" in how["overlay"]
    folder = Path.cwd()  # the program may go elsewhere
    outcome = run_program(program, values, seed, bounds, traced)
    has_failed_empty = bool(outcome.trouble) and outcome.is_empty
    if outcome.sheet is not None and not has_failed_empty:
        for target in targets:
            outlets.save(outcome.sheet, folder / target, **how)
    tell_trouble(outcome, seed)
    if has_failed_empty:
        _tell_empty(folder, targets)
        return False
    _tell(program, outcome, how["fit"])
    if outcome.sheet is not None:
        for target in targets:
            say(wording.account(target, outcome.sheet))
    return not outcome.trouble


def _tell_empty(folder: Path, targets: list[Path]) -> None:
    """Say that a program failed before it drew anything, so that no picture is replaced by an empty one."""
    kept = [str(target) for target in targets if (folder / target).exists()]
    say("Nothing was drawn before that" + (f"; {', '.join(kept)} stays as it was." if kept else "."))


def _tell(program: Program, outcome: Outcome, fit: bool) -> None:
    """What there is to say beside the files."""
    if outcome.sheet_count > 1:
        say(f"{program.path} made {outcome.sheet_count} sheets; this is the last one.")
    if outcome.sheet is None:
        return
    if made := wording.made_with(outcome.sheet):
        say(made)
    if not fit and (beyond := wording.beyond(outcome.sheet)):
        say(beyond)
    if outcome.trouble:
        say("The picture so far:")
