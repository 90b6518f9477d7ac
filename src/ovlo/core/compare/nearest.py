"""Lines that can be searched: how far points are from them, and which point is farthest.

SearchableLines(lines, spacing).distances(z, 8)
"""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.compare.line_set import Lines
from ovlo.core.trail.similarity import Similarity
from ovlo.core.values.arrays import Complexes, Floats, Ints

if TYPE_CHECKING:
    from scipy.spatial import cKDTree

NEIGHBOURS = (1, 8, 32)
"""Of a point, whose lines are measured: first the nearest, then more."""


MANY = 2_000
"""Points that are worth a second thread."""


AT_ONCE = 400_000
"""Distances that are measured at once; many more would fill the memory."""

FAR_POINTS = 5_000
"""Of those that differ, measured."""


MOST_EXACT = 50
"""Of those, measured against every line."""

ROUNDS = 6
"""In each, the place of the largest distance becomes four times as exact."""


class SearchableLines:
    """Lines with points on them that can be searched."""

    def __init__(self, lines: Lines, spacing: float) -> None:
        self.lines = lines
        self.spacing = spacing
        self.z, self.owners = lines.points(spacing)

    @cached_property
    def tree(self) -> cKDTree:
        """The points, for finding the nearest."""
        from scipy.spatial import cKDTree

        return cKDTree(np.column_stack([self.z.real, self.z.imag]))

    def distances(self, z: Complexes, nearest: int, within: float = float("inf")) -> Floats:
        """How far points are from those lines that have the nearest points, not farther than `within`.

        Where many lines are near this may be too much; where none is, it is infinite.
        """
        measured = np.full(len(z), np.inf)
        lot = AT_ONCE // nearest
        for first in range(0, len(z) if len(self.z) else 0, lot):
            some = z[first : first + lot]
            found = self.nearest(some, nearest, within)
            is_found = found < len(self.z)
            owners = self.owners[np.where(is_found, found, 0)]
            each = np.repeat(some, found.shape[1])
            distances = self.lines.distances(each, owners.ravel()).reshape(found.shape)
            measured[first : first + lot] = np.where(is_found, distances, np.inf).min(axis=1)
        return measured

    def nearest(self, z: Complexes, count: int, within: float = float("inf")) -> Ints:
        """The numbers of the points nearest to others, shape (others, count)."""
        count = min(count, len(self.z))
        coordinates = np.column_stack([z.real, z.imag])
        workers = -1 if len(z) > MANY else 1
        _, found = self.tree.query(coordinates, count, distance_upper_bound=within, workers=workers)
        return np.asarray(np.reshape(found, (len(z), count)))

    def bounds(self, z: Complexes, tolerance: float) -> Floats:
        """Upper bounds of how far points are from the lines; infinite if no line is within the tolerance.

        Most points are next to a point of their own line, so more lines are only asked for the others.
        """
        within = self.spacing / 2 + 2 * tolerance
        found = np.full(len(z), np.inf)
        asked = np.arange(len(z))
        for count in NEIGHBOURS:
            found[asked] = self.distances(z[asked], count, within)
            if np.isinf(found).any():
                break  # a point that is surely off decides
            asked = asked[(found[asked] > tolerance) & np.isfinite(found[asked])]
            if not len(asked):
                break
        return found

    def exact(self, z: complex) -> float:
        """How far one point is from the lines, whichever is nearest."""
        if not len(self.lines):
            return float("inf")
        every = np.arange(len(self.lines))
        return float(self.lines.distances(np.full(len(every), z), every).min())

    def farthest(self, other: SearchableLines, by: Similarity, tolerance: float) -> tuple[float, complex]:
        """Of these points, moved, the one farthest from another layer's lines, if beyond the tolerance."""
        if not len(self.z):
            return 0.0, 0j
        unique, first = np.unique(self.z, return_index=True)
        z, owners = by.points(unique), self.owners[first]
        if not len(other.z):
            return float("inf"), complex(z[0])
        bounds = other.bounds(z, tolerance)
        off = np.flatnonzero(bounds > tolerance if np.isfinite(bounds).all() else np.isinf(bounds))
        off = off[:: len(off) // FAR_POINTS + 1]
        if not len(off):
            return 0.0, 0j
        bounds = other.distances(z[off], NEIGHBOURS[1])
        best, place, number = 0.0, 0j, -1
        for i in np.argsort(-bounds)[:MOST_EXACT].tolist():
            if bounds[i] <= max(best, tolerance):
                break
            if (distance := other.exact(complex(z[off[i]]))) > best:
                best, place, number = distance, complex(z[off[i]]), int(off[i])
        if number < 0:
            return 0.0, 0j
        return max((best, place), self._climbed(other, by, int(owners[number]), unique[number]), key=_first)

    def _climbed(
        self, other: SearchableLines, by: Similarity, piece: int, z: complex
    ) -> tuple[float, complex]:
        """The farthest place near a point of a piece: between its neighbours, and between theirs."""
        count = int(np.ceil(self.lines.lengths[piece] / self.spacing)) + 1
        shares = np.linspace(0, 1, count + 1)
        points = self.lines.at(np.full(len(shares), piece), shares)
        middle, width = float(shares[np.abs(points - z).argmin()]), 1 / count
        best = 0.0, 0j
        for _ in range(ROUNDS):
            shares = np.clip(np.linspace(middle - width, middle + width, 9), 0, 1)
            points = by.points(self.lines.at(np.full(len(shares), piece), shares))
            distances = [other.exact(point) for point in points.tolist()]
            i = int(np.argmax(distances))
            best = max(best, (distances[i], complex(points[i])), key=_first)
            middle, width = float(shares[i]), width / 4
        return best


def _first(pair: tuple[float, complex]) -> float:
    return pair[0]
