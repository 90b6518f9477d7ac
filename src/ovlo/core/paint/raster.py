"""A raster of areas: which pixels an area covers, by the winding of its border around their centres.

cover(vertices, codes, "nonzero", (height, width))
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import MOVE, ranges


def cover(
    vertices: NDArray[np.float64], codes: NDArray[np.uint8], rule: str, shape: tuple[int, int]
) -> tuple[tuple[slice, slice], NDArray[np.bool_]]:
    """The part of a raster a border's box takes, and which of its pixels are inside.

    Vertices are in pixels from the lower left corner of the raster, whose first row is the lowest. Along a
    row of pixel centres, each line of the border that is crossed changes the winding number by one.
    """
    height, width = shape
    low = np.clip(np.floor(vertices.min(axis=0)), 0, (width, height)).astype(int)
    high = np.clip(np.ceil(vertices.max(axis=0)), 0, (width, height)).astype(int)
    window = slice(low[1], high[1]), slice(low[0], high[0])
    rows, columns = high[1] - low[1], high[0] - low[0]
    if rows <= 0 or columns <= 0:
        return window, np.zeros((max(rows, 0), max(columns, 0)), bool)
    starts, ends = _sides(vertices - low, codes)
    # The rows whose centres a line crosses: a + 0.5 from its lower end up to, and not including, its upper.
    up = np.sign(ends[:, 1] - starts[:, 1]).astype(np.int64)
    bottom, top = (
        np.clip(np.ceil(f(starts[:, 1], ends[:, 1]) - 0.5), 0, rows) for f in (np.minimum, np.maximum)
    )
    counts = (top - bottom).astype(np.int64)
    line = np.repeat(np.arange(len(starts)), counts)
    row = ranges(bottom.astype(np.int64), counts)
    slope = (ends[line, 0] - starts[line, 0]) / (ends[line, 1] - starts[line, 1])
    x = starts[line, 0] + (row + 0.5 - starts[line, 1]) * slope
    column = np.clip(np.ceil(x - 0.5), 0, columns).astype(np.int64)
    changes = np.bincount(row * (columns + 1) + column, up[line], rows * (columns + 1))
    winding = np.rint(np.cumsum(changes.reshape(rows, columns + 1), axis=1)[:, :-1]).astype(np.int64)
    return window, winding % 2 == 1 if rule == "evenodd" else winding != 0


def _sides(
    vertices: NDArray[np.float64], codes: NDArray[np.uint8]
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Beginnings and ends of the lines of a border, each of its pieces closed."""
    firsts = np.flatnonzero(codes == MOVE)
    lasts = np.append(firsts[1:], len(vertices)) - 1
    following = np.arange(1, len(vertices) + 1)
    following[lasts] = firsts
    return vertices, vertices[following]
