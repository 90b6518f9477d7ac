"""Paths as the data of SVG's `d` (https://www.w3.org/TR/SVG2/paths.html).

    path_data(outline, places=2)              # ["M0 0 90 0", …], one a path
    "".join(path_pieces(outline, 2)[0])       # the same of one path

The numbers of many short paths are written in one pass, in lots that stay in the cache. A long path is
written lot by lot as it is asked for, so that ten million steps never stand in memory as text.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.outlines import CLOSE, MOVE, Outline
from ovlo.core.trail import curves
from ovlo.core.values.arrays import Bytes, Floats, Ints
from ovlo.render.numbers import number_text

LOT = 1 << 16
"""Vertices written at once; a path with more is a long one."""


@dataclass(frozen=True)
class _LongPath:
    """The `d` of a path without arcs, in pieces."""

    vertices: Floats
    codes: Bytes
    places: int

    def __iter__(self) -> Iterator[str]:
        for first in range(0, len(self.codes), LOT):
            lot = slice(first, first + LOT)
            values, leads = _straight(self.vertices[lot], self.codes[lot])
            yield number_text(values.ravel(), leads.ravel(), self.places)[0].decode()


def path_pieces(outline: Outline, places: int) -> list[Iterable[str]]:
    """The `d` of each path of an outline, in pieces."""
    if len(outline.vertices) <= LOT or len(outline.arcs):
        return [(data,) for data in path_data(outline, places)]
    is_long = np.diff(outline.firsts) > LOT
    is_next_lot = np.diff(outline.firsts[:-1] // LOT) > 0
    bounds = np.flatnonzero(is_next_lot | np.diff(is_long) | is_long[1:]) + 1
    found: list[Iterable[str]] = []
    for first, stop in pairwise([0, *bounds.tolist(), len(outline)]):
        if is_long[first]:
            found.append(_LongPath(*outline.path(first), places))
        else:
            firsts = outline.firsts[first : stop + 1]
            these = slice(firsts[0], firsts[-1])
            values, leads = _straight(outline.vertices[these], outline.codes[these])
            found += [(data,) for data in _written(values, leads, firsts - firsts[0], places)]
    return found


def path_data(outline: Outline, places: int) -> list[str]:
    """The `d` of each path of an outline."""
    quarters = curves.quarter_counts(outline.arcs)
    cut = outline.subdivided(quarters)
    values, leads = (
        _with_arcs(outline, cut, quarters) if len(outline.arcs) else _straight(cut.vertices, cut.codes)
    )
    return _written(values, leads, cut.firsts, places)


def _written(values: Floats, leads: Bytes, firsts: Ints, places: int) -> list[str]:
    """The numbers of each path, whose first vertices are given."""
    text, ends = number_text(values.ravel(), leads.ravel(), places)
    whole = text.decode()
    bounds = [0, *ends[values.shape[1] * firsts[1:] - 1].tolist()]
    return [whole[a:b] for a, b in pairwise(bounds)]


def _straight(vertices: Floats, codes: Bytes) -> tuple[Floats, Bytes]:
    """The numbers of each vertex, shape (v, 2), and what is written before each."""
    values = vertices * [1.0, -1.0]
    leads = np.full(values.shape, ord(" "), np.uint8)
    leads[codes == MOVE, 0] = ord("M")
    # A closing vertex is where its piece began: Z says so without numbers.
    closes = np.flatnonzero(codes == CLOSE)
    values[closes] = np.nan
    leads[closes] = ord("Z"), 0
    return values, leads


def _with_arcs(outline: Outline, cut: Outline, quarters: Ints) -> tuple[Floats, Bytes]:
    """The same with columns before the point for an arc's radii, turn and flags, shape (v, 7)."""
    points, point_leads = _straight(cut.vertices, cut.codes)
    values = np.full((len(points), 7), np.nan)
    leads = np.zeros(values.shape, np.uint8)
    values[:, 5:], leads[:, 5:] = points, point_leads
    repeats = np.ones(len(outline.vertices), np.int64)
    repeats[outline.arcs["step"]] = quarters
    is_arc = np.zeros(len(outline.vertices), bool)
    is_arc[outline.arcs["step"]] = True
    is_arc = np.repeat(is_arc, repeats)
    arcs = outline.arcs[np.repeat(np.arange(len(quarters)), quarters)]
    values[is_arc, :3] = ellipses(arcs)
    values[is_arc, 3] = 0
    # y points down in the file, so what goes anticlockwise here has the sweep flag 0 there.
    values[is_arc, 4] = (arcs["ux"] * arcs["vy"] - arcs["uy"] * arcs["vx"]) * arcs["sweep"] < 0
    leads[is_arc, :6] = ord(" ")
    leads[is_arc, 0] = ord("A")
    cubic = np.flatnonzero(is_arc)[curves.is_cubic(arcs)]
    if len(cubic):
        u, v = curves.half_axes(arcs[curves.is_cubic(arcs)])
        controls = np.hstack([cut.vertices[cubic - 1] + u, cut.vertices[cubic - 1] + v]) * [1, -1, 1, -1]
        values[cubic, 0], values[cubic, 1:5] = np.nan, controls
        leads[cubic, :2] = 0, ord("C")
    after = np.flatnonzero(is_arc[:-1] & ~is_arc[1:] & (leads[1:, 5] == ord(" "))) + 1
    leads[after, 5] = ord("L")
    return values, leads


def ellipses(arcs: NDArray[np.void]) -> Floats:
    """The two radii of each arc's ellipse and the turn of its first axis as SVG counts it, shape (a, 3).

    The half-axes are the singular values of the matrix with the columns u and v, and its left singular
    vectors their directions.
    """
    u, v = curves.half_axes(arcs)
    directions, radii, _ = np.linalg.svd(np.stack([u, v], axis=2))
    turns = -np.degrees(np.arctan2(directions[:, 1, 0], directions[:, 0, 0]))
    is_circle = radii[:, 0] - radii[:, 1] <= 1e-9 * radii[:, 0]
    turns = np.where(is_circle, 0.0, turns % 180.0)
    return np.column_stack([radii, turns])
