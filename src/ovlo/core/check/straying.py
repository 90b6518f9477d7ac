"""The rule about lines between shapes, where a travel was meant.

found = stray_line(contour, "px")
list(between_centred(columns, chains, "px"))
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from ovlo.core.check.polygons import FEWEST_SIDES
from ovlo.core.paint.contours import AXES, MEETS, Contour
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.finding import HINT, Match, rule

BEAD = 0.2
"""Shapes smaller than this share of the lines between them are beads on a string, or dots that are joined."""

FEWEST_SHAPES = 2

MOST_SIDES = 64
"""Of a centred shape."""


@rule(
    "stray-line",
    HINT,
    f"Reported when one straight line joins two shapes of {FEWEST_SIDES} or more steps that are "
    "closed without it, leads to a shape in a direction other than the heading, or runs from the centre "
    "of one centred shape to the centre of the next, so that a travel was probably intended. Not "
    "reported "
    f"for shapes smaller than {BEAD:.0%} of such lines, which are beads on a string.",
)
def stray_line(contour: Contour, columns: Columns, unit: str) -> Match | None:
    """A single straight stroke between two closed shapes, or to the first of several."""
    if not contour.is_visible:
        return None
    joints = _joints(contour, columns)
    if not joints:
        return None
    return _told(contour, columns, joints, "joins two shapes that are closed without it", unit)


def _told(contour: Contour, columns: Columns, joints: Sequence[int], what: str, unit: str) -> Match:
    first = joints[0]
    way = contour.sides[first] * np.exp(-1j * np.radians(columns.steps["heading"][contour.steps[first]]))
    is_ahead = abs(way.imag) <= 1e-9 * abs(way)
    travel = f"nib.travel({way.real:.6g})" if is_ahead else "nib.travel_to(…)"
    return Match(
        f"This line of {contour.lengths[first]:.4g} {unit} {what}.",
        f"If it should not be there, move with {travel} instead, which draws nothing.",
        complex(contour.points[first] + contour.points[first + 1]) / 2,
        tuple(int(contour.steps[i]) for i in joints),
    )


def _joints(contour: Contour, columns: Columns) -> list[int]:
    """The single straight steps between one shape and the next.

    A contour that begins with such a step is looked at if the nib was not headed that way: it was sent to a
    point, as to the next of several shapes. Who walks on with the line before is threading beads on a string.
    """
    ends = _loop_ends(contour)
    parts: list[range] = []
    while (at := parts[-1].stop if parts else 0) < len(contour):
        parts.append(range(at, ends.get(at, at + 1)))
    is_shape = [_is_shape(contour, part) for part in parts]
    if sum(is_shape) < FEWEST_SHAPES:
        return []
    between = [
        part.start
        for shape, part, other in zip(parts, parts[1:], parts[2:], strict=False)
        if len(part) == 1 < min(len(shape), len(other)) and _is_seen(contour, part.start, shape)
    ]
    return between if between and is_shape[0] else _sent(contour, columns, parts, is_shape)


def _sent(contour: Contour, columns: Columns, parts: list[range], is_shape: list[bool]) -> list[int]:
    """Lines to shapes, if the nib was not always headed where it went, or no two lines are alike."""
    joints = [
        (part.start, shape)
        for (part, is_closed), (shape, follows) in pairwise(zip(parts, is_shape, strict=True))
        if follows and not is_closed and not contour.is_curved[part.start]
    ]
    steps = [joint for joint, _ in joints]
    headings = columns.steps["heading"][contour.steps[steps]]
    ways = contour.sides[steps] * np.exp(-1j * np.radians(headings))
    lengths = np.abs(ways)
    is_aside = np.abs(ways.imag) > 1e-3 * lengths
    is_uneven = len(joints) > FEWEST_SHAPES and np.ptp(lengths) > 0.01 * lengths.max()
    if len(joints) < FEWEST_SHAPES or not (is_aside.any() or is_uneven):
        return []
    sizes = [_size(contour, shape) for _, shape in joints]
    return steps if np.median(sizes) >= BEAD * np.median(lengths) else []


def _size(contour: Contour, part: range) -> float:
    """How far a part goes from where it begins."""
    some = slice(part.start, part.stop)
    corners = np.append(contour.points[some], contour.within[some])
    return float(np.abs(corners - contour.points[part.start]).max())


def _is_shape(contour: Contour, part: range) -> bool:
    """Whether a part is closed by itself: some steps, or a full circle."""
    return len(part) > 1 or bool(
        contour.is_curved[part.start] and contour.lengths[part.start] <= MEETS * contour.size
    )


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
        if end - i >= FEWEST_SIDES or (end - i == 2 and contour.is_curved[i:end].any()):
            found[i] = end
    return found


@rule("stray-line")
def between_centred(columns: Columns, chains: Sequence[Contour], unit: str) -> Iterator[Match]:
    """Lines from the middle of one centred shape to the middle of the next, across their borders.

    A shape is laid while the contour rests: it begins with a jump from where the nib stands.
    """
    laid = _laid(columns)
    before = {shape.stop: shape.middle for shape in laid.values()}
    for chain in chains if laid else ():
        if not chain.is_visible:
            continue
        joints = [
            i
            for i, step in enumerate(chain.steps.tolist())
            if not chain.is_curved[i]
            and _meets(laid.get(step + 1), chain, i)
            and (i == 0 or before.get(step) == complex(chain.points[i]))
        ]
        if len(joints) >= FEWEST_SHAPES:
            yield _told(
                chain, columns, joints, "runs from the centre of one shape to the centre of the next", unit
            )


class Laid(NamedTuple):
    """A centred shape: its middle, how near its border comes to that, and one past its last step."""

    middle: complex
    reach: float
    stop: int


def _laid(columns: Columns) -> dict[int, Laid]:
    """The centred shapes without a fill, by the step of the jump to where they begin."""
    starts, points = columns.starts @ AXES, columns.points @ AXES
    is_filled = columns.of_steps("area") >= 0
    runs, stops = columns.runs, columns.stops.tolist()
    pens, firsts = runs["pen"].tolist(), runs["start"].tolist()
    found: dict[int, Laid] = {}
    for k in range(len(runs) - 1):
        jump, begin, stop = firsts[k], firsts[k + 1], stops[k + 1]
        if (
            pens[k] != PenState.JUMP
            or pens[k + 1] != PenState.DRAW
            or is_filled[begin]
            or stop - begin > MOST_SIDES
        ):
            continue
        reach = np.abs(points[begin:stop] - starts[jump])
        is_ring = abs(points[stop - 1] - starts[begin]) <= MEETS * reach.max()
        if is_ring and 0 < reach.max() <= 2 * reach.min():
            found[jump] = Laid(complex(starts[jump]), float(reach.min()), stop)
    return found


def _meets(shape: Laid | None, chain: Contour, i: int) -> bool:
    """Whether a step ends in the middle of a shape that is no mere bead."""
    length = float(chain.lengths[i])
    return (
        shape is not None
        and shape.middle == complex(chain.points[i + 1])
        and BEAD * length <= shape.reach < length
    )
