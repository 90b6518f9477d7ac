"""Options for pages of paper, which `draw`, `vary` and `plot` share.

paper = paper_of("draw", {"page_size": "A4", "margin": "12mm"}, 1.0, files)
"""

from __future__ import annotations

from typing import TYPE_CHECKING

import click

from ovlo.cli.options import Decorated, Target, spelt
from ovlo.core.values.units import MARGIN

if TYPE_CHECKING:
    from ovlo.render.paper.paper_sheet import Paper
    from ovlo.render.paper.poster import PaperHow


def _page_size_option(use: str) -> Decorated:
    words = f"Paper size, such as A4, letter or 200x300mm{use}. [default: the size of the sheet]"
    return click.option("--page-size", metavar="NAME", help=words)


page_size_option = _page_size_option("; the picture is scaled to fill it")
plot_size_option = _page_size_option("")
landscape_option = click.option("--landscape", is_flag=True, help="Use landscape orientation.")
margin_option = click.option(
    "--margin", metavar="LENGTH", help=f"Empty space on each side of a page. [default: {MARGIN:g}mm]"
)


def paper_of(call: str, how: PaperHow, scale: float, files: list[Target]) -> Paper | None:
    """The pages of paper that were asked for, if any were; they are in PDFs."""
    if not any(how.values()):
        return None
    from ovlo.render.paper.poster import checked_paper  # a picture without paper need not load it

    return checked_paper(how, [file.path.suffix for file in files], scale, call, spelt)


def on_paper(name: str, paper: Paper) -> str:
    """What a file with a picture on paper is."""
    page = f"{name}: a page of {_millimetres(paper.size)}"
    if paper.tile is None:
        return page
    from ovlo.render.paper.poster import checked_tiling

    tiling = checked_tiling(paper, "draw")
    return f"{page}, on {tiling.columns * tiling.rows} sheets of {_millimetres(tiling.tile)} and a plan"


def _millimetres(size: tuple[float, float]) -> str:
    return f"{size[0]:g} × {size[1]:g} mm"
