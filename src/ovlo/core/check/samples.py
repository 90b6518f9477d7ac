"""Points along lines, on the raster on which it is told what can be seen.

Points(outline, columns, to_pixels, scale, SPACING).of_path(0)
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import MOVE, Outline, ranges
from ovlo.core.trail.columns import Columns

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

PIXELS = 1000
"""The longer side of the raster."""

SPACING = 4.0
"""Pixels between the points in which a line is looked at; a quarter of that before it is called hidden."""

MOST_POINTS = 64
"""On one step."""


class Points:
    """Points along the lines of an outline, on the raster; those of a piece stand together.

    Each line is looked at along its middle and near both its edges, since a line half covered is seen.
    """

    def __init__(
        self,
        outline: Outline,
        columns: Columns,
        to_pixels: Callable[[Floats], Floats],
        scale: float,
        spacing: float,
        paths: Ints | None = None,
    ) -> None:
        moves = outline.moves
        self.path_of_piece = np.searchsorted(outline.firsts, moves, "right") - 1
        self.style_of_piece = outline.keys[self.path_of_piece] if len(moves) else moves
        is_line = outline.codes != MOVE
        vertex = np.flatnonzero(is_line)
        owner = np.searchsorted(moves, vertex, "right") - 1
        if paths is not None:
            kept = np.isin(self.path_of_piece[owner], paths)
            vertex, owner = vertex[kept], owner[kept]
        pixels = to_pixels(outline.vertices)
        # Lines that are off the raster with all their width are not looked at.
        widths = np.array([style.line_width for style in columns.styles] or [0.0])
        reach = (widths[self.style_of_piece[owner]] * scale + 1)[:, None]
        ends = np.stack([pixels[vertex - 1], pixels[vertex]])
        near = (ends.max(axis=0) >= -reach) & (ends.min(axis=0) <= PIXELS + reach)
        vertex, owner = vertex[near.all(axis=1)], owner[near.all(axis=1)]
        starts, ways = pixels[vertex - 1], pixels[vertex] - pixels[vertex - 1]
        lengths = np.hypot(*ways.T)
        counts = np.clip(np.ceil(lengths / spacing), 1, MOST_POINTS * SPACING / spacing).astype(np.int64)
        line = np.repeat(np.arange(len(vertex)), counts)
        share = (ranges(np.zeros_like(counts), counts) + 0.5) / counts[line]
        middles = starts[line] + ways[line] * share[:, None]
        aside = np.maximum(0.4 * widths[self.style_of_piece[owner]] * scale, 0.0) / np.maximum(lengths, 1e-12)
        normals = (ways[:, ::-1] * [-1, 1] * aside[:, None])[line]
        points = np.stack([middles, middles + normals, middles - normals], axis=1).reshape(-1, 2)
        whole = np.floor(np.clip(points, -1, PIXELS + 1)).astype(np.int64)
        self.x, self.y = whole[:, 0], whole[:, 1]
        self.piece = np.repeat(owner[line], 3)
        # Where the points of each path begin.
        self._bounds = np.searchsorted(self.path_of_piece[self.piece], np.arange(len(outline) + 1))

    def of_path(self, path: int) -> tuple[Ints, Ints]:
        """Columns and rows of the points of one path."""
        some = slice(self._bounds[path], self._bounds[path + 1])
        return self.x[some], self.y[some]

    def of_paths(self, paths: Ints) -> Ints:
        """The points of some paths."""
        starts = self._bounds[paths]
        return ranges(starts, self._bounds[paths + 1] - starts)
