"""The rules about contours that should end where they began.

found = not_closed(contour, "px", 1.0)
"""

from __future__ import annotations

from math import degrees

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.polygons import FEWEST_SIDES
from ovlo.core.check.repairs import Chain, repair
from ovlo.core.paint.contours import MEETS, Contour
from ovlo.core.values.finding import PROBLEM_OR_HINT, Change, Match, rule

Places = NDArray[np.int32] | None

NEAR = 0.1
"""A contour that ends within this share of its size from its beginning was meant to close."""

UNSEEN_GAP = 0.05
"""A gap of fewer pixels cannot be seen."""

GATE = 0.05
"""A last side that ends short of the beginning by a larger share of itself may leave a gate."""

FAR = 1.75
"""Lengths that differ by this factor are two, of a flag and its pole, say."""

FEW_LINES = 6
"""Fewer lines make letters, which are open, as well as figures that a slip left open."""


@rule(
    "not-closed",
    PROBLEM_OR_HINT,
    f"Reported when a contour that does not cross itself ends within {NEAR:.0%} of its size from "
    "its start without meeting it, or when undoing one slip would close it: one line with the length of "
    "another, two lengths exchanged, one turn to the wrong side, or an inner angle in place of the outer "
    f"one. Not reported for gaps of {UNSEEN_GAP:g} px or less, which cannot be seen. Only a hint "
    f"if the last side is short by more than {GATE:.0%} (it may leave a gate) or there are fewer "
    f"than {FEW_LINES} lines (it may be a letter). A flag that ends on its pole "
    "is not reported.",
)
def not_closed(
    contour: Contour, unit: str, pixels_per_unit: float, places: Places, is_row: bool = False
) -> Match | None:
    """A contour that comes back near its beginning without meeting it, or would but for a slip.

    `places` are the numbers of the places of all steps in the program, if they are known; `is_row` says that
    it is the same again and again, straight on, and so open by nature.
    """
    gap = contour.gap
    if len(contour) < (2 if contour.is_curved.any() else FEWEST_SIDES) or not contour.is_visible:
        return None
    if gap * pixels_per_unit <= UNSEEN_GAP or contour.is_closed:
        return None
    if gap > NEAR * contour.size:
        return would_close(contour, unit, places, is_row)
    way = repair(_chain(contour, places), unit)
    if not contour.is_simple:
        return None
    start, end = contour.points[0], contour.points[-1]
    length = float(contour.lengths[-1])
    going = contour.sides[-1] / length if length else 1.0
    is_gate, change = False, None
    # The way back, seen along the last step: real ahead, imaginary to the left.
    back = (start - end) / going
    if abs(back.imag) <= 1e-3 * gap and not contour.is_curved[-1]:
        fitting = length + back.real
        fix = (
            f"Make its last line {fitting:.6g} {unit} long instead of {length:.6g}, "
            "or end it with nib.line_to_start()."
        )
        change = Change("length", f"{fitting:.6g}", length)
        # A gate in the last of straight walls may be meant; a slip is smaller.
        is_gate = gap > GATE * fitting
    elif way is not None:
        fix = f"{way.fix} Or end it with nib.line_to_start()."
        change = way.change
    else:
        angle = degrees(np.angle(back))
        side = "left" if angle > 0 else "right"
        fix = (
            "End it with nib.line_to_start(), or check its lengths and turns: to close, it would have to "
            f"turn {side} by {abs(angle):.4g}° and walk {gap:.4g} {unit} more."
        )
    return Match(
        f"This contour of {len(contour)} steps ends {gap:.4g} {unit} from its start, so it is not closed.",
        fix,
        complex(end),
        tuple(contour.steps.tolist()),
        is_hint=is_gate,
        change=change,
    )


@rule("not-closed")
def would_close(contour: Contour, unit: str, places: Places, is_row: bool = False) -> Match | None:
    """A contour that is open, and would not be with a single slip undone."""
    n = len(contour)
    if is_row or _has_door(contour):
        return None
    way = repair(_chain(contour, places), unit)
    if way is None or (_is_far(way.change) and ends_on_itself(contour, MEETS * contour.size)):
        return None
    return Match(
        f"This contour of {n} steps ends {contour.gap:.4g} {unit} from its start; it would be closed "
        f"{way.what}.",
        way.fix,
        complex(contour.points[max(way.lines) + 1]),
        tuple(contour.steps[list(way.lines)].tolist()),
        is_hint=way.is_last_length or n < FEW_LINES,
        change=way.change,
    )


def _chain(contour: Contour, places: Places) -> Chain:
    own = np.arange(len(contour)) if places is None else places[contour.steps].astype(np.int64)
    return Chain(contour.sides, contour.is_curved, own)


def _is_far(change: Change | None) -> bool:
    """Whether a length would become another by so much that it is no slip."""
    return (
        change is not None and change.kind == "length" and not 1 / FAR < float(change.new) / change.old < FAR
    )


def ends_on_itself(contour: Contour, slack: float) -> bool:
    """Whether it ends on one of its own earlier lines, as a flag does on its pole, or so near."""
    end, starts, sides = contour.points[-1], contour.points[:-2], contour.sides[:-1]
    back = end - starts
    along = (back * sides.conj()).real / np.maximum(np.abs(sides) ** 2, 1e-300)
    apart = np.abs(back - np.clip(along, 0, 1) * sides)
    return bool((apart[~contour.is_curved[:-1]] <= slack).any())


def _has_door(contour: Contour) -> bool:
    """Whether the gap is in the middle of a side, which the last line and the first one leave open."""
    back = contour.points[0] - contour.points[-1]
    ends = contour.sides[[0, -1]] * back.conjugate()  # no quotient: the contour may end where it began
    return bool((np.abs(ends.imag) <= MEETS * np.abs(ends)).all() and (ends.real > 0).all())
