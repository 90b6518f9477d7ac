"""Mitres: the points that lines with mitred joins have at their corners, as small areas of their own.

    kites = mitres(vertices, codes, line_width, 0.02)

For rasterisers that cannot be told how long a mitre may be. Drawn with bevelled joins and with these areas, a
line is what it is with mitres (SVG 2, 13.5.5): each area reaches from the corner itself to the point.
"""

from __future__ import annotations

import numpy as np

from ovlo.core.paint.outlines import CLOSE, MOVE
from ovlo.core.values.arrays import Bytes, Floats

MITER_LIMIT = 10
"""How many times the width of its line a mitre may be long; a longer one is cut off."""


def mitres(vertices: Floats, codes: Bytes, line_width: float, finest: float) -> Floats:
    """The corners, sides and points of the mitres of a path of straight lines, shape (m, 4, 2).

    Those that stand out from a bevel by less than `finest` are left out.
    """
    ends = np.flatnonzero(codes != MOVE)
    ways = vertices[ends] - vertices[ends - 1]
    lengths = np.hypot(*ways.T)
    moving = lengths > 0
    ends, ways = ends[moving], ways[moving] / lengths[moving, None]
    if not len(ends):
        return np.empty((0, 4, 2))
    pieces = np.cumsum(codes == MOVE)[ends]
    following = np.arange(1, len(ends) + 1)
    lasts = np.flatnonzero(np.diff(np.append(pieces, -1)))
    firsts = np.append(0, lasts[:-1] + 1)
    following[lasts] = firsts
    has_corner = np.ones(len(ends), bool)
    has_corner[lasts] = codes[ends[lasts]] == CLOSE
    after = ways[following]
    cosine = (ways * after).sum(axis=1)
    cross = ways[:, 0] * after[:, 1] - ways[:, 1] * after[:, 0]
    # With the turn t, a mitre is 1/cos(t/2) widths long, and the bevel lies cos(t/2) half widths out.
    half_turn = np.sqrt(np.maximum((1 + cosine) / 2, 0.0))
    with np.errstate(divide="ignore"):
        reach = 1 / half_turn
    has_corner &= (reach <= MITER_LIMIT) & (line_width / 2 * (reach - half_turn) > finest)
    corner, before, after = vertices[ends[has_corner]], ways[has_corner], after[has_corner]
    # The point is on the outer side of the turn.
    side = -np.sign(cross[has_corner])[:, None] * line_width / 2
    first, second = (side * way[:, ::-1] * [-1, 1] for way in (before, after))
    point = (first + second) / (1 + cosine[has_corner])[:, None]
    return np.stack([corner, corner + first, corner + point, corner + second], axis=1)
