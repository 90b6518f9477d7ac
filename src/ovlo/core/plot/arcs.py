"""Strokes of many short lines as arcs and as few lines as will do.

strokes = fitted(Strokes.of_lines(points, counts), tolerance=0.03)

Circles come here as chords, cut wherever something hides them. Points on one circle, with chords so short
that nobody could tell them from an arc, become one again; of the others, those are left out that change
nothing.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ovlo.core.paint.outlines import ranges
from ovlo.core.plot.strokes import Strokes
from ovlo.core.values.arrays import Bools, Floats, Ints

SAME_CENTRE = 1e-4
"""Millimetres, and share of the radius, by which centres of one circle may differ."""

LARGEST_RADIUS = 10_000.0
"""Millimetres; what is flatter is a line."""

LEAST_POINTS = 4
"""Of a circle."""

WIDEST = 90.0
"""Degrees of one arc."""


def fitted(strokes: Strokes, tolerance: float) -> Strokes:
    """Strokes of lines with arcs where they can be, off by no more than the tolerance in millimetres."""
    if not len(strokes.points):
        return strokes
    arcs = _arcs(strokes, tolerance)
    points = strokes.points.copy()
    sweeps = np.zeros(len(points))
    centres = np.full(points.shape, np.nan)
    inside = np.zeros(len(points) + 1, np.int64)
    np.add.at(inside, arcs.first + 1, 1)
    np.add.at(inside, arcs.last, -1)
    is_free = np.cumsum(inside)[:-1] == 0  # of points inside an arc, only those that end a piece are kept
    _snap(points, arcs)
    kept = np.zeros(len(points), bool)
    if len(arcs.first):
        ends, begins, owner = _piece_ends(arcs)
        kept[ends] = True
        sweeps[ends] = arcs.turned[ends] - arcs.turned[begins]
        centres[ends] = arcs.centre[owner]
    fixed = strokes.is_first
    fixed[strokes.firsts[1:] - 1] = True
    fixed[arcs.first] = fixed[arcs.last] = True
    kept |= fixed
    _keep_corners(points, np.flatnonzero(fixed), strokes.stroke_of, is_free, kept, tolerance)
    # Closed strokes keep a point to turn at, however small they are.
    firsts = (np.cumsum(kept) - 1)[strokes.firsts[:-1]]
    return Strokes(points[kept], sweeps[kept], centres[kept], np.append(firsts, np.count_nonzero(kept)))


class _Arcs(NamedTuple):
    """Points of strokes that lie on circles: the first and last of each arc, and its circle.

    `turned` says for every point of an arc how many degrees lead to it, counted along all arcs.
    """

    first: Ints
    last: Ints
    centre: Floats
    radius: Floats
    turned: Floats


def _arcs(strokes: Strokes, tolerance: float) -> _Arcs:
    points = strokes.points
    count = len(points)
    none = np.empty(0, np.int64)
    if count < LEAST_POINTS:
        return _Arcs(none, none, np.empty((0, 2)), np.empty(0), np.zeros(count))
    before, after = points[:-2] - points[1:-1], points[2:] - points[1:-1]
    cross = before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0]
    near, far = (before**2).sum(axis=1), (after**2).sum(axis=1)
    with np.errstate(divide="ignore", invalid="ignore"):
        middle = np.column_stack(
            [after[:, 1] * near - before[:, 1] * far, before[:, 0] * far - after[:, 0] * near]
        ) / (2 * cross[:, None])
        radius = np.hypot(*middle.T)
        rise = radius - np.sqrt(np.maximum(radius**2 - np.maximum(near, far) / 4, 0))
        dot = -(before * after).sum(axis=1)
        is_first = strokes.is_first
        on_circle = (rise <= tolerance) & (radius < LARGEST_RADIUS) & (dot > 0)
    on_circle &= ~is_first[1:-1] & ~is_first[2:]
    # Three points in a row each have a circle; here `circle` is that around each point.
    circle, size, sense = np.full((count, 2), np.nan), np.full(count, np.nan), np.zeros(count)
    circle[1:-1], size[1:-1] = middle + points[1:-1], radius
    sense[1:-1] = np.where(on_circle, -np.sign(cross), 0)
    with np.errstate(invalid="ignore"):
        apart = np.hypot(*(circle[1:] - circle[:-1]).T)
        same = (sense[1:] == sense[:-1]) & (sense[1:] != 0)
        same &= apart <= SAME_CENTRE * np.maximum(1.0, np.minimum(size[1:], size[:-1]))
    edge = np.diff(np.concatenate([[False], same, [False]]).astype(np.int8))
    begin, stop = np.flatnonzero(edge == 1), np.flatnonzero(edge == -1)
    if not len(begin):
        return _Arcs(none, none, np.empty((0, 2)), np.empty(0), np.zeros(count))
    runs = stop - begin + 1
    owner = np.repeat(np.arange(len(begin)), runs)
    members = ranges(begin, runs)
    centre = np.column_stack([np.bincount(owner, circle[members, axis]) for axis in (0, 1)]) / runs[:, None]
    radii = np.hypot(*(points[begin] - centre).T)
    turn = -np.sign(cross[begin - 1])
    first, last = begin - 1, stop + 1
    # A line belongs to the arc that came first; an end that is moved may not be that of another arc.
    first[1:] = np.maximum(first[1:], last[:-1])
    further = _extended(points, last, 1, centre, radii, tolerance, is_first)
    last = np.where(further < np.append(first[1:], len(points)), further, last)
    further = _extended(points, first, -1, centre, radii, tolerance, is_first)
    first = np.where(further > np.append(-1, last[:-1]), further, first)
    kept = last - first >= LEAST_POINTS - 1
    first, last, centre, radii, turn = first[kept], last[kept], centre[kept], radii[kept], turn[kept]
    return _Arcs(first, last, centre, radii, _turned(points, first, last, centre, turn))


def _extended(
    points: Floats, ends: Ints, step: int, centre: Floats, radii: Floats, tolerance: float, is_first: Bools
) -> Ints:
    """Ends of arcs moved to the next point where a chord was cut short: it lies on the chord."""
    further = np.clip(ends + step, 0, len(points) - 1)
    # Going back, the point one leaves begins no stroke; going on, the one that is reached does not.
    is_there = (further != ends) & ~is_first[ends if step < 0 else further]
    off = np.hypot(*(points[further] - centre).T) - radii
    chord = np.hypot(*(points[further] - points[ends]).T)
    usual = np.hypot(*(points[ends] - points[ends - step]).T)
    is_cut = is_there & (off <= tolerance * 1e-3) & (off >= -tolerance) & (chord <= usual * 1.001)
    return np.where(is_cut, further, ends)


def _turned(points: Floats, first: Ints, last: Ints, centre: Floats, turn: Floats) -> Floats:
    """For each point of an arc, the degrees that lead to it, counted along all arcs."""
    counts = last - first
    owner = np.repeat(np.arange(len(first)), counts)
    ends = ranges(first + 1, counts)
    a, b = points[ends - 1] - centre[owner], points[ends] - centre[owner]
    angle = np.arctan2(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0], (a * b).sum(axis=1))
    steps = np.zeros(len(points))
    np.add.at(steps, ends, np.degrees(np.abs(angle)) * turn[owner])
    turned: Floats = np.cumsum(steps)
    return turned


def _snap(points: Floats, arcs: _Arcs) -> None:
    """Move the ends of arcs, which may lie on a chord, onto their circle."""
    for ends in (arcs.first, arcs.last):
        spokes = points[ends] - arcs.centre
        points[ends] = arcs.centre + spokes * (arcs.radius / np.hypot(*spokes.T))[:, None]


def _piece_ends(arcs: _Arcs) -> tuple[Ints, Ints, Ints]:
    """Arcs in pieces of WIDEST at most: where each ends and begins, and whose it is."""
    total = arcs.turned[arcs.last] - arcs.turned[arcs.first]
    counts = np.minimum(np.ceil(np.abs(total) / WIDEST - 1e-9), arcs.last - arcs.first)
    counts = np.maximum(counts, 1).astype(np.int64)
    owner = np.repeat(np.arange(len(counts)), counts)
    number = ranges(np.zeros(len(counts), np.int64), counts) + 1
    # The chords of a circle are alike, so a share of them is a share of the sweep.
    span = (arcs.last - arcs.first)[owner]
    ends = arcs.first[owner] + np.rint(span * number / counts[owner]).astype(np.int64)
    begins = arcs.first[owner] + np.rint(span * (number - 1) / counts[owner]).astype(np.int64)
    return ends, begins, owner


def _keep_corners(
    points: Floats, fixed: Ints, stroke_of: Ints, is_free: Bools, kept: Bools, tolerance: float
) -> None:
    """Mark the points between fixed ones that are needed (Douglas and Peucker, 1973), all lines at once."""
    first, last = fixed[:-1], fixed[1:]
    spans = (stroke_of[first] == stroke_of[last]) & (last - first > 1) & is_free[np.minimum(first + 1, last)]
    first, last = first[spans], last[spans]
    while len(first):
        counts = last - first - 1
        inner = ranges(first + 1, counts)
        owner = np.repeat(np.arange(len(first)), counts)
        off = _distance(points[inner], points[first][owner], points[last][owner])
        begins = np.cumsum(counts) - counts
        worst = np.maximum.reduceat(off, begins)
        at_worst = np.flatnonzero(off == worst[owner])
        corner = inner[at_worst[np.searchsorted(at_worst, begins)]]
        needed = worst > tolerance
        first, last, corner = first[needed], last[needed], corner[needed]
        kept[corner] = True
        first, last = np.concatenate([first, corner]), np.concatenate([corner, last])
        order = np.argsort(first, kind="stable")
        first, last = first[order], last[order]
        long = last - first > 1
        first, last = first[long], last[long]


def _distance(points: Floats, starts: Floats, ends: Floats) -> Floats:
    """How far points are from lines between two others."""
    way = ends - starts
    square = (way**2).sum(axis=1)
    share = ((points - starts) * way).sum(axis=1) / np.where(square == 0, 1.0, square)
    off = points - starts - np.clip(share, 0, 1)[:, None] * way
    distance: Floats = np.hypot(*off.T)
    return distance
