"""Contours as chains of points: what the checks of closing and turning look at.

for contour in contours(columns):
    contour.gap
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import ranges
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, Pen

Complexes = NDArray[np.complex128]

MEETS = 1e-6
"""Points this share of a contour's size apart are one."""

AXES = np.array([1, 1j])
"""Points as complex numbers: x + iy."""

CHORDS = 8
"""Of a curve, when only its course matters."""


@dataclass(frozen=True, eq=False)
class Contour:
    """The lines one nib walked without interruption.

    Attributes
    ----------
    steps : int array of shape (n,)
    points : complex array of shape (n + 1,)
        Where it begins, and where each step ends.
    is_curved : bool array of shape (n,)
    course : complex array
        The points again, with some more along its curves.
    is_visible : bool
        Whether it left a line, and did not only border an area.
    area : int
        The area it borders, or -1.
    """

    steps: NDArray[np.int64]
    points: Complexes
    is_curved: NDArray[np.bool_]
    course: Complexes
    is_visible: bool
    area: int

    def __len__(self) -> int:
        return len(self.steps)

    @cached_property
    def size(self) -> float:
        """The diagonal of its box."""
        real, imag = self.course.real, self.course.imag
        return float(np.hypot(np.ptp(real), np.ptp(imag)))

    @cached_property
    def within(self) -> Complexes:
        """A point of each step before its middle, along its curve, shape (n,)."""
        share = 3
        found = self.points[:-1] + share / CHORDS * self.sides
        firsts = (
            np.arange(len(self)) + np.cumsum(self.is_curved * (CHORDS - 1)) - self.is_curved * (CHORDS - 1)
        )
        found[self.is_curved] = self.course[firsts[self.is_curved] + share]
        return found

    @property
    def gap(self) -> float:
        """How far its end is from its beginning."""
        return float(abs(self.points[-1] - self.points[0]))

    @property
    def is_closed(self) -> bool:
        """Whether it ends where it began."""
        return self.gap <= MEETS * self.size

    @cached_property
    def sides(self) -> Complexes:
        """The way each step goes, shape (n,)."""
        return np.diff(self.points)

    @cached_property
    def lengths(self) -> NDArray[np.float64]:
        """How long each step is as the crow flies, shape (n,)."""
        return np.abs(self.sides)

    @cached_property
    def turns(self) -> NDArray[np.float64]:
        """The angle from each straight side to the next, degrees in (-180, 180], shape (n - 1,)."""
        return np.degrees(np.angle(self.sides[1:] * self.sides[:-1].conj()))

    @cached_property
    def is_simple(self) -> bool:
        """Whether it does not cross itself; its last step may cross its first."""
        import shapely

        points = np.column_stack([self.course.real, self.course.imag])
        lines = [shapely.LineString(part) for part in (points[:-1], points[1:]) if len(part) > 1]
        return all(line.is_simple for line in lines)


def contours(columns: Columns) -> Iterator[Contour]:
    """The contours of a trail in the order they began; lines of no length are left out."""
    chosen = columns.is_traced & (columns.stops > columns.runs["start"])
    runs, stops = columns.runs[chosen], columns.stops[chosen]
    order = np.lexsort((runs["start"], runs["contour"]))
    runs, stops = runs[order], stops[order]
    steps = ranges(runs["start"], stops - runs["start"])
    of_step = np.repeat(np.arange(len(runs)), stops - runs["start"])
    starts, ends = columns.starts @ AXES, columns.points @ AXES
    curved = np.zeros(len(columns), bool)
    curved[columns.arcs["step"]] = True
    moved = (starts[steps] != ends[steps]) | curved[steps]
    steps, of_step = steps[moved], of_step[moved]
    # A contour that jumped, as over a returning block's own steps, goes on where it was.
    joins = np.append(
        False, np.abs(starts[steps[1:]] - ends[steps[:-1]]) <= 1e-9 * (1 + np.abs(ends[steps[:-1]]))
    )
    ids = runs["contour"][of_step]
    firsts = np.flatnonzero((np.diff(ids, prepend=-1) != 0) | ~joins)
    for first, stop in pairwise([*firsts.tolist(), len(steps)]):
        some = steps[first:stop]
        run = runs[of_step[first]]
        points = np.append(starts[some[0]], ends[some])
        yield Contour(
            some,
            points,
            curved[some],
            _course(columns, some, points, curved[some]),
            bool(run["pen"] == Pen.DRAW),
            int(run["area"]),
        )


def _course(
    columns: Columns, steps: NDArray[np.int64], points: Complexes, is_curved: NDArray[np.bool_]
) -> Complexes:
    if not is_curved.any():
        return points
    arcs = columns.arcs[np.searchsorted(columns.arcs["step"], steps[is_curved])]
    parts: list[Complexes] = []
    between = iter(arcs_between(arcs, points[:-1][is_curved], points[1:][is_curved]))
    for point, bends in zip(points[:-1], is_curved.tolist(), strict=True):
        parts.append(np.array([point]))
        if bends:
            parts.append(next(between))
    return np.concatenate([*parts, points[-1:]])


def arcs_between(arcs: NDArray[np.void], starts: Complexes, ends: Complexes) -> Complexes:
    """Points along curves, their ends left out, shape (curves, CHORDS - 1)."""
    shares = np.tile(np.arange(1, CHORDS) / CHORDS, len(arcs))
    again = np.repeat(np.arange(len(arcs)), CHORDS - 1)
    first, last = (np.column_stack([z.real, z.imag])[again] for z in (starts, ends))
    found: Complexes = curves.points_at(arcs[again], first, last, shares) @ AXES
    return found.reshape(len(arcs), -1)
