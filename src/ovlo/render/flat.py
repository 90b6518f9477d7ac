"""The marks of a drawing as polylines with their styles, for other programs.

for path in flat_paths(columns, 0.05): ...
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ovlo.core.paint.letters import flat_letters
from ovlo.core.paint.order import painted
from ovlo.core.paint.outlines import CLOSE, MOVE
from ovlo.core.trail.columns import Columns, Style, Text
from ovlo.core.values.arrays import Bytes, Floats
from ovlo.core.values.choices import FillRule, LineCap, LineJoin
from ovlo.core.values.colour import Colour
from ovlo.render import lettering

NO_LINE = Style(line_width=0.0)


class FlatPath(NamedTuple):
    """A mark as polylines, one of `sheet.paths()`; lengths in sheet units.

    Attributes
    ----------
    contours : tuple of arrays of shape (n, 2)
        The points of each line or border; a closed one ends with its first point.
    is_closed : tuple of bool
        Whether each contour is closed, so that its ends are joined.
    fill : Colour or None
        The colour of the inside, if it is filled.
    fill_rule : "nonzero" or "evenodd"
    ink : Colour or None
        The colour of the line, if one is drawn.
    line_width : float
    line_dash : tuple of float
        As in SVG, begun at `dash_offset`.
    line_cap : "butt", "round" or "square"
    line_join : "miter", "round" or "bevel"
    words : str
        What the outlines of letters say; "" for other marks.
    """

    contours: tuple[Floats, ...]
    is_closed: tuple[bool, ...]
    fill: Colour | None
    fill_rule: FillRule
    ink: Colour | None
    line_width: float
    line_dash: tuple[float, ...]
    line_cap: LineCap
    line_join: LineJoin
    words: str
    dash_offset: float = 0.0


def flat_paths(columns: Columns, tolerance: float) -> list[FlatPath]:
    """All marks, the lowest first; arcs and letters are nowhere farther off than the tolerance."""
    painting = painted(columns)
    strokes, borders = painting.strokes.flattened(tolerance), painting.borders.flattened(tolerance)
    found = []
    for mark in painting.marks:
        if isinstance(mark, Text):
            letters = _contours(*flat_letters(*lettering.glyphs(mark), tolerance), is_area=True)
            found.append(_flat_path(letters, mark.ink, "nonzero", None, mark.words))
            continue
        outline = borders if mark.style is None else strokes
        contours = _contours(*outline.path(mark.number), is_area=mark.style is None)
        path = _flat_path(contours, mark.fill, mark.fill_rule, mark.style, "")
        found.append(path._replace(dash_offset=mark.dash_offset))
    return found


Contours = tuple[tuple[Floats, ...], tuple[bool, ...]]
"""Some contours, and which of them are closed."""


def _flat_path(
    contours: Contours, fill: Colour | None, fill_rule: FillRule, style: Style | None, words: str
) -> FlatPath:
    ink, width, dash, cap, join = NO_LINE if style is None else style
    return FlatPath(*contours, fill, fill_rule, None if style is None else ink, width, dash, cap, join, words)


def _contours(vertices: Floats, codes: Bytes, is_area: bool) -> Contours:
    """The pieces between moves, and whether each is closed; of an area all are."""
    starts = np.flatnonzero(codes == MOVE)
    pieces, closed = [], []
    for start, stop in zip(starts, [*starts[1:], len(codes)], strict=True):
        points, ends = vertices[start:stop], codes[stop - 1] == CLOSE
        points = points[:-1] if ends else points
        if (is_area or ends) and (points[0] != points[-1]).any():
            points = np.vstack([points, points[:1]])
        pieces.append(points)
        closed.append(bool(is_area or ends))
    return tuple(pieces), tuple(closed)
