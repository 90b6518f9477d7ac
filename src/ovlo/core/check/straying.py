"""The rule about lines between shapes, where a travel was meant.

found = stray_line(contour, "px")
list(between_centred(columns, chains, "px"))
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.polygons import FEWEST_SIDES
from ovlo.core.paint.contours import AXES, MEETS, Contour
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints
from ovlo.core.values.finding import HINT, Match, rule

Places = NDArray[np.int32] | None

BEAD = 0.2
"""Shapes smaller than this share of the lines between them are beads on a string, or dots that are joined."""

CENTRED = 0.2
"""Of its size, by which the middle of a bow may be beside its string."""

FEWEST_SHAPES = 2

MOST_MEASURED = 20
"""Of areas that lines lead to; the others are taken to be about as large."""

FEWEST_WALKS = 3
"""Equal walks, each of which a line leads to."""

WEB = 20
"""So many lines at random between shapes are a web, and no constellation."""

MOST_SIDES = 64
"""Of a centred shape."""


@rule(
    "stray-line",
    HINT,
    f"Reported when one straight line joins two shapes of {FEWEST_SIDES} or more steps that are closed "
    "without it, leads to a shape in a direction other than the heading, runs from the centre of one centred "
    f"shape to the centre of the next, leads from area to area, or begins each of {FEWEST_WALKS} equal walks "
    "or more, so that a travel was probably intended. Not reported for shapes smaller than "
    f"{BEAD:.0%} of such lines, which are beads on a string, unless {WEB} or more of these are random.",
)
def stray_line(
    contour: Contour, columns: Columns, unit: str, places: Places = None, by_chance: bool = False
) -> Match | None:
    """A single straight stroke between two closed shapes, or to the first of several.

    `places` are the numbers of the places of all steps in the program, if they are known.
    """
    if not contour.is_visible:
        return None
    if joints := _joints(contour, columns, by_chance):
        return _told(columns, contour.steps[joints], "joins two shapes that are closed without it", unit)
    if joints := _to_equal_walks(contour, columns, places):
        return _told(
            columns, contour.steps[joints], "leads to where each of several equal walks begins", unit
        )
    return None


def _told(columns: Columns, steps: Ints, what: str, unit: str) -> Match:
    first = int(steps[0])
    start, end = columns.starts[first] @ AXES, columns.points[first] @ AXES
    way = (end - start) * np.exp(-1j * np.radians(columns.steps["heading"][first]))
    is_ahead = abs(way.imag) <= 1e-9 * abs(way)
    travel = f"nib.travel({way.real:.6g})" if is_ahead else "nib.travel_to(…)"
    return Match(
        f"This line of {abs(way):.4g} {unit} {what}.",
        f"If it should not be there, move with {travel} instead, which draws nothing.",
        complex(start + end) / 2,
        tuple(int(step) for step in steps),
    )


def _to_equal_walks(contour: Contour, columns: Columns, places: Places) -> list[int]:
    """The lines of one place in the program, aside from the heading, that begin equal walks of some steps."""
    if places is None:
        return []
    headings = columns.steps["heading"][contour.steps]
    at = np.flatnonzero(~contour.is_curved & _is_aside(contour.sides, headings))
    here = places[contour.steps]
    if len(at) < FEWEST_WALKS or len(np.unique(here[at])) > 1 or here[at[0]] < 0:
        return []
    lengths = np.diff(np.append(at, len(contour)))
    period = int(lengths[0])
    if period <= FEWEST_SIDES or (lengths != period).any():
        return []
    walks = contour.sides[at[0] :].reshape(len(at), period)
    firsts = np.abs(walks[:, 1:2])
    if not firsts.all():
        return []
    seen = walks[:, 1:] * firsts / walks[:, 1:2]
    if np.abs(seen - seen[0]).max() > MEETS * contour.size:
        return []
    reach = np.abs(np.cumsum(walks[:, 1:], axis=1)).max(axis=1)
    # A line that is short beside what it leads to is a part of it, a long one a string of beads.
    far = np.abs(walks[:, 0])
    return at.tolist() if (far >= reach / 2).all() and (reach >= BEAD * far).all() else []


@rule("stray-line")
def beside_closed_walks(
    columns: Columns, chains: Sequence[Contour], unit: str, places: Places, by_chance: bool
) -> Iterator[Match]:
    """Contours of one place that are a closed walk with a line aside before it, or behind it."""
    if places is None:
        return
    groups: dict[int, list[tuple[int, float, float, int]]] = {}
    for chain in chains:
        if len(chain) <= FEWEST_SIDES or not chain.is_visible:
            continue
        near = MEETS * chain.size
        for joint, begin, end in ((0, 1, -1), (-1, 0, -2)):
            step = int(chain.steps[joint])
            is_closed = abs(chain.points[end] - chain.points[begin]) <= near
            aside = _is_aside(chain.sides[joint], columns.steps["heading"][step])
            if is_closed and not chain.is_curved[joint] and aside:
                walk = chain.points[1:] if joint == 0 else chain.points[:-1]
                size = float(np.abs(walk - walk[0]).max())
                row = step, float(chain.lengths[joint]), size, chain.times
                groups.setdefault(int(places[step]), []).append(row)
                break
    for rows in groups.values():
        steps, lengths, sizes, times = zip(*rows, strict=True)
        is_string = np.median(sizes) < BEAD * np.median(lengths)
        if sum(times) >= (WEB if by_chance else FEWEST_WALKS) and (by_chance or not is_string):
            yield _told(columns, np.array(steps), "leads from one closed walk to the next", unit)


def _is_aside(ways: Complexes, headings: Floats) -> Bools:
    """Which straight steps do not go where the nib is headed, degrees."""
    seen = ways * np.exp(-1j * np.radians(headings))
    return np.asarray(np.abs(seen.imag) > 1e-3 * np.abs(seen))


@rule("stray-line")
def between_areas(columns: Columns, unit: str, places: Places, by_chance: bool) -> Iterator[Match]:
    """Lines aside from the heading, from one area to the next of one place in the program."""
    if places is None:
        return
    starts, points = columns.starts @ AXES, columns.points @ AXES
    nibs, areas, pens = (columns.of_steps(name) for name in ("nib", "area", "pen"))
    numbers, at_first = np.unique(areas, return_index=True)
    for nib in np.unique(nibs[areas >= 0]).tolist():
        mine = np.flatnonzero((nibs == nib) & np.isin(pens, (PenState.DRAW, PenState.TRACE)))
        own = areas[mine]
        middle = own[1:-1] < 0
        is_joint = middle & (own[:-2] >= 0) & (own[2:] >= 0) & (pens[mine[1:-1]] == PenState.DRAW)
        # Next the nib draws where the line ended, or around that.
        is_joint &= np.diff(mine)[1:] <= 2
        # A mast between hull and sail is part of a boat.
        is_joint &= places[mine[2:]] == _first_places(places[mine].astype(np.int64), own)[:-2]
        rows = np.flatnonzero(is_joint & ~columns.is_curved[mine[1:-1]]) + 1
        firsts = at_first[np.searchsorted(numbers, own[rows - 1])]
        rows = rows[~_are_travelled_to(mine[rows], firsts, pens, points)]
        steps, lines = mine[rows], places[mine[rows]]
        for line in np.unique(lines).tolist():
            chosen = lines == line
            here, at = steps[chosen], rows[chosen]
            if len(here) < FEWEST_SHAPES:
                continue
            ways = points[here] - starts[here]
            is_sent = bool(_is_aside(ways, columns.steps["heading"][here]).any())
            some = slice(None, None, len(at) // MOST_MEASURED + 1)
            borders = [points[areas == areas[mine[row - 1]]] for row in at[some].tolist()]
            begins = starts[here][some]
            sizes = [np.abs(border - begin).max() for border, begin in zip(borders, begins, strict=True)]
            is_bead = np.median(sizes) < BEAD * np.median(np.abs(ways))
            is_web = by_chance and len(here) >= WEB
            if (is_bead and not is_web) or not is_sent or _is_string(points, starts, areas, mine, at):
                continue
            yield _told(columns, here, "leads from one area to the next", unit)


def _is_string(points: Complexes, starts: Complexes, areas: Ints, mine: Ints, at: Ints) -> bool:
    """Whether most of some lines lead into the middle of what is drawn there, as bows hang on a string."""
    threaded = 0
    for row in at.tolist():
        end = points[mine[row]]
        stop = row + 1
        while stop < len(mine) and areas[mine[stop]] >= 0:
            stop += 1
        drawn = np.append(starts[mine[row + 1 : stop]], points[mine[row + 1 : stop]]) - end
        low, high = (np.array([most(drawn.real), most(drawn.imag)]) for most in (np.min, np.max))
        threaded += bool((np.abs(low + high) <= CENTRED * (high - low)).all())
    return 2 * threaded > len(at)


def _are_travelled_to(steps: Ints, firsts: Ints, pens: Ints, points: Complexes) -> Bools:
    """To which lines the nib travelled from an area, of which the first step is known.

    A block that returns goes back to where the nib stood in one of the three steps before that.
    """
    before = steps - 1
    returns = np.zeros(len(steps), bool)
    for back in (1, 2, 3):
        returns |= (firsts >= back) & (points[firsts - back] == points[before])
    travelled: Bools = (pens[before] == PenState.JUMP) & ~returns
    return travelled


def _joints(contour: Contour, columns: Columns, by_chance: bool) -> list[int]:
    """The single straight steps between one shape and the next.

    A contour that begins with such a step is looked at if the nib was not headed that way: it was sent to a
    point, as to the next of several shapes. Who walks on with the line before is threading beads on a string.
    """
    ends = _loop_ends(contour)
    if not ends and not contour.is_curved.any():
        return []  # no shape is in it
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
    return between if between and is_shape[0] else _sent(contour, columns, parts, is_shape, by_chance)


def _sent(
    contour: Contour, columns: Columns, parts: list[range], is_shape: list[bool], by_chance: bool
) -> list[int]:
    """Lines to shapes, if the nib was not always headed where it went, or no two lines are alike."""
    joints = [
        (part.start, shape)
        for (part, is_closed), (shape, follows) in pairwise(zip(parts, is_shape, strict=True))
        if follows and not is_closed and not contour.is_curved[part.start]
    ]
    steps = [joint for joint, _ in joints]
    lengths = contour.lengths[steps]
    is_aside = _is_aside(contour.sides[steps], columns.steps["heading"][contour.steps[steps]])
    is_uneven = len(joints) > FEWEST_SHAPES and np.ptp(lengths) > 0.01 * lengths.max()
    if len(joints) < FEWEST_SHAPES or not (is_aside.any() or is_uneven):
        return []
    if by_chance and len(steps) >= WEB:
        return steps
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
    shared = np.flatnonzero(counts[numbers] > 1)[::-1]
    for i, number in zip(shared.tolist(), numbers[shared].tolist(), strict=True):
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
            words = "runs from the centre of one shape to the centre of the next"
            yield _told(columns, chain.steps[joints], words, unit)


def _first_places(places: Ints, areas: Ints) -> Ints:
    """For each of some steps the place of the first step of its area, as far as the steps before show."""
    begins = np.diff(areas, prepend=-2) != 0
    found: Ints = places[np.flatnonzero(begins)[np.cumsum(begins) - 1]]
    return found


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
