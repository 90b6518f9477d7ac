"""A raster of areas: which pixels each covers, by the winding of its border around their centres.

found = spans(vertices, codes, firsts, is_evenodd, (height, width))
pixels, counts = found.pixels(width)

Areas are taken many at once: along a row of pixel centres, each line of a border that is crossed changes the
winding number by one, so the crossings of all borders, sorted, are where pixels begin and end to be inside.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import MOVE, ranges
from ovlo.core.values.arrays import Bools, Bytes, Floats, Ints

MOST_CROSSINGS = 4_000_000
"""Crossings that are sorted at once."""


class Spans(NamedTuple):
    """Pixels inside areas: in a row, from a column up to and not including another; shape (s,) each.

    Those of an area stand together, in the order of the areas, and do not overlap.
    """

    areas: Ints
    rows: Ints
    begins: Ints
    ends: Ints

    def chosen(self, which: Ints) -> Spans:
        """Those of some numbers."""
        return Spans(*(column[which] for column in self))

    def pixels(self, width: int) -> tuple[NDArray[np.int32], Ints]:
        """The number of each pixel in a raster of that width, and how many each span has."""
        counts = self.ends - self.begins
        firsts = (self.rows * width + self.begins).astype(np.int32)
        offsets = np.cumsum(counts) - counts
        return np.repeat(firsts - offsets.astype(np.int32), counts) + np.arange(
            int(counts.sum()), dtype=np.int32
        ), counts


def spans(
    vertices: Floats,
    codes: Bytes,
    firsts: Ints,
    is_evenodd: Bools,
    shape: tuple[int, int],
) -> Spans:
    """The pixels inside some borders.

    Parameters
    ----------
    vertices : float array of shape (v, 2)
        In pixels from the lower left corner of the raster, whose first row is the lowest.
    codes : uint8 array of shape (v,)
    firsts : int array of shape (k + 1,)
        The first vertex of each border; the last entry is v.
    is_evenodd : bool array of shape (k,)
        Whether a pixel is inside where the winding is odd, and not wherever it is not 0.
    shape : (int, int)
        Height and width of the raster.
    """
    height, width = shape
    starts, ends = vertices, vertices[_following(codes)]
    # The rows whose centres a line crosses: a + 0.5 from its lower end up to, and not including, its upper.
    bottom, top = (
        np.clip(np.ceil(f(starts[:, 1], ends[:, 1]) - 0.5), 0, height).astype(np.int64)
        for f in (np.minimum, np.maximum)
    )
    sums = np.append(0, np.cumsum(top - bottom))[firsts]
    parts, first = [], 0
    while first < len(is_evenodd):
        stop = max(first + 1, int(np.searchsorted(sums, sums[first] + MOST_CROSSINGS, "right")) - 1)
        some = slice(int(firsts[first]), int(firsts[stop]))
        area = np.repeat(np.arange(first, stop), np.diff(firsts[first : stop + 1]))
        parts.append(_sorted(starts[some], ends[some], bottom[some], top[some], area, is_evenodd, width))
        first = stop
    return Spans(*(np.concatenate(columns) for columns in zip(*parts, strict=True))) if parts else NO_SPANS


NO_SPANS = Spans(*(np.empty(0, np.int64) for _ in range(4)))


def _sorted(
    starts: Floats,
    ends: Floats,
    bottom: Ints,
    top: Ints,
    area: Ints,
    is_evenodd: Bools,
    width: int,
) -> Spans:
    counts = top - bottom
    line = np.repeat(np.arange(len(starts)), counts)
    row = ranges(bottom, counts)
    slope = (ends[line, 0] - starts[line, 0]) / (ends[line, 1] - starts[line, 1])
    x = starts[line, 0] + (row + 0.5 - starts[line, 1]) * slope
    column = np.clip(np.ceil(x - 0.5), 0, width).astype(np.int64)
    up = np.sign(ends[line, 1] - starts[line, 1]).astype(np.int64)
    # One number that sorts as area, row and column do.
    order = np.argsort(
        ((area[line] - area[0]) * (top.max(initial=0) + 1) + row) * (width + 1) + column, kind="stable"
    )
    area, row, column = area[line][order], row[order], column[order]
    # Each border is closed, so its windings add up to 0 in each of its rows, and in all before.
    winding = np.cumsum(up[order])[:-1]
    inside = np.where(is_evenodd[area[:-1]], winding % 2 == 1, winding != 0) & (column[1:] > column[:-1])
    return Spans(area[:-1][inside], row[:-1][inside], column[:-1][inside], column[1:][inside])


def _following(codes: Bytes) -> Ints:
    """For each vertex the next one of its piece, each piece closed."""
    firsts = np.flatnonzero(codes == MOVE)
    if not len(firsts):
        return np.empty(0, np.int64)
    lasts = np.append(firsts[1:], len(codes)) - 1
    following = np.arange(1, len(codes) + 1)
    following[lasts] = firsts
    return following
