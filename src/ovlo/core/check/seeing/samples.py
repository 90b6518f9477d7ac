"""Points along lines, on the raster that shows what can be seen.

lines = SampledLines(outline, columns, to_pixels, scale)
for pieces in lines.lots(lines.pieces_of(paths)):
    points = lines.points(pieces, SPACING)
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.outlines import MOVE, Outline, ranges
from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Bools, Floats, Ints

PIXELS = 1000
"""The longer side of the raster."""

SPACING = 4.0
"""Pixels between the points in which a line is looked at; a quarter of that before it is called hidden."""

MOST_POINTS = 64
"""On one step."""

LOT = 1_000_000
"""Points that are held at once, about."""


class Points(NamedTuple):
    """Columns and rows of points, and the piece of the outline that each is on; those of a piece together."""

    x: Ints
    y: Ints
    piece: Ints

    def chosen(self, which: Bools) -> Points:
        """Some of them."""
        return Points(self.x[which], self.y[which], self.piece[which])


class SampledLines:
    """The lines of an outline, to be looked at along their middle and near both their edges.

    A line half covered is seen, and lines that are off the raster with all their width are not looked at.
    """

    def __init__(
        self, outline: Outline, columns: Columns, to_pixels: Callable[[Floats], Floats], scale: float
    ) -> None:
        moves = outline.moves
        self.path_of_piece = np.searchsorted(outline.firsts, moves, "right") - 1
        self.style_of_piece = outline.keys[self.path_of_piece] if len(moves) else moves
        widths = np.array([style.line_width for style in columns.styles] or [0.0]) * scale
        vertex = np.flatnonzero(outline.codes != MOVE)
        owner = np.searchsorted(moves, vertex, "right") - 1
        self._pixels = to_pixels(outline.vertices)
        reach = (widths[self.style_of_piece[owner]] + 1)[:, None]
        ends = np.stack([self._pixels[vertex - 1], self._pixels[vertex]])
        near = ((ends.max(axis=0) >= -reach) & (ends.min(axis=0) <= PIXELS + reach)).all(axis=1)
        self._vertex, self._owner = vertex[near], owner[near]
        ways = self._pixels[self._vertex] - self._pixels[self._vertex - 1]
        self._lengths = np.hypot(ways[:, 0], ways[:, 1])
        self._half = 0.4 * widths[self.style_of_piece[self._owner]]
        # The lines of a piece stand together, from its first one on.
        self._firsts = np.searchsorted(self._owner, np.arange(len(moves) + 1))
        self._pieces = np.searchsorted(self.path_of_piece, np.arange(len(outline) + 1))

    def pieces_of(self, paths: Ints) -> Ints:
        """The pieces of some paths."""
        firsts = self._pieces[paths]
        return ranges(firsts, self._pieces[paths + 1] - firsts)

    def points(self, pieces: Ints, spacing: float) -> Points:
        """Those of some pieces, in that order."""
        starts = self._firsts[pieces]
        lines = ranges(starts, self._firsts[pieces + 1] - starts)
        vertex, owner, lengths = self._vertex[lines], self._owner[lines], self._lengths[lines]
        begins = self._pixels[vertex - 1]
        ways = self._pixels[vertex] - begins
        counts = _counts(lengths, spacing)
        line = np.repeat(np.arange(len(vertex)), counts)
        share = (ranges(np.zeros_like(counts), counts) + 0.5) / counts[line]
        middles = begins[line] + ways[line] * share[:, None]
        aside = np.maximum(self._half[lines], 0.0) / np.maximum(lengths, 1e-12)
        normals = (ways[:, ::-1] * [-1, 1] * aside[:, None])[line]
        points = np.stack([middles, middles + normals, middles - normals], axis=1).reshape(-1, 2)
        whole = np.floor(np.clip(points, -1, PIXELS + 1)).astype(np.int64)
        return Points(whole[:, 0], whole[:, 1], np.repeat(owner[line], 3))

    @cached_property
    def _sums(self) -> Ints:
        """How many points are on the pieces before each."""
        counts = np.append(0, np.cumsum(3 * _counts(self._lengths, SPACING)))
        sums: Ints = counts[self._firsts]
        return sums

    def lots(self, pieces: Ints, closer: int = 1) -> Iterator[Ints]:
        """Pieces in lots of not too many points together, also if there are so many times as many."""
        sums = np.cumsum(np.diff(self._sums)[pieces]) * closer
        lots = np.split(pieces, np.searchsorted(sums, np.arange(LOT, sums[-1], LOT))) if len(pieces) else []
        return (lot for lot in lots if len(lot))


def _counts(lengths: Floats, spacing: float) -> Ints:
    counts: Ints = np.clip(np.ceil(lengths / spacing), 1, MOST_POINTS * SPACING / spacing).astype(np.int64)
    return counts
