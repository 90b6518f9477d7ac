"""`ovlo vary`: every combination of some values on one contact sheet.

ovlo vary kites.py:kite --values sides=3..8 --values side=20,40,80 -o contact.png
"""

from __future__ import annotations

import os

import click

from ovlo import outlets
from ovlo.cli.options import (
    limit_options,
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
from ovlo.cli.paper import landscape_option, margin_option, page_size_option, paper_of
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import progress, say, warn
from ovlo.core.values import arguments
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import BadUse
from ovlo.program import varying
from ovlo.program.loading import load
from ovlo.program.running import Limits, load_drawing
from ovlo.render.additions.contact import Cell, contact_sheet


@click.command()
@program_argument
@output_option(
    "File to save: .png, .svg, .pdf or .html (a page with sliders); repeatable. Without it, a PNG named "
    "after the drawing."
)
@set_option
@seed_option
@click.option(
    "--values",
    "ranges",
    multiple=True,
    metavar="NAME=VALUES",
    help="Values of a parameter or of seed, as 3..8, 0..1..0.25 or 20,40,80; repeatable.",
)
@click.option(
    "--fit-each", is_flag=True, help="Zoom each picture to its cell, so that sizes can no longer be compared."
)
@click.option(
    "--workers",
    type=click.IntRange(min=1),
    default=lambda: os.cpu_count() or 1,
    show_default="one per core",
    help="Number of pictures to draw at once.",
)
@scale_option
@text_option
@page_size_option
@landscape_option
@margin_option
@click.option("--columns", type=click.IntRange(1, 100), help="Number of pictures in a row.")
@click.option("--title", metavar="WORDS", help="Title of the contact sheet. [default: the varied values]")
@overlay_option
@limit_options
def vary(
    program: str,
    ranges: tuple[str, ...],
    settings: tuple[str, ...],
    seed: int | None,
    outputs: tuple[str, ...],
    fit_each: bool,
    scale: float,
    text: str,
    page_size: str | None,
    landscape: bool,
    margin: str | None,
    columns: int | None,
    title: str | None,
    overlay: str,
    workers: int,
    step_limit: int,
    time_limit: float | None,
) -> None:
    """Draw every combination of parameter values on one captioned contact sheet.

    A picture that fails shows its error in its cell.
    """
    loaded = load(program)
    if not loaded.declares:
        raise BadUse(f"{loaded.path} is a script, which has no parameters to vary.")
    bounds = Limits(step_limit, time_limit)
    drawing = load_drawing(loaded, bounds)
    given, call = pairs(settings, "--set"), "--values"
    for name, written in given.items():
        if ".." in written and name in drawing._parameters and drawing._parameters[name].is_number:
            raise BadUse(f"--set: {name}={written} has several values; write --values {name}={written}.")
    drawing._read(given)
    lists = {
        name: varying.range_of(written, varying.varied_parameter(drawing, name, call), call)
        for name, written in pairs(ranges, "--values").items()
    }
    if both := given.keys() & lists.keys():
        raise BadUse(f"--values: {min(both)} is also given by --set; leave one of them out.")
    varying.check_ranges(drawing, lists, call)
    files = targets(
        outputs, f"{drawing._name}-varied.{'pdf' if page_size else 'png'}", outlets.check_target, loaded.path
    )
    paper = paper_of(page_size, landscape, margin, scale, files)
    heading = _title(drawing._name, ranges, settings)
    if title is not None:
        heading = arguments.text(title, "--title", "")
    names = overlay_names(overlay)
    choices = varying.combinations(lists)
    common = fresh_seed() if seed is None else seed
    cells: list[Cell | None] = [None] * len(choices)
    has_page = any(file.is_page for file in files)
    drawn = varying.draw_cells(program, given, choices, common, bounds, workers, names, has_page)
    with progress(len(choices), "Drawing") as advance:
        for number, cell in drawn:
            cells[number] = cell
            advance(1)
    whole = [cell for cell in cells if cell is not None]
    if paper is not None:
        from ovlo.render.paper.handout import handout  # most contact sheets are one picture

        papers = handout(whole, heading, paper, columns, fit_each, text, "save")
        outlets.save_paper_sheets(papers, heading, [file.path for file in files])
        size = f"{wording.counted(len(papers), 'page')} of {paper.size[0]:g} × {paper.size[1]:g} mm"
    else:
        sheet = contact_sheet(whole, heading, fit_each, columns or varying.grid_width(lists))
        for file in files:
            outlets.save(sheet, file.path, scale=scale, text=text)
        size = f"{sheet.width:g} × {sheet.height:g} px"
    if "seed" not in lists and any(cell.used_dice for cell in whole):
        say(f"All pictures have seed={common}.")
    for notice in dict.fromkeys(notice for cell in whole for notice in cell.notices):
        warn(notice)
    failed = [cell for cell in whole if cell.trouble]
    for cell in failed:
        say(f"{cell.caption}: {cell.trouble}", err=True)
    made = f"{len(whole)} pictures" + (f", {len(failed)} of them failed" if failed else "")
    for file in files:
        say(f"{file.name}: {size}, {made}")
    if failed:
        raise SystemExit(1)


def _title(name: str, ranges: tuple[str, ...], settings: tuple[str, ...]) -> str:
    return f"{name}: {', '.join([*ranges, *settings])}"
