"""The rule about pens that stayed lifted where they were to draw.

list(still_lifted(sheet))
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from ovlo.core.paint.contours import MEETS
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Ints
from ovlo.core.values.finding import PROBLEM, Match, rule

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

FEWEST_LIFTED = 3
"""So many lifted moves that bend look meant to draw."""

FEWEST_AGAIN = 2
"""So many lifted moves from lines of the program that drew before look so too."""


@rule(
    "still-lifted",
    PROBLEM,
    f"Reported when the pen is still lifted at the end after {FEWEST_LIFTED} or more moves that bend, or "
    f"after {FEWEST_AGAIN} or more by lines that drew before; when a closed shape is walked with the pen "
    "lifted and not drawn later; and when a shape, text or stamp is placed with the pen lifted.",
)
def still_lifted(sheet: Sheet) -> Iterator[Match]:
    """A pen that stayed lifted while it moved or marked as if to draw."""
    found = list(_moves(sheet))
    yield from found
    origins = sheet._origins
    for one in origins.left_out if origins is not None and not found else ():
        times = "" if one.times == 1 else f", {one.times} times"
        what = "words are written" if one.call == "text" else f"a {one.call} is placed"
        yield Match(
            f"Here {what} with the pen lifted{times}, so it leaves no mark.",
            f"Write nib.lower() before nib.{one.call}(…), or end the block of nib.lifted() before it.",
            complex(one.x, one.y),
            (),
            (one.place,),
        )


def _moves(sheet: Sheet) -> Iterator[Match]:
    """Moves of a lifted pen that look meant to draw."""
    columns = sheet._columns
    nothing = not columns.is_traced.any() and not columns.texts
    nib_of_step, pen_of_step = columns.of_steps("nib"), columns.of_steps("pen")
    traced = np.isin(pen_of_step, (PenState.DRAW, PenState.TRACE))
    for number, nib in enumerate(sheet.nibs):
        mine = np.flatnonzero(nib_of_step == number)
        lifted = mine[pen_of_step[mine] == PenState.LIFTED]
        last = int(mine[traced[mine]].max(initial=-1))
        after = lifted[lifted > last]
        drew_here = _from_drawn_places(sheet._origins, mine[traced[mine]], after)
        if nib.is_lifted and (nothing or _look_meant(columns, after) or len(drew_here) >= FEWEST_AGAIN):
            after = drew_here if len(drew_here) else after
            place = complex(*nib.position) if not len(after) else complex(*columns.points[after[0]])
            yield Match(
                f"The pen stayed lifted: {_counted(len(after))} drew nothing"
                + (", and nothing was drawn at all." if nothing else "."),
                "Write nib.lower() before the first line that should be seen, or put only the move without "
                "a line into `with nib.lifted():`.",
                place,
                tuple(after.tolist()),
            )
            return
        for loop in _lifted_loops(columns, lifted[lifted <= last] if nib.is_lifted else lifted):
            yield Match(
                f"A closed shape of {len(loop)} moves is walked with the pen lifted, so it is not visible.",
                "Write nib.lower() before it if it should be visible.",
                complex(*columns.points[loop[0]]),
                tuple(loop.tolist()),
            )


@rule(
    "nothing-drawn",
    PROBLEM,
    "Reported when nothing is drawn at all, and no pen is to blame: the nib only travels, or no nib moves.",
)
def nothing_drawn(sheet: Sheet) -> Iterator[Match]:
    """A sheet without any mark."""
    columns = sheet._columns
    nothing = not columns.is_traced.any() and not columns.texts
    if nothing and not len(columns.areas) and not any(nib.is_lifted for nib in sheet.nibs):
        moved = len(columns.runs) and bool((columns.starts != columns.points).any())
        what = "the nib only travelled" if moved else "no nib moved"
        draw = "Draw" if sheet.nibs else "Make a nib with sheet.new_nib(), then draw"
        yield Match(
            f"Nothing was drawn at all: {what}.",
            "Draw with nib.forward(90); nib.travel(90) moves without a line."
            if moved
            else f"{draw} with nib.forward(90).",
            0j,
            tuple(range(len(columns))) if moved else (),
        )


def _from_drawn_places(origins: Origins | None, drawn: Ints, lifted: Ints) -> Ints:
    """The lifted steps that come from places in the program which drew before, and do not draw any more."""
    if origins is None:
        return lifted[:0]
    return lifted[np.isin(origins.steps[lifted], origins.steps[drawn])]


def _counted(moves: int) -> str:
    if not moves:
        return "the shape it should draw"
    return "1 move" if moves == 1 else f"{moves} moves"


def _look_meant(columns: Columns, steps: Ints) -> bool:
    """Whether some moves are several and bend."""
    if len(steps) < FEWEST_LIFTED:
        return False
    ways = (columns.points - columns.starts)[steps]
    directions = np.round(np.degrees(np.arctan2(ways[:, 1], ways[:, 0])), 3)
    return len(np.unique(directions)) > 1 or bool(np.isin(columns.arcs["step"], steps).any())


def _lifted_loops(columns: Columns, lifted: Ints) -> Iterator[Ints]:
    """Lifted moves in a row that come back to where they began."""
    for moves in np.split(lifted, np.flatnonzero(np.diff(lifted) != 1) + 1):
        for leaf in _leaves(columns, moves):
            if not _is_drawn_later(columns, leaf, float(np.abs(columns.points[leaf]).max())):
                yield leaf
                return
        if not _look_meant(columns, moves):
            continue
        start, ends = columns.starts[moves[0]], columns.points[moves]
        size = np.abs(ends - start).max()
        back = np.flatnonzero((np.abs(ends - start) <= MEETS * size).all(axis=1))
        back = back[back >= FEWEST_LIFTED - 1]
        if len(back) and not _is_drawn_later(columns, moves[: back[0] + 1], size):
            yield moves[: back[0] + 1]


def _leaves(columns: Columns, moves: Ints) -> Iterator[Ints]:
    """Pairs of lifted arcs that bend alike and come back to where the first began."""
    sweeps = np.zeros(len(columns))
    sweeps[columns.arcs["step"]] = columns.arcs["sweep"]
    first, second = moves[:-1], moves[1:]
    apart = np.abs(columns.starts[first] - columns.points[second]).max(axis=1)
    reach = np.abs(columns.points[first] - columns.starts[first]).max(axis=1)
    for k in np.flatnonzero((sweeps[first] * sweeps[second] > 0) & (apart <= MEETS * reach)).tolist():
        yield moves[k : k + 2]


def _is_drawn_later(columns: Columns, loop: Ints, size: float) -> bool:
    """Whether lines go through the corners of a lifted walk afterwards: it only found them."""
    later = columns.is_drawn[loop[-1] + 1 :]
    drawn = columns.points[loop[-1] + 1 :][later]
    if not len(drawn):
        return False
    apart = np.abs(drawn[None, :, :] - columns.points[loop][:, None, :]).max(axis=2)
    return bool((apart.min(axis=1) <= MEETS * size).all())
