"""What single change would close a chain of lines: another length, another turn, two lengths exchanged.

way = repair(Chain(sides, is_curved), "px")
way.fix    # "Make the 3rd line 160 px long instead of 120."

Only changes a slip would undo are tried, so that what is open on purpose is not closed by chance: a length
becomes that of another line, a turn goes to the other side, or the angle inside becomes the outer one.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.contours import MEETS
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints
from ovlo.core.values.finding import Change

FEWEST_LINES = 3

MOST_LINES = 200
"""Of a chain that is looked at."""

MOST_TURNS = 12
"""Different turns of such a chain."""

FEW_LINES = 12
"""A slip at one of several equal corners is looked for in chains of so many lines."""


class Chain(NamedTuple):
    """Lines, each with its way from beginning to end, whether it is curved, and its place; shape (n,).

    Lines of one place come from one line of the program, so what is wrong with one is wrong with all of them,
    unless they differ anyway. Where that is not known, all places are their own.
    """

    sides: Complexes
    is_curved: Bools
    places: Ints


class Repair(NamedTuple):
    """A change that closes a chain: what is wrong, the fix, and which of its lines the fix speaks of."""

    what: str
    fix: str
    lines: tuple[int, ...]
    is_last_length: bool = False
    change: Change | None = None


def repair(chain: Chain, unit: str) -> Repair | None:
    """The first change that closes a chain, so that it does not cross itself."""
    n = len(chain.sides)
    if not FEWEST_LINES <= n <= MOST_LINES or not np.abs(chain.sides).all():
        return None
    for sides, way in (*_lengths(chain, unit), *_exchanges(chain, unit), *_turns(chain)):
        if abs(sides.sum()) <= MEETS * np.abs(sides).sum() and _is_simple(sides):
            return way
    return None


def _is_simple(sides: Complexes) -> bool:
    import shapely

    points = np.append(0, np.cumsum(sides)[:-1])
    return bool(shapely.LinearRing(np.column_stack([points.real, points.imag])).is_simple)


def _lengths(chain: Chain, unit: str) -> Iterator[tuple[Complexes, Repair]]:
    """One line as long as another one."""
    sides, lengths = chain.sides, np.abs(chain.sides)
    wanted = sides - sides.sum()
    along = wanted / sides
    fits = (np.abs(along.imag) <= MEETS) & (along.real > 0) & ~chain.is_curved
    fits &= len(sides) > FEWEST_LINES
    for i in np.flatnonzero(fits)[::-1].tolist():
        new = float(abs(wanted[i]))
        others = np.abs(lengths - new) <= MEETS * new
        if (
            _is_alone(chain.places == chain.places[i], lengths)
            and others.any()
            and abs(new - lengths[i]) > MEETS * new
        ):
            changed = sides.copy()
            changed[i] = wanted[i]
            fix = f"Make the {_ordinal(i + 1)} line {new:.6g} {unit} long instead of {lengths[i]:.6g}."
            what = f"with its {_ordinal(i + 1)} line {new:.6g} {unit} long"
            is_last = i == len(sides) - 1 and new > lengths[i]
            yield changed, Repair(what, fix, (i,), is_last, Change("length", f"{new:.6g}", lengths[i]))


def _exchanges(chain: Chain, unit: str) -> Iterator[tuple[Complexes, Repair]]:
    """Two lengths exchanged."""
    sides, lengths = chain.sides, np.abs(chain.sides)
    if not FEWEST_LINES < len(sides) <= FEW_LINES or chain.is_curved.any():
        return
    ways = sides / lengths
    for i in range(len(sides)):
        for j in range(i + 1, len(sides)):
            if abs(lengths[i] - lengths[j]) > MEETS * lengths[i]:
                changed = sides.copy()
                changed[i], changed[j] = ways[i] * lengths[j], ways[j] * lengths[i]
                fix = (
                    f"Make the {_ordinal(i + 1)} line {lengths[j]:.6g} {unit} long and the {_ordinal(j + 1)} "
                    f"{lengths[i]:.6g}."
                )
                what = f"with its {_ordinal(i + 1)} and {_ordinal(j + 1)} lengths exchanged"
                yield changed, Repair(what, fix, (i, j))


def _turns(chain: Chain) -> Iterator[tuple[Complexes, Repair]]:
    """A turn to the other side, or by the outer angle: at all corners that turn alike, or at one of them."""
    sides = chain.sides
    turns = np.degrees(np.angle(sides[1:] / sides[:-1]))
    values = np.unique(np.round(turns, 4))
    n = len(sides)
    # The turn is written between the lines of two places.
    _, pairs = np.unique(np.column_stack([chain.places[:-1], chain.places[1:]]), axis=0, return_inverse=True)
    pairs = pairs.reshape(-1)
    if chain.is_curved.any() or len(values) > MOST_TURNS:
        return
    for value in values.tolist():
        corners = np.flatnonzero(np.abs(turns - value) <= 2e-4)
        side = "left" if value > 0 else "right"
        other = "right" if value > 0 else "left"
        size = abs(value)
        if not 1 <= size <= 179:
            continue
        if abs(size - 90) > MEETS:
            outer = np.copysign(180 - size, value)
            fix = f"Turn {side} by {180 - size:.6g}° instead of {size:.6g}° at these corners."
            what = f"with turns by the outer angle, {180 - size:.6g}°, where it turns {side} by {size:.6g}°"
            change = Change("turn", f"{180 - size:.6g}", size)
            yield (
                _turned(sides, corners, outer - value),
                Repair(what, fix, tuple(corners.tolist()), change=change),
            )
        if n == FEWEST_LINES:
            continue  # what turns to both sides is a Z
        alone = [
            corners[i : i + 1] for i in range(len(corners)) if _is_alone(pairs == pairs[corners[i]], turns)
        ]
        for some in (corners, *(alone if len(corners) > 1 and n <= FEW_LINES else ())):
            where = "at these corners" if len(some) > 1 else f"after the {_ordinal(int(some[0]) + 1)} line"
            fix = f"Turn {other} by {size:.6g}° instead of {side} {where}."
            what = f"if it turned {other} {where}"
            change = Change("side", other, size)
            yield _turned(sides, some, -2 * value), Repair(what, fix, tuple(some.tolist()), change=change)


def _is_alone(alike: Bools, values: Floats) -> bool:
    """Whether what comes from one place is a single thing, or differs from time to time."""
    return bool(alike.sum() == 1 or np.ptp(values[alike]) > MEETS * np.abs(values[alike]).max())


def _turned(sides: Complexes, corners: Ints, by: float) -> Complexes:
    """The chain with all after some corners turned once more for each."""
    counts = np.zeros(len(sides))
    counts[corners + 1] = 1
    found: Complexes = sides * np.exp(1j * np.radians(by * np.cumsum(counts)))
    return found


def _ordinal(n: int) -> str:
    ending = {1: "st", 2: "nd", 3: "rd"}.get(n % 10, "th") if n % 100 not in (11, 12, 13) else "th"
    return f"{n}{ending}"
