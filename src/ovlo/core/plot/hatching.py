"""Areas filled by lines: to and fro, crossed, or in rings along their border.

points, counts, rows = hatched(areas, widths, "parallel", gap=0.5, angle=45)

The pen's middle stays half its width inside the border.
"""

from __future__ import annotations

from typing import NamedTuple, get_args

import numpy as np

from ovlo.core.paint.outlines import ranges
from ovlo.core.plot.inked import Shapes
from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.choices import Hatch
from ovlo.core.values.errors import BadValue

HATCHES = get_args(Hatch)

MOST_STROKES = 5_000_000

STRAY = 0.1
"""How far a way between two lines may be outside of the border, as a share of the pen's width."""

FARTHEST = 3
"""Gaps between two lines that a way along the border may be long."""


class Hatching(NamedTuple):
    """Lines that fill areas.

    Attributes
    ----------
    points : float array of shape (v, 2)
    counts : int array of shape (k,)
        How many points each line has.
    rows : int array of shape (k,)
        The area each is in.
    """

    points: Floats
    counts: Ints
    rows: Ints


def hatched(
    areas: Shapes,
    widths: Floats,
    kind: str,
    gaps: Floats,
    angle: float,
    call: str,
    inset: Floats | None = None,
) -> Hatching:
    """Lines that fill areas.

    Parameters
    ----------
    areas : object array of shape (n,)
        Shapely's areas, in millimetres.
    widths, gaps : float array of shape (n,)
        Of the pen, and between the middles of two lines, in millimetres.
    kind : one of HATCHES
    angle : float
        Degrees anticlockwise from east; rings have none.
    inset : float array of shape (n,), optional
        How far from the border the outer edge of the pen's line stays.

    Raises
    ------
    BadValue
        If there would be more than five million lines.
    """
    edge = np.zeros(len(areas)) if inset is None else inset
    if kind == "concentric":
        return _rings(areas, widths, gaps, edge, call)
    angles = {"parallel": [angle], "crosshatch": [angle, angle + 90], "none": []}[kind]
    inside = _inset(areas, widths / 2 + edge)
    return _together([_lines(inside, widths, gaps, one, call) for one in angles])


def _together(parts: list[Hatching]) -> Hatching:
    if not parts:
        return Hatching(np.empty((0, 2)), np.empty(0, np.int64), np.empty(0, np.int64))
    points, counts, rows = zip(*parts, strict=True)
    return Hatching(np.vstack(points), np.concatenate(counts), np.concatenate(rows))


def _inset(areas: Shapes, by: Floats) -> Shapes:
    import shapely

    inset: Shapes = shapely.buffer(areas, -by, quad_segs=8)
    return inset


def refuse_many(count: float, call: str) -> None:
    """Refuse more strokes than a plotter would draw in a year."""
    if count > MOST_STROKES:
        raise BadValue(
            f"{call}: the plot would need {count:,.0f} strokes; the limit is {MOST_STROKES:,}. "
            "Use a wider hatch spacing or a wider pen, or draw less."
        )


def _rings(areas: Shapes, widths: Floats, gaps: Floats, edge: Floats, call: str) -> Hatching:
    """The borders of areas inset again and again."""
    import shapely

    parts, count, turn = [], 0, 0
    rows = np.arange(len(areas))
    while len(rows):
        inset = _inset(areas[rows], edge[rows] + widths[rows] / 2 + turn * gaps[rows])
        left = ~shapely.is_empty(inset)
        rows, inset = rows[left], inset[left]
        polygons, area_of = shapely.get_parts(inset, return_index=True)
        rings, of = shapely.get_rings(polygons, return_index=True)
        if len(rings):
            points, numbers = shapely.get_coordinates(rings, return_index=True)
            parts.append(Hatching(points, np.bincount(numbers), rows[area_of[of]]))
            count += len(rings)
            refuse_many(count, call)
        turn += 1
    return _together(parts)


def _lines(areas: Shapes, widths: Floats, gaps: Floats, angle: float, call: str) -> Hatching:
    """Parallel lines, joined to one where the way from one to the next stays inside."""
    import shapely

    polygons, rows = shapely.get_parts(areas, return_index=True)
    kept = ~shapely.is_empty(polygons)
    polygons, rows = polygons[kept], rows[kept]
    if not len(polygons):
        return _together([])
    turn = np.radians(angle)
    frame = np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    spans = _spans(polygons, gaps[rows], frame, call)
    following = _following(spans, polygons, widths[rows], gaps[rows], frame)
    order, begins = _in_chains(following, spans.number)
    # Every second line runs the other way.
    left, right = np.column_stack([spans.low, spans.y])[order], np.column_stack([spans.high, spans.y])[order]
    is_back = (spans.number[order] % 2 == 1)[:, None]
    points = np.stack([np.where(is_back, right, left), np.where(is_back, left, right)], axis=1)
    firsts = np.flatnonzero(begins)
    counts = 2 * np.diff(np.append(firsts, len(order)))
    return Hatching(points.reshape(-1, 2) @ frame.T, counts, rows[spans.polygon[order[firsts]]])


class _HatchSpans(NamedTuple):
    """Where parallel lines are inside polygons, sorted by polygon, line and place along it."""

    polygon: Ints
    number: Ints  # of the line, counted from below
    y: Floats
    low: Floats
    high: Floats


def _spans(polygons: Shapes, gaps: Floats, frame: Floats, call: str) -> _HatchSpans:
    """Between which x each line is inside: the crossings with the border, in pairs (even-odd)."""
    import shapely

    rings, polygon_of = shapely.get_rings(polygons, return_index=True)
    points, ring_of = shapely.get_coordinates(rings, return_index=True)
    points = points @ frame
    edges = np.flatnonzero(ring_of[1:] == ring_of[:-1])
    polygon = polygon_of[ring_of[edges]]
    low, high = points[edges], points[edges + 1]
    upside_down = (low[:, 1] > high[:, 1])[:, None]
    low, high = np.where(upside_down, high, low), np.where(upside_down, low, high)
    gap = gaps[polygon]
    phase = _phases(points[:, 1], polygon_of[ring_of], gaps)[polygon]
    first = np.ceil((low[:, 1] - phase) / gap).astype(np.int64)
    counts = np.ceil((high[:, 1] - phase) / gap).astype(np.int64) - first
    refuse_many(counts.sum() / 2, call)
    edge = np.repeat(np.arange(len(edges)), counts)
    number = ranges(first, counts)
    y = number * gap[edge] + phase[edge]
    rise = high[edge, 1] - low[edge, 1]
    x = low[edge, 0] + (y - low[edge, 1]) / rise * (high[edge, 0] - low[edge, 0])
    order = np.lexsort((x, number, polygon[edge]))
    here = order[::2]
    return _HatchSpans(polygon[edge][here], number[here], y[here], x[here], x[order[1::2]])


def _phases(heights: Floats, polygon: Ints, gaps: Floats) -> Floats:
    """How far the lines of each polygon are moved up: not at all, but if none met it, one goes through."""
    firsts = np.flatnonzero(np.diff(polygon, prepend=-1))
    low, high = np.minimum.reduceat(heights, firsts), np.maximum.reduceat(heights, firsts)
    is_missed = np.ceil(low / gaps) * gaps >= high
    phases: Floats = np.where(is_missed, (low + high) / 2 % gaps, 0.0)
    return phases


def _following(spans: _HatchSpans, polygons: Shapes, widths: Floats, gaps: Floats, frame: Floats) -> Ints:
    """The span of the next line that each is joined to, or -1.

    Two are joined if they lie side by side with no other, and the way between their ends stays inside.
    """
    import shapely

    count = len(spans.y)
    following = np.full(count, -1)
    if count < 2:
        return following
    # Each line of each polygon has a key; places along it are added to it.
    is_new = (np.diff(spans.polygon, prepend=-1) != 0) | (np.diff(spans.number, prepend=-1) != 0)
    line = np.cumsum(is_new) - 1
    heads = np.flatnonzero(is_new)
    reach = spans.high.max() - spans.low.min() + 1
    low, high = spans.low - spans.low.min(), spans.high - spans.low.min()
    starts, ends = line * reach + low, line * reach + high
    has_next = np.zeros(len(heads), bool)
    has_next[:-1] = (spans.polygon[heads[1:]] == spans.polygon[heads[:-1]]) & (
        spans.number[heads[1:]] == spans.number[heads[:-1]] + 1
    )
    has_before = np.append(False, has_next[:-1])

    def beside(offset: int) -> tuple[Ints, Ints]:
        """How many spans of a neighbouring line lie beside each, and the first of them."""
        there = (line + offset) * reach
        first = np.searchsorted(ends, there + low, "left")
        return np.searchsorted(starts, there + high, "right") - first, first

    after, nearest = beside(1)
    before, _ = beside(-1)
    one = np.flatnonzero(has_next[line] & (after == 1))
    one = one[(before[nearest[one]] == 1) & has_before[line[nearest[one]]]]
    other = nearest[one]
    is_back = spans.number[one] % 2 == 1
    begin = np.column_stack([np.where(is_back, spans.low[one], spans.high[one]), spans.y[one]])
    end = np.column_stack([np.where(is_back, spans.low[other], spans.high[other]), spans.y[other]])
    owner = spans.polygon[one]
    ways = shapely.linestrings(np.stack([begin @ frame.T, end @ frame.T], axis=1))
    room = shapely.buffer(polygons, STRAY * widths, quad_segs=2)
    shapely.prepare(room)
    is_short = np.hypot(*(end - begin).T) <= FARTHEST * gaps[owner]
    joined = is_short & shapely.covers(room[owner], ways)
    following[one[joined]] = other[joined]
    return following


def _in_chains(following: Ints, number: Ints) -> tuple[Ints, np.ndarray]:
    """Spans sorted so that each is before the one that follows it, and which of them begin a chain."""
    head = np.arange(len(following))
    has_one = np.flatnonzero(following >= 0)
    head[following[has_one]] = has_one
    while True:  # each time, twice as far back
        farther = head[head]
        if (farther == head).all():
            break
        head = farther
    order = np.lexsort((number, head))
    return order, np.diff(head[order], prepend=-1) != 0
