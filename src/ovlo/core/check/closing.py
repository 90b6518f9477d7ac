"""Rules about contours: whether they close, turn by what they should, and stop where they should.

Each takes a contour and what is known around it, and gives what it comes upon, or None.
"""

from __future__ import annotations

from math import degrees, gcd, isclose

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.contours import MEETS, Contour
from ovlo.core.values.finding import Found

NEAR = 0.1
"""A contour that ends within this share of its size from its beginning was meant to close."""

UNSEEN_GAP = 0.05
"""A gap of fewer pixels cannot be seen."""

GATE = 0.05
"""A last side that ends short of the beginning by a larger share of itself may leave a gate."""

EQUAL_SIDES = 1e-6
"""Sides that differ by a smaller share are equal."""

EQUAL_TURNS = 1e-4
"""Turns that differ by fewer degrees are equal."""

ROUND_TURN = 30.0
"""Equal turns below this many degrees make a bow, and bows need not close."""

MOST_SIDES = 12
"""With more sides than this, turns that add up to nothing are a pattern."""

STAR_SIDES = 24
"""A star has no more points than this."""

FEWEST_SIDES = 3

FIGURES = {3: "triangle", 4: "square", 5: "pentagon", 6: "hexagon", 7: "heptagon", 8: "octagon"}


def figure(sides: int) -> str:
    """What a regular polygon is called."""
    return FIGURES.get(sides, f"polygon of {sides} sides")


def not_closed(contour: Contour, unit: str, pixels_per_unit: float) -> Found | None:
    """A contour that comes back near its beginning without meeting it."""
    gap = contour.gap
    if len(contour) < (2 if contour.is_curved.any() else FEWEST_SIDES) or not contour.is_visible:
        return None
    if gap > NEAR * contour.size or gap * pixels_per_unit <= UNSEEN_GAP or contour.is_closed:
        return None
    if not contour.is_simple:
        return None
    start, end = contour.points[0], contour.points[-1]
    length = float(contour.lengths[-1])
    going = contour.sides[-1] / length if length else 1.0
    is_gate = False
    # The way back, seen along the last step: real ahead, imaginary to the left.
    back = (start - end) / going
    if abs(back.imag) <= 1e-3 * gap and not contour.is_curved[-1]:
        fitting = length + back.real
        mend = (
            f"Make its last line {fitting:.6g} {unit} long instead of {length:.6g}, "
            "or end it with nib.line_to_start()."
        )
        # A gate in the last of straight walls may be meant; a slip is smaller.
        is_gate = gap > GATE * fitting
    else:
        angle = degrees(np.angle(back))
        side = "left" if angle > 0 else "right"
        mend = (
            "End it with nib.line_to_start(); or check its lengths and turns: after the last line it would "
            f"have to turn {side} by {abs(angle):.4g}° and walk {gap:.4g} {unit} more."
        )
    return Found(
        f"This contour of {len(contour)} steps ends {gap:.4g} {unit} from where it began: it is not closed.",
        mend,
        complex(end),
        _steps(contour),
        is_hint=is_gate,
    )


def is_regular(contour: Contour) -> bool:
    """Whether a contour is a closed polygon or star with equal sides and turns, as most are."""
    return contour.is_closed and _equal_turn(contour) is not None


def turns_miss_360(contour: Contour, is_one_place: bool, unit: str, pixels_per_unit: float) -> Found | None:
    """Equal sides and equal turns that do not add up to whole turns.

    `is_one_place` says that all sides come from one line, as those of a loop do.
    """
    turn = _equal_turn(contour)
    if turn is None or contour.is_closed or contour.gap * pixels_per_unit <= UNSEEN_GAP:
        return None
    n, angle = len(contour), abs(turn)
    mistake = _inner_angle(n, angle) or _nearly(contour, n, angle)
    if mistake is None and is_one_place:
        mistake = _one_missing(n, angle) or _other_divisor(n, angle) or _unlike_any(n, angle)
    if mistake is None:
        return None
    what, mend = mistake
    side = float(contour.lengths[0])
    total = f"{n * angle:.6g}°"
    return Found(
        f"{n} sides of {side:.4g} {unit} with turns of {angle:.6g}° turn by {total} in all, "
        f"not by whole turns of 360°{what}",
        mend,
        complex(contour.points[-1]),
        _steps(contour),
        # Three sides at right angles may be a cup, which is open on purpose.
        is_hint=n == FEWEST_SIDES and _is(angle, 90),
    )


Mistake = tuple[str, str]


def _inner_angle(n: int, angle: float) -> Mistake | None:
    """The corner's angle where the turn was meant: 180° - 360°·k/n."""
    if _is(angle, 180 - 360 / n):
        return (
            f": {angle:.6g}° is the angle inside a {figure(n)}, but a nib turns by the outer one.",
            f"Turn by {_typed(n)} after each side.",
        )
    for turns in range(2, n // 2 + 1) if angle >= ROUND_TURN and n <= STAR_SIDES else ():
        if gcd(turns, n) == 1 and _is(angle, 180 - 360 * turns / n):
            return (
                f": {angle:.6g}° is the angle inside the points of a star, but a nib turns by the outer one.",
                f"Turn by {_typed(n, turns)} after each side.",
            )
    return None


def _nearly(contour: Contour, n: int, angle: float) -> Mistake | None:
    """Turns that were rounded, or a little off."""
    turns = round(n * angle / 360)
    off = abs(n * angle - 360 * turns)
    if turns < 1 or (turns > 1 and (n > STAR_SIDES or gcd(turns, n) > 1)):
        return None
    is_near = turns == 1 and contour.gap <= NEAR * contour.size
    if not is_near and (off > angle / 2 or angle < ROUND_TURN):
        return None
    if not is_near and _one_missing(n, angle):
        return None
    loop = f"full_turn({n})" if turns == 1 else f"full_turn({n}, rounds={turns})"
    return (
        f"; it ends {contour.gap:.4g} from where it began.",
        f"Turn by {_typed(n, turns)} after each side, or let nib.{loop} do it.",
    )


def _one_missing(n: int, angle: float) -> Mistake | None:
    turns = (n + 1) * angle / 360
    if not _is(turns, round(turns)) or round(turns) < 1:
        return None
    return (
        ": one side is missing.",
        f"Repeat {n + 1} times instead of {n}, or turn by {_typed(n, round(turns))} for {n} sides.",
    )


def _other_divisor(n: int, angle: float) -> Mistake | None:
    sides = 360 / angle
    if not _is(sides, round(sides)) or not n < round(sides) <= MOST_SIDES or _is_bow(n, angle):
        return None
    whole = round(sides)
    return (
        f": {angle:.6g}° is 360 / {whole}, but there are {n} sides.",
        f"Turn by {_typed(n)} after each side, or repeat {whole} times.",
    )


def _unlike_any(n: int, angle: float) -> Mistake | None:
    if n > MOST_SIDES or angle < ROUND_TURN or _is_bow(n, angle):
        return None
    return (
        ", so they cannot close.",
        f"For {n} sides turn by {_typed(n)} after each, or let nib.full_turn({n}) do it.",
    )


def _is_bow(n: int, angle: float) -> bool:
    """Whether sides and turns make a quarter, half or three quarters of a turn, as a bow does."""
    return n * angle < 360 and _is(n * angle / 90, round(n * angle / 90)) and angle < 60


def _typed(n: int, turns: int = 1) -> str:
    """A turn as it is to be typed: a rounded number of degrees would not close."""
    exact = f"360 / {n}" if turns == 1 else f"360 * {turns} / {n}"
    value = 360 * turns / n
    return f"{value:g}° ({exact})" if _is_short(value) else f"{exact} (about {value:.4g}°)"


def _is_short(value: float) -> bool:
    return round(value, 3) == value


def _is(value: float, wanted: float) -> bool:
    return isclose(value, wanted, abs_tol=EQUAL_TURNS)


def _equal_turn(contour: Contour) -> float | None:
    """The turn that all corners have, if all sides are equal as well."""
    if len(contour) < FEWEST_SIDES or contour.is_curved.any():
        return None
    lengths = contour.lengths
    if np.ptp(lengths) > EQUAL_SIDES * lengths[0]:
        return None
    turns = contour.turns
    turn = float(turns[0])
    if np.abs(turns - turn).max() > EQUAL_TURNS or abs(turn) < EQUAL_TURNS or abs(turn) > 180 - EQUAL_TURNS:
        return None
    return turn


def retraced_line(contour: Contour) -> Found | None:
    """A walk that runs on past its own beginning: its last steps are its first ones again."""
    points, n = contour.points, len(contour)
    near = MEETS * contour.size
    for closed in np.flatnonzero(np.abs(points[FEWEST_SIDES:-1] - points[0]) <= near) + FEWEST_SIDES:
        again = n - int(closed)
        if abs(points[closed + 1] - points[1]) > near:
            continue
        # What follows goes round as the first round did, as often as it takes.
        expected = points[np.arange(1, again + 1) % closed]
        if (np.abs(points[closed + 1 :] - expected) <= near).all() and _bends_alike(contour, int(closed)):
            return _told_retraced(contour, int(closed), again)
    return None


def _bends_alike(contour: Contour, closed: int) -> bool:
    """Whether what follows takes the same way, not only through the same points: circles may share theirs."""
    again = np.arange(closed, len(contour))
    apart = np.abs(contour.within[again] - contour.within[again % closed])
    return bool((apart <= MEETS * contour.size).all())


def _told_retraced(contour: Contour, closed: int, again: int) -> Found:
    n, turn = len(contour), _equal_turn(contour)
    rounds = again / closed
    if again == 1:
        what = "its last step draws its first one again"
    elif rounds == round(rounds):
        what = f"its last {again} steps go round {'once' if rounds == 1 else f'{rounds:g} times'} more"
    else:
        what = f"its last {again} steps draw its first ones again"
    mend = f"Stop after {closed} steps instead of {n}."
    if turn is not None and _is(abs(turn), 180 - 360 / n):
        mend = f"For {n} sides turn by {_typed(n)}; for {figure(closed)}s repeat {closed} times."
    elif turn is not None:
        mend = f"Repeat {closed} times instead of {n}."
    steps = tuple(contour.steps[closed:].tolist())
    middle = (contour.points[closed] + contour.points[closed + 1]) / 2
    return Found(f"This walk is closed after {closed} steps, and {what}.", mend, complex(middle), steps)


def stray_line(contour: Contour, unit: str) -> Found | None:
    """A single straight stroke between two closed shapes."""
    if not contour.is_visible:
        return None
    joints = _joints(contour)
    if not joints:
        return None
    first = joints[0]
    return Found(
        f"This line of {contour.lengths[first]:.4g} {unit} joins two shapes that are closed without it.",
        f"If it is not meant, move with nib.travel({contour.lengths[first]:.6g}) or nib.travel_to(…) "
        "instead, which draw nothing.",
        complex(contour.points[first] + contour.points[first + 1]) / 2,
        tuple(int(contour.steps[i]) for i in joints),
    )


def _joints(contour: Contour) -> list[int]:
    """The single straight steps of a contour that begins with a shape, between one shape and the next."""
    ends = _loop_ends(contour)
    if 0 not in ends:
        return []
    parts: list[range] = []
    while (at := parts[-1].stop if parts else 0) < len(contour):
        parts.append(range(at, ends.get(at, at + 1)))
    return [
        part.start
        for shape, part, other in zip(parts, parts[1:], parts[2:], strict=False)
        if len(part) == 1 < min(len(shape), len(other)) and _is_seen(contour, part.start, shape)
    ]


def _is_seen(contour: Contour, joint: int, shape: range) -> bool:
    """Whether a joint is straight and not just one side of the shape before it again."""
    if contour.is_curved[joint]:
        return False
    begin, end = contour.points[joint], contour.points[joint + 1]
    near = MEETS * contour.size
    neighbours = contour.points[[shape.start + 1, shape.stop - 1]]
    for neighbour in neighbours.tolist():
        way = (end - begin) / (neighbour - begin) if neighbour != begin else 1j
        if abs(way.imag) * abs(neighbour - begin) <= near and 0 < way.real <= 1 + MEETS:
            return False
    return True


def _loop_ends(contour: Contour) -> dict[int, int]:
    """For points to which the contour comes back, after three steps at least, where it last does so.

    It must have been away in between: loops that share their point, as the blades of a rosette do, are one.
    """
    cells = np.rint(contour.points / max(MEETS * contour.size, 1e-300))
    _, numbers, counts = np.unique(cells, return_inverse=True, return_counts=True)
    if counts.max() == 1:
        return {}
    last: dict[int, int] = {}
    found: dict[int, int] = {}
    for i, number in reversed(list(enumerate(numbers.tolist()))):
        end = last.setdefault(number, i)
        if end - i >= FEWEST_SIDES:
            found[i] = end
    return found


def _steps(contour: Contour) -> tuple[int, ...]:
    steps: NDArray[np.int64] = contour.steps
    return tuple(steps.tolist())
