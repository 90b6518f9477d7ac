"""Rules about areas: those that hold nothing, and those that end before their contour does.

list(empty_area(columns, painting.flattened(0.1)))
"""

from __future__ import annotations

from collections.abc import Iterator, Set

import numpy as np

from ovlo.core.paint.contours import MEETS
from ovlo.core.paint.order import Painting
from ovlo.core.paint.outlines import Outline
from ovlo.core.paint.regions import region
from ovlo.core.trail.columns import Columns, PenState
from ovlo.core.values.arrays import Bools, Bytes, Floats
from ovlo.core.values.finding import HINT, PROBLEM, Match, rule

FEWEST_CORNERS = 3

NO_AREA = 1e-9
"""An area below this share of the square of its size is none."""


@rule(
    "empty-area",
    PROBLEM,
    f"Reported when an area block has fewer than {FEWEST_CORNERS} corners or encloses nothing, and "
    "so do most blocks from the same line of the program.",
)
def empty_area(columns: Columns, painting: Painting, told: Set[int] = frozenset()) -> Iterator[Match]:
    """Area blocks with fewer than three corners, or without area; those that were told are left out."""
    # A bar of no height beside others is no slip: most of what comes from one place must be empty.
    places = columns.areas["origin"] if (columns.areas["origin"] >= 0).any() else np.zeros(len(columns.areas))
    empty = list(_empty_areas(columns, painting))
    for place in dict.fromkeys(places.tolist()):
        here = [one for area, one in empty if places[area] == place and area not in told]
        if 2 * len(here) > (places == place).sum():
            yield from here


def _empty_areas(columns: Columns, painting: Painting) -> Iterator[tuple[int, Match]]:
    """Each area without area, with its number."""
    paths = {area: number for number, area in enumerate(painting.borders.keys.tolist())}
    has_area = _has_area(painting.borders).tolist()
    for area, row in enumerate(columns.areas):
        step = int(row["step"])
        if area not in paths:
            place = columns.starts[step] if step < len(columns) else np.zeros(2)
            yield (
                area,
                Match(
                    "This area block draws no line, so nothing is filled.",
                    "Draw the border of the area inside the block, with the pen lowered.",
                    complex(*place),
                    (step,) if step < len(columns) else (),
                    (int(row["origin"]),),
                ),
            )
            continue
        path = paths[area]
        if not has_area[path] and (trouble := _lack(*painting.borders.path(path))):
            yield (
                area,
                Match(
                    f"This area block has {trouble}, so nothing is filled.",
                    "Inside the block, walk to at least three corners that are not on one line.",
                    complex(*painting.borders.path(path)[0][0]),
                    (step,),
                    (int(row["origin"]),),
                ),
            )


def _has_area(borders: Outline) -> Bools:
    """Which borders have a piece with an area; curves must be chords."""
    moves = borders.moves
    if not len(moves):
        return np.zeros(len(borders), bool)
    # The shoelace formula, seen from where each piece begins, so that its way back there counts nothing.
    sizes = np.diff(np.append(moves, len(borders.vertices)))
    seen = borders.vertices - np.repeat(borders.vertices[moves], sizes, axis=0)
    x, y = seen.T
    crosses = np.append(x[:-1] * y[1:] - y[:-1] * x[1:], 0.0)
    crosses[moves[1:] - 1] = 0
    areas = np.abs(np.add.reduceat(crosses, moves)) / 2
    low, high = borders.path_boxes()
    of_piece = np.searchsorted(borders.firsts, moves, "right") - 1
    is_one = areas > NO_AREA * (high - low).max(axis=1)[of_piece] ** 2
    return np.asarray(np.bincount(of_piece, is_one, len(borders)) > 0)


def _lack(vertices: Floats, codes: Bytes) -> str:
    """What a border without area in any of its pieces lacks, or nothing if two of them together have one."""
    low, high = vertices.min(axis=0), vertices.max(axis=0)
    size = float((high - low).max())
    corners = len(np.unique(np.round((vertices - low) / max(MEETS * size, 1e-300)), axis=0))
    if corners < FEWEST_CORNERS:
        return f"{corners} corners" if corners != 1 else "a single corner"
    if _spread(vertices) <= NO_AREA * size:
        return "all its corners on one line"
    is_none = region(vertices, codes, "nonzero").area <= NO_AREA * size**2
    return "lines that enclose nothing" if is_none else ""


def _spread(vertices: Floats) -> float:
    """How far points are from their best line: the smaller singular value (total least squares)."""
    return float(np.linalg.svd(vertices - vertices.mean(axis=0), compute_uv=False)[-1])


@rule(
    "area-cut-short",
    HINT,
    "Reported when an area block ends and the lines after it close the contour that was begun inside it. "
    "Half a disc is not reported.",
)
def area_cut_short(short: dict[int, Match]) -> Iterator[Match]:
    """Areas whose block ends before the contour they began does, as `cut_short` gives them."""
    yield from short.values()


MOST_LEFT = 24
"""Steps after an area in which its contour may still be closed."""


def cut_short(columns: Columns) -> Iterator[tuple[int, Match]]:
    """Areas whose block ends before the contour they began does, with their numbers."""
    last = dict(zip(columns.area_ends["area"].tolist(), columns.area_ends["step"].tolist(), strict=True))
    starts, points = columns.starts, columns.points
    pens, nibs, of_area = (columns.of_steps(name) for name in ("pen", "nib", "area"))
    contours = columns.of_steps("contour")
    for area, row in enumerate(columns.areas):
        stop = last.get(area, len(columns))
        inside = int(row["step"]) + np.flatnonzero(of_area[row["step"] : stop] == area)
        if not len(inside) or stop >= len(columns) or pens[stop] != PenState.DRAW:
            continue
        mine = inside[contours[inside] == contours[inside[-1]]]
        begin = starts[mine[0]]
        size = float(np.abs(points[mine] - begin).max())
        after = np.arange(stop, min(stop + MOST_LEFT, len(columns)))
        goes_on = (pens[after] == PenState.DRAW) & (nibs[after] == nibs[mine[0]]) & (of_area[after] < area)
        goes_on[1:] &= (starts[after[1:]] == points[after[:-1]]).all(axis=1)
        after = after[np.logical_and.accumulate(goes_on)]
        if not len(after) or not np.array_equal(starts[stop], points[mine[-1]]):
            continue
        near = MEETS * max(size, float(np.abs(points[after] - begin).max()))
        back = np.flatnonzero((np.abs(points[after] - begin) <= near).all(axis=1))
        is_closed = (np.abs(points[mine[-1]] - begin) <= near).all()
        # Half a disc is filled, and the other half only drawn.
        if not len(back) or is_closed or (len(mine) == 1 and columns.is_curved[mine[0]]):
            continue
        rest = int(back[0]) + 1
        steps = "the next step, which closes" if rest == 1 else f"the next {rest} steps, which close"
        yield (
            area,
            Match(
                f"This area ends before its contour is complete: {steps} it, are drawn after the "
                f"block.".replace("closes it, are", "closes it, is"),
                "Draw the whole contour inside the block: indent the lines that follow.",
                complex(*points[mine[-1]]),
                tuple(after[:rest].tolist()),
                (int(row["origin"]),),
                is_hint=True,
            ),
        )
