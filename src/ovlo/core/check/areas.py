"""Rules about areas: those that hold nothing, and those that end before their contour does.

list(empty_area(columns, painting.flattened(0.1)))
"""

from __future__ import annotations

from collections.abc import Iterator, Set

import numpy as np

from ovlo.core.paint.contours import MEETS, Contour
from ovlo.core.paint.order import Painting
from ovlo.core.paint.outlines import MOVE, Outline
from ovlo.core.paint.regions import region
from ovlo.core.trail.columns import FILL_RULES, Columns, PenState
from ovlo.core.values.arrays import Bools, Bytes, Floats, Ints
from ovlo.core.values.colour import Colour, difference
from ovlo.core.values.finding import HINT, PROBLEM, Match, rule

FEWEST_CORNERS = 3

SAME_ANGLE = 1e-6
"""Degrees."""

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


MOST_PIECES = 24
"""Contours of one area, of which one may lie in another."""


@rule(
    "filled-hole",
    HINT,
    "Reported when a contour of an area lies within another one that goes the same way round, so that it is "
    "filled too instead of making a hole.",
)
def filled_hole(columns: Columns, painting: Painting) -> Iterator[Match]:
    """Holes that are filled, since both contours go the same way and the fill rule is nonzero."""
    import shapely

    borders = painting.borders
    counts = np.diff(np.append(0, np.cumsum(borders.codes == MOVE))[borders.firsts])
    for number in np.flatnonzero((counts > 1) & (counts <= MOST_PIECES)).tolist():
        area = int(borders.keys[number])
        if FILL_RULES[columns.areas["fill_rule"][area]] != "nonzero":
            continue
        pieces = _pieces(*borders.path(number))
        rings = [shapely.Polygon(piece) for piece in pieces if len(piece) >= FEWEST_CORNERS]
        rings = sorted(
            (ring for ring in rings if ring.is_valid and ring.area > 0), key=lambda ring: -ring.area
        )
        for at, outer in enumerate(rings):
            inner = next((one for one in rings[at + 1 :] if outer.contains(one)), None)
            if inner is not None and outer.exterior.is_ccw == inner.exterior.is_ccw:
                middle = inner.representative_point()
                yield Match(
                    "This area has one contour within another, and fills both, since they go the same way "
                    "round.",
                    'For a hole there, write fill_rule="evenodd"; for a drawing on the area, draw it after '
                    "the block.",
                    complex(middle.x, middle.y),
                    (int(columns.areas["step"][area]),),
                    (int(columns.areas["origin"][area]),),
                )
                break


def _pieces(vertices: Floats, codes: Bytes) -> list[Floats]:
    """The contours of a border, whose curves are chords."""
    firsts = np.flatnonzero(codes == MOVE)
    return np.split(vertices, firsts[1:])


LEAST_OPEN = 4.0
"""Pixels of a side without a line that are seen."""

LEAST_CONTRAST = 12.0
"""By CIEDE2000, between a fill and the lines around it, from which on a side without one is seen."""


def _steps_in_areas(columns: Columns) -> Ints:
    """How many steps each area has."""
    of_steps = columns.of_steps("area")
    return np.bincount(of_steps[of_steps >= 0], minlength=len(columns.areas))


@rule(
    "open-border",
    HINT,
    "Reported when an area with straight sides is outlined but for the last side, which closes it, and when "
    "an area lies between two equal arcs that do not meet. Not reported if the outline hardly differs from "
    "the fill.",
)
def open_border(contour: Contour, columns: Columns, unit: str, pixels_per_unit: float) -> Match | None:
    """An outlined area of which the side that closes it has no line."""
    if contour.area < 0 or not contour.is_visible or contour.is_closed or len(contour) < FEWEST_CORNERS - 1:
        return None
    way = contour.points[-1] - contour.points[0]
    beside = np.abs(((contour.points - contour.points[0]) * way.conjugate()).imag)
    if beside.max() <= MEETS * contour.size * abs(way):
        return None  # it encloses nothing
    if contour.is_curved.any() or contour.gap * pixels_per_unit < LEAST_OPEN or not contour.is_simple:
        return None
    row = columns.areas[contour.area]
    fill = Colour(*(round(row[name]) for name in ("red", "green", "blue")))
    style = columns.styles[columns.of_steps("style")[contour.steps[0]]]
    has_others = columns.once(_steps_in_areas)[contour.area] > len(contour)
    if has_others or difference(fill, style.ink) < LEAST_CONTRAST:
        return None
    return Match(
        f"This area is filled, but the side of {contour.gap:.4g} {unit} that closes it has no line.",
        "End it with nib.line_to_start(), or leave all lines out with outline=False.",
        complex(contour.points[0] + contour.points[-1]) / 2,
        tuple(contour.steps.tolist()),
    )


@rule("open-border")
def open_leaf(contour: Contour, columns: Columns) -> Match | None:
    """An area between two equal arcs that do not end where they began."""
    if contour.area < 0 or len(contour) != 2 or not contour.is_curved.all() or contour.is_closed:
        return None
    if abs(np.subtract(*contour.lengths)) > MEETS * contour.size:
        return None
    # A chord goes halfway between the headings at the ends of its arc.
    chords = np.degrees(np.angle(contour.sides))
    halves = columns.steps["heading"][contour.steps] - chords
    sweeps = 2 * ((halves + 180) % 360 - 180)
    turn = float((chords[1] - chords[0] - sweeps.sum() / 2) % 360)
    turn -= 360 * (turn > 180)
    sweep = float(np.abs(sweeps).max())
    if abs(sweep - np.abs(sweeps).min()) > SAME_ANGLE or sweep >= 180 or abs(turn) <= SAME_ANGLE:
        return None
    return Match(
        "This area lies between two equal arcs that do not meet where they began.",
        f"Bend both to the same side, and turn by {180 - sweep:.6g}° between them.",
        complex(contour.points[1]),
        (int(contour.steps[1]),),
    )


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
        if stop >= len(columns) or pens[stop] != PenState.DRAW:
            continue
        inside = int(row["step"]) + np.flatnonzero(of_area[row["step"] : stop] == area)
        if not len(inside):
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
