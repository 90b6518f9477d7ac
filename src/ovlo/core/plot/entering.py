"""Closed strokes begun where the pen comes by.

strokes = entered(strokes, is_closed, home=(0, 0))
"""

from __future__ import annotations

import numpy as np

from ovlo.core.paint.outlines import ranges
from ovlo.core.plot.strokes import Strokes, turned
from ovlo.core.values.arrays import Bools, Floats, Ints

SPACING = 2.0
"""Millimetres between the places of a line or an arc at which a stroke may begin."""

MOST = 16
"""Such places on one line or arc."""


def entered(strokes: Strokes, is_closed: Bools, home: tuple[float, float]) -> Strokes:
    """Strokes in the order they are drawn, the closed ones begun where the way there and on is shortest."""
    if not is_closed.any():
        return strokes
    elements, shares, places, firsts = _places(strokes, is_closed)
    starts = strokes.starts.copy()
    ends = strokes.ends.copy()
    middles = np.add.reduceat(places, firsts[:-1]) / np.diff(firsts)[:, None]
    closed = np.flatnonzero(is_closed)
    starts[closed] = ends[closed] = middles
    chosen = np.empty(len(closed), np.int64)
    for row, stroke in enumerate(closed.tolist()):
        candidates = places[firsts[row] : firsts[row + 1]]
        before = ends[stroke - 1] if stroke else np.asarray(home)
        detour = np.hypot(*(candidates - before).T)
        if stroke + 1 < len(strokes):
            detour += np.hypot(*(candidates - starts[stroke + 1]).T)
        best = int(np.argmin(detour))
        chosen[row] = firsts[row] + best
        starts[stroke] = ends[stroke] = candidates[best]
    return _begun(strokes, closed, elements[chosen], shares[chosen])


def _places(strokes: Strokes, is_closed: Bools) -> tuple[Ints, Floats, Floats, Ints]:
    """Where closed strokes may begin: the point an element leads to, the share of it, the place; and the
    first of each stroke."""
    at = np.flatnonzero(is_closed[strokes.stroke_of] & ~strokes.is_first)
    counts = np.clip(np.ceil(strokes.element_lengths[at] / SPACING), 1, MOST).astype(np.int64)
    elements = np.repeat(at, counts)
    shares = (ranges(np.zeros(len(at), np.int64), counts) + 1) / np.repeat(counts, counts)
    sizes = np.bincount(strokes.stroke_of[elements], minlength=len(strokes))[is_closed]
    places = _along(strokes, elements, shares)
    return elements, shares, places, np.append(0, np.cumsum(sizes))


def _along(strokes: Strokes, elements: Ints, shares: Floats) -> Floats:
    start, end = strokes.points[elements - 1], strokes.points[elements]
    places = start + shares[:, None] * (end - start)
    arcs = strokes.sweeps[elements] != 0
    at = elements[arcs]
    places[arcs] = turned(start[arcs], strokes.centres[at], strokes.sweeps[at] * shares[arcs])
    places[shares == 1] = end[shares == 1]
    return places


def _begun(strokes: Strokes, closed: Ints, elements: Ints, shares: Floats) -> Strokes:
    """Closed strokes begun at a share of one of their elements, where a point is put if there is none."""
    within = np.flatnonzero(shares < 1)
    at = elements[within]
    new = _along(strokes, at, shares[within])
    points = np.insert(strokes.points, at, new, axis=0)
    sweeps = np.insert(strokes.sweeps, at, strokes.sweeps[at] * shares[within])
    centres = np.insert(strokes.centres, at, strokes.centres[at], axis=0)
    moved = at + np.arange(len(at)) + 1
    sweeps[moved] *= 1 - shares[within]
    added = np.zeros(len(strokes), np.int64)
    added[closed[within]] = 1
    firsts = strokes.firsts + np.append(0, np.cumsum(added))
    entries = np.zeros(len(strokes), np.int64)
    entries[closed] = elements - strokes.firsts[closed]
    larger = Strokes(points, sweeps, centres, firsts)
    # A stroke that is begun at its last point is as it was.
    entries[entries == larger.counts - 1] = 0
    return larger.begun_at(entries)
