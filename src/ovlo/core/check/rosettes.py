"""Rules about loops: whether a body comes back to where it began, and whether the turns go once round.

found = drift(repeat, "px", 1.0)
"""

from __future__ import annotations

from math import radians

import numpy as np

from ovlo.core.check.closing import UNSEEN_GAP
from ovlo.core.check.polygons import (
    EQUAL_TURNS,
    FEWEST_SIDES,
    MOST_SIDES,
    equal_turn,
    inner_angle,
    one_missing,
    turn_change,
    typed,
)
from ovlo.core.check.repairs import Chain, repair
from ovlo.core.check.repeats import FEWEST_TIMES, Repeat
from ovlo.core.check.turning import told
from ovlo.core.paint.contours import MEETS
from ovlo.core.trail.columns import PenState
from ovlo.core.values.finding import PROBLEM_OR_HINT, Change, Match, rule

DRIFT = 0.25
"""A body that ends within this share of its size from where it began was meant to come back."""

SURE_DRIFT = 0.1
"""Below this share it surely was."""

BACK_DRIFT = 0.15
"""The same of a body that goes ahead and back."""

FEWEST_BODIES = 4
"""A rosette has at least as many."""

FEWEST_OF_ROUND, WIDEST_GAP = 5, 90
"""Figures, and degrees: so many that leave so little of a round open were meant to close it."""

LEAST_TURN = 0.5
"""Degrees; bodies turned by less are a row."""


@rule(
    "rosette-misses-360",
    PROBLEM_OR_HINT,
    f"Reported when a figure that returns to its start is drawn {FEWEST_BODIES} times or more, "
    "turned each time, and the turns come to 360° but for one figure or less: one is missing, one is too "
    f"many, or the turn is wrong. A hint if {FEWEST_OF_ROUND} or more leave {WIDEST_GAP}° open or less, and "
    "their turn is no part of 360°. Other fans, and turns that go round several times, are not reported.",
)
def rosette_misses_360(repeat: Repeat, pixels_per_unit: float) -> Match | None:
    """A body that comes back, repeated with turns that do not go once round: one is missing, or they are off.

    Fans, and turns that go round several times, are no rosettes.
    """
    turn, times = abs(repeat.turn), repeat.times
    if not repeat.is_back or times < FEWEST_BODIES or turn < LEAST_TURN or not repeat.is_drawn:
        return None
    off = times * turn - 360
    seen = radians(abs(off)) * repeat.size * pixels_per_unit
    is_wide = abs(off) > turn + EQUAL_TURNS
    # Most of a round by a turn that no round is made of is a round that was meant, and no fan.
    is_hint = is_wide and -WIDEST_GAP <= off < 0 and times >= FEWEST_OF_ROUND and bool(360 % turn)
    if seen <= UNSEEN_GAP or (is_wide and not is_hint):
        return None
    total = (
        f"{times} times the same figure, turned by {turn:.6g}° each, go round by {times * turn:.6g}°, "
        "not 360°"
    )
    if one_missing(times, turn):
        message = f"{total}: one is missing."
        fix = f"Repeat {times + 1} times instead of {times}, or turn by {typed(times)} each time."
        change = Change("times", f"{times + 1}", times)
    elif abs(off - turn) <= EQUAL_TURNS * times:
        message = f"{total}: the last one lies on the first."
        fix = f"Repeat {times - 1} times instead of {times}, or turn by {typed(times)} each time."
        change = Change("times", f"{times - 1}", times)
    else:
        what = "less" if off < 0 else "more"
        message = f"{total}: the angle from the last to the first is {abs(off):.4g}° {what} than the others."
        fix = f"Turn by {typed(times)} each time, or use nib.full_turn({times})."
        change = turn_change(turn, times)
    return Match(message, fix, repeat.start, tuple(repeat.steps), change=change, is_hint=is_hint)


@rule(
    "drift",
    PROBLEM_OR_HINT,
    f"Reported when a figure that is walked {FEWEST_TIMES} times or more, turned each time, ends beside "
    f"its start, within {DRIFT:.0%} of its size. Only a hint if the distance is above "
    f"{SURE_DRIFT:.0%} of its size. The windings of a spring, closed but for one step onwards, "
    "are not reported.",
)
def drift(repeat: Repeat, unit: str, pixels_per_unit: float) -> Match | None:
    """A body that should come back to where it began and ends beside it, so that all walk away."""
    gap = abs(repeat.shift)
    if repeat.is_back or abs(repeat.turn) < LEAST_TURN or not repeat.is_drawn:
        return None
    if gap * pixels_per_unit <= UNSEEN_GAP or gap > DRIFT * repeat.size or _is_coil(repeat):
        return None
    if _is_back_and_forth(repeat) and gap <= BACK_DRIFT * repeat.size:
        return _back_too_little(repeat, gap, unit)
    if repeat.period < FEWEST_SIDES and not repeat.walk.reach[repeat.body].any():
        return None
    chain = _chain(repeat)
    way = repair(chain, unit) if chain is not None else None
    return Match(
        f"This figure of {repeat.period} steps is walked {repeat.times} times, and each time it ends "
        f"{gap:.4g} {unit} from its start, so the figures drift apart.",
        (f"{way.fix} Or walk" if way is not None else "Check its lengths and turns; or walk")
        + " it inside `with nib.returning():`, which brings the nib back.",
        repeat.start + repeat.shift,
        tuple(repeat.steps if way is None else (repeat.steps[i] for i in way.lines)),
        is_hint=gap > SURE_DRIFT * repeat.size and way is None,
        change=None if way is None else way.change,
    )


def _is_back_and_forth(repeat: Repeat) -> bool:
    """Whether a body goes straight ahead, and then back along that line."""
    if repeat.period < 2 or repeat.walk.reach[repeat.body].any():
        return False
    ways = (repeat.walk.ends - repeat.walk.starts)[repeat.body]
    turned = ways * np.conj(ways[0])
    is_along = bool((np.abs(turned.imag) <= MEETS * np.abs(turned)).all())
    return is_along and bool((turned.real[:-1] > 0).all()) and turned.real[-1] < 0


def _back_too_little(repeat: Repeat, gap: float, unit: str) -> Match:
    *ahead, back = np.abs((repeat.walk.ends - repeat.walk.starts)[repeat.body]).tolist()
    there = sum(ahead)
    return Match(
        f"The nib goes {there:.6g} {unit} ahead and {back:.6g} {unit} back, {repeat.times} times, so each "
        f"line begins {gap:.4g} {unit} beside the one before.",
        f"Make the way back {there:.6g} {unit} long instead of {back:.6g}.",
        repeat.start + repeat.shift,
        tuple(repeat.steps),
        is_hint=True,
        change=Change("length", f"{there:.6g}", back),
    )


def _chain(repeat: Repeat) -> Chain | None:
    """The body's lines, if it is nothing but lines."""
    walk, body = repeat.walk, repeat.body
    if not np.isin(walk.pens[body], (PenState.DRAW, PenState.TRACE)).all():
        return None
    return Chain(walk.ends[body] - walk.starts[body], walk.reach[body] > 0, np.arange(repeat.period))


def _is_coil(repeat: Repeat) -> bool:
    """Whether a body is closed but for a single step on, as the windings of a spring are."""
    walk, body = repeat.walk, repeat.body
    points = np.append(walk.starts[body], walk.ends[repeat.first + repeat.period - 1])
    near = MEETS * repeat.size
    return bool(abs(points[-2] - points[0]) <= near or abs(points[-1] - points[1]) <= near)


@rule("turns-miss-360")
def body_misses_360(repeat: Repeat, unit: str) -> Match | None:
    """A body of equal sides that turn by what they should not, each time; or bodies that are such sides."""
    if repeat.is_back or abs(repeat.turn) < LEAST_TURN or not repeat.is_drawn:
        return None
    if (sides := _sides(repeat)) is not None:
        n, angle, side = sides
        mistake, steps = inner_angle(n, angle) or one_missing(n, angle), repeat.steps
    elif FEWEST_SIDES <= repeat.times <= MOST_SIDES and repeat.period > FEWEST_SIDES:
        n, angle, side = repeat.times, abs(repeat.turn), abs(repeat.shift)
        mistake, steps = inner_angle(n, angle), repeat.all_steps
    else:
        return None
    if mistake is None:
        return None
    return told(n, angle, side, mistake, unit, repeat.start + repeat.shift, steps, False)


def _sides(repeat: Repeat) -> tuple[int, float, float] | None:
    """Number, turn and length of a body's sides, if they are equal and turn alike."""
    walk, body = repeat.walk, repeat.body
    if repeat.period < FEWEST_SIDES or walk.reach[body].any():
        return None
    ways = walk.ends[body] - walk.starts[body]
    turn = equal_turn(ways)
    return None if turn is None else (repeat.period, abs(turn), float(abs(ways[0])))
