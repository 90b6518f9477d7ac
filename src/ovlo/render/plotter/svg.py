"""SVG for plotters: millimetres, a group of single lines for each pen (https://www.w3.org/TR/SVG2/).

render(plotted, machine, about)    # b'<svg xmlns=…'
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ovlo.core.plot.plot import PenRun, Plotted
from ovlo.core.plot.strokes import Strokes
from ovlo.render.formats.svg import escape
from ovlo.render.numbers import number, number_text
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

PLACES = 3
"""Decimals of a millimetre."""


def render(plotted: Plotted, machine: Machine, about: PlotDetails) -> bytes:
    """The plot as SVG."""
    width, height = (number(side, PLACES) for side in (plotted.placing.width, plotted.placing.height))
    details = f"<metadata>{escape(about.details)}</metadata>\n" if about.details else ""
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}">\n<title>{escape(about.title)}</title>\n{details}'
    )
    groups = [_group(run, i, plotted.placing.height) for i, run in enumerate(plotted.runs, 1)]
    return "".join([head, *groups, "</svg>\n"]).encode()


def _group(run: PenRun, place: int, height: float) -> str:
    """What one pen draws."""
    paths = "".join(f'<path d="{data}"/>\n' for data in path_data(run.strokes, height))
    return (
        f'<g id="pen-{place}" fill="none" stroke="{run.pen.ink.hex}" '
        f'stroke-width="{number(run.pen.line_width, PLACES)}" stroke-linecap="round" '
        f'stroke-linejoin="round">\n'
        f"<title>{escape(run.pen.name)}</title>\n{paths}</g>\n"
    )


def path_data(strokes: Strokes, height: float) -> list[str]:
    """The `d` of each stroke; y points down in the file."""
    count = len(strokes.points)
    values = np.full((count, 7), np.nan)
    leads = np.zeros(values.shape, np.uint8)
    values[:, 5] = strokes.points[:, 0]
    values[:, 6] = height - strokes.points[:, 1]
    leads[:, 5:] = ord(" ")
    leads[:, 5] = ord("L")
    arcs = strokes.sweeps != 0
    radii = np.hypot(*(strokes.points[arcs] - strokes.centres[arcs]).T)
    values[arcs, :5] = np.column_stack(
        [radii, radii, np.zeros(len(radii)), np.abs(strokes.sweeps[arcs]) > 180, strokes.sweeps[arcs] < 0]
    )
    leads[arcs, :6] = ord(" ")
    leads[arcs, 0] = ord("A")
    leads[strokes.is_first, 5] = ord("M")
    text, ends = number_text(values.ravel(), leads.ravel(), PLACES)
    whole = text.decode()
    bounds = [0, *ends[7 * strokes.firsts[1:] - 1].tolist()]
    return [whole[a:b] for a, b in pairwise(bounds)]
