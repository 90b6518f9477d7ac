"""What can be wrong with equal sides and equal turns: the angle inside taken for the turn, a side too few, …

inner_angle(5, 108)   # what is there, and the fix
inner_angle(5, 72)    # None

Each takes a number of sides and the angle between them in degrees, above 0.
"""

from __future__ import annotations

from math import gcd, isclose, tau
from typing import NamedTuple

import numpy as np

from ovlo.core.values.arrays import Complexes
from ovlo.core.values.finding import Change

FEWEST_SIDES = 3

EQUAL_SIDES = 1e-6
"""Sides that differ by a smaller share are equal."""

EQUAL_TURNS = 1e-4
"""Turns that differ by fewer degrees are equal."""

ROUND_TURN = 30.0
"""Equal turns below this many degrees make a bow, and bows need not close."""

MOST_SIDES = 12
"""With more sides than this, turns that add up to nothing are a pattern."""

CLEARLY_NEARER = 2.0
"""A turn is taken for that of a figure if the next figure's is so many times as far from it."""

STAR_SIDES = 24
"""A star has no more points than this."""

FIGURES = {3: "triangle", 4: "square", 5: "pentagon", 6: "hexagon", 7: "heptagon", 8: "octagon"}


class Mistake(NamedTuple):
    """What is there, as the end of a sentence, the fix, and what that changes."""

    what: str
    fix: str
    change: Change | None = None


def equal_turn(sides: Complexes) -> float | None:
    """The turn, in degrees, that all corners between some sides have, if the sides are equal as well."""
    lengths = np.abs(sides)
    if len(sides) < FEWEST_SIDES or not lengths[0] or np.ptp(lengths) > EQUAL_SIDES * lengths[0]:
        return None
    turns = np.degrees(np.angle(sides[1:] * sides[:-1].conj()))
    turn = float(turns[0])
    if np.abs(turns - turn).max() > EQUAL_TURNS or not EQUAL_TURNS <= abs(turn) <= 180 - EQUAL_TURNS:
        return None
    return turn


def figure(sides: int) -> str:
    """What a regular polygon is called."""
    return FIGURES.get(sides, f"polygon of {sides} sides")


def inner_angle(n: int, angle: float) -> Mistake | None:
    """The corner's angle where the turn was meant: 180° - 360°·k/n."""
    if is_whole(n, angle):
        return None
    if is_angle(angle, 180 - 360 / n):
        return Mistake(
            f": {angle:.6g}° is the inner angle of a {figure(n)}, but a nib turns by the outer angle.",
            f"Turn by {typed(n)} after each side.",
            turn_change(angle, n),
        )
    for turns in range(2, n // 2 + 1) if angle >= ROUND_TURN and n <= STAR_SIDES else ():
        if gcd(turns, n) == 1 and is_angle(angle, 180 - 360 * turns / n):
            return Mistake(
                f": {angle:.6g}° is the inner angle at the points of a star, but a nib turns by the "
                f"outer angle.",
                f"Turn by {typed(n, turns)} after each side.",
                turn_change(angle, n, turns),
            )
    return None


def is_whole(n: int, angle: float) -> bool:
    """Whether the turns add up to whole turns."""
    return is_angle(n * angle, 360 * round(n * angle / 360))


def radians(n: int, angle: float) -> Mistake | None:
    """Turns that add up to 2π, as they do where degrees are meant and radians are given."""
    turns = round(n * angle / tau)
    if turns < 1 or not isclose(n * angle, tau * turns, rel_tol=1e-6):
        return None
    return Mistake(
        f": that is {turns * 2}π, so the turns are in radians, but a nib turns by degrees.",
        f"Turn by {typed(n, turns)} after each side; math.degrees(…) converts radians.",
        turn_change(angle, n, turns),
    )


def one_missing(n: int, angle: float) -> Mistake | None:
    """Whole turns with one side more."""
    turns = (n + 1) * angle / 360
    if not is_angle(turns, round(turns)) or round(turns) < 1:
        return None
    return Mistake(
        ": one side is missing.",
        f"Repeat {n + 1} times instead of {n}, or turn by {typed(n, round(turns))} for {n} sides.",
        Change("times", f"{n + 1}", n),
    )


def other_divisor(n: int, angle: float) -> Mistake | None:
    """The turn of a polygon with more sides."""
    sides = 360 / angle
    if not is_angle(sides, round(sides)) or not n < round(sides) <= MOST_SIDES or _is_bow(n, angle):
        return None
    whole = round(sides)
    return Mistake(
        f": {angle:.6g}° is 360 / {whole}, but there are {n} sides.",
        f"Turn by {typed(n)} after each side, or repeat {whole} times.",
        turn_change(angle, n),
    )


def unlike_any(n: int, angle: float) -> Mistake | None:
    """A turn of no polygon or star: the nearest one is meant, unless two of them are about as near."""
    if n > MOST_SIDES or angle < ROUND_TURN or _is_bow(n, angle):
        return None
    figures = sorted(
        (abs(angle - 360 * turns / n), turns) for turns in range(1, (n + 1) // 2) if gcd(turns, n) == 1
    )
    away, turns = figures[0]
    if len(figures) > 1 and figures[1][0] < CLEARLY_NEARER * away:
        both = " or ".join(typed(n, turns) for turns in sorted(turns for _, turns in figures[:2]))
        return Mistake(", so they cannot close.", f"For {n} sides turn by {both} after each.")
    return Mistake(
        ", so they cannot close.",
        f"For {n} sides turn by {typed(n, turns)} after each, or use nib.{full_turn(n, turns)}.",
        turn_change(angle, n, turns),
    )


def _is_bow(n: int, angle: float) -> bool:
    """Whether sides and turns make a quarter, half or three quarters of a turn, as a bow does."""
    return n * angle < 360 and is_angle(n * angle / 90, round(n * angle / 90)) and angle < 60


def full_turn(n: int, turns: int) -> str:
    """The loop that walks a polygon or star."""
    return f"full_turn({n})" if turns == 1 else f"full_turn({n}, rounds={turns})"


def typed(n: int, turns: int = 1) -> str:
    """A turn as it is to be typed: a rounded number of degrees would not close."""
    exact = f"360 / {n}" if turns == 1 else f"360 * {turns} / {n}"
    value = 360 * turns / n
    return f"{value:g}° ({exact})" if round(value, 3) == value else f"{exact} (about {value:.4g}°)"


def turn_change(angle: float, n: int, turns: int = 1) -> Change:
    """A turn by another angle, as it is to be typed."""
    value = 360 * turns / n
    exact = f"360 / {n}" if turns == 1 else f"360 * {turns} / {n}"
    return Change("turn", f"{value:g}" if round(value, 3) == value else exact, angle)


def is_angle(value: float, wanted: float) -> bool:
    """Whether two angles, in degrees, are the same to a reader."""
    return isclose(value, wanted, abs_tol=EQUAL_TURNS)
