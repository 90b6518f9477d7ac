"""The rules about rows that are beside the middle, or that one more figure would bring there.

list(off_axis(sheet, boxes, told))
list(short_row(sheet, boxes, told))
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.paint.measures import MarkBoxes
from ovlo.core.values.arrays import Bools, Floats, Ints
from ovlo.core.values.finding import HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

EXACT = 1e-6
"""Of the sheet; middles that are nearer are one."""

FEWEST = 3
"""Places in the program that draw around one axis, so that another one should too."""

LEAST = 1.0
"""Pixels that can be seen."""

FEWEST_IN_ROW = 4
"""Figures in equal steps, which begin at one edge and end before the other."""

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
    figures = _figures(sheet, boxes)
    if figures is None:
        return
    lows, highs, steps, lines, is_filled = figures
    low, high = lows[:, 0], highs[:, 0]
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
            and not _lie_on_others(lows, highs, here, is_filled)
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


def _lie_on_others(low: Floats, high: Floats, here: Bools, is_filled: Bools) -> bool:
    """Whether each of some figures lies on a filled one of its own, as a gleam on each of several balls."""
    grounds: set[int] = set()
    for number in np.flatnonzero(here).tolist():
        others = np.flatnonzero(is_filled[:number] & ~here[:number])
        holds = ((low[others] <= low[number]) & (high[others] >= high[number])).all(axis=1)
        if not holds.any() or (ground := int(others[holds][-1])) in grounds:
            return False
        grounds.add(ground)
    return True


@rule(
    "short-row",
    HINT,
    f"Reported when {FEWEST_IN_ROW} equal figures or more, of one line of the program, stand in equal steps "
    "in a row or a grid, and one more step would leave as much room on one side as there is on the other, up "
    "to the edges of the sheet or of a filled figure beneath. Not reported if random numbers are used.",
)
def short_row(sheet: Sheet, boxes: MarkBoxes, told: set[int]) -> Iterator[Match]:
    """Rows that end one step too early."""
    figures = _figures(sheet, boxes)
    if figures is None:
        return
    low, high, steps, lines, is_filled = figures
    known: set[tuple[int, tuple[str, str]]] = set()
    exact, half = EXACT * sheet.width, np.array([sheet.width, sheet.height]) / 2
    for line in np.unique(lines[lines >= 0]).tolist():
        here = np.flatnonzero(lines == line)
        if np.ptp(high[here] - low[here], axis=0).max() > exact or not told.isdisjoint(steps[here].tolist()):
            continue
        corners = np.unique(np.round(low[here] / exact), axis=0)
        across, up = np.unique(corners[:, 0]) * exact, np.unique(corners[:, 1])
        gaps = np.diff(across)
        is_grid = len(corners) == len(across) * len(up)
        if len(across) < FEWEST_IN_ROW or not is_grid or np.ptp(gaps) > 3 * exact:
            continue
        least, most = low[here].min(axis=0), high[here].max(axis=0)
        below = np.flatnonzero(is_filled[: here[0]])
        below = below[((low[below] <= least + exact) & (high[below] >= most - exact)).all(axis=1)]
        before = least[0] - np.append(-half[0], low[below, 0])
        behind = np.append(half[0], high[below, 0]) - most[0]
        off, room = behind - before, np.minimum(behind, before)
        is_short = (np.abs(np.abs(off) - gaps[0]) <= 3 * exact) & (room > exact) & (room < gaps[0])
        if not is_short.any() or (np.abs(off) <= exact).any():
            continue
        sides = ("left", "right") if off[is_short][0] > 0 else ("right", "left")
        kind, least_room, unit = (len(across), sides), room[is_short][0], sheet.unit
        if kind not in known:  # parts of the same figures stand in the same row
            known.add(kind)
            yield Match(
                f"This row leaves {least_room:.4g} {unit} at the {sides[0]}, but {least_room + gaps[0]:.4g} "
                f"{unit} at the {sides[1]}: one more would fit as well as the others.",
                f"Draw one more, or move all of them {gaps[0] / 2:.4g} {unit} farther {sides[1]}.",
                complex(*most),
                tuple(steps[here].tolist()),
            )


def _figures(sheet: Sheet, boxes: MarkBoxes) -> tuple[Floats, Floats, Ints, Ints, Bools] | None:
    """The boxes of all marks but texts, their first steps, the lines that drew them, and which are filled.

    None where the lines are not known, or dice decide.
    """
    origins = sheet._origins
    if origins is None or sheet.seed is not None:
        return None
    count = len(boxes.low) - len(sheet._columns.texts)
    steps = boxes.steps[:count]
    lines = np.array([place.line for place in origins.places] + [-1])[origins.steps[steps]]
    is_filled = sheet._columns.of_steps("area")[steps] >= 0
    return boxes.low[:count], boxes.high[:count], steps, lines, is_filled
