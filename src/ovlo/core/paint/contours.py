"""Contours as chains of points: what the checks of closing and turning look at.

for contour in contours(columns):
    contour.gap
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.likeness import coordinates, lots, mixed, numbered
from ovlo.core.paint.outlines import ranges
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints

MEETS = 1e-6
"""Points this share of a contour's size apart are one."""

AXES = np.array([1, 1j])
"""Points as complex numbers: x + iy."""

ALIKE = 1e-7
"""Contours are alike if their steps differ by a smaller share of the first one."""

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
    times : int
        How many there are of it, but for where and how large they are and how they are turned.
    """

    steps: Ints
    points: Complexes
    is_curved: Bools
    course: Complexes
    is_visible: bool
    area: int
    times: int = 1

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
    def lengths(self) -> Floats:
        """How long each step is as the crow flies, shape (n,)."""
        return np.abs(self.sides)

    @cached_property
    def turns(self) -> Floats:
        """The angle from each straight side to the next, degrees in (-180, 180], shape (n - 1,)."""
        return np.degrees(np.angle(self.sides[1:] * self.sides[:-1].conj()))

    @cached_property
    def is_simple(self) -> bool:
        """Whether it does not cross itself; its last step may cross its first."""
        import shapely

        points = np.column_stack([self.course.real, self.course.imag])
        lines = [shapely.LineString(part) for part in (points[:-1], points[1:]) if len(part) > 1]
        return all(line.is_simple for line in lines)


def contours(columns: Columns, places: NDArray[np.int32] | None = None) -> Iterator[Contour]:
    """The contours of two and more steps in the order they began; lines of no length are left out.

    Of those that are the same but for where and how large they are and how they are turned, as fifty thousand
    stamps, the largest stands for all. `places` are the numbers of the places in the program of all steps:
    what comes from different places is not the same.
    """
    chosen = columns.is_traced & (columns.stops > columns.runs["start"])
    runs, stops = columns.runs[chosen], columns.stops[chosen]
    order = np.lexsort((runs["start"], runs["contour"]))
    runs, stops = runs[order], stops[order]
    steps = ranges(runs["start"], stops - runs["start"])
    of_step = np.repeat(np.arange(len(runs)), stops - runs["start"])
    starts, ends = columns.starts @ AXES, columns.points @ AXES
    curved = columns.is_curved
    moved = (starts[steps] != ends[steps]) | curved[steps]
    steps, of_step = steps[moved], of_step[moved]
    # A contour that jumped, as over a returning block's own steps, goes on where it was.
    joins = np.append(
        False, np.abs(starts[steps[1:]] - ends[steps[:-1]]) <= 1e-9 * (1 + np.abs(ends[steps[:-1]]))
    )
    ids = runs["contour"][of_step]
    firsts = np.flatnonzero((np.diff(ids, prepend=-1) != 0) | ~joins)
    bounds = np.append(firsts, len(steps))
    kinds = _kinds(columns, steps, bounds, places)
    kinds ^= runs["pen"][of_step[firsts]].astype(np.int64)
    for one, times in _largest(kinds, np.abs(ends - starts)[steps], bounds):
        some = steps[bounds[one] : bounds[one + 1]]
        run = runs[of_step[bounds[one]]]
        points = np.append(starts[some[0]], ends[some])
        yield Contour(
            some,
            points,
            curved[some],
            _course(columns, some, points, curved[some]),
            bool(run["pen"] == PenState.DRAW),
            int(run["area"]),
            times,
        )


def _kinds(columns: Columns, steps: Ints, bounds: Ints, places: NDArray[np.int32] | None) -> Ints:
    """A number for each contour, the same for those that are alike: their steps, as seen from the first."""
    if len(bounds) < 2:
        return np.empty(0, np.int64)
    ways, u, v, _ = _ways(columns, steps[bounds[:-1]])
    # A first step that ends where it began is a curve, and has its half-axes.
    units = np.select([ways != 0, u != 0, v != 0], [ways, u, v], 1)
    kinds = np.empty(len(steps), np.int64)
    for some in lots(len(steps)):
        lot = np.arange(some.start, some.stop)
        contour = np.searchsorted(bounds, lot, "right") - 1
        *ways_of, sweeps = _ways(columns, steps[some])
        seen = coordinates(*(way / units[contour] for way in ways_of))
        numbers = numbered(np.column_stack([*seen, sweeps / 360]), ALIKE)
        if places is not None:
            numbers ^= mixed(places[steps[some]].astype(np.int64))
        # The same steps in another order are not alike.
        kinds[some] = mixed(numbers + mixed(lot - bounds[contour]))
    return np.add.reduceat(kinds, bounds[:-1])


def _ways(columns: Columns, steps: Ints) -> tuple[Complexes, Complexes, Complexes, Floats]:
    """Where some steps lead, and what curves have besides: u, v and the sweep, 0 for straight ones."""
    found = np.zeros((3, len(steps)), complex)
    is_curve = columns.is_curved[steps]
    arcs = columns.arcs_of(steps[is_curve])
    found[0] = (columns.ends_of(steps) - columns.starts_of(steps)) @ AXES
    found[1, is_curve], found[2, is_curve] = arcs["ux"] + 1j * arcs["uy"], arcs["vx"] + 1j * arcs["vy"]
    sweeps = np.zeros(len(steps))
    sweeps[is_curve] = arcs["sweep"]
    return found[0], found[1], found[2], sweeps


def _largest(kinds: Ints, lengths: Floats, bounds: Ints) -> list[tuple[int, int]]:
    """Of contours of each kind the largest, and how many there are; those of a single step are left out."""
    counts = np.diff(bounds)
    long = np.flatnonzero(counts > 1)
    if not len(long):
        return []
    sizes = np.add.reduceat(lengths, bounds[:-1])[long]
    order = np.lexsort((long, -sizes, kinds[long]))
    sorted_kinds = kinds[long][order]
    firsts = np.flatnonzero(np.append(True, sorted_kinds[1:] != sorted_kinds[:-1]))
    times = np.diff(np.append(firsts, len(order)))
    return sorted(zip(long[order[firsts]].tolist(), times.tolist(), strict=True))


def _course(columns: Columns, steps: Ints, points: Complexes, is_curved: Bools) -> Complexes:
    if not is_curved.any():
        return points
    arcs = columns.arcs_of(steps[is_curved])
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
