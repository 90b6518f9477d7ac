"""Measures of a trail: how long, how large, whether the pen came back.

drawn_length(sheet.trail.columns())
"""

from __future__ import annotations

from math import hypot
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.columns import Columns

if TYPE_CHECKING:
    from ovlo.core.sheet import Sheet

CLOSED = 1e-9
"""A gap below this share of the drawn length is rounding, not a mistake."""


def drawn_length(columns: Columns) -> float:
    """The length of all drawn lines together, in sheet units."""
    drawn = columns.is_drawn
    moves = columns.points[drawn] - columns.starts[drawn]
    return float(np.hypot(moves[:, 0], moves[:, 1]).sum())


def gaps(sheet: Sheet) -> list[float]:
    """How far each nib ended from where it started, in sheet units; 0 when it came back."""
    tolerance = CLOSED * drawn_length(sheet.trail.columns())
    ends = [hypot(nib.position[0] - nib.start.x, nib.position[1] - nib.start.y) for nib in sheet.nibs]
    return [gap if gap > tolerance else 0.0 for gap in ends]
