"""`ovlo draw`: run a program and save its picture.

ovlo draw kites.py:row_of_kites --set most=6 -o kites.svg -o kites.png
"""

from __future__ import annotations

from functools import partial

import click

from ovlo import outlets
from ovlo.cli import parameters, wording
from ovlo.cli.options import (
    Target,
    limit_options,
    only_option,
    output_option,
    overlay_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
    targets,
)
from ovlo.cli.saying import say, tell_trouble
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program
from ovlo.render.additions.overlays import checked_overlays


@click.command()
@program_argument
@output_option(
    "Where to save the picture: .svg, .png, .pdf or .html (a page that replays it); repeatable. "
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
    default = f"{loaded.name or loaded.path.stem}.svg"
    files = targets(outputs, default, outlets.check_target, loaded.path)
    how = outlets.How(scale=scale, fit=fit, overlay=checked_overlays(overlay, "--overlay"), only=only)
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)

    def draw_once(values: dict[str, str], files: list[Target]) -> bool:
        """Run once and save; whether all went well."""
        traced = bool(only) or "findings" in how["overlay"] or any(file.is_page for file in files)
        conclusion = partial(_conclude, str(loaded.path), files, how, seed)
        keeping = partial(guarded, conclusion)
        return conclusion(run_program(loaded, values, seed, bounds, traced, keeping))

    if ask:
        parameters.draw_each(loaded, given, files, draw_once)
        return
    if not draw_once(given, files):
        raise SystemExit(1)


def _conclude(
    program: str, files: list[Target], how: outlets.How, seed: int | None, outcome: Outcome
) -> bool:
    """Save the picture, then say what there is to say; whether all went well."""
    if outcome.sheet is not None and not outcome.has_failed_empty:
        for file in files:
            outlets.save(outcome.sheet, file.path, **how)
    tell_trouble(outcome, seed)
    if outcome.has_failed_empty:
        _tell_empty(files)
        return False
    if outcome.sheet_count > 1:
        say(f"{program} made {outcome.sheet_count} sheets; this is the last one.")
    if outcome.sheet is not None:
        if made := wording.made_with(outcome.sheet):
            say(made)
        if not how["fit"] and (beyond := wording.beyond(outcome.sheet)):
            say(beyond)
        if outcome.trouble:
            say("The picture so far:")
        for file in files:
            say(wording.account(file.name, outcome.sheet))
    return not outcome.trouble


def _tell_empty(files: list[Target]) -> None:
    """Say that a program failed before it drew anything, so that no picture is replaced by an empty one."""
    kept = [file.name for file in files if file.path.exists()]
    say("Nothing was drawn before that" + (f"; {', '.join(kept)} stays as it was." if kept else "."))
