"""The rule about lines that should end in a corner drawn before, as a roof does on its wall.

found = misses_corner(contour, corners_before, "px")

Points are complex numbers.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from ovlo.core.check.closing import FAR, ends_on_itself
from ovlo.core.check.polygons import FEWEST_SIDES
from ovlo.core.paint.contours import MEETS, Contour
from ovlo.core.values.arrays import Complexes
from ovlo.core.values.finding import HINT, Change, Match, rule
from ovlo.core.values.pose import point_in_words

ROUNDED = 1e-3
"""Of the lines' size, by which written numbers such as 141.42 may miss a corner."""

FEWEST, MOST = 2, 5
"""Lines that lead from one corner to another."""

WHOLE = 1e-3
"""Degrees by which an angle may miss a whole number."""

LARGEST_TURN = 60.0
"""Degrees by which lines may have begun in a wrong direction."""


class Way(NamedTuple):
    """A change of one number, and where it leads."""

    end: complex
    what: str
    fix: str
    change: Change | None


@rule(
    "misses-corner",
    HINT,
    f"Reported when {FEWEST} to {MOST} straight lines begin in a corner that was drawn before, end in none, "
    "and would end in another corner with one number changed: a line as long as another one, the turn before "
    "them, or a turn to the other side or by the outer angle. Not reported for lines that end on a line of "
    "their own contour, and if random numbers are used.",
)
def misses_corner(contour: Contour, before: Complexes, unit: str) -> Match | None:
    """Lines from one corner that miss another by a slip; `before` are the corners of earlier contours."""
    first = _begin(contour, before)
    if first is None or contour.is_curved[first:].any() or not contour.is_visible:
        return None
    points, end = contour.points[first:], complex(contour.points[-1])
    start, size = complex(points[0]), float(np.abs(points - points[0]).max())
    slack = ROUNDED * size
    corners = np.unique(np.concatenate([contour.points[:first], before]))
    if np.abs(corners - end).min(initial=np.inf) <= slack or ends_on_itself(contour, slack):
        return None
    corners = corners[np.abs(corners - start) > slack]
    for way in _ways(contour, first, corners):
        apart = np.abs(corners - way.end)
        if len(corners) and apart.min() <= slack:
            corner = complex(corners[apart.argmin()])
            return Match(
                f"These {len(points) - 1} lines end {abs(end - corner):.4g} {unit} beside the corner at "
                f"{point_in_words(corner.real, corner.imag)}, and would end there {way.what}.",
                way.fix,
                end,
                tuple(contour.steps[first:].tolist()),
                change=way.change,
            )
    return None


def _begin(contour: Contour, before: Complexes) -> int | None:
    """The point from which the last lines of a contour lead away from a corner."""
    points, n = contour.points, len(contour)
    near = MEETS * contour.size
    for first in range(n - FEWEST, max(n - MOST, 0) - 1, -1):
        own = points[: max(first - 1, 0)]
        known = own if first >= FEWEST_SIDES else before
        if np.abs(known - points[first]).min(initial=np.inf) <= near:
            return first
    return None


def _ways(contour: Contour, first: int, corners: Complexes) -> Iterator[Way]:
    """What a single slip may have changed."""
    sides, lengths = contour.sides[first:], contour.lengths[first:]
    start, end = complex(contour.points[first]), complex(contour.points[-1])
    for i, length in enumerate(lengths.tolist()):
        for new in np.unique(np.round(contour.lengths, 9)).tolist():
            if abs(new - length) > ROUNDED * length and 1 / FAR < new / length < FAR:
                what = f"with a line {new:.6g} long instead of {length:.6g}"
                fix = f"Make that line {new:.6g} long instead of {length:.6g}."
                yield Way(
                    end + sides[i] * (new / length - 1), what, fix, Change("length", f"{new:.6g}", length)
                )
    turns = np.degrees(np.angle(sides[1:] / sides[:-1]))
    for i, turn in enumerate(turns.tolist()):
        corner = complex(contour.points[first + i + 1])
        side, other = ("left", "right") if turn > 0 else ("right", "left")
        outer = np.copysign(180 - abs(turn), turn)
        turned = corner + (end - corner) * np.exp(1j * np.radians(outer - turn))
        fix = f"Turn {side} by {abs(outer):.6g}° there instead of {abs(turn):.6g}°."
        yield Way(
            turned,
            f"with the outer angle, {abs(outer):.6g}°",
            fix,
            Change("turn", f"{abs(outer):.6g}", abs(turn)),
        )
        mirrored = corner + (end - corner) * np.exp(1j * np.radians(-2 * turn))
        yield Way(mirrored, f"if they turned {other} there", f"Turn {other} there instead of {side}.", None)
    for corner in corners[np.argsort(np.abs(corners - end))].tolist():
        by = float(np.degrees(np.angle((corner - start) / (end - start))))
        is_whole = abs(by - round(by)) <= WHOLE and 1 <= abs(by) <= LARGEST_TURN
        if is_whole and abs(abs(corner - start) - abs(end - start)) <= ROUNDED * abs(end - start):
            words = f"{abs(round(by))}° farther to the {'left' if by > 0 else 'right'}"
            yield Way(corner, f"if they began {words}", f"Before these lines, turn {words}.", None)
