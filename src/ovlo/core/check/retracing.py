"""The rule about lines drawn twice: a walk that goes on past its own beginning.

found = retraced_line(contour)
"""

from __future__ import annotations

from math import gcd

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.polygons import FEWEST_SIDES, figure, is_angle, typed
from ovlo.core.check.turning import turn_of
from ovlo.core.paint.contours import MEETS, Contour
from ovlo.core.values.finding import HINT, Change, Match, rule

MOST_SIDES = 100
"""Figures of more sides are not what the number of a loop is about."""


@rule(
    "retraced-line",
    HINT,
    f"Reported when a walk returns to its start after {FEWEST_SIDES} or more steps, and all "
    "further steps repeat the first ones in the same order and, on curves, in the same direction.",
)
def retraced_line(contour: Contour, places: NDArray[np.int32] | None = None) -> Match | None:
    """A walk that runs on past its own beginning: its last steps are its first ones again.

    `places` are the numbers of the places of all steps in the program, if they are known.
    """
    points, n = contour.points, len(contour)
    near = MEETS * contour.size
    for closed in np.flatnonzero(np.abs(points[FEWEST_SIDES:-1] - points[0]) <= near) + FEWEST_SIDES:
        again = n - int(closed)
        if abs(points[closed + 1] - points[1]) > near:
            continue
        # What follows goes round as the first round did, as often as it takes.
        expected = points[np.arange(1, again + 1) % closed]
        if (np.abs(points[closed + 1 :] - expected) <= near).all() and _bends_alike(contour, int(closed)):
            parts = 1 if places is None else len(np.unique(places[contour.steps]))
            return _told_retraced(contour, int(closed), again, parts)
    return None


def _bends_alike(contour: Contour, closed: int) -> bool:
    """Whether what follows takes the same way, not only through the same points: circles may share theirs."""
    again = np.arange(closed, len(contour))
    apart = np.abs(contour.within[again] - contour.within[again % closed])
    return bool((apart <= MEETS * contour.size).all())


def _told_retraced(contour: Contour, closed: int, again: int, parts: int) -> Match:
    n, turn = len(contour), turn_of(contour)
    rounds = again / closed
    if again == 1:
        what = "its last step draws its first step again"
    elif rounds == round(rounds):
        what = f"its last {again} steps go round {'once' if rounds == 1 else f'{rounds:g} times'} more"
    else:
        what = f"its last {again} steps draw its first steps again"
    fix, change = f"Stop after {closed} steps instead of {n}.", None
    if turn is not None and _is_plain(n, abs(turn), closed):
        # Nobody means a star by it.
        fix, change = f"Repeat {closed} times instead of {n}.", Change("times", f"{closed}", n)
        if parts > 1:  # several sides in each round of a loop
            fix = f"Stop after {closed} sides instead of {n}, or turn one of them to the other side."
    elif turn is not None:
        fix = _both_readings(n, abs(turn), closed)
    steps = tuple(contour.steps[closed:].tolist())
    middle = (contour.points[closed] + contour.points[closed + 1]) / 2
    return Match(
        f"This walk is closed after {closed} steps, but {what}.", fix, complex(middle), steps, change=change
    )


def _is_plain(n: int, angle: float, closed: int) -> bool:
    """Whether it is a plain polygon, walked so often that no star of n points can be meant."""
    is_often = n % closed == 0 and n >= 4 * closed
    return n > MOST_SIDES or (is_often and is_angle(angle, 360 / closed))


def _both_readings(n: int, angle: float, closed: int) -> str:
    """What was meant by n sides: as many, with another turn; or fewer."""
    rounds = round(n * angle / 360)
    if not is_angle(n * angle, 360 * rounds) or rounds < 2 or is_angle(angle, 180 - 360 / n):
        return f"For {n} sides turn by {typed(n)}, or repeat {closed} times."
    # A star of n points is one stroke when its rounds and n have no common divisor (Coxeter, 2.8).
    parts = gcd(n, rounds)
    whole = [k for k in range(2, (n + 1) // 2) if gcd(k, n) == 1]
    one = min(whole, key=lambda k: abs(k - rounds)) if whole else 1
    stroke = (
        f"For a star of {n} points in one stroke turn by {typed(n, one)}"
        if whole
        else (f"No star of {n} points can be drawn in one stroke; for {n} sides turn by {typed(n)}")
    )
    return (
        f"{stroke}; for one {figure(closed)} repeat {closed} times; nib.star({n}, radius, every={rounds}) "
        f"draws the star of {parts} parts."
    )
