"""The default pointer: the point of a pen, its tip where the nib is, pointing where the nib points.

    pointer_columns()

It is shown by replays, animations and overlays, and never part of the drawing.
"""

from __future__ import annotations

from functools import lru_cache

from ovlo.core.pen.blocks import Blocks
from ovlo.core.pen.moves import Moves
from ovlo.core.pen.shapes import Shapes
from ovlo.core.trail.columns import Columns, Style
from ovlo.core.trail.trail import Trail
from ovlo.core.values.pose import Pose

LENGTH = 26
"""Pixels from the tip to the other end."""


class _BareNib(Blocks, Shapes, Moves):
    """A nib without a sheet."""

    __slots__ = ()


@lru_cache(maxsize=1)
def pointer_columns() -> Columns:
    """The pointer, pointing east, one unit a pixel."""
    trail = Trail()
    pen = _BareNib(trail, 0, Pose(), Style())
    pen.line_width, pen.ink = 1.2, "#12303f"
    with pen.area("#2a9d8fd9"):
        for x, y in ((-9, 3.5), (-15, 7), (-LENGTH, 4.5), (-LENGTH, -4.5), (-15, -7), (-9, -3.5)):
            pen.line_to(x, y)
        pen.line_to_start()
    pen.line_to(-13, 0)
    pen.travel_to(-15, 0)
    pen.circle(2, fill="#f4faf8")
    return trail.columns()
