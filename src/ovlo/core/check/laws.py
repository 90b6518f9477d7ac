"""Laws that numbers, places or angles keep: equal, growing by one sum, or either of them by turns.

law = law_of_numbers(lengths, exact)
law.asked, law.odd    # what each should be, and the row that is not

Nothing is known of a picture here, only of rows of numbers.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from ovlo.core.check.series import FEWEST
from ovlo.core.values.arrays import Complexes, Floats, Ints

LONGEST_TURNS = 24
"""Figures after which a law by turns begins again."""

EACH = 3
"""How often each of several that take turns comes at least."""

STRONG = 2
"""So many more figures keep a law than it has numbers of its own."""


class Law(NamedTuple):
    """What a law asks of the rows of a series, and which rows do not keep it."""

    asked: Floats
    breaks: Ints
    turns: int
    is_growth: bool

    @property
    def odd(self) -> int | None:
        """The row, or the first of the rows of one round of turns, that breaks it; neither first nor last."""
        if not len(self.breaks):
            return None
        count, first, last = len(self.asked), int(self.breaks[0]), int(self.breaks[-1])
        if first == last:
            return first if 0 < first < count - 1 else None
        round_of = first // self.turns
        is_inner = 0 < round_of < (count - 1) // self.turns
        return first if is_inner and last // self.turns == round_of else None


def law_of_numbers(values: Floats, exact: float) -> Law | None:
    """The simplest law that all numbers keep, or all but one: equal, growing evenly, or either by turns."""
    return _law_of_rows(values[:, None], exact)


def law_of_places(places: Complexes, exact: float) -> Law | None:
    """The same for places, which keep a law in both coordinates."""
    return _law_of_rows(np.column_stack([places.real, places.imag]), exact)


def law_of_angles(angles: Floats) -> Law | None:
    """The same for angles in degrees, which begin again at 360."""
    return _simplest(len(angles), lambda turns: _angles_by_turns(angles, turns))


def _law_of_rows(rows: Floats, exact: float) -> Law | None:
    """The simplest law that all rows keep, else that all but one keep."""
    return _simplest(len(rows), lambda turns: by_turns(rows, turns, exact))


def _simplest(count: int, law_of: Callable[[int], Law]) -> Law | None:
    """The law of the fewest turns that nothing breaks, else the first that all but one keep."""
    nearly: Law | None = None
    for turns in range(1, min(LONGEST_TURNS, count // EACH) + 1):
        law = law_of(turns)
        if not len(law.breaks):
            return law
        # So many more must keep a law than it has numbers.
        is_strong = count - len(law.breaks) >= max(FEWEST - 1, turns + 1 + STRONG)
        is_strong &= len(law.breaks) == 1 or count // turns >= FEWEST
        if nearly is None and is_strong and law.breaks[0] // turns == law.breaks[-1] // turns:
            nearly = law
    return nearly


def _angles_by_turns(angles: Floats, turns: int) -> Law:
    """Angles of which every so many grow by one sum."""
    rounds = np.arange(len(angles)) // turns
    growth = float(np.median(wrapped(angles[turns:] - angles[:-turns])))
    asked = np.empty_like(angles)
    for first in range(turns):
        level = angles[first::turns] - rounds[first::turns] * growth
        asked[first::turns] = level[0] + np.median(wrapped(level - level[0]))
    asked += rounds * growth
    breaks = np.flatnonzero(np.abs(wrapped(angles - asked)) > 1e-3)
    return Law(asked, breaks, turns, abs(growth) > 1e-3)


def wrapped(angles: Floats) -> Floats:
    """Angles from -180 up to 180 degrees."""
    found: Floats = (angles + 180) % 360 - 180
    return found


def by_turns(rows: Floats, turns: int, exact: float) -> Law:
    """Rows of which every so many grow by one sum: what that asks of each, and which rows break it."""
    rounds = np.arange(len(rows)) // turns
    growth = np.median(rows[turns:] - rows[:-turns], axis=0)
    level = rows - rounds[:, None] * growth
    asked = np.empty_like(rows)
    for first in range(turns):
        asked[first::turns] = np.median(level[first::turns], axis=0)
    asked += rounds[:, None] * growth
    breaks = np.flatnonzero((np.abs(rows - asked) > exact).any(axis=1))
    is_growth = bool((np.abs(growth) > exact).any())
    return Law(asked[:, 0] if rows.shape[1] == 1 else asked, breaks, turns, is_growth)
