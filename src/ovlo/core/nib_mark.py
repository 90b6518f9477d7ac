"""The mark that shows where a nib is and where it points: the point of a pen, its tip on the position.

    nib_mark().scaled(0.5)

It is shown by replays, animations and overlays, and never part of the drawing.
"""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

from ovlo.core.motif import Motif

if TYPE_CHECKING:
    from ovlo.core.nib import Nib

LENGTH = 26
"""Pixels from the tip to the other end."""


@lru_cache(maxsize=1)
def nib_mark() -> Motif:
    """The mark, pointing east, one unit a pixel."""
    return Motif.record(_point_of_a_pen)


def _point_of_a_pen(nib: Nib) -> None:
    nib.line_width, nib.ink = 1.2, "#12303f"
    with nib.filled("#2a9d8fd9"):
        for x, y in ((-9, 3.5), (-15, 7), (-LENGTH, 4.5), (-LENGTH, -4.5), (-15, -7), (-9, -3.5)):
            nib.line_to(x, y)
        nib.close()
    nib.line_to(-13, 0)
    nib.travel_to(-15, 0)
    nib.circle(2, fill="#f4faf8")
