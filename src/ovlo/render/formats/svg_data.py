"""Long path data of SVG files, read in one go (SVG 2, 9.3): lines and Bézier curves, but no arcs.

subpaths = subpaths_of("M0 0l1 1c1 0 1 1 0 1z")

The library that reads the rest takes some twenty microseconds a segment; this takes one.
"""

from __future__ import annotations

import re
from typing import NamedTuple

import numpy as np

from ovlo.core.trail.columns import STEP
from ovlo.core.trail.trail import Curve, Piece

LONG = 500
"""Characters of data that are read here."""

TOKEN = re.compile(
    r"([MmLlHhVvCcSsQqTtZz])|([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)|([\s,]+)|(.)", re.DOTALL
)
PARTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2}
"""Numbers of each command."""


class Subpath(NamedTuple):
    """Points of the file, y down: where it begins, where each segment ends, the control points of curves."""

    start: complex
    ends: list[complex]
    curves: list[tuple[int, complex, complex]]
    is_closed: bool


def subpaths_of(data: str) -> list[Subpath] | None:
    """The subpaths of path data; None if it has arcs, or is not valid."""
    tokens = _tokens(data)
    if tokens is None:
        return None
    found: list[Subpath] = []
    here = start = before = 0j
    ends: list[complex] = []
    curves: list[tuple[int, complex, complex]] = []
    command, last, i, n = "", "", 0, len(tokens)

    def finish(is_closed: bool) -> None:
        nonlocal ends, curves
        if ends:
            found.append(Subpath(start, ends, curves, is_closed))
        ends, curves = [], []

    while i < n:
        token = tokens[i]
        if isinstance(token, str):
            command, i = token, i + 1
            if command in "Zz":
                if ends and here != start:
                    ends.append(start)
                finish(True)
                here, last = start, "Z"
                continue
            if not found and not ends and last == "" and command not in "Mm":
                return None
        elif not command or command in "Zz":
            return None
        kind, count = command.upper(), PARTS[command.upper()]
        numbers = tokens[i : i + count]
        if len(numbers) < count or any(isinstance(one, str) for one in numbers):
            return None
        i += count
        origin = here if command.islower() else 0j
        if kind in "HV":
            value = float(numbers[0])
            if kind == "H":
                end = complex(value + origin.real, here.imag)
            else:
                end = complex(here.real, value + origin.imag)
        else:
            values = [float(one) for one in numbers]
            points = [origin + complex(*values[k : k + 2]) for k in range(0, count, 2)]
            end = points[-1]
        if kind == "M":
            finish(False)
            start = here = end
            command, last = ("l" if command == "m" else "L"), "M"
            continue
        if kind in "CS":
            first = points[0] if kind == "C" else 2 * here - before if last in "CS" and last else here
            curves.append((len(ends), first - here, points[-2] - here))
            before = points[-2]
        elif kind in "QT":
            control = points[0] if kind == "Q" else 2 * here - before if last in "QT" and last else here
            # A quadratic curve is the cubic with its control points two thirds of the way.
            curves.append((len(ends), (control - here) * 2 / 3, end + (control - end) * 2 / 3 - here))
            before = control
        ends.append(end)
        here, last = end, kind
    finish(False)
    return found


def _tokens(data: str) -> list[str | float] | None:
    """Commands and numbers; None if there is something else."""
    found: list[str | float] = []
    for command, number, _, other in TOKEN.findall(data):
        if number:
            found.append(float(number))
        elif command:
            found.append(command)
        elif other:
            return None
    return found


def corners_of(data: str, is_closed: bool) -> list[Subpath] | None:
    """The one subpath of the points of a polyline or polygon."""
    tokens = _tokens(data)
    if tokens is None or len(tokens) < 4 or any(isinstance(one, str) for one in tokens):
        return None
    points = [complex(x, y) for x, y in zip(tokens[::2], tokens[1::2], strict=False)]  # type: ignore[arg-type]
    ends = points[1:]
    if is_closed and ends[-1] != points[0]:
        ends.append(points[0])
    return [Subpath(points[0], ends, [], is_closed)]


def pieces_of(subpaths: list[Subpath], place: complex, x_axis: complex, y_axis: complex) -> list[Piece]:
    """Subpaths as pieces, moved by an affine map: where the origin is, and where the axes lead, y up."""
    return [_piece(one, place, x_axis, y_axis) for one in subpaths]


def _piece(subpath: Subpath, place: complex, x_axis: complex, y_axis: complex) -> Piece:
    points = np.array([subpath.start, *subpath.ends])
    points = place + points.real * x_axis + points.imag * y_axis
    steps = np.empty(len(points) - 1, STEP)
    steps["x"], steps["y"] = points[1:].real, points[1:].imag
    steps["heading"] = np.degrees(np.angle(np.diff(points))) % 360
    steps["heading"][steps["heading"] >= 360] = 0
    curves: list[Curve] = []
    for number, u, v in subpath.curves:
        u, v = (vector.real * x_axis + vector.imag * y_axis for vector in (u, v))
        curves.append((number, u.real, u.imag, v.real, v.imag, 0.0))
    start = complex(points[0])
    return (start.real, start.imag), steps.tobytes(), curves, subpath.is_closed
