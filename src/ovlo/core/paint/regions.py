"""Areas as regions that do not overlap themselves.

    vertices, codes = without_overlaps(vertices, codes, "evenodd")

Some rasterisers fill by winding only, and to cut an area one must know what is inside. The lines of the
border cut the plane into faces. A ray from a face crosses lines that go up and lines that go down: an odd
number in all means inside by "evenodd", an unequal number of the two by "nonzero" (SVG's `fill-rule`).
"""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.paint.outlines import CLOSE, LINE, MOVE
from ovlo.core.values.arrays import Bytes, Floats, Ints

if TYPE_CHECKING:
    from shapely.geometry.base import BaseGeometry


def without_overlaps(vertices: Floats, codes: Bytes, rule: str) -> tuple[Floats, Bytes]:
    """The same area as simple rings, holes turning the other way; all vertices must end straight lines."""
    return rings_of(region(vertices, codes, rule))


def region(vertices: Floats, codes: Bytes, rule: str) -> BaseGeometry:
    """The area inside a border."""
    import shapely

    rings = [
        np.vstack([ring, ring[:1]])
        for ring in np.split(vertices, np.flatnonzero(codes == MOVE)[1:])
        if len(ring) > 2
    ]
    if not rings:
        return shapely.Polygon()
    lines = shapely.unary_union([shapely.LineString(ring) for ring in rings])
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(lines)))
    if not len(faces):
        return shapely.Polygon()
    middles = shapely.get_coordinates(shapely.point_on_surface(faces))
    up, down = _crossings(middles, rings)
    inside = (up + down) % 2 == 1 if rule == "evenodd" else up != down
    found: BaseGeometry = shapely.unary_union(faces[inside])
    return found


def rings_of(area: BaseGeometry) -> tuple[Floats, Bytes]:
    """The borders of a region: outer rings anticlockwise, holes clockwise."""
    import shapely

    parts = [part for part in shapely.get_parts(area) if part.geom_type == "Polygon" and not part.is_empty]
    borders = [
        shapely.get_coordinates(ring)
        for part in shapely.orient_polygons(parts, exterior_cw=False)
        for ring in (part.exterior, *part.interiors)
    ]
    if not borders:
        return np.empty((0, 2)), np.empty(0, np.uint8)
    return np.vstack(borders), np.concatenate([_closed(len(border)) for border in borders])


def _crossings(points: Floats, rings: list[Floats]) -> tuple[Ints, Ints]:
    """How many lines that go up, and how many that go down, a ray to the right of each point crosses."""
    starts = np.vstack([ring[:-1] for ring in rings])
    ends = np.vstack([ring[1:] for ring in rings])
    rise = ends[:, 1] - starts[:, 1]
    slope = (ends[:, 0] - starts[:, 0]) / np.where(rise == 0, 1.0, rise)
    counts = np.empty((2, len(points)), np.int64)
    for i, (x, y) in enumerate(points):
        spans = (starts[:, 1] > y) != (ends[:, 1] > y)
        crossed = spans & (starts[:, 0] + (y - starts[:, 1]) * slope > x)
        counts[:, i] = np.count_nonzero(crossed & (rise > 0)), np.count_nonzero(crossed & (rise < 0))
    return counts[0], counts[1]


def _closed(count: int) -> Bytes:
    codes = np.full(count, LINE, np.uint8)
    codes[0], codes[-1] = MOVE, CLOSE
    return codes
