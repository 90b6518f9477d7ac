"""Lines cut to a box, and cut into dashes: what is left of them, so that no line is too long to be painted.

    vertices, codes = cut(vertices, codes, (-320, -240, 320, 240))
    vertices, codes = cut(vertices, codes, box, dashes=(6, 4))

All lines must be straight. A dash goes on around corners; each piece begins its dashes anew (SVG 2, 13.5.6).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ovlo.core.paint.outlines import CLOSE, LINE, MOVE, ranges
from ovlo.core.trail.columns import Style
from ovlo.core.values.arrays import Box, Bytes, Floats, Ints

Path = tuple[Floats, Bytes]

DOT = 1e-6
"""The length of a dash of no length, which shows its caps, as a share of the whole pattern."""


def without_fine_dashes(style: Style, finest: float) -> Style:
    """A style whose dashes, if they are too fine to be seen, are a paler line."""
    period = sum(style.line_dash)
    if not style.line_dash or period >= finest:
        return style
    ends = 0.0 if style.line_cap == "butt" else style.line_width
    share = sum(style.line_dash[::2]) + ends * len(style.line_dash) / 2
    opacity = style.ink.opacity * min(share / period, 1.0)
    return style._replace(ink=replace(style.ink, opacity=opacity), line_dash=())


def cut(vertices: Floats, codes: Bytes, box: Box, dashes: Sequence[float] = (), offset: float = 0.0) -> Path:
    """What is inside a box (left, bottom, right, top) of a path's lines, in dashes if there are any.

    Dashes begin as if each piece were longer by the offset before.
    """
    ends = np.flatnonzero(codes != MOVE)
    if not len(ends):
        return vertices, codes
    start, step = vertices[ends - 1], vertices[ends] - vertices[ends - 1]
    pieces = np.cumsum(codes == MOVE)[ends]
    first, last = shares_inside(start, step, box)
    if dashes:
        first, last, seen = _dashed(first, last, np.hypot(*step.T), pieces, dashes, offset)
        is_closed = np.zeros(len(seen), bool)
    else:
        is_whole = (first == 0) & (last == 1)
        opens = np.flatnonzero(np.diff(pieces, prepend=-1))
        whole_pieces = np.logical_and.reduceat(is_whole, opens)
        if whole_pieces.all():
            return vertices, codes
        seen = np.flatnonzero(first <= last)
        first, last = first[seen], last[seen]
        numbers = np.searchsorted(opens, seen, "right") - 1
        is_closed = whole_pieces[numbers] & (codes[ends[seen]] == CLOSE)
    if not len(seen):
        return vertices[:0], codes[:0]
    # A part goes on where the one before ended: at the end of the line before, in the same piece.
    goes_on = np.zeros(len(seen), bool)
    goes_on[1:] = (first[1:] == 0) & (last[:-1] == 1) & (seen[1:] == seen[:-1] + 1)
    goes_on[1:] &= pieces[seen[1:]] == pieces[seen[:-1]]
    places = np.cumsum(np.where(goes_on, 1, 2)) - 1
    begins = places[~goes_on] - 1
    points = np.empty((int(places[-1]) + 1, 2))
    points[places] = start[seen] + last[:, None] * step[seen]
    points[begins] = (start[seen] + first[:, None] * step[seen])[~goes_on]
    kinds = np.full(len(points), LINE, np.uint8)
    kinds[begins] = MOVE
    kinds[places[is_closed]] = CLOSE
    return points, kinds


def shares_inside(start: Floats, step: Floats, box: Box) -> tuple[Floats, Floats]:
    """The shares at which lines enter and leave a box (Liang and Barsky, 1984); none where first > last."""
    first, last = np.zeros(len(start)), np.ones(len(start))
    low, high = np.array(box[:2]), np.array(box[2:])
    with np.errstate(all="ignore"):
        for axis in (0, 1):
            at, going = start[:, axis], step[:, axis]
            near, far = (low[axis] - at) / going, (high[axis] - at) / going
            stands = going == 0
            enter, leave = np.minimum(near, far), np.maximum(near, far)
            enter[stands] = np.where((at >= low[axis]) & (at <= high[axis]), 0.0, 2.0)[stands]
            leave[stands] = 1.0
            np.maximum(first, enter, out=first)
            np.minimum(last, leave, out=last)
    return first, last


def _dashed(
    first: Floats, last: Floats, lengths: Floats, pieces: Ints, dashes: Sequence[float], offset: float
) -> tuple[Floats, Floats, Ints]:
    """The shares of lines that dashes cover, with the number of the line, in order."""
    pattern = np.cumsum([0.0, *dashes])
    period = float(pattern[-1])
    starts = np.cumsum(lengths) - lengths
    # Lengths are counted from the beginning of each piece.
    opens = np.flatnonzero(np.diff(pieces, prepend=-1))
    starts -= np.repeat(starts[opens], np.diff(np.append(opens, len(starts)))) - offset
    lines = np.flatnonzero((first <= last) & (lengths > 0))
    if not len(lines):
        return first[:0], last[:0], lines
    begin, stop = (starts[lines] + share[lines] * lengths[lines] for share in (first, last))
    low = np.floor(begin / period).astype(np.int64)
    rounds = np.floor(stop / period).astype(np.int64) - low + 1
    # One row a dash: the line it may lie on, and where it begins and ends along its piece.
    which = np.repeat(np.arange(len(lines)), rounds * (len(dashes) // 2))
    number = ranges(low, rounds)[:, None] * period
    dash_begin, dash_end = (number + pattern[:-1:2]).ravel(), (number + pattern[1::2]).ravel()
    dash_end = np.where(dash_end == dash_begin, dash_begin + DOT * period, dash_end)
    reached_from, reached_to = np.maximum(dash_begin, begin[which]), np.minimum(dash_end, stop[which])
    kept = reached_from < reached_to
    which, reached_from, reached_to = which[kept], reached_from[kept], reached_to[kept]
    line = lines[which]
    # What reaches an end of a line reaches it to the last digit.
    shares = [
        np.where(reached == end[which], known[line], (reached - starts[line]) / lengths[line])
        for reached, end, known in ((reached_from, begin, first), (reached_to, stop, last))
    ]
    return shares[0], shares[1], line
