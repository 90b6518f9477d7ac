"""The rule about figures that are nearly in the middle, where all else is exactly there.

list(off_axis(sheet, told))
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.paint.measures import MarkBoxes
from ovlo.core.values.finding import HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

EXACT = 1e-6
"""Of the sheet; middles that are nearer are one."""

FEWEST = 3
"""Places in the program that draw around one axis, so that another one should too."""

LEAST = 1.0
"""Pixels that can be seen."""

NEAR = 0.25
"""Of its width, by which what is in the middle but for a slip is beside it."""


@rule(
    "off-axis",
    HINT,
    f"Reported when {FEWEST} lines of the program or more each draw something with its middle on the upright "
    f"axis of the sheet, and the filled figures that another one draws have theirs beside it, by {NEAR:.0%} "
    "of their width or less. Not reported if random numbers are used.",
)
def off_axis(sheet: Sheet, boxes: MarkBoxes, told: set[int]) -> Iterator[Match]:
    """What one line of the program draws beside the axis of all others."""
    origins = sheet._origins
    if origins is None or sheet.seed is not None:
        return
    count = len(boxes.low) - len(sheet._columns.texts)
    low, high, steps = boxes.low[:count, 0], boxes.high[:count, 0], boxes.steps[:count]
    is_filled = sheet._columns.of_steps("area")[steps] >= 0
    lines = np.array([place.line for place in origins.places] + [-1])[origins.steps[steps]]
    exact = EXACT * sheet.width
    on, off = 0, []
    for line in np.unique(lines[lines >= 0]).tolist():
        here = lines == line
        least, most = float(low[here].min()), float(high[here].max())
        beside, width = (least + most) / 2, most - least
        on += abs(beside) <= exact < width
        # A row that is even around another axis is shifted; what is uneven, or one alone, may be anywhere.
        is_even = np.abs(np.sort(low[here]) + np.sort(high[here])[::-1] - 2 * beside).max() <= exact
        if (
            is_even
            and here.sum() > 1
            and is_filled[here].all()
            and abs(beside) * sheet._pixels_per_unit >= LEAST
            and abs(beside) <= NEAR * width
        ):
            off.append((here, beside))
    if on < FEWEST or len({round(beside / exact) for _, beside in off}) != 1:
        return
    here, beside = off[0]
    mine = steps[here]
    sides = ("right", "left") if beside > 0 else ("left", "right")
    if told.isdisjoint(mine.tolist()):
        yield Match(
            f"What is drawn here has its middle {abs(beside):.4g} {sheet.unit} to the {sides[0]} of the axis "
            "on which all else has it.",
            f"Move it {abs(beside):.4g} {sheet.unit} to the {sides[1]}, or make both halves equally wide.",
            complex(beside, 0),
            tuple(mine.tolist()),
        )
