"""`ovlo draw`: run a program and save its picture.

ovlo draw kites.py:row_of_kites --set most=6 -o kites.svg -o kites.png
"""

from __future__ import annotations

from functools import partial

import click

from ovlo import outlets
from ovlo.cli import asking
from ovlo.cli.options import (
    Target,
    check_dpi,
    dpi_option,
    limit_options,
    only_option,
    output_option,
    overlay_names,
    overlay_option,
    pairs,
    program_argument,
    scale_option,
    seed_option,
    set_option,
    targets,
    text_option,
)
from ovlo.cli.paper import landscape_option, margin_option, on_paper, page_size_option, paper_of
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import say, tell_empty, tell_trouble
from ovlo.program.loading import load
from ovlo.program.outcome import Outcome
from ovlo.program.processes.rescue import guarded
from ovlo.program.running import Limits, run_program


@click.command()
@program_argument
@output_option(
    "File to save: .svg, .png, .pdf or .html (a page that replays the drawing); repeatable. "
    "Without it, an SVG named after the program, in the current folder."
)
@set_option
@seed_option
@click.option("--ask", is_flag=True, help="Ask for each parameter, draw, and offer to draw another picture.")
@click.option(
    "--list", "is_list", is_flag=True, help="List the drawings in the file and their parameters, and exit."
)
@scale_option
@dpi_option
@text_option
@click.option("--fit", is_flag=True, help="Zoom so that all marks are visible.")
@page_size_option
@landscape_option
@margin_option
@click.option(
    "--tiles", metavar="NAME", help="Split the page into a poster on sheets of this size, to glue together."
)
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
    dpi: float | None,
    text: str,
    page_size: str | None,
    landscape: bool,
    margin: str | None,
    tiles: str | None,
    overlay: str,
    only: str,
    step_limit: int,
    time_limit: float | None,
) -> None:
    """Run a program and save its picture.

    FILE is a Python file; NAME selects one of several drawings in it.
    """
    loaded = load(program)
    if is_list:
        asking.show_list(loaded)
        return
    default = f"{loaded.name or loaded.path.stem}.{'pdf' if page_size else 'svg'}"
    files = targets(outputs, default, outlets.check_target, loaded.path)
    names = overlay_names(overlay)
    check_dpi(dpi, scale, files)
    paper = paper_of(page_size, landscape, margin, scale, files, tiles)
    how = outlets.How(scale=scale, fit=fit, overlay=names, only=only, text=text, dpi=dpi, paper=paper)
    given, bounds = pairs(settings, "--set"), Limits(step_limit, time_limit)

    def draw_once(values: dict[str, str], files: list[Target]) -> bool:
        """Run once and save; whether all went well."""
        traced = bool(only) or "findings" in how["overlay"] or any(file.is_page for file in files)
        conclusion = partial(_conclude, str(loaded.path), files, how, seed)
        keeping = partial(guarded, conclusion)
        return conclusion(run_program(loaded, values, seed, bounds, traced, keeping))

    if ask:
        asking.draw_each(loaded, given, files, draw_once)
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
        tell_empty(files)
        return False
    if outcome.sheet_count > 1:
        say(f"{program} made {outcome.sheet_count} sheets; the picture is the last one.")
    if outcome.sheet is not None:
        if made := wording.made_with(outcome.sheet):
            say(made)
        if not how["fit"] and (beyond := wording.beyond(outcome.sheet)):
            say(beyond)
        if outcome.trouble:
            say("The picture so far:")
        for file in files:
            paper = how["paper"]
            said = wording.account(file.name, outcome.sheet) if paper is None else on_paper(file.name, paper)
            say(said)
    return not outcome.trouble
