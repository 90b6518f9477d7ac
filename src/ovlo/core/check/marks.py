"""Rules about whole marks: what leaves the sheet, what a lifted pen did not draw, what fills nothing."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from ovlo.core.paint.measures import Floats, MarkBoxes, widest_line
from ovlo.core.paint.order import Painting
from ovlo.core.paint.outlines import MOVE
from ovlo.core.paint.regions import region
from ovlo.core.trail.columns import Columns, Pen
from ovlo.core.values.finding import Found

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet

FEWEST_LIFTED = 3
"""So many lifted moves that bend look meant to draw."""

FEWEST_CORNERS = 3

NO_AREA = 1e-9
"""An area below this share of the square of its size is none."""

MEETS = 1e-6


def off_sheet(sheet: Sheet, boxes: MarkBoxes, fitting: float) -> Iterator[Found]:
    """Marks that leave the sheet; `fitting` is the scale at which all would be seen."""
    columns = sheet._columns
    half = np.array([sheet.width, sheet.height]) / 2
    boxes = boxes.chosen(~_bleeds(columns, boxes, half))
    over = boxes.beyond(sheet.width, sheet.height)
    if not over.count:
        return
    far = ", ".join(
        f"{distance:.4g} {sheet.unit} beyond the {edge}" for edge, distance in over.distances.items()
    )
    is_text = np.arange(over.total) >= over.total - len(columns.texts)
    texts = np.flatnonzero(over.is_out & is_text) - (over.total - len(columns.texts))
    first = int(np.flatnonzero(over.is_out)[0])
    place = np.clip((boxes.low[first] + boxes.high[first]) / 2, -half, half)
    steps = _steps_beyond(columns, half)
    if not len(steps):  # only the bulge of a curve leaves it
        steps = boxes.steps[over.is_out & ~is_text]
    yield Found(
        f"{over.count} of {over.total} {'mark' if over.total == 1 else 'marks'} "
        f"{'leaves' if over.count == 1 else 'leave'} the sheet: {far}.",
        _mend_of_place(sheet, boxes.low.min(axis=0), boxes.high.max(axis=0), fitting),
        complex(*place.tolist()),
        tuple(steps.tolist()),
        tuple(columns.texts[i].origin for i in texts.tolist()),
    )


BLEEDING = 0.2
"""An area without an outline of which so much is on the sheet was meant to run over its edge."""


def _bleeds(columns: Columns, boxes: MarkBoxes, half: Floats) -> NDArray[np.bool_]:
    """Which marks are meant to run over the edge: grounds beneath all of the sheet, areas cut by it."""
    is_area = boxes.is_bare.copy()
    is_step = boxes.steps < len(columns)
    is_area[is_step] |= columns.of_steps("area")[boxes.steps[is_step]] >= 0
    is_ground = is_area & ((boxes.low <= -half) & (boxes.high >= half)).all(axis=1)
    seen = np.minimum(boxes.high, half) - np.maximum(boxes.low, -half)
    whole = np.maximum(boxes.high - boxes.low, 1e-300)
    share = (np.maximum(seen, 0) / whole).prod(axis=1)
    return np.asarray(is_ground | (boxes.is_bare & (share >= BLEEDING)))


def _steps_beyond(columns: Columns, half: Floats) -> NDArray[np.int64]:
    """The steps that leave a mark and begin or end beyond the sheet."""
    ends = np.maximum(np.abs(columns.starts), np.abs(columns.points))
    is_traced = np.isin(columns.of_steps("pen"), (Pen.DRAW, Pen.TRACE))
    return np.flatnonzero(is_traced & (ends > half).any(axis=1))


def _mend_of_place(sheet: Sheet, low: Floats, high: Floats, fitting: float) -> str:
    """How all marks would fit: moved, if that is enough, else smaller, or on a larger sheet."""
    half, unit = np.array([sheet.width, sheet.height]) / 2, sheet.unit
    reach = np.maximum(-low, high)
    exchanged = " If x and y were exchanged, all would fit." if (reach[::-1] <= half).all() else ""
    if (high - low <= 2 * half - 2).all():
        # Whole units, so that they can be typed, and no line is on the very edge.
        dx, dy = (np.ceil(np.maximum(-half - low, 0)) - np.ceil(np.maximum(high - half, 0))).tolist()
        ways = [
            f"{abs(number):g} {unit} {way}"
            for number, way in (
                (dx, "farther right" if dx > 0 else "farther left"),
                (dy, "higher" if dy > 0 else "lower"),
            )
            if number
        ]
        return f"Start {' and '.join(ways)}: nib.travel_by({dx:g}, {dy:g}) moves it there.{exchanged}"
    width, height = np.ceil(2 * reach + widest_line(sheet._columns)).tolist()
    return (
        f"All would fit at {fitting:.2g} of the size, or on a sheet of "
        f"{max(width, sheet.width):g} × {max(height, sheet.height):g} {unit}.{exchanged}"
    )


def still_lifted(sheet: Sheet) -> Iterator[Found]:
    """A pen that stayed lifted while it moved as if to draw."""
    columns = sheet._columns
    nothing = not columns.is_traced.any() and not columns.texts
    runs = columns.runs
    nib_of_step, pen_of_step = columns.of_steps("nib"), columns.of_steps("pen")
    traced = np.isin(pen_of_step, (Pen.DRAW, Pen.TRACE))
    for number, nib in enumerate(sheet.nibs):
        mine = np.flatnonzero(nib_of_step == number)
        lifted = mine[pen_of_step[mine] == Pen.LIFTED]
        last = int(mine[traced[mine]].max(initial=-1))
        after = lifted[lifted > last]
        if nib.is_lifted and (nothing or _look_meant(columns, after)):
            place = complex(*nib.position) if not len(after) else complex(*columns.points[after[0]])
            yield Found(
                f"The pen stayed lifted: {_counted(len(after))} drew nothing"
                + (", and nothing was drawn at all." if nothing else "."),
                "Write nib.lower() before the first line that should be seen, or put only the move without "
                "a line into `with nib.lifted():`.",
                place,
                tuple(after.tolist()),
            )
            return
        for loop in _lifted_loops(columns, lifted[lifted <= last] if nib.is_lifted else lifted):
            yield Found(
                f"A closed shape of {len(loop)} moves was walked with the pen lifted, so it is not seen.",
                "Write nib.lower() before it, if it should be drawn.",
                complex(*columns.points[loop[0]]),
                tuple(loop.tolist()),
            )
    if nothing:
        moved = len(runs) and bool((columns.starts != columns.points).any())
        what = "the nib only travelled" if moved else "no nib moved"
        yield Found(
            f"Nothing was drawn at all: {what}.",
            "Draw with nib.forward(90), which leaves a line where nib.travel(90) leaves none."
            if moved
            else "Make a nib with sheet.new_nib() and begin with nib.forward(90).",
            0j,
            tuple(range(len(columns))) if moved else (),
        )


def _counted(moves: int) -> str:
    if not moves:
        return "what it was to draw"
    return "1 move" if moves == 1 else f"{moves} moves"


def _look_meant(columns: Columns, steps: NDArray[np.int64]) -> bool:
    """Whether some moves are several and bend."""
    if len(steps) < FEWEST_LIFTED:
        return False
    ways = (columns.points - columns.starts)[steps]
    directions = np.round(np.degrees(np.arctan2(ways[:, 1], ways[:, 0])), 3)
    return len(np.unique(directions)) > 1 or bool(np.isin(columns.arcs["step"], steps).any())


def _lifted_loops(columns: Columns, lifted: NDArray[np.int64]) -> Iterator[NDArray[np.int64]]:
    """Lifted moves in a row that come back to where they began."""
    for moves in np.split(lifted, np.flatnonzero(np.diff(lifted) != 1) + 1):
        if not _look_meant(columns, moves):
            continue
        start, ends = columns.starts[moves[0]], columns.points[moves]
        size = np.abs(ends - start).max()
        back = np.flatnonzero((np.abs(ends - start) <= MEETS * size).all(axis=1))
        back = back[back >= FEWEST_LIFTED - 1]
        if len(back) and not _is_drawn_later(columns, moves[: back[0] + 1], size):
            yield moves[: back[0] + 1]


def _is_drawn_later(columns: Columns, loop: NDArray[np.int64], size: float) -> bool:
    """Whether lines go through the corners of a lifted walk afterwards: it only found them."""
    later = columns.is_drawn[loop[-1] + 1 :]
    drawn = columns.points[loop[-1] + 1 :][later]
    if not len(drawn):
        return False
    apart = np.abs(drawn[None, :, :] - columns.points[loop][:, None, :]).max(axis=2)
    return bool((apart.min(axis=1) <= MEETS * size).all())


def empty_area(columns: Columns, painting: Painting) -> Iterator[Found]:
    """Area blocks with fewer than three corners, or without area."""
    # A bar of no height beside others is no slip: most of what comes from one place must be empty.
    places = columns.areas["origin"] if (columns.areas["origin"] >= 0).any() else np.zeros(len(columns.areas))
    empty = list(_empty_areas(columns, painting))
    for place in dict.fromkeys(places.tolist()):
        here = [one for area, one in empty if places[area] == place]
        if 2 * len(here) > (places == place).sum():
            yield from here


def _empty_areas(columns: Columns, painting: Painting) -> Iterator[tuple[int, Found]]:
    """Each area without area, with its number."""
    paths = {int(area): number for number, area in enumerate(painting.borders.keys.tolist())}
    for area, row in enumerate(columns.areas):
        step = int(row["step"])
        place = columns.starts[step] if step < len(columns) else np.zeros(2)
        if area not in paths:
            yield (
                area,
                Found(
                    "This area block holds no line: nothing is filled.",
                    "Walk the border of the area inside the block, with the pen lowered.",
                    complex(*place),
                    (step,) if step < len(columns) else (),
                    (int(row["origin"]),),
                ),
            )
            continue
        vertices, codes = painting.borders.path(paths[area])
        if trouble := _lack(vertices, codes):
            yield (
                area,
                Found(
                    f"This area block has {trouble}: nothing is filled.",
                    "Walk at least three corners that are not in one line inside the block.",
                    complex(*vertices[0]),
                    (step,),
                    (int(row["origin"]),),
                ),
            )


def _lack(vertices: NDArray[np.float64], codes: NDArray[np.uint8]) -> str:
    """What a border lacks to have an area, or nothing; curves must be chords."""
    low, high = vertices.min(axis=0), vertices.max(axis=0)
    size = float((high - low).max())
    firsts = np.flatnonzero(codes == MOVE).tolist()
    for first, stop in pairwise([*firsts, len(vertices)]):
        if abs(_signed_area(vertices[first:stop])) > NO_AREA * size**2:
            return ""
    corners = len(np.unique(np.round((vertices - low) / max(MEETS * size, 1e-300)), axis=0))
    if corners < FEWEST_CORNERS:
        return f"{corners} corners" if corners != 1 else "a single corner"
    if _spread(vertices) <= NO_AREA * size:
        return "all its corners in one line"
    is_none = region(vertices, codes, "nonzero").area <= NO_AREA * size**2
    return "no area, its lines lying on each other" if is_none else ""


def _signed_area(ring: NDArray[np.float64]) -> float:
    """Of a ring of points, above 0 if it goes anticlockwise (the shoelace formula)."""
    x, y = (ring - ring[0]).T
    return float(x @ np.roll(y, -1) - y @ np.roll(x, -1)) / 2


def _spread(vertices: NDArray[np.float64]) -> float:
    """How far points are from their best line: the smaller singular value (total least squares)."""
    return float(np.linalg.svd(vertices - vertices.mean(axis=0), compute_uv=False)[-1])
