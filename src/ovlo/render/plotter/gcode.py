"""G-code: lines and arcs of a machine's pen in millimetres (ISO 6983-1).

render(plotted, machine, about)    # b'%\\nG21\\n…'

The page's lower left corner is (0, 0). Between pens the program stops (M0) until somebody has changed them.
"""

from __future__ import annotations

from ovlo.core.plot.plot import Plotted
from ovlo.core.plot.strokes import Strokes
from ovlo.render.numbers import number
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

PLACES = 3
"""Decimals of a millimetre."""


def render(plotted: Plotted, machine: Machine, about: PlotDetails) -> bytes:
    """The plot as G-code."""
    width, height = number(plotted.placing.width, PLACES), number(plotted.placing.height, PLACES)
    lines = ["%", _comment(f"{about.title}, {width} x {height} mm"), "G21", "G90", "G17", *machine.lift]
    if about.details:
        lines.insert(2, _comment(about.details))
    for place, run in enumerate(plotted.runs):
        words = _comment(f"pen {place + 1} of {len(plotted.runs)}: {run.pen.name}")
        # To change the pen, the machine stops.
        lines.append(f"M0 {words}" if place else words)
        lines += _drawn(run.strokes, machine)
    lines += ["G0 X0 Y0", "M2", "%", ""]
    return "\n".join(lines).encode("ascii", "replace")


def _drawn(strokes: Strokes, machine: Machine) -> list[str]:
    """Strokes, each with a way there, the pen lowered, and lifted again."""
    lines: list[str] = []
    feed = f" F{number(machine.feed, PLACES)}"
    firsts, is_first = set(strokes.firsts[:-1].tolist()), True
    centres = strokes.centres - strokes.points[list(range(-1, len(strokes.points) - 1))]
    rows = zip(strokes.points.tolist(), strokes.sweeps.tolist(), centres.tolist(), strict=True)
    for at, ((x, y), sweep, (i, j)) in enumerate(rows):
        place = f"X{number(x, PLACES)} Y{number(y, PLACES)}"
        if at in firsts:
            if not is_first:
                lines += machine.lift
            lines += [f"G0 {place}", *machine.lower]
            is_first, speed = False, feed
            continue
        if sweep == 0:
            lines.append(f"G1 {place}{speed}")
        else:
            turn = "G3" if sweep > 0 else "G2"
            lines.append(f"{turn} {place} I{number(i, PLACES)} J{number(j, PLACES)}{speed}")
        speed = ""
    return [*lines, *machine.lift] if lines else lines


def _comment(words: str) -> str:
    """Words as a comment, which has no brackets inside."""
    return f"({words.translate(str.maketrans('()', '[]'))})"
