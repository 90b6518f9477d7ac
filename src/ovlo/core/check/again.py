"""The rule about closed figures that lie exactly on equal ones.

found = list(drawn_again(sheet, places))
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ovlo.core.paint.contours import AXES
from ovlo.core.paint.likeness import coordinates, mixed, numbered
from ovlo.core.paint.outlines import ranges
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.arrays import Bools, Complexes, Ints
from ovlo.core.values.finding import HINT, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

SAME = 1e-7
"""Of the sheet, by which places may differ that are taken for one."""

MOST_OPEN = 20_000
"""Steps of a picture in which open lines are compared."""

LEAST_SHARE = 0.25
"""Of the figures of a line; where fewer lie on others, as at the seams of a pattern, it is meant."""


class ClosedFigures(NamedTuple):
    """Closed figures: the first step and one past the last, and a number, the same for equal ones.

    `forms` are equal for those with the same fill or none, lines as wide, and borders in the same place.
    """

    starts: Ints
    stops: Ints
    kinds: Ints
    forms: Ints
    is_filled: Bools


@rule(
    "drawn-again",
    HINT,
    "Reported when closed figures lie exactly on equal ones of the same style, so that nobody sees them. "
    "Reported too when most of the filled figures of a line are hidden by later ones of the same shape, and "
    "when a curve or an open line is drawn twice in a row. "
    "Not reported for translucent ones, if random numbers are used, and where fewer than "
    f"{LEAST_SHARE:.0%} of the figures of a line lie on others.",
)
def drawn_again(sheet: Sheet, told: set[int]) -> Iterator[Match]:
    """Figures that lie on earlier ones, by the line that draws them; steps in `told` are told of already."""
    columns, origins = sheet._columns, sheet._origins
    if sheet.seed is not None:
        return
    figures = _figures(columns, SAME * max(sheet.width, sheet.height))
    _, firsts, kind = np.unique(figures.kinds, return_index=True, return_inverse=True)
    earlier = firsts[kind.reshape(-1)]
    is_again = earlier != np.arange(len(earlier))
    places = (
        np.zeros(len(earlier), np.int64)
        if origins is None
        else origins.steps[figures.starts].astype(np.int64)
    )
    for place in np.unique(places[is_again]).tolist():
        here = np.flatnonzero(places == place)
        again = here[is_again[here]]
        steps = figures.starts[again]
        if len(again) < LEAST_SHARE * len(here) or not told.isdisjoint(steps.tolist()):
            continue
        is_own = bool((places[earlier[again]] == place).all())
        if not is_own and _is_painted_between(columns, figures, earlier[again], again):
            continue
        one, each = _round(is_again[here]), ""
        if is_own and len(one) < len(here):
            here, again, each = here[: len(one)], here[: len(one)][one], " each time"
        otherwise = turn_instead(columns, figures.starts[here])
        words, fix = _told(len(here), len(again), is_own, otherwise, each)
        told = told | set(steps.tolist())
        yield Match(words, fix, complex(columns.points[steps[0]] @ AXES), tuple(steps.tolist()))
    yield from _hidden(columns, figures, places, told)


@rule("drawn-again")
def open_again(sheet: Sheet, told: set[int]) -> Iterator[Match]:
    """Open lines that are drawn twice in a row."""
    columns, origins = sheet._columns, sheet._origins
    if sheet.seed is not None or origins is None or len(columns) > MOST_OPEN:
        return
    same = SAME * max(sheet.width, sheet.height)
    drawn = np.flatnonzero((columns.of_steps("pen") == PenState.DRAW) & (columns.of_steps("area") < 0))
    if not len(drawn):
        return
    styles, starts, points = columns.of_steps("style"), columns.starts, columns.points
    headings, is_curved = columns.steps["heading"], columns.is_curved
    begins = np.append(0, np.flatnonzero(np.diff(columns.of_steps("contour")[drawn])) + 1)
    firsts = drawn[begins]
    meets = (np.abs(np.diff(starts[firsts], axis=0)) <= same).all(axis=1)
    # Straight lines are many, and most begin elsewhere than the one before and the one behind.
    is_alone = (np.diff(begins, append=len(drawn)) == 1) & ~is_curved[firsts]
    is_alone &= ~np.append(False, meets) & ~np.append(meets, False)
    is_alone &= (np.abs(points[firsts] - starts[firsts]) > same).any(axis=1)
    before: tuple[object, ...] = ()
    is_next = False
    for steps, is_passed in zip(np.split(drawn, begins[1:]), is_alone.tolist(), strict=True):
        if is_passed:
            before, is_next = (), True
            continue
        walked = np.vstack([starts[steps[:1]], points[steps]])
        if (np.abs(walked[-1] - walked[0]) <= same).all():
            is_next = False
            continue
        style = columns.styles[int(styles[steps[0]])]
        way = np.round(walked / same).tobytes(), np.round(headings[steps], 6).tobytes(), style
        # What is not drawn right after each other may be the seam of two tiles.
        is_line = len(steps) == 1 and not is_curved[steps[0]]
        if way == before and style.ink.opacity == 1 and (is_next or not is_line):
            if told.isdisjoint(steps.tolist()):
                yield Match(
                    "This is drawn exactly where the same was drawn before.",
                    "Leave out one of the two, or turn or move the nib between them.",
                    complex(points[steps[0]] @ AXES),
                    tuple(steps.tolist()),
                )
            return  # the lines of one figure have one cause
        before, is_next = way, True


def _hidden(columns: Columns, figures: ClosedFigures, places: Ints, told: set[int]) -> Iterator[Match]:
    """Filled figures of one line of the program that later ones of other colours hide, if most are hidden."""
    for place in np.unique(places[figures.is_filled]).tolist():
        here = np.flatnonzero((places == place) & figures.is_filled)
        _, last = np.unique(figures.forms[here][::-1], return_index=True)
        hidden = np.delete(here, len(here) - 1 - last)
        steps = figures.starts[hidden]
        if (
            2 * len(hidden) < len(here)
            or not len(hidden)
            or not told.isdisjoint(figures.starts[here].tolist())
        ):
            continue
        yield Match(
            f"Of {len(here)} figures drawn here, {len(hidden)} are hidden by later ones of the same shape in "
            "the same place.",
            "Move the nib to another place for each, or draw only the last.",
            complex(columns.points[steps[0]] @ AXES),
            tuple(steps.tolist()),
        )


def turn_instead(columns: Columns, firsts: Ints) -> str:
    """What to turn by instead of repeating less, if figures that begin with these steps turn evenly."""
    count, headings = len(firsts), columns.steps["heading"][firsts]
    turns = (np.diff(headings) + 180) % 360 - 180
    if count < 3 or np.ptp(turns) > 1e-4 or abs(turns[0]) < 1e-4:
        return "change by how much the nib turns or moves between them"
    return f"turn by {360 / count:.6g}° (360 / {count}) each time"


def _round(is_again: Bools) -> Bools:
    """The first of several equal rounds of figures, each of which begins with new ones; else all of them."""
    begins = np.flatnonzero(np.append(True, is_again[:-1] & ~is_again[1:]))
    rounds = np.split(is_again, begins[1:])
    return rounds[0] if all(np.array_equal(rounds[0], one) for one in rounds) else is_again


def _told(count: int, again: int, is_own: bool, otherwise: str, each: str) -> tuple[str, str]:
    """What is said of some figures of a line that lie on others, and the fix."""
    left, lie = count - again, "lies" if again == 1 else "lie"
    if not is_own:
        what = "This figure" if again == 1 else f"{again} figures drawn here"
        which = "an equal one" if again == 1 else "equal ones"
        fix = "Leave out one of the two, or move the nib between them."
        return f"{what} {lie} exactly on {which} drawn before.", fix
    if left == 1:
        return (
            f"This figure is drawn {count} times in the same place.",
            "Draw it once, or move or turn the nib before each.",
        )
    return (
        f"Of {count} figures drawn here{each}, {again} {lie} exactly on others drawn before.",
        f"Repeat {left} times instead of {count}, or {otherwise}.",
    )


def _figures(columns: Columns, same: float) -> ClosedFigures:
    """All closed figures: what a contour walks from its start until it is there again, each time."""
    chosen = columns.is_traced & (columns.stops > columns.runs["start"]) & _is_opaque(columns)
    runs, stops = columns.runs[chosen], columns.stops[chosen]
    steps = ranges(runs["start"], stops - runs["start"])
    if not len(steps):
        return ClosedFigures(steps, steps, steps, steps, steps > 0)
    of_run = np.repeat(np.arange(len(runs)), stops - runs["start"])
    starts, ends = columns.starts[steps] @ AXES, columns.points[steps] @ AXES
    contour, style, area = (runs[name][of_run] for name in ("contour", "style", "area"))
    is_joined = (
        (np.diff(contour, prepend=-1) == 0)
        & (np.diff(style, prepend=-1) == 0)
        & (np.diff(area, prepend=-2) == 0)
        & (np.diff(steps, prepend=-2) == 1)
        & (np.abs(starts - np.append(0j, ends[:-1])) <= same)
    )
    # A figure ends where its chain is again where it began, or where the chain breaks off.
    chain_at = np.flatnonzero(~is_joined)
    chain = np.cumsum(~is_joined) - 1
    is_back = np.abs(ends - starts[chain_at][chain]) <= same
    last = np.append(~is_joined[1:], True) | is_back
    stop = np.flatnonzero(last) + 1
    start = np.append(0, stop[:-1])
    # Two points of each step, taken together, are the same whichever way it is walked.
    inner = [_within(columns, steps, starts, ends, share) for share in (1 / 3, 2 / 3)]
    one, other = (mixed(numbered(np.column_stack(coordinates(z)), same)) for z in inner)
    borders = np.add.reduceat(mixed(one + other), start)
    kinds = borders ^ mixed(_paint(columns, style, area)[start])
    widths = np.array([one.line_width for one in columns.styles] or [0.0])[style[start]]
    forms = borders ^ mixed(widths.view(np.int64))
    is_closed = is_back[stop - 1]
    return ClosedFigures(
        steps[start][is_closed],
        steps[stop - 1][is_closed] + 1,
        kinds[is_closed],
        forms[is_closed],
        area[start][is_closed] >= 0,
    )


def _is_opaque(columns: Columns) -> Bools:
    """Which runs have an opaque ink, and an opaque fill or none."""
    inks = np.array([style.ink.opacity for style in columns.styles] or [1.0])
    fills = np.append(columns.areas["opacity"], 1.0)
    return np.asarray((inks[columns.runs["style"]] == 1) & (fills[columns.runs["area"]] == 1))


def _within(columns: Columns, steps: Ints, starts: Complexes, ends: Complexes, share: float) -> Complexes:
    """The point that is a share of the way along each step."""
    is_curved = columns.is_curved[steps]
    found = starts + share * (ends - starts)
    if is_curved.any():
        arcs = columns.arcs_of(steps[is_curved])
        first, last = (np.column_stack([z.real, z.imag])[is_curved] for z in (starts, ends))
        found[is_curved] = curves.points_at(arcs, first, last, np.full(len(arcs), share)) @ AXES
    return found


def _paint(columns: Columns, style: Ints, area: Ints) -> Ints:
    """A number for the line and the fill of each step."""
    areas = columns.areas
    fills = np.column_stack([areas[name] for name in ("red", "green", "blue", "fill_rule")])
    _, fill = np.unique(fills, axis=0, return_inverse=True)
    found: Ints = style.astype(np.int64) << 20 | np.append(fill.reshape(-1) + 1, 0)[area]
    return found


def _is_painted_between(columns: Columns, figures: ClosedFigures, earlier: Ints, again: Ints) -> bool:
    """Whether other areas are painted between figures and those on them, which then restore the figures."""
    own = columns.of_steps("area")[figures.starts[np.append(earlier, again)]]
    others = np.delete(columns.areas["step"], own[own >= 0])
    low, high = figures.stops[earlier].min(), figures.starts[again].max()
    return bool(((others >= low) & (others < high)).any())
