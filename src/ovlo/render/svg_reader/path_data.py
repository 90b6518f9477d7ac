"""Path data and lists of points of SVG files (SVG 2, chapter 9.3, and 10.6 for points).

    subpaths, is_valid = subpaths_of("M0 0l1 1c1 0 1 1 0 1z")

Points are complex numbers in the file's own axes, y down. Data is read up to its first error (SVG 2, 9.5.4).
"""

from __future__ import annotations

import re
from cmath import phase, rect
from math import degrees, pi, radians, sqrt
from typing import NamedTuple

NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?"
SPACE = r"[ \t\r\n\f]*"
GAP = rf"(?:{SPACE},{SPACE}|{SPACE})"
FLAG = r"[01]"
PARTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}
"""The numbers of each command."""


def _groups(count: int) -> re.Pattern[str]:
    return re.compile(GAP.join([f"({NUMBER})"] * count))


GROUPS = {count: _groups(count) for count in set(PARTS.values()) - {0, 7}} | {
    7: re.compile(
        GAP.join([f"({NUMBER})"] * 3 + [f"({FLAG})"] * 2 + [f"({NUMBER})"] * 2),
    )
}
COMMAND = re.compile(rf"{SPACE}([MmLlHhVvCcSsQqTtAaZz]){SPACE}")
SEPARATOR = re.compile(GAP)
BLANK = re.compile(SPACE)

Bend = tuple[int, complex, complex, float]
"""A segment among some, and the curve it is: u, v and the sweep, as in `ovlo.core.trail.curves`."""


class Subpath(NamedTuple):
    """Where a subpath begins, where each segment ends, which are curves, and whether `z` closes it."""

    start: complex
    ends: list[complex]
    curves: list[Bend]
    is_closed: bool


def subpaths_of(data: str) -> tuple[list[Subpath], bool]:
    """The subpaths of path data, and whether all of it is valid."""
    subpaths: list[Subpath] = []
    start = here = control = 0j
    ends: list[complex] = []
    curves: list[Bend] = []
    place, last = 0, ""

    def finish(is_closed: bool) -> None:
        nonlocal ends, curves
        if ends or is_closed:
            subpaths.append(Subpath(start, ends or [start], curves, is_closed))
        ends, curves = [], []

    while command := COMMAND.match(data, place):
        letter = command[1]
        kind, is_relative = letter.upper(), letter.islower()
        if not last and kind != "M":
            break
        place = command.end()
        if kind == "Z":
            if ends and here != start:
                ends.append(start)
            finish(True)
            here, last = start, "Z"
            continue
        group = GROUPS[PARTS[kind]]
        is_first = True
        while numbers := group.match(data, place if is_first else _separated(data, place)):
            place = numbers.end()
            values = [float(number) for number in numbers.groups()]
            origin = here if is_relative else 0j
            if kind == "H":
                end = complex(values[0] + origin.real, here.imag)
            elif kind == "V":
                end = complex(here.real, values[0] + origin.imag)
            else:
                end = origin + complex(*values[-2:])
            if kind == "M" and is_first:
                finish(False)
                start = here = end
                last, is_first = "M", False
                continue
            if kind in "CS":
                reflected = 2 * here - control if last in ("C", "S") else here
                first = origin + complex(*values[:2]) if kind == "C" else reflected
                control = origin + complex(*values[-4:-2])
                curves.append((len(ends), first - here, control - here, 0.0))
            elif kind in "QT":
                reflected = 2 * here - control if last in ("Q", "T") else here
                control = origin + complex(*values[:2]) if kind == "Q" else reflected
                # A quadratic curve is the cubic with its control points two thirds of the way.
                curves.append(
                    (len(ends), (control - here) * 2 / 3, end + (control - end) * 2 / 3 - here, 0.0)
                )
            elif kind == "A" and here != end and (arc := arc_between(here, end, values)):
                curves.append((len(ends), *arc))
            if kind != "A" or here != end:
                ends.append(end)
            here, last, is_first = end, "L" if kind == "M" else kind, False
        if is_first:
            finish(False)
            return subpaths, False
    finish(False)
    return subpaths, BLANK.match(data, place).end() == len(data)  # type: ignore[union-attr]


def _separated(data: str, place: int) -> int:
    """The place behind white space and at most one comma."""
    return SEPARATOR.match(data, place).end()  # type: ignore[union-attr]


def arc_between(start: complex, end: complex, values: list[float]) -> tuple[complex, complex, float] | None:
    """u, v and the sweep in degrees of an elliptical arc; None for a line (SVG 2, B.2.4 and B.2.5)."""
    width, height = abs(values[0]), abs(values[1])
    is_large, is_rising = values[3:5]
    if not width or not height:
        return None
    axes = rect(1, radians(values[2] % 360))
    # Half the way back, along the ellipse's axes and in its half-axes: there it is a unit circle.
    half = (start - end) / 2 / axes
    half = complex(half.real / width, half.imag / height)
    if abs(half) > 1:
        width, height, half = width * abs(half), height * abs(half), half / abs(half)
    centre = 1j * half * sqrt(max(1 / abs(half) ** 2 - 1, 0.0))
    if is_large != is_rising:
        centre = -centre
    first = half - centre
    sweep = phase((-half - centre) / first)
    if is_rising and sweep <= 0:
        sweep += 2 * pi
    elif not is_rising and sweep >= 0:
        sweep -= 2 * pi
    u, v = (axes * complex(point.real * width, point.imag * height) for point in (first, 1j * first))
    return u, v, degrees(sweep)


def points_of(data: str, is_closed: bool) -> tuple[list[Subpath], bool]:
    """The one subpath of the points of a polyline or polygon, and whether they are valid."""
    points: list[complex] = []
    place = BLANK.match(data).end()  # type: ignore[union-attr]
    while pair := GROUPS[2].match(data, place if not points else _separated(data, place)):
        points.append(complex(float(pair[1]), float(pair[2])))
        place = pair.end()
    is_valid = BLANK.match(data, place).end() == len(data)  # type: ignore[union-attr]
    if not points or (len(points) == 1 and not is_closed):
        return [], is_valid
    ends = points[1:]
    if is_closed and (not ends or ends[-1] != points[0]):
        ends.append(points[0])
    return [Subpath(points[0], ends, [], is_closed)], is_valid
