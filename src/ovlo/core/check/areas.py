"""Rules about areas: those that hold nothing, and those that end before their contour does.

list(empty_area(columns, painting.flattened(0.1)))
"""

from __future__ import annotations

from collections.abc import Iterator, Set
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ovlo.core.check.repairs import MEETS
from ovlo.core.paint.order import Painting
from ovlo.core.paint.outlines import MOVE
from ovlo.core.paint.regions import region
from ovlo.core.trail.columns import Columns, Pen
from ovlo.core.values.finding import Found

FEWEST_CORNERS = 3

NO_AREA = 1e-9
"""An area below this share of the square of its size is none."""


def empty_area(columns: Columns, painting: Painting, told: Set[int] = frozenset()) -> Iterator[Found]:
    """Area blocks with fewer than three corners, or without area; those that were told are left out."""
    # A bar of no height beside others is no slip: most of what comes from one place must be empty.
    places = columns.areas["origin"] if (columns.areas["origin"] >= 0).any() else np.zeros(len(columns.areas))
    empty = list(_empty_areas(columns, painting))
    for place in dict.fromkeys(places.tolist()):
        here = [one for area, one in empty if places[area] == place and area not in told]
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


MOST_LEFT = 24
"""Steps after an area in which its contour may still be closed."""


def area_cut_short(columns: Columns) -> Iterator[tuple[int, Found]]:
    """Areas whose block ends before the contour they began does, with their numbers."""
    last = dict(zip(columns.area_ends["area"].tolist(), columns.area_ends["step"].tolist(), strict=True))
    starts, points = columns.starts, columns.points
    pens, nibs, of_area = (columns.of_steps(name) for name in ("pen", "nib", "area"))
    contours = columns.of_steps("contour")
    curved = np.zeros(len(columns), bool)
    curved[columns.arcs["step"]] = True
    for area, row in enumerate(columns.areas):
        stop = last.get(area, len(columns))
        inside = int(row["step"]) + np.flatnonzero(of_area[row["step"] : stop] == area)
        if not len(inside) or stop >= len(columns) or pens[stop] != Pen.DRAW:
            continue
        mine = inside[contours[inside] == contours[inside[-1]]]
        begin = starts[mine[0]]
        size = float(np.abs(points[mine] - begin).max())
        after = np.arange(stop, min(stop + MOST_LEFT, len(columns)))
        goes_on = (pens[after] == Pen.DRAW) & (nibs[after] == nibs[mine[0]]) & (of_area[after] < area)
        goes_on[1:] &= (starts[after[1:]] == points[after[:-1]]).all(axis=1)
        after = after[np.logical_and.accumulate(goes_on)]
        if not len(after) or not np.array_equal(starts[stop], points[mine[-1]]):
            continue
        near = MEETS * max(size, float(np.abs(points[after] - begin).max()))
        back = np.flatnonzero((np.abs(points[after] - begin) <= near).all(axis=1))
        is_closed = (np.abs(points[mine[-1]] - begin) <= near).all()
        # Half a disc is filled, and the other half only drawn.
        if not len(back) or is_closed or (len(mine) == 1 and curved[mine[0]]):
            continue
        rest = int(back[0]) + 1
        steps = "the next step, which closes" if rest == 1 else f"the next {rest} steps, which close"
        yield (
            area,
            Found(
                f"This area ends before its contour does: {steps} it, are drawn after the block.".replace(
                    "closes it, are", "closes it, is"
                ),
                "Put the whole contour into the block: indent the lines that follow.",
                complex(*points[mine[-1]]),
                tuple(after[:rest].tolist()),
                (int(row["origin"]),),
                is_hint=True,
            ),
        )
