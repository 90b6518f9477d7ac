"""Strokes: what a pen draws between lowering and lifting, as lines and arcs of circles.

strokes.taken(order, backwards)

All strokes stand in one array of points, so that a hundred thousand are handled in one NumPy pass.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import ranges
from ovlo.core.values.arrays import Bools, Floats, Ints

ROUNDING = 5e-4
"""Millimetres by which places may differ that are the same in every file."""


@dataclass(frozen=True, eq=False)
class Strokes:
    """k strokes of v points, in millimetres on the page, y up.

    Attributes
    ----------
    points : float array of shape (v, 2)
    sweeps : float array of shape (v,)
        Degrees of the arc that leads to each point, to the left above 0; 0 for a line, and for the first
        point of a stroke.
    centres : float array of shape (v, 2)
        Of that arc; nan for lines.
    firsts : int array of shape (k + 1,)
        The first point of each stroke; the last entry is v.
    """

    points: Floats
    sweeps: Floats
    centres: Floats
    firsts: Ints

    @classmethod
    def of_lines(cls, points: Floats, counts: Ints) -> Strokes:
        """Strokes of straight lines, so many points each."""
        centres = np.full(points.shape, np.nan)
        return cls(points, np.zeros(len(points)), centres, _firsts(counts))

    @classmethod
    def together(cls, parts: list[Strokes]) -> Strokes:
        """All strokes of several lots, in a row."""
        counts = [part.counts for part in parts]
        if not parts:
            return cls.of_lines(np.empty((0, 2)), np.empty(0, np.int64))
        return cls(
            np.vstack([part.points for part in parts]),
            np.concatenate([part.sweeps for part in parts]),
            np.vstack([part.centres for part in parts]),
            _firsts(np.concatenate(counts)),
        )

    def __len__(self) -> int:
        return len(self.firsts) - 1

    @property
    def counts(self) -> Ints:
        """How many points each has, shape (k,)."""
        return np.diff(self.firsts)

    @property
    def starts(self) -> Floats:
        """Where each begins, shape (k, 2)."""
        return self.points[self.firsts[:-1]]

    @property
    def ends(self) -> Floats:
        """Where each ends, shape (k, 2)."""
        return self.points[self.firsts[1:] - 1]

    @property
    def is_first(self) -> Bools:
        """Which points begin a stroke, shape (v,)."""
        is_first = np.zeros(len(self.points), bool)
        is_first[self.firsts[:-1]] = True
        return is_first

    @property
    def stroke_of(self) -> Ints:
        """The stroke of each point, shape (v,)."""
        return np.repeat(np.arange(len(self)), self.counts)

    @property
    def element_lengths(self) -> Floats:
        """How long what leads to each point is; 0 for the first of a stroke, shape (v,)."""
        lengths: Floats = np.hypot(*np.diff(self.points, axis=0, prepend=self.points[:1]).T)
        arcs = self.sweeps != 0
        radii = np.hypot(*(self.points[arcs] - self.centres[arcs]).T)
        lengths[arcs] = radii * np.radians(np.abs(self.sweeps[arcs]))
        lengths[self.firsts[:-1]] = 0.0
        return lengths

    @property
    def lengths(self) -> Floats:
        """How long each stroke is, shape (k,)."""
        if not len(self):
            return np.empty(0)
        lengths: Floats = np.add.reduceat(self.element_lengths, self.firsts[:-1])
        return lengths

    def is_closed(self, nearness: float) -> Bools:
        """Which end where they begin, and lead somewhere between, shape (k,)."""
        apart = np.hypot(*(self.ends - self.starts).T)
        return np.asarray((apart <= nearness) & (self.lengths > 4 * nearness) & (self.counts > 2))

    def taken(self, numbers: NDArray[Any], backwards: Bools | None = None) -> Strokes:
        """Some strokes in another order, those in `backwards` (shape of `numbers`) from their end."""
        numbers = np.asarray(numbers, np.int64)
        counts = self.counts[numbers]
        within = ranges(np.zeros(len(numbers), np.int64), counts)
        back = np.repeat(np.zeros(len(numbers), bool) if backwards is None else backwards, counts)
        first = np.repeat(self.firsts[:-1][numbers], counts)
        at = first + np.where(back, np.repeat(counts, counts) - 1 - within, within)
        element = np.minimum(at + back, len(self.points) - 1)
        sweeps = np.where(within == 0, 0.0, np.where(back, -1.0, 1.0) * self.sweeps[element])
        centres = np.where((sweeps != 0)[:, None], self.centres[element], np.nan)
        return Strokes(self.points[at], sweeps, centres, _firsts(counts))

    def merged(self, goes_on: Bools) -> Strokes:
        """Strokes that go on where the one before ended, joined to it; `goes_on` has shape (k,).

        Where there is a small gap, a line bridges it.
        """
        goes_on = goes_on.copy()
        goes_on[:1] = False
        apart = np.hypot(*(self.starts[1:] - self.ends[:-1]).T)
        is_met = np.append(False, apart <= ROUNDING)[: len(self)]
        dropped = self.firsts[:-1][goes_on & is_met]
        kept = np.ones(len(self.points), bool)
        kept[dropped] = False
        firsts = (np.cumsum(kept) - 1)[self.firsts[:-1][~goes_on]]
        return Strokes(
            self.points[kept],
            self.sweeps[kept],
            self.centres[kept],
            np.append(firsts, np.count_nonzero(kept)).astype(np.int64),
        )

    def after(self, number: int) -> Strokes:
        """All but so many of the first strokes."""
        return self.taken(np.arange(number, len(self)))

    def repeated(self, times: int) -> Strokes:
        """Each stroke drawn so often without lifting the pen; one that is open goes to and fro."""
        rows = np.repeat(np.arange(len(self)), times)
        turn = np.tile(np.arange(times), len(self))
        is_open = np.hypot(*(self.ends - self.starts).T) > ROUNDING
        return self.taken(rows, (turn % 2 == 1) & is_open[rows]).merged(turn > 0)

    def sealed(self, nearness: float) -> Strokes:
        """The same with closed strokes ending in the place where they begin."""
        apart = np.hypot(*(self.ends - self.starts).T)
        open_by = self.is_closed(nearness) & (apart > ROUNDING)
        at = self.firsts[1:][open_by]
        return Strokes(
            np.insert(self.points, at, self.starts[open_by], axis=0),
            np.insert(self.sweeps, at, 0.0),
            np.insert(self.centres, at, np.nan, axis=0),
            self.firsts + np.append(0, np.cumsum(open_by)),
        )

    def begun_at(self, entries: Ints) -> Strokes:
        """Closed strokes begun at another of their points, counted from their first one, shape (k,)."""
        counts = self.counts
        within = ranges(np.zeros(len(self), np.int64), counts)
        start = np.repeat(entries, counts)
        last = np.repeat(counts, counts) - 1
        # The last point is the first one again, so an element leads to each point but that.
        along = start + within
        along = np.where(along > last, along - last, along)
        at = np.repeat(self.firsts[:-1], counts) + along
        sweeps = np.where(within == 0, 0.0, self.sweeps[at])
        centres = np.where((sweeps != 0)[:, None], self.centres[at], np.nan)
        return replace(self, points=self.points[at], sweeps=sweeps, centres=centres)

    def flat(self, tolerance: float) -> tuple[Floats, Ints]:
        """All points with arcs as chords, and the first point of each stroke."""
        radii = np.hypot(*(self.points - self.centres).T)
        with np.errstate(invalid="ignore"):
            step = 2 * np.degrees(np.arccos(np.clip(1 - tolerance / radii, -1, 1)))
            pieces = np.maximum(1, np.ceil(np.abs(self.sweeps) / np.clip(step, 0.1, 30)))
        pieces = np.where(self.sweeps == 0, 1, pieces).astype(np.int64)
        at = np.repeat(np.arange(len(pieces)), pieces)
        points = self.points[at].copy()
        ends = np.cumsum(pieces)
        inner = np.ones(len(at), bool)
        inner[ends - 1] = False
        these = at[inner]
        share = (ranges(np.zeros(len(pieces), np.int64), pieces) + 1)[inner] / pieces[these]
        points[inner] = turned(self.points[these - 1], self.centres[these], self.sweeps[these] * share)
        return points, np.append(0, ends)[self.firsts]


def _firsts(counts: Ints) -> Ints:
    """The first point of each stroke, so many points each, and one past the last."""
    return np.append(0, np.cumsum(counts)).astype(np.int64)


def turned(points: Floats, centres: Floats, angles: Floats) -> Floats:
    """Points turned around centres by angles in degrees."""
    x, y = (points - centres).T
    cosine, sine = np.cos(np.radians(angles)), np.sin(np.radians(angles))
    found: Floats = centres + np.column_stack([x * cosine - y * sine, x * sine + y * cosine])
    return found
