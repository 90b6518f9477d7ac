"""Lines that lie on each other, drawn once.

strokes, rows = drawn_once(strokes)

Every line lies on an endless one, every arc on a circle. Of those with the same one, the later ones lose what
an earlier one has drawn.
"""

from __future__ import annotations

from bisect import bisect_left
from typing import NamedTuple

import numpy as np

from ovlo.core.plot.hidden_lines import CRUMB, EDGE
from ovlo.core.plot.nearness import clustered
from ovlo.core.plot.strokes import Strokes, turned
from ovlo.core.values.arrays import Bools, Floats, Ints

Span = tuple[float, float]


class _Spread(NamedTuple):
    """Elements of strokes laid out along what carries them.

    `at` are the points each leads to, `group` which endless line or circle it is on, `low` and `high` where
    on that it lies (millimetres, or degrees), `is_back` whether it goes down.
    """

    at: Ints
    group: Ints
    low: Floats
    high: Floats
    is_back: Bools


def drawn_once(strokes: Strokes) -> tuple[Strokes, Ints]:
    """The same with doubled and overlapping parts left out where they come again, and which each was."""
    left: dict[int, list[Span]] = {}
    for spread, around in ((_lines(strokes), 0.0), (_circles(strokes), 360.0)):
        left.update(_left_over(spread, around))
    if not left:
        return strokes, np.arange(len(strokes))
    touched = np.unique(strokes.stroke_of[np.fromiter(left, np.int64, len(left))])
    pieces: list[tuple[int, Strokes]] = []
    for number in touched.tolist():
        pieces += [(number, piece) for piece in _cut(strokes, number, left)]
    untouched = np.setdiff1d(np.arange(len(strokes)), touched)
    rows = np.concatenate([untouched, np.array([number for number, _ in pieces], np.int64)])
    order = np.argsort(rows, kind="stable")
    whole = Strokes.together([strokes.taken(untouched), *(piece for _, piece in pieces)])
    return whole.taken(order), rows[order]


def _lines(strokes: Strokes) -> _Spread:
    """Straight elements by direction and distance from the middle of all."""
    at = np.flatnonzero(~strokes.is_first & (strokes.sweeps == 0))
    middle = strokes.points.mean(axis=0) if len(strokes.points) else np.zeros(2)
    start, end = strokes.points[at - 1] - middle, strokes.points[at] - middle
    way = end - start
    length = np.hypot(*way.T)
    kept = length > CRUMB
    at, start, end = at[kept], start[kept], end[kept]
    way = way[kept] / length[kept, None]
    reach = np.abs(strokes.points - middle).max(initial=1.0)
    # Headings from 0 to 180, those next to 180 as next to 0.
    is_back = way[:, 1] < 0
    way = np.where(is_back[:, None], -way, way)
    is_flat = (way[:, 0] < 0) & (way[:, 1] * reach < EDGE)
    is_back ^= is_flat
    way = np.where(is_flat[:, None], -way, way)
    heading = np.arctan2(way[:, 1], way[:, 0])
    normal = np.column_stack([-way[:, 1], way[:, 0]])
    group = _alike(np.column_stack([heading * reach, ((start + end) / 2 * normal).sum(axis=1)]))
    along = np.column_stack([(start * way).sum(axis=1), (end * way).sum(axis=1)])
    return _Spread(at, group, along.min(axis=1), along.max(axis=1), is_back)


def _circles(strokes: Strokes) -> _Spread:
    """Arcs by their circle."""
    at = np.flatnonzero(strokes.sweeps != 0)
    centre, sweep = strokes.centres[at], strokes.sweeps[at]
    spoke = strokes.points[np.where(sweep > 0, at - 1, at)] - centre
    group = _alike(np.column_stack([centre, np.hypot(*spoke.T)]))
    low = np.degrees(np.arctan2(spoke[:, 1], spoke[:, 0])) % 360
    return _Spread(at, group, low, low + np.abs(sweep), sweep < 0)


def _alike(values: Floats) -> Ints:
    """Numbers of rows that are alike but for EDGE."""
    return clustered(np.rint(values / EDGE), 1.5)


def _left_over(spread: _Spread, around: float) -> dict[int, list[Span]]:
    """What is left of elements that lie on others, as shares of them, by the point they lead to."""
    if not len(spread.at):
        return {}
    least = EDGE if around == 0 else 1e-4
    order = np.lexsort((spread.low, spread.group))
    group, low, high = spread.group[order], spread.low[order], spread.high[order]
    if around:
        # A circle that is met at all is looked at, since arcs go on beyond 360 degrees.
        shared = np.bincount(group, minlength=group.max() + 1) > 1
    else:
        reach = high.max() - low.min() + 1
        farthest = np.maximum.accumulate(high - low.min() + group * reach)
        overlaps = np.zeros(len(order), bool)
        overlaps[1:] = (low[1:] - low.min() + group[1:] * reach < farthest[:-1] - least) & (
            group[1:] == group[:-1]
        )
        shared = np.zeros(group.max() + 1, bool)
        shared[group[overlaps]] = True
    members = np.flatnonzero(shared[spread.group])
    members = members[np.argsort(spread.group[members], kind="stable")]
    left: dict[int, list[Span]] = {}
    covered, last = _Covered(least, around), -1
    rows = zip(
        members.tolist(),
        spread.group[members].tolist(),
        spread.low[members].tolist(),
        spread.high[members].tolist(),
        strict=True,
    )
    for member, number, begin, end in rows:
        if number != last:
            covered, last = _Covered(least, around), number
        free = covered.left_of((begin, end))
        covered.add((begin, end))
        if len(free) != 1 or free[0][1] - free[0][0] < end - begin - least:
            length = end - begin
            shares = [((a - begin) / length, (b - begin) / length) for a, b in free]
            if spread.is_back[member]:
                shares = [(1 - b, 1 - a) for a, b in reversed(shares)]
            left[int(spread.at[member])] = shares
    return left


class _Covered:
    """What is drawn already of a line or a circle: spans in their order, none touching another."""

    def __init__(self, least: float, around: float) -> None:
        self._least = least
        self._turns = (-around, 0.0, around) if around else (0.0,)
        self._spans: list[Span] = []

    def left_of(self, span: Span) -> list[Span]:
        """What is free of a span."""
        free, (low, high) = [], span
        for i in range(self._first_after(low), len(self._spans)):
            begin, end = self._spans[i]
            if begin >= high:
                break
            free.append((low, begin))
            low = end
        return [(a, b) for a, b in [*free, (low, high)] if b - a > self._least]

    def add(self, span: Span) -> None:
        """Cover a span; on a circle, every time around."""
        for turn in self._turns:
            low, high = span[0] + turn, span[1] + turn
            first = stop = self._first_after(low - self._least)
            while stop < len(self._spans) and self._spans[stop][0] <= high + self._least:
                low, high = min(low, self._spans[stop][0]), max(high, self._spans[stop][1])
                stop += 1
            self._spans[first:stop] = [(low, high)]

    def _first_after(self, place: float) -> int:
        return bisect_left(self._spans, place, key=lambda span: span[1])


def _cut(strokes: Strokes, number: int, left: dict[int, list[Span]]) -> list[Strokes]:
    """What is left of a stroke, in pieces."""
    first, stop = strokes.firsts[number : number + 2].tolist()
    pieces: list[list[tuple[Floats, float, Floats]]] = []
    is_open = False
    for at in range(first + 1, stop):
        start, end = strokes.points[at - 1], strokes.points[at]
        sweep, centre = float(strokes.sweeps[at]), strokes.centres[at]
        for low, high in left.get(at, [(0.0, 1.0)]):
            if not (is_open and low <= 0):
                pieces.append([(_point(start, end, sweep, centre, low), 0.0, np.full(2, np.nan))])
            pieces[-1].append((_point(start, end, sweep, centre, high), sweep * (high - low), centre))
            is_open = high >= 1
        if at in left and not left[at]:
            is_open = False
    return [_stroke(piece) for piece in pieces]


def _point(start: Floats, end: Floats, sweep: float, centre: Floats, share: float) -> Floats:
    if share <= 0 or share >= 1:
        return start if share <= 0 else end
    if sweep == 0:
        return start + share * (end - start)
    point: Floats = turned(start[None], centre[None], np.array([sweep * share]))[0]
    return point


def _stroke(piece: list[tuple[Floats, float, Floats]]) -> Strokes:
    points, sweeps, centres = zip(*piece, strict=True)
    return Strokes(np.array(points), np.array(sweeps), np.array(centres), np.array([0, len(piece)]))
