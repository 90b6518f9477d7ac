"""What is seen of lines and areas when later areas are laid over them.

lines = seen(lines, hiding)

A line that runs along the border of a later area goes only if that area draws its border itself. Numbers that
differ in their last digits must not decide that piece by piece, so areas that draw their border hide a little
beyond it, and the others a little less than all.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ovlo.core.plot.inked import Inked, Layer, Look, Shapes
from ovlo.core.values.arrays import Floats, Ints

EDGE = 1e-3
"""Millimetres by which an area hides more or less than what is inside."""

CRUMB = 2 * EDGE
"""Millimetres of a line that are not worth lowering a pen for."""


class Hiding(NamedTuple):
    """Areas that hide what is beneath them, largest first, and their positions in the painted order."""

    shapes: Shapes
    positions: Ints


def hiding(inked: Inked, bands: Layer | None = None) -> Hiding:
    """The areas that hide what is beneath them; `bands` are those that lines cover."""
    import shapely

    kept = np.flatnonzero(inked.hides & ~shapely.is_empty(inked.areas.shapes))
    kept = kept[np.argsort(-shapely.area(inked.areas.shapes[kept]), kind="stable")]
    room = np.where(inked.has_border[kept], EDGE, -EDGE)
    shapes = shapely.buffer(inked.areas.shapes[kept], room, quad_segs=1, join_style="mitre", mitre_limit=2)
    positions = inked.areas.positions[kept]
    if bands is None:
        return Hiding(shapes, positions)
    shapes, positions = np.append(shapes, bands.shapes), np.append(positions, bands.positions)
    order = np.argsort(-shapely.area(shapes), kind="stable")
    return Hiding(shapes[order], positions[order])


WIDE = 0.8
"""Millimetres of a line whose round end would be seen on the area that hides the rest of it."""


def reach_of_caps(lines: Layer, looks: list[Look], has_round_pens: bool) -> Floats:
    """How much earlier each line is to be cut at an area, so that its cap does not lie on it.

    A pen as wide as its line is round, whatever cap the line has.
    """
    has_cap = np.array([looks[position][0] != "butt" for position in lines.positions.tolist()], bool)
    has_cap |= has_round_pens
    return np.where(has_cap & (lines.widths > WIDE), lines.widths / 2, 0.0)


def seen(layer: Layer, over: Hiding, reach: Floats | None = None) -> Layer:
    """What is left of lines or areas; one that is cut is several rows.

    `reach` is by how much more, in millimetres, each is cut.

    Most of what is hidden is hidden by one area, which a tree of boxes finds at once. From what is left, the
    areas that touch it are taken away, the largest first, one from each shape at a time, so that every round
    is one call for many shapes.
    """
    import shapely

    if not len(layer.shapes) or not len(over.shapes):
        return layer
    tree = shapely.STRtree(over.shapes)
    shapes = layer.shapes.copy()
    shapely.prepare(over.shapes)
    rows, areas = tree.query(shapes, predicate="covered_by")
    later = over.positions[areas] > layer.positions[rows]
    shapes[rows[later]] = shapely.Point()
    left = np.flatnonzero(~shapely.is_empty(shapes))

    rows, areas = tree.query(shapes[left], predicate="intersects")
    rows = left[rows]
    later = over.positions[areas] > layer.positions[rows]
    rows, areas = rows[later], areas[later]
    order = np.lexsort((areas, rows))
    rows, areas = rows[order], areas[order]
    _, firsts, counts = np.unique(rows, return_index=True, return_counts=True)
    active = np.arange(len(firsts))
    turn = 0
    while len(active):
        these = rows[firsts[active]]
        above = over.shapes[areas[firsts[active] + turn]]
        if reach is not None and (more := np.flatnonzero(reach[these])).size:
            above[more] = shapely.buffer(above[more], reach[these[more]], quad_segs=4)
        shapes[these] = shapely.difference(shapes[these], above)
        turn += 1
        active = active[(counts[active] > turn) & ~shapely.is_empty(shapes[these])]
    return _without_crumbs(layer, shapes)


def _without_crumbs(layer: Layer, shapes: Shapes) -> Layer:
    """Each connected part of what is left as a row; crumbs of lines that were cut are none."""
    import shapely

    was_cut = shapes != layer.shapes
    left, rows = layer.in_parts(shapes)
    is_line = shapely.get_dimensions(left.shapes) == 1
    return left.taken(~(was_cut[rows] & is_line & (shapely.length(left.shapes) < CRUMB)))
