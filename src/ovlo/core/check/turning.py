"""The rule about turns: equal sides and equal turns go round in whole turns.

found = turns_miss_360(contour, True, "px", 1.0)
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import gcd

from ovlo.core.check.closing import NEAR, UNSEEN_GAP
from ovlo.core.check.polygons import (
    EQUAL_SIDES,
    EQUAL_TURNS,
    FEWEST_SIDES,
    MOST_SIDES,
    ROUND_TURN,
    STAR_SIDES,
    Mistake,
    equal_turn,
    full_turn,
    inner_angle,
    is_angle,
    one_missing,
    other_divisor,
    radians,
    turn_change,
    typed,
    unlike_any,
)
from ovlo.core.check.repeats import Repeat
from ovlo.core.paint.contours import Contour
from ovlo.core.values.finding import PROBLEM_OR_HINT, Match, rule

OPEN_TURN = 180.0
"""Sides that turn by no more between the first and the last may be a bowl or a letter."""


def turn_of(contour: Contour) -> float | None:
    """The turn that all corners of a contour have, if all its sides are straight and equal as well."""
    return None if contour.is_curved.any() else equal_turn(contour.sides)


@rule(
    "turns-miss-360",
    PROBLEM_OR_HINT,
    f"Reported when {FEWEST_SIDES} or more equal sides (within {EQUAL_SIDES:g} of "
    f"their "
    f"length) with equal turns (within {EQUAL_TURNS:g}°) do not add up to whole turns of 360°: "
    "the inner angle is used for the turn, a turn is rounded or in radians, a repeat is missing, or the "
    f"turn belongs to another number of sides. Not reported for turns below {ROUND_TURN:g}°, "
    f"which make bows. With more than {MOST_SIDES} sides, reported only for the inner angle and "
    "for near misses. Only a hint for three sides at right angles (perhaps a cup), for few wide turns "
    "(perhaps a bowl), and for a part of a longer contour, such as the roof of a house.",
)
def turns_miss_360(contour: Contour, is_one_place: bool, unit: str, pixels_per_unit: float) -> Match | None:
    """Equal sides and equal turns that do not add up to whole turns.

    `is_one_place` says that all sides come from one line, as those of a loop do.
    """
    turn = turn_of(contour)
    if turn is None or contour.is_closed or contour.gap * pixels_per_unit <= UNSEEN_GAP:
        return None
    n, angle = len(contour), abs(turn)
    mistake = radians(n, angle) or inner_angle(n, angle) or _nearly(contour, n, angle)
    # Three sides at right angles may be a cup, few wide turns a bowl, which are open on purpose.
    is_open = n == FEWEST_SIDES and is_angle(angle, 90)
    if mistake is None and is_one_place:
        mistake = one_missing(n, angle) or other_divisor(n, angle)
        is_open = mistake is not None or (n - 1) * angle <= OPEN_TURN
        mistake = mistake or unlike_any(n, angle)
    if mistake is None:
        return None
    side = float(contour.lengths[0])
    return told(n, angle, side, mistake, unit, complex(contour.points[-1]), contour.steps.tolist(), is_open)


def told(
    n: int,
    angle: float,
    side: float,
    mistake: Mistake,
    unit: str,
    place: complex,
    steps: list[int],
    is_hint: bool,
) -> Match:
    """What is said of sides that do not go round."""
    what, fix, change = mistake
    total = f"{n * angle:.6g}°"
    return Match(
        f"{n} sides of {side:.4g} {unit} with turns of {angle:.6g}° turn by {total} in all, "
        f"which is not a multiple of 360°{what}",
        fix,
        place,
        tuple(steps),
        is_hint=is_hint,
        change=change,
    )


def _nearly(contour: Contour, n: int, angle: float) -> Mistake | None:
    """Turns that were rounded, or a little off."""
    turns = round(n * angle / 360)
    off = abs(n * angle - 360 * turns)
    if turns < 1 or (turns > 1 and (n > STAR_SIDES or gcd(turns, n) > 1)):
        return None
    is_near = turns == 1 and contour.gap <= NEAR * contour.size
    if not is_near and (off > angle / 2 or angle < ROUND_TURN):
        return None
    if not is_near and one_missing(n, angle):
        return None
    return Mistake(
        f"; it ends {contour.gap:.4g} from its start.",
        f"Turn by {typed(n, turns)} after each side, or use nib.{full_turn(n, turns)}.",
        turn_change(angle, n, turns),
    )


@rule("turns-miss-360")
def inner_runs(contour: Contour, runs: list[Repeat], unit: str) -> Iterator[Match]:
    """The angle inside taken for the turn in a part of a longer contour, as the roof of a house."""
    yield from _in_runs(contour, runs, unit, inner_angle)


@rule("turns-miss-360")
def long_runs(contour: Contour, runs: list[Repeat], unit: str) -> Iterator[Match]:
    """A polygon in a longer contour of which the first sides are drawn again."""
    yield from _in_runs(contour, runs, unit, _goes_on)


def _in_runs(
    contour: Contour, runs: list[Repeat], unit: str, look: Callable[[int, float], Mistake | None]
) -> Iterator[Match]:
    for run in runs if not contour.is_closed else ():
        n, angle = run.times, abs(run.turn)
        if not run.is_polygon or n >= len(contour) or angle < EQUAL_TURNS:
            continue
        if mistake := look(n, angle):
            place = run.start + run.shift
            yield told(n, angle, abs(run.shift), mistake, unit, place, run.all_steps, n == FEWEST_SIDES)


def _goes_on(n: int, angle: float) -> Mistake | None:
    """A polygon of fewer sides, whose first are drawn again."""
    sides = round(360 / angle)
    if not is_angle(sides * angle, 360) or not FEWEST_SIDES <= sides < n < 2 * sides:
        return None
    return Mistake(
        f": {angle:.6g}° is 360 / {sides}, so {n - sides} of the {n} sides are drawn twice.",
        f"Turn by {typed(n)} for {n} sides, or repeat {sides} times.",
        turn_change(angle, n),
    )
