"""What a plot takes, pen by pen, and what of it is not as in the picture.

report = report_of(plotted, machine)
report.pens[0].seconds
"""

from __future__ import annotations

from typing import NamedTuple

from ovlo.core.plot.plot import Plotted
from ovlo.core.values.colour import Colour
from ovlo.render.plotter.machine import Machine

LEAST_UNLIKE = 1
"""By CIEDE2000, of an ink that is not the pen's."""


class PenReport(NamedTuple):
    """What one pen of a plot takes; see `PlotReport`.

    Attributes
    ----------
    name : str
        As in the pen tray, or its ink and width.
    ink : Colour
    line_width : float
        In millimetres.
    lifts : int
        How often it is lifted, once for each stroke.
    lifts_before : int
        The same for the lines as the program drew them.
    drawn : float
        Millimetres of its strokes.
    travel : float
        Millimetres between its strokes, and to the first of them.
    travel_before : float
        The same for the lines as the program drew them.
    seconds : float
        About how long it takes, by the feeds of the machine.
    """

    name: str
    ink: Colour
    line_width: float
    lifts: int
    lifts_before: int
    drawn: float
    travel: float
    travel_before: float
    seconds: float


class PlotReport(NamedTuple):
    """What a plot takes: returned by `sheet.save_plot`.

    Attributes
    ----------
    pens : list of PenReport
        Those that draw, in the order in which they are used.
    width, height : float
        Of the page, in millimetres.
    marks : int
        Marks of the picture that are seen.
    strokes : int
        What they became.
    way_home : float
        Millimetres from the last stroke to the origin.
    replaced : dict
        For the name of each pen that stands in for other inks, those inks with their CIEDE2000 difference.
    wide_lines, fine_lines : int
        Lines wider than their pen, filled by several strokes, and lines finer than their pen.
    narrow_areas : int
        Pieces of areas that are narrower than their pen and not filled.
    small_words : int
        Texts whose letters are so small that their outlines become blots.
    cut_marks, paper_marks : int
        Marks cut off at the edge of the page, and marks in the colour of the paper, which are not drawn.
    warnings : list of str
        What a simulated machine finds wrong with the file; it looks where a preview is made.
    """

    pens: list[PenReport]
    width: float
    height: float
    marks: int
    strokes: int
    way_home: float
    replaced: dict[str, dict[str, float]]
    wide_lines: int
    fine_lines: int
    narrow_areas: int
    small_words: int
    cut_marks: int
    paper_marks: int
    warnings: list[str]


def report_of(plotted: Plotted, machine: Machine) -> PlotReport:
    """The report of a plot on a machine."""
    replaced: dict[str, dict[str, float]] = {}
    for one in plotted.replaced:
        if one.unlike >= LEAST_UNLIKE:
            replaced.setdefault(one.pen.name, {})[one.ink.hex] = one.unlike
    pens = [
        PenReport(
            *run.pen[:3],
            run.lifts,
            run.lifts_before,
            run.drawn,
            run.travel,
            run.travel_before,
            machine.seconds(run),
        )
        for run in plotted.runs
    ]
    return PlotReport(
        pens,
        plotted.placing.width,
        plotted.placing.height,
        plotted.marks,
        sum(pen.lifts for pen in pens),
        plotted.way_home,
        replaced,
        plotted.wide_lines,
        plotted.fine_lines,
        plotted.narrow_areas,
        plotted.small_words,
        plotted.cut_marks,
        plotted.paper_marks,
        [],
    )
