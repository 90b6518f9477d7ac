"""`ovlo draw`: run a program and save its picture.

ovlo draw kites.py:row_of_kites --set most=6 -o kites.svg -o kites.png
"""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

import click

from ovlo import outlets
from ovlo.cli import asking
from ovlo.cli.options import (
    Target,
    check_dpi,
    dpi_option,
    only_option,
    overlay_option,
    scale_option,
    text_option,
)
from ovlo.cli.paper import landscape_option, margin_option, on_paper, page_size_option, paper_of
from ovlo.cli.run import Run, saves_files
from ovlo.cli.speech import wording
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.errors import BadUse

if TYPE_CHECKING:
    from ovlo.render.paper.paper_sheet import Paper
    from ovlo.render.paper.poster import PaperHow


@click.command()
@saves_files(
    "File to save: .svg, .png, .pdf or .html (a page that replays the drawing); repeatable. "
    "Without it, an SVG named after the program, in the current folder."
)
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
@click.option("--groups", is_flag=True, help="Put the marks of each function call into a group of the SVG.")
@click.option("--allow-large", is_flag=True, help="Save an .html even if it is larger than 100 MB.")
def draw(
    run: Run,
    ask: bool,
    is_list: bool,
    fit: bool,
    scale: float,
    dpi: float | None,
    text: str,
    page_size: str | None,
    landscape: bool,
    margin: str | None,
    tiles: str | None,
    overlay: tuple[str, ...],
    only: str,
    groups: bool,
    allow_large: bool,
) -> bool:
    """Run a program and save its picture.

    FILE is a Python file; NAME selects one of several drawings in it.
    """
    if is_list:
        asking.show_list(run.program)
        return True
    files = run.files(".pdf" if page_size else ".svg", outlets.check_target)
    check_dpi(dpi, scale, files)
    pages: PaperHow = {"page_size": page_size, "landscape": landscape, "margin": margin, "tiles": tiles}
    paper = paper_of("draw", pages, scale, files)
    how: outlets.How = {
        "scale": scale,
        "fit": fit,
        "overlay": overlay,
        "only": only,
        "text": text,
        "dpi": dpi,
        "groups": groups,
        "allow_large": allow_large,
    }
    if groups and (others := [file.name for file in files if file.path.suffix.lower() != ".svg"]):
        raise BadUse(f"--groups: only an SVG has groups; {others[0]} does not.")
    traced = bool(only) or groups or "findings" in overlay or any(file.is_page for file in files)

    def draw_once(run: Run, files: list[Target]) -> bool:
        """Run once and save; whether all went well."""
        return run.save(files, partial(_write, files, {**how, **pages}, paper), traced)

    return asking.draw_each(run, files, draw_once) if ask else draw_once(run, files)


def _write(files: list[Target], how: outlets.How, paper: Paper | None, sheet: Sheet) -> list[str]:
    """Save the picture; what leaves the sheet, and a line about each file."""
    for file in files:
        outlets.save(sheet, file.path, **how)
    beyond = "" if how["fit"] else wording.beyond(sheet)
    lines = [
        wording.account(file.name, sheet) if paper is None else on_paper(file.name, paper) for file in files
    ]
    lines += [large for file in files if file.is_page and (large := wording.large_page(file.name, file.path))]
    return [beyond, *lines] if beyond else lines
