"""`ovlo vary`: every combination of some values on one contact sheet.

ovlo vary kites.py:kite --values sides=3..8 --values side=20,40,80 -o contact.png
"""

from __future__ import annotations

import os
from typing import Any, Unpack

import click

from ovlo import outlets
from ovlo.cli.options import overlay_option, pairs_option, scale_option, targets, text_option
from ovlo.cli.paper import landscape_option, margin_option, page_size_option, paper_of
from ovlo.cli.run import Run, saves_files
from ovlo.cli.speech import wording
from ovlo.cli.speech.saying import progress, say, warn
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.choices import TextOutput
from ovlo.core.values.dice import fresh_seed
from ovlo.core.values.errors import BadUse
from ovlo.program import varying
from ovlo.program.loading import AnyDrawing
from ovlo.program.running import load_drawing
from ovlo.program.variations import MOST_COLUMNS, Layout, Variations
from ovlo.render.additions.contact import Cell
from ovlo.render.paper.paper_sheet import PaperSheet
from ovlo.render.paper.poster import PaperHow

CALL = "--values"


@click.command()
@saves_files(
    "File to save: .png, .svg, .pdf or .html (a page with sliders); repeatable. Without it, a PNG named "
    "after the drawing."
)
@pairs_option(
    "--values",
    "ranges",
    "Values of a parameter or of seed, as 3..8, 0..1..0.25 or 20,40,80; repeatable.",
    "NAME=VALUES",
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
@click.option("--columns", type=click.IntRange(1, MOST_COLUMNS), help="Number of pictures in a row.")
@click.option("--title", metavar="WORDS", help="Title of the contact sheet. [default: the varied values]")
@overlay_option
def vary(
    run: Run,
    ranges: dict[str, str],
    fit_each: bool,
    workers: int,
    overlay: tuple[str, ...],
    scale: float,
    text: TextOutput,
    columns: int | None,
    title: str | None,
    **paper: Unpack[PaperHow],
) -> bool:
    """Draw every combination of parameter values on one captioned contact sheet.

    A picture that fails shows its error in its cell.
    """
    if not run.program.declares:
        raise BadUse(f"{run.program.path} is a script, which has no parameters to vary.")
    drawing = load_drawing(run.program, run.limits)
    lists = _lists(drawing, run.settings, ranges)
    default = f"{drawing._name}-varied.{'pdf' if paper['page_size'] else 'png'}"
    files = targets(run.outputs, default, outlets.check_target, run.program.path)
    paper_of("vary", paper, scale, files)
    seed = fresh_seed() if run.seed is None else run.seed
    choices = varying.combinations(lists)
    cells = _drawn(run, choices, seed, workers, overlay, any(file.is_page for file in files))
    told = ", ".join(f"{name}={words}" for name, words in (ranges | run.settings).items())
    across = varying.grid_width(lists)
    variations = Variations(f"{drawing._name}: {told}", choices, cells, fit_each, across)
    layout = Layout(columns, title, paper)
    laid = outlets.save_variations(variations, [file.path for file in files], layout, scale, text)
    if "seed" not in lists and any(cell.used_dice for cell in cells):
        say(f"All pictures have seed={seed}.")
    _tell_cells(cells)
    failed = sum(bool(cell.trouble) for cell in cells)
    made = f"{len(cells)} pictures" + (f", {failed} of them failed" if failed else "")
    for file in files:
        say(f"{file.name}: {_size(laid)}, {made}")
    return not failed


def _lists(drawing: AnyDrawing, given: dict[str, str], ranges: dict[str, str]) -> varying.Ranges:
    """The values of each parameter that varies, once the others are known to be valid."""
    for name, text in given.items():
        if ".." in text and name in drawing._parameters and drawing._parameters[name].is_number:
            raise BadUse(f"--set: {name}={text} has several values; write {CALL} {name}={text}.")
    drawing._read(given)
    lists = {
        name: varying.range_of(text, varying.varied_parameter(drawing, name, CALL), CALL)
        for name, text in ranges.items()
    }
    if both := given.keys() & lists.keys():
        raise BadUse(f"{CALL}: {min(both)} is also given by --set; leave one of them out.")
    varying.check_ranges(drawing, lists, CALL)
    return lists


def _drawn(
    run: Run, choices: list[dict[str, Any]], seed: int, workers: int, overlay: tuple[str, ...], whole: bool
) -> list[Cell]:
    """The pictures of all choices, drawn by workers, in order."""
    found: dict[int, Cell] = {}
    drawn = varying.draw_cells(run.target, run.settings, choices, seed, run.limits, workers, overlay, whole)
    with progress(len(choices), "Drawing") as advance:
        for number, cell in drawn:
            found[number] = cell
            advance(1)
    return [found[number] for number in range(len(choices))]


def _tell_cells(cells: list[Cell]) -> None:
    """Say what there is to say about single pictures."""
    for notice in dict.fromkeys(notice for cell in cells for notice in cell.notices):
        warn(notice)
    for cell in cells:
        if cell.trouble:
            say(f"{cell.caption}: {cell.trouble}", err=True)


def _size(laid: Sheet | list[PaperSheet]) -> str:
    if isinstance(laid, Sheet):
        return f"{laid.width:g} × {laid.height:g} px"
    return f"{wording.counted(len(laid), 'page')} of {laid[0].width:g} × {laid[0].height:g} mm"
