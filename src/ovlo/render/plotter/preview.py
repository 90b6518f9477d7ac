"""A preview: what the pens will draw on the page, and the ways of the lifted pen as pale lines.

render(plotted, machine, about)    # b'\\x89PNG…'
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ovlo.core.plot.plot import HOME, Plotted
from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values.units import PIXELS_PER_UNIT
from ovlo.render.formats import png
from ovlo.render.page import Page
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

TRAVEL, TRAVEL_WIDTH = "rgb(90 110 140 / 35%)", 0.15
"""The ink of ways, and how wide they are, in millimetres."""

FLAT = 0.02
"""Millimetres by which a chord may be off its arc."""

SHORT = 1000
"""Pixels that the longer side of a preview has at least."""


def render(plotted: Plotted, machine: Machine, about: PlotDetails) -> bytes:
    """The preview as PNG."""
    sheet = preview(plotted, about)
    scale = max(1.0, SHORT / (max(sheet.width, sheet.height) * PIXELS_PER_UNIT["mm"]))
    return b"".join(png.render(sheet._columns, Page.of(sheet, scale)))


def preview(plotted: Plotted, about: PlotDetails, has_travel: bool = True) -> Sheet:
    """A sheet as large as the page with what the pens draw."""
    placing = plotted.placing
    with unhosted():
        sheet = Sheet(placing.width, placing.height, paper=about.paper, unit="mm")
    sheet.title = about.title
    nib = sheet.new_nib()
    corner = np.array([placing.width / 2, placing.height / 2])
    for run in plotted.runs:
        nib.ink, nib.line_width = run.pen.ink, run.pen.line_width
        points, firsts = run.strokes.flat(FLAT)
        places = (points - corner).tolist()
        for first, stop in pairwise(firsts.tolist()):
            nib.travel_to(*places[first])
            for place in places[first + 1 : stop]:
                nib.line_to(*place)
    if has_travel:
        _travels(nib, plotted, corner)
    return sheet


def _travels(nib: Nib, plotted: Plotted, corner: np.ndarray) -> None:
    nib.ink, nib.line_width = TRAVEL, TRAVEL_WIDTH
    nib.travel_to(*(np.array(HOME) - corner).tolist())
    for place in plotted.frame:
        nib.line_to(*(np.array(place) - corner).tolist())
    for run in plotted.runs:
        for start, end in zip(
            (run.strokes.starts - corner).tolist(), (run.strokes.ends - corner).tolist(), strict=True
        ):
            nib.line_to(*start)
            nib.travel_to(*end)
