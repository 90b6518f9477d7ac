"""A preview: what a simulated machine draws that is given the file, and the travel of its lifted pen, pale.

sheet = preview(drawn, looks, about)
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ovlo.core.sheet.host import unhosted
from ovlo.core.sheet.nib import Nib
from ovlo.core.sheet.sheet import Sheet
from ovlo.core.values import colour
from ovlo.core.values.arrays import Floats
from ovlo.core.values.colour import Colour
from ovlo.core.values.units import PIXELS_PER_UNIT
from ovlo.render.formats import png
from ovlo.render.page import Page
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.simulation import LINE_WIDTH, Move, Simulated

TRAVEL, TRAVEL_WIDTH = "rgb(90 110 140 / 35%)", 0.15
"""The ink of travel, and how wide it is, in millimetres."""

INKS = ("black", "crimson", "royalblue", "seagreen", "darkorange", "purple", "saddlebrown", "teal")
SHORT = 1000
"""Pixels that the longer side of a preview has at least."""

MOMENTS = 2000
"""Steps of a replay into which the time of the machine is divided, where its moves are longer."""

Looks = Mapping[int, tuple[Colour, float]]
"""The ink and the width of a pen, by its number, from 1."""


def render(drawn: Simulated, looks: Looks, about: PlotDetails, has_legend: bool = False) -> bytes:
    """The preview as PNG."""
    sheet = preview(drawn, looks, about, has_legend=has_legend)
    scale = max(1.0, SHORT / (max(sheet.width, sheet.height) * PIXELS_PER_UNIT["mm"]))
    return b"".join(png.render(sheet._columns, Page.of(sheet, scale)))


def preview(
    drawn: Simulated,
    looks: Looks,
    about: PlotDetails,
    has_travel: bool = True,
    is_timed: bool = False,
    has_legend: bool = False,
) -> Sheet:
    """A sheet as large as the page with what the pens draw, and where they travel.

    With `is_timed`, long moves are divided, so that a replay goes about as fast as the machine. A legend of
    the pens stands beneath the page.
    """
    width, height = drawn.size
    pens = sorted({move.pen for move in drawn.moves if move.is_down}) if has_legend else []
    line = max(width, height) / 40
    strip = line * (len(pens) + 1) if pens else 0.0
    with unhosted():
        sheet = Sheet(width, height + strip, paper=about.paper, unit="mm")
    sheet.title = about.title
    nib = sheet.new_nib()
    corner = np.array([width / 2, (height - strip) / 2])

    def look_of(pen: int) -> tuple[Colour, float]:
        return drawn.looks.get(pen) or looks.get(pen) or _some_look(pen)

    moment = sum(move.seconds for move in drawn.moves) / MOMENTS
    for move in drawn.moves:
        if not (move.is_down or has_travel):
            continue
        nib.ink, nib.line_width = look_of(move.pen) if move.is_down else (TRAVEL, TRAVEL_WIDTH)
        points = (_divided(move, moment) if is_timed and moment else move.points) - corner
        nib.travel_to(*points[0].tolist())
        nib.polyline(points[1:])
    if pens:
        nib.ink, nib.line_width = TRAVEL, TRAVEL_WIDTH
        _legend(nib, [(pen, *look_of(pen)) for pen in pens], width, strip - (height + strip) / 2, line)
    return sheet


def _legend(nib: Nib, pens: list[tuple[int, Colour, float]], width: float, top: float, line: float) -> None:
    """The lower edge of the page, and beneath it a line of each pen with its number, ink and width."""
    nib.travel_to(-width / 2, top)
    nib.line_by(width, 0)
    for row, (pen, ink, line_width) in enumerate(pens, 1):
        nib.travel_to(line - width / 2, top - row * line)
        with nib.styled(ink=ink, line_width=line_width):
            nib.line_by(2 * line, 0)
        nib.travel_by(line / 2, 0)
        with nib.styled(ink="dimgray"):
            nib.text(f"pen {pen}: {ink.hex} {line_width:g} mm", size=0.7 * line, baseline="middle")


def _some_look(pen: int) -> tuple[Colour, float]:
    return colour.parse(INKS[(pen - 1) % len(INKS)], "plot"), LINE_WIDTH


def _divided(move: Move, moment: float) -> Floats:
    """The points of a move, with some between them where it takes longer than a moment."""
    lengths = np.hypot(*np.diff(move.points, axis=0).T)
    counts = np.maximum(1, np.ceil(60 * lengths / move.speeds / moment).astype(np.int64))
    ends = np.cumsum(counts)
    at = np.interp(np.arange(ends[-1] + 1), [0, *ends], np.arange(len(move.points)))
    return np.column_stack([np.interp(at, np.arange(len(move.points)), side) for side in move.points.T])
