"""What is inside of the room that the pen has.

inside, cut_marks = clipped(inked, (10, 10, 200, 287))
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ovlo.core.plot.inked import Inked, Layer
from ovlo.core.values.arrays import Box, Ints

SLACK = 1e-6
"""Millimetres by which rounding alone may lead out."""


def clipped(inked: Inked, room: Box) -> tuple[Inked, int]:
    """The marks cut at the border of the room, and how many of them were."""
    left, bottom, right, top = room
    wide = left - SLACK, bottom - SLACK, right + SLACK, top + SLACK
    lines, line_rows, cut_lines = _clipped(inked.lines, wide)
    areas, area_rows, cut_areas = _clipped(inked.areas, wide)
    inside = replace(
        inked,
        lines=lines,
        covers=inked.covers[line_rows],
        areas=areas,
        hides=inked.hides[area_rows],
        has_border=inked.has_border[area_rows],
    )
    return inside, len(np.union1d(cut_lines, cut_areas))


def _clipped(layer: Layer, room: Box) -> tuple[Layer, Ints, Ints]:
    """Shapes inside, the rows they were, and the positions of marks of which something is outside."""
    import shapely

    count = len(layer.shapes)
    if not count:
        return layer, np.arange(0), np.arange(0)
    frame = shapely.box(*room)
    shapely.prepare(frame)
    outside = np.flatnonzero(~shapely.covers(frame, layer.shapes) & ~shapely.is_empty(layer.shapes))
    shapes = layer.shapes.copy()
    shapes[outside] = shapely.intersection(shapes[outside], frame)
    return *layer.in_parts(shapes), layer.positions[outside]
