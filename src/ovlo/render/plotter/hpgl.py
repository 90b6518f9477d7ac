"""HP-GL/2: pens, lines and arcs for plotters and cutters that speak it.

render(plotted, machine, about)    # b'IN;SP1;…'

A plotter unit is a fortieth of a millimetre; the page's lower left corner is (0, 0).
"""

from __future__ import annotations

import numpy as np

from ovlo.core.plot.plot import Plotted
from ovlo.core.plot.strokes import Strokes
from ovlo.render.numbers import number
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

FINEST_CHORD = 0.5
"""Degrees of the shortest chord of an arc."""

UNITS = 40
"""Plotter units in a millimetre."""


def render(plotted: Plotted, machine: Machine, about: PlotDetails) -> bytes:
    """The plot as HP-GL/2."""
    lines = ["IN;", _comment(about.title)]
    if about.details:
        lines.append(_comment(about.details))
    # Centimetres in a second.
    lines.append(f"VS{number(machine.feed / 600, 1)};")
    if plotted.frame:
        places = np.rint(np.array(plotted.frame) * UNITS).astype(np.int64).ravel().tolist()
        lines.append(f"PU{','.join(map(str, places))};")
    for place, run in enumerate(plotted.runs, 1):
        lines += [f"SP{place};", _comment(run.pen.label), f"PW{number(run.pen.line_width, 3)},{place};"]
        lines += _drawn(run.strokes, plotted.tolerance)
    lines += ["PU0,0;", "SP0;", ""]
    return "\n".join(lines).encode("ascii", "replace")


def _drawn(strokes: Strokes, tolerance: float) -> list[str]:
    """Strokes: the way there, then its lines (PD) and arcs (AA, about their centre).

    A plotter draws arcs as chords, of 5° unless they say otherwise. A chord over the angle a is off the arc
    by r·(1 - cos(a/2)) at most.
    """
    lines: list[str] = []
    places = np.rint(strokes.points * UNITS).astype(np.int64).tolist()
    with np.errstate(invalid="ignore"):
        centres = np.rint(np.nan_to_num(strokes.centres) * UNITS).astype(np.int64).tolist()
        radii = np.nan_to_num(np.hypot(*(strokes.points - strokes.centres).T))
    share = np.clip(tolerance / np.maximum(radii, 1e-9), 0, 1)
    chords = np.clip(np.degrees(2 * np.arccos(1 - share)), FINEST_CHORD, 45.0).tolist()
    firsts = set(strokes.firsts[:-1].tolist())
    run: list[str] = []
    rows = zip(places, centres, strokes.sweeps.tolist(), strict=True)
    for at, ((x, y), (i, j), sweep) in enumerate(rows):
        if at in firsts:
            lines += _lowered(run)
            lines.append(f"PU{x},{y};PD;")
            run = []
        elif sweep == 0:
            run.append(f"{x},{y}")
        else:
            lines += _lowered(run)
            # The end of an arc is worked out by the plotter; the next line begins at the very place.
            chord = number(min(chords[at], abs(sweep)), 2)
            lines.append(f"AA{i},{j},{number(sweep, 3)},{chord};PD{x},{y};")
            run = []
    return [*lines, *_lowered(run), "PU;"]


def _lowered(places: list[str]) -> list[str]:
    return [f"PD{','.join(places)};"] if places else []


def _comment(words: str) -> str:
    """Words as a comment, which has no quotes inside."""
    return f"""CO"{words.replace('"', "'")}";"""
