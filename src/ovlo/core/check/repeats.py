"""What a walk does again and again: the same steps, each time from where the last time ended.

for repeat in repeats(columns, nib=0):
    repeat.times, repeat.turn, repeat.shift

A step is described by where it goes as seen from the step before, so the bodies of a loop are equal however
they are turned. Equal steps at a distance p, 2p and more in a row are a body of p steps, repeated.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ovlo.core.paint.contours import AXES, MEETS
from ovlo.core.paint.likeness import coordinates, lots, numbered
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.arrays import Complexes, Floats, Ints

LONGEST_BODY = 64
"""Steps of a body."""

FEWEST_TIMES = 3

MOST_FOUND = 4000
"""Repeats that are looked at in one picture."""

SAME = 1e-6
"""Steps are the same when they differ by less than this share of the picture's size."""


@dataclass(frozen=True, eq=False)
class Walk:
    """All steps of one nib, as it made them.

    Attributes
    ----------
    steps : int array of shape (n,)
        Their numbers in the trail.
    starts, ends : complex arrays of shape (n,)
    headings : float array of shape (n,)
        Degrees, at the end of each.
    reach : float array of shape (n,)
        How far a curve may go from its chord; 0 for others.
    pens : int array of shape (n,)
    """

    steps: Ints
    starts: Complexes
    ends: Complexes
    headings: Floats
    reach: Floats
    pens: Ints


@dataclass(frozen=True, eq=False)
class Repeat:
    """A body that is walked several times.

    Attributes
    ----------
    walk : Walk
    first, period, times : int
        Where in the walk it begins, of how many steps its body is, and how often it is walked.
    turn : float
        By how many degrees each body is turned against the one before, in (-180, 180].
    shift : complex
        From where the first body begins to where the second does.
    """

    walk: Walk
    first: int
    period: int
    times: int
    turn: float
    shift: complex

    @property
    def start(self) -> complex:
        """Where the first body begins."""
        return complex(self.walk.starts[self.first])

    @property
    def body(self) -> slice:
        """The first body's steps in the walk."""
        return slice(self.first, self.first + self.period)

    @property
    def steps(self) -> list[int]:
        """The steps of the first body, in the trail."""
        found: list[int] = self.walk.steps[self.body].tolist()
        return found

    @property
    def all_steps(self) -> list[int]:
        """The steps of all bodies, in the trail."""
        found: list[int] = self.walk.steps[self.first : self.first + self.times * self.period].tolist()
        return found

    @cached_property
    def size(self) -> float:
        """How far the body goes from its beginning, about."""
        ways = np.abs(self.walk.ends[self.body] - self.start) + self.walk.reach[self.body]
        return float(ways.max())

    @cached_property
    def is_drawn(self) -> bool:
        """Whether the body leaves a mark."""
        return bool(np.isin(self.walk.pens[self.body], (PenState.DRAW, PenState.TRACE)).any())

    @property
    def is_polygon(self) -> bool:
        """Whether each step goes where the nib is headed, turned as the headings are."""
        ways = (self.walk.ends - self.walk.starts)[self.first : self.first + 2]
        if self.period > 1 or not np.abs(ways).all():
            return False
        turn = np.degrees(np.angle(ways[1] / ways[0]))
        return bool(abs((turn - self.turn + 180) % 360 - 180) <= 1e-4)

    @property
    def is_back(self) -> bool:
        """Whether the body ends where it began."""
        return abs(self.shift) <= MEETS * max(self.size, 1e-300)


def repeats(columns: Columns, nib: int) -> Iterator[Repeat]:
    """The repeats in a nib's walk, those with the shortest bodies first."""
    walk = _walk(columns, nib)
    n = len(walk.steps)
    if n < FEWEST_TIMES:
        return
    kinds, moves = _kinds(columns, walk)
    # For each period: of which repeat, counted from 1, a step is part.
    known: dict[int, Ints] = {}
    count = 0
    for period in range(1, min(LONGEST_BODY, n // FEWEST_TIMES) + 1):
        same = kinds[period:] == kinds[:-period]
        edges = np.flatnonzero(np.diff(same, prepend=False, append=False)).reshape(-1, 2)
        long = edges[:, 1] - edges[:, 0] >= (FEWEST_TIMES - 1) * period - 1
        for begin, end in edges[long].tolist():
            stop = end + period
            if any(
                period % shorter == 0 and of[begin] and of[begin] == of[stop - 1]
                for shorter, of in known.items()
            ):
                continue
            if repeat := _repeat(walk, moves, begin, stop, period):
                count += 1
                known.setdefault(period, np.zeros(n, np.int32))[begin:stop] = count
                yield repeat
                if count == MOST_FOUND:
                    return


def _walk(columns: Columns, nib: int) -> Walk:
    steps = np.flatnonzero(columns.of_steps("nib") == nib)
    # The way back at the end of a block is a step, or none where it began there but for rounding.
    ways = np.abs((columns.points - columns.starts)[steps]).max(axis=1)
    size = np.abs(columns.points[steps]).max(initial=0)
    steps = steps[(columns.of_steps("pen")[steps] != PenState.JUMP) | (ways > 1e-9 * size)]
    reach = np.zeros(len(columns))
    arcs = columns.arcs
    u, v = np.hypot(arcs["ux"], arcs["uy"]), np.hypot(arcs["vx"], arcs["vy"])
    # The chord of a circle of that radius; Béziers have their control points at u and v.
    chords = 2 * np.maximum(u, v) * np.sin(np.radians(np.minimum(np.abs(arcs["sweep"]), 180) / 2))
    reach[arcs["step"]] = np.where(arcs["sweep"] == 0, u + v, chords)
    return Walk(
        steps,
        columns.starts[steps] @ AXES,
        columns.points[steps] @ AXES,
        columns.steps["heading"][steps],
        reach[steps],
        columns.of_steps("pen")[steps],
    )


def _kinds(columns: Columns, walk: Walk) -> tuple[Ints, Ints]:
    """Numbers of equal steps as seen from the step before, and as moves whatever was turned before them."""
    size = max(float(np.abs(walk.starts).max()), float(np.abs(walk.ends).max())) or 1.0
    whole, moves = np.empty(len(walk.steps), np.int64), np.empty(len(walk.steps), np.int64)
    for lot in lots(len(walk.steps)):
        seen, move = _measures(columns, walk, lot, size)
        whole[lot], moves[lot] = numbered(np.hstack([seen, move]), SAME), numbered(move, SAME)
    return whole, moves


def _measures(columns: Columns, walk: Walk, lot: slice, size: float) -> tuple[Floats, Floats]:
    """What some steps are as seen from the step before, and as moves; curves have bends besides."""
    starts, ends, headings = walk.starts[lot], walk.ends[lot], walk.headings[lot]
    last = slice(max(lot.start - 1, 0), lot.stop - 1)
    ends_before, headings_before = walk.ends[last], walk.headings[last]
    if not lot.start:
        ends_before, headings_before = np.append(starts[0], ends_before), np.append(0.0, headings_before)
    before = np.exp(-1j * np.radians(headings_before))
    gaps, ways = (starts - ends_before) * before / size, (ends - starts) / size
    turned, seen = np.exp(1j * np.radians(headings)) * before, ways * before
    bent = np.zeros((len(starts), 5))
    is_curve = columns.is_curved[walk.steps[lot]]
    arcs = columns.arcs_of(walk.steps[lot][is_curve])
    ahead = np.exp(-1j * np.radians(headings[is_curve])) / size
    along = [(arcs[x] + 1j * arcs[y]) * ahead for x, y in (("ux", "uy"), ("vx", "vy"))]
    bent[is_curve] = np.column_stack([*coordinates(*along), arcs["sweep"] / 360])
    moves = np.column_stack([np.abs(ways), bent, walk.pens[lot]])
    return np.column_stack(coordinates(gaps, seen, turned)), moves


def _repeat(walk: Walk, moves: Ints, begin: int, stop: int, period: int) -> Repeat | None:
    """The repeat in equal steps; before its first step the nib may have turned in another way."""
    first = begin
    if begin > 0 and moves[begin - 1] == moves[begin - 1 + period]:
        first -= 1
    times, rest = divmod(stop - first, period)
    # The first time there may have been nowhere to travel to, or from elsewhere.
    if rest and (walk.pens[first + rest : first + period] == PenState.JUMP).all():
        first, times = first + rest, times + 1
    if times < FEWEST_TIMES or first + period >= stop:
        return None
    # Seen from the second body on, if the first one began in another way.
    turn = walk.headings[first + period] - walk.headings[first]
    shift = complex(walk.starts[first + period] - walk.starts[first])
    return Repeat(walk, first, period, times, 180 - float((180 - turn) % 360), shift)
