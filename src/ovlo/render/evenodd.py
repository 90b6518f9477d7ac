"""Even-odd areas for rasterisers that fill by winding only.

    vertices, codes = without_overlaps(vertices, codes)

The lines of the border cut the plane into faces. Those that a ray from inside leaves by an odd number of
lines are the area (the even-odd rule of SVG's `fill-rule`). They come back as rings that do not cross, holes
turning the other way round, which both rules fill alike.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ovlo.core.outlines import CLOSE, LINE, MOVE

Floats = NDArray[np.float64]


def without_overlaps(vertices: Floats, codes: NDArray[np.uint8]) -> tuple[Floats, NDArray[np.uint8]]:
    """The same even-odd area as simple rings; all vertices must be ends of straight lines."""
    import shapely

    rings = [
        np.vstack([ring, ring[:1]])
        for ring in np.split(vertices, np.flatnonzero(codes == MOVE)[1:])
        if len(ring) > 2
    ]
    if not rings:
        return np.empty((0, 2)), np.empty(0, np.uint8)
    lines = shapely.unary_union([shapely.LineString(ring) for ring in rings])
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(lines)))
    if not len(faces):
        return np.empty((0, 2)), np.empty(0, np.uint8)
    inside = shapely.get_coordinates(shapely.point_on_surface(faces))
    area = shapely.unary_union(faces[_crossings(inside, rings) % 2 == 1])
    # Outer rings anticlockwise, holes clockwise.
    parts = shapely.get_parts(shapely.orient_polygons(area, exterior_cw=False))
    borders = [
        shapely.get_coordinates(ring)
        for part in parts
        for ring in (shapely.get_exterior_ring(part), *part.interiors)
    ]
    if not borders:
        return np.empty((0, 2)), np.empty(0, np.uint8)
    return np.vstack(borders), np.concatenate([_closed(len(border)) for border in borders])


def _crossings(points: Floats, rings: list[Floats]) -> NDArray[np.int64]:
    """How many lines of the rings a ray to the right of each point crosses."""
    starts = np.vstack([ring[:-1] for ring in rings])
    ends = np.vstack([ring[1:] for ring in rings])
    counts = np.empty(len(points), np.int64)
    rise = ends[:, 1] - starts[:, 1]
    slope = (ends[:, 0] - starts[:, 0]) / np.where(rise == 0, 1.0, rise)
    for i, (x, y) in enumerate(points):
        spans = (starts[:, 1] > y) != (ends[:, 1] > y)
        counts[i] = np.count_nonzero(spans & (starts[:, 0] + (y - starts[:, 1]) * slope > x))
    return counts


def _closed(count: int) -> NDArray[np.uint8]:
    codes = np.full(count, LINE, np.uint8)
    codes[0], codes[-1] = MOVE, CLOSE
    return codes
