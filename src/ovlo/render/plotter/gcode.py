"""G-code: lines and arcs of a machine's pen in millimetres (ISO 6983-1).

render(plotted, machine, about)    # b'%\\nG21\\n…'

The page's lower left corner is (0, 0) unless the machine says otherwise. Between pens the program stops (M0)
until somebody has changed them. Every move at a feed has had its feed named before: lowering its own, and
each stroke that of drawing.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ovlo.core.plot.plot import Plotted
from ovlo.core.plot.strokes import Strokes
from ovlo.core.values.arrays import Floats
from ovlo.render.numbers import number, number_text
from ovlo.render.plotter.about import PlotDetails
from ovlo.render.plotter.machine import Machine

PLACES = 3
"""Decimals of a millimetre."""


def render(plotted: Plotted, machine: Machine, about: PlotDetails) -> bytes:
    """The plot as G-code."""
    size = plotted.placing.width, plotted.placing.height
    width, height = (number(side, PLACES) for side in size)
    lines = ["%", _comment(f"{about.title}, {width} x {height} mm")]
    if about.details:
        lines.append(_comment(about.details))
    lines += ["G21", "G90", "G17", *machine.begin, *machine.lift]
    if plotted.frame:
        origin, up = machine.frame(size)
        places = ((np.array(plotted.frame) - origin) * (1, up)).tolist()
        lines.append("(the frame, the pen lifted)")
        lines += [f"G0 X{number(x, PLACES)} Y{number(y, PLACES)}" for x, y in places]
    for place, run in enumerate(plotted.runs):
        words = _comment(f"pen {place + 1} of {len(plotted.runs)}: {run.pen.label}")
        # To change the pen, the machine stops.
        lines += [*machine.change_pen[:-1], f"{machine.change_pen[-1]} {words}"] if place else [words]
        lines += _drawn(run.strokes, machine, size)
    lines += [*machine.end, "M2", "%", ""]
    return "\n".join(lines).encode("ascii", "replace")


def _drawn(strokes: Strokes, machine: Machine, size: tuple[float, float]) -> list[str]:
    """Strokes, each with a way there, the pen lowered, and lifted again."""
    lines: list[str] = []
    feed = f" F{number(machine.feed, PLACES)}"
    lower = [_with_feed(line, machine.lower_feed) for line in machine.lower]
    firsts, is_first = set(strokes.firsts[:-1].tolist()), True
    origin, up = machine.frame(size)
    points = (strokes.points - origin) * (1, up)
    centres = (strokes.centres - strokes.points[list(range(-1, len(strokes.points) - 1))]) * (1, up)
    turns = (up * strokes.sweeps).tolist()
    rows = zip(_texts(points), turns, _texts(np.nan_to_num(centres)), strict=True)
    for at, ((x, y), sweep, (i, j)) in enumerate(rows):
        place = f"X{x} Y{y}"
        if at in firsts:
            if not is_first:
                lines += machine.lift
            lines += [f"G0 {place}", *lower]
            is_first, speed = False, feed
            continue
        if sweep == 0:
            lines.append(f"G1 {place}{speed}")
        else:
            turn = "G3" if sweep > 0 else "G2"
            lines.append(f"{turn} {place} I{i} J{j}{speed}")
        speed = ""
    return [*lines, *machine.lift] if lines else lines


def _texts(points: Floats) -> Iterator[tuple[str, str]]:
    """The coordinates of places as text; all are written at once, which is several times as fast."""
    leads = np.full(points.size, ord(" "), np.uint8)
    numbers = iter(number_text(points.ravel(), leads, PLACES)[0].decode().split())
    return zip(numbers, numbers, strict=True)


def _with_feed(line: str, feed: float) -> str:
    """A line of lowering with its feed, if it moves at one and does not name it."""
    words = line.partition("(")[0].upper().split()
    is_feed_move = any(word in ("G1", "G01") for word in words)
    has_feed = any(word.startswith("F") for word in words)
    return f"{line} F{number(feed, PLACES)}" if is_feed_move and not has_feed else line


def _comment(words: str) -> str:
    """Words as a comment, which has no brackets inside."""
    return f"({words.translate(str.maketrans('()', '[]'))})"
