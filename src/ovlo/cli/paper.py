"""Options for pages of paper, which `draw`, `vary` and `plot` share.

paper = paper_of("A4", False, "12mm", 1.0, files)
"""

from __future__ import annotations

from typing import TYPE_CHECKING

import click

from ovlo.cli.options import Target
from ovlo.core.values import units
from ovlo.core.values.errors import BadUse
from ovlo.core.values.units import MARGIN

if TYPE_CHECKING:
    from ovlo.render.paper.paper_sheet import Paper

page_size_option = click.option(
    "--page-size",
    metavar="NAME",
    help="Paper size, such as A4, letter or 200x300mm. [default: the size of the sheet]",
)
landscape_option = click.option("--landscape", is_flag=True, help="Use landscape orientation.")
margin_option = click.option(
    "--margin", metavar="LENGTH", help=f"Empty space on each side of a page. [default: {MARGIN:g}mm]"
)


def paper_of(
    page_size: str | None,
    is_landscape: bool,
    margin: str | None,
    scale: float,
    files: list[Target],
    tiles: str | None = None,
) -> Paper | None:
    """The pages of paper that were asked for, if any were; they are in PDFs."""
    if page_size is None:
        for option, value in (("--landscape", is_landscape), ("--margin", margin), ("--tiles", tiles)):
            if value:
                raise BadUse(f"{option}: needs a paper size; add one, as in --page-size A4.")
        return None
    if others := [file.name for file in files if file.path.suffix.lower() != ".pdf"]:
        raise BadUse(f"--page-size: only a PDF has pages of paper; save {others[0]} as .pdf.")
    if scale != 1:
        raise BadUse("--scale: the paper size sets the scale; leave --scale or --page-size out.")
    from ovlo.render.paper.poster import checked_paper  # a picture without paper need not load it

    size = units.page_size(page_size, "--page-size", is_landscape)
    empty = units.millimetres(MARGIN if margin is None else margin, "--margin", "")
    tile = None if tiles is None else units.page_size(tiles, "--tiles")
    return checked_paper(size, empty, tile)


def on_paper(name: str, paper: Paper) -> str:
    """What a file with a picture on paper is."""
    page = f"{name}: a page of {_millimetres(paper.size)}"
    if paper.tile is None:
        return page
    from ovlo.render.paper.poster import checked_tiling

    tiling = checked_tiling(paper, "--tiles")
    return f"{page}, on {tiling.columns * tiling.rows} sheets of {_millimetres(tiling.tile)} and a plan"


def _millimetres(size: tuple[float, float]) -> str:
    return f"{size[0]:g} × {size[1]:g} mm"
