"""The rule about one figure that lies on its like, while the others stand apart.

list(lies_on_another(sheet))
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.contours import AXES
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.finding import HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

Entries = NDArray[np.int32]

FEWEST, MOST = 4, 60
"""Calls of one function, each in a line of its own."""

MOST_ENTRIES = 20_000

EXACT = 1e-9
"""Of all places; x and y that are nearer are one."""

LEAST_COVERED = 0.1
"""Share of each rectangle in a row that the next one covers."""

SIDES = 4
"""Of a rectangle."""

ON, APART = 0.6, 0.05
"""Shares of the smaller of two boxes: so much lies on another, and no more of any two that stand apart."""


@rule(
    "lies-on-another",
    HINT,
    f"Reported when a function is called in {FEWEST} lines or more, and what one of them draws lies on what "
    f"the line before drew, by {ON:.0%} of its box or more and at the same x or y, while all others stand "
    "apart. Not reported if random numbers are used.",
)
def lies_on_another(sheet: Sheet) -> Iterator[Match]:
    """Figures in the place of the one before, as when a line was copied and its place left as it was."""
    origins, columns = sheet._origins, sheet._columns
    if origins is None or sheet.seed is not None or len(origins.entry_calls) > MOST_ENTRIES:
        return
    groups = list(_siblings(origins))
    if not groups:
        return
    seen = np.flatnonzero((columns.of_steps("pen") != PenState.JUMP) & (origins.step_entries >= 0))
    entries = origins.step_entries[seen]
    depths = origins.depths()
    lows, highs = _boxes(columns, seen, entries, origins.entry_parents, depths)
    for group in groups:
        low, high = lows[group], highs[group]
        if np.isinf(low).any():
            continue  # one of them draws nothing
        shared = np.clip(np.minimum(high[:, None], high) - np.maximum(low[:, None], low), 0, None).prod(
            axis=2
        )
        sizes = np.maximum((high - low).prod(axis=1), 1e-12)
        shares = np.triu(shared / np.minimum(sizes[:, None], sizes), 1)
        one, other = np.unravel_index(shares.argmax(), shares.shape)
        if shares[one, other] < ON or other != one + 1 or np.sort(shares, axis=None)[-2] > APART:
            continue
        if not _is_copied(low, int(other)) and not _is_copied(low + high, int(other)):
            continue
        name = origins.calls[origins.entry_calls[group[other]]].function
        inside = origins.nearest_among(np.arange(len(lows)) == group[other], depths)
        yield Match(
            f"What this call of {name} draws lies on what the one before drew; the other {len(group) - 2} "
            "stand apart.",
            "Give it a place of its own, unless it belongs there.",
            complex((low[other] + high[other]) / 2 @ AXES),
            tuple(seen[inside[entries] >= 0].tolist()),
        )


@rule(
    "covered-row",
    HINT,
    f"Reported when {FEWEST} filled rectangles or more that a loop draws stand on one line, and each of them "
    f"covers {LEAST_COVERED:.0%} of the one before or more, always the same. Not reported for translucent "
    "ones.",
)
def covered_row(sheet: Sheet) -> Iterator[Match]:
    """Bars that are wider than they are apart."""
    origins, columns = sheet._origins, sheet._columns
    if origins is None or sheet.seed is not None:
        return
    for place, low, high, steps in _rectangles(columns, origins):
        width, step = float(high[0, 0] - low[0, 0]), float(low[1, 0] - low[0, 0])
        exact = EXACT * float(high.max() - low.min())
        is_row = np.ptp(high[:, 0] - low[:, 0]) <= exact and np.ptp(np.diff(low[:, 0])) <= exact
        is_level = np.ptp(low[:, 1]) <= exact or np.ptp(high[:, 1]) <= exact
        if place < 0 or not is_row or not is_level:
            continue
        if LEAST_COVERED <= 1 - abs(step) / width < 1:
            unit = sheet.unit
            yield Match(
                f"These {len(low)} rectangles are {width:g} {unit} wide, but {abs(step):g} {unit} apart, so "
                "that each covers a part of the one before.",
                f"Place them {width:g} {unit} apart or more, or make them {abs(step):g} {unit} wide, unless "
                "this is intended.",
                complex((low[1] + high[1]) / 2 @ AXES),
                tuple(steps),
            )


def _rectangles(columns: Columns, origins: Origins) -> Iterator[tuple[int, Floats, Floats, list[int]]]:
    """Runs of filled upright rectangles of one place in the program: it, their corners and first steps."""
    areas = columns.of_steps("area")
    rows = np.flatnonzero((areas >= 0) & (columns.of_steps("pen") != PenState.JUMP))
    if not len(rows):
        return
    firsts = np.flatnonzero(np.diff(areas[rows], prepend=-1) != 0)
    counts = np.diff(np.append(firsts, len(rows)))
    heads = rows[firsts]
    ends = columns.points[rows]
    low, high = np.minimum.reduceat(ends, firsts), np.maximum.reduceat(ends, firsts)
    headings = columns.steps["heading"][rows]
    is_level = np.logical_and.reduceat(headings % 90 == 0, firsts) & (counts == SIDES)
    is_level &= columns.areas["opacity"][areas[heads]] == 1
    keys = np.where(is_level, origins.steps[heads], -1)
    stops = np.flatnonzero(np.diff(keys) != 0) + 1
    for part in np.split(np.arange(len(keys)), stops):
        if len(part) >= FEWEST:
            yield int(keys[part[0]]), low[part], high[part], heads[part].tolist()


def _boxes(
    columns: Columns, steps: Ints, entries: Entries, parents: Entries, depths: list[Ints]
) -> tuple[Floats, Floats]:
    """The corners of what each entry draws, itself and by what it calls, each of shape (n, 2)."""
    low, high = (np.full((len(parents), 2), far) for far in (np.inf, -np.inf))
    for places in (columns.starts[steps], columns.points[steps]):
        np.minimum.at(low, entries, places)
        np.maximum.at(high, entries, places)
    for rows in reversed(depths):
        np.minimum.at(low, parents[rows], low[rows])
        np.maximum.at(high, parents[rows], high[rows])
    return low, high


def _is_copied(places: Floats, row: int) -> bool:
    """Whether one place has x or y from the one before, and no other two have one in common."""
    is_same = np.abs(np.diff(places, axis=0)) <= EXACT * np.ptp(places)
    return bool((is_same[row - 1] & (is_same.sum(axis=0) == 1)).any())


def _siblings(origins: Origins) -> Iterator[Ints]:
    """The calls of one function by one call of another, each in a line of its own."""
    groups: dict[tuple[int, str], list[int]] = {}
    for entry, (call, parent) in enumerate(
        zip(origins.entry_calls.tolist(), origins.entry_parents.tolist(), strict=True)
    ):
        groups.setdefault((parent, origins.calls[call].function), []).append(entry)
    for entries in groups.values():
        lines = set(origins.entry_lines[entries].tolist())
        if FEWEST <= len(entries) <= MOST and len(lines) == len(entries):
            yield np.array(entries)
