"""What a plotter draws of a picture, pen by pen.

plotted = plot(columns, placing, wishes, glyphs, paper)
plotted.runs[0].strokes

From the painted order of the marks: what is seen of them, areas filled by lines, a pen for each ink, lines
drawn once and joined, an order with little travel.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from dataclasses import dataclass
from heapq import heapify, heappop, heappush
from typing import NamedTuple, get_args

import numpy as np

from ovlo.core.paint.measures import Letters
from ovlo.core.plot.arcs import fitted
from ovlo.core.plot.clipping import clipped
from ovlo.core.plot.entering import entered
from ovlo.core.plot.hatching import HATCHES, Hatching, hatched, refuse_many
from ovlo.core.plot.hidden_lines import hiding, reach_of_caps, seen
from ovlo.core.plot.inked import LETTER_LINE, Inked, Layer, Look, Shapes
from ovlo.core.plot.linking import joined
from ovlo.core.plot.once import drawn_once
from ovlo.core.plot.pens import FINEST, Pen, Replaced, pens_for
from ovlo.core.plot.placing import Placing
from ovlo.core.plot.routing import ordered, travel
from ovlo.core.plot.strokes import Strokes
from ovlo.core.plot.wide import WIDER, covered, gaps, is_wide
from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Bools, Floats, Ints
from ovlo.core.values.choices import DryFrame, Hatch, HiddenLines, PenOrder, PlotText, StrokeOrder
from ovlo.core.values.colour import Colour

HIDDEN_LINES = get_args(HiddenLines)
STROKE_ORDERS = get_args(StrokeOrder)
PEN_ORDERS = get_args(PenOrder)
DRY_FRAMES = get_args(DryFrame)
PLOT_TEXTS = get_args(PlotText)

MARK_INSET, MARK_ARM = 5.0, 3.0
"""Millimetres from the page's corner to a registration mark, and of each of its four arms."""

PRECISE = 0.1
"""The tolerance, as a share of the finest pen's width."""

FINE = 0.01
"""Millimetres; no machine is more precise."""

HOME = (0.0, 0.0)

HIDING = 2.0
"""Millimetres of a line that hides what it is drawn over."""

SMALL = 10
"""Widths of a pen; outlines of letters whose size is less become blots."""


@dataclass(frozen=True)
class Wishes:
    """How a picture is to be plotted; lengths in millimetres.

    Attributes
    ----------
    hidden_lines : one of HIDDEN_LINES
    hatch : one of HATCHES
    hatch_spacing : float or None
        None for the width of the pen.
    hatch_angle : float
        Degrees.
    tray : tuple of Pen
        The pens at hand; empty for one for each ink.
    tolerance : float or None
        How far a line may be off; None for a tenth of the finest pen's width.
    stroke_order : one of STROKE_ORDERS
    pen_order : one of PEN_ORDERS
    pen_width : float or None
        Of every pen, without a tray; None for the width of most of what an ink draws.
    dry_frame : one of DRY_FRAMES
        What the lifted pen goes around first.
    text : one of PLOT_TEXTS
        Whether words are the outlines of their letters, filled, or letters of single strokes.
    registration_marks : bool
        Whether each pen draws a cross in the corners of the page.
    """

    hidden_lines: HiddenLines = HIDDEN_LINES[0]
    hatch: Hatch = HATCHES[0]
    hatch_spacing: float | None = None
    hatch_angle: float = 45.0
    tray: tuple[Pen, ...] = ()
    tolerance: float | None = None
    stroke_order: StrokeOrder = STROKE_ORDERS[0]
    pen_order: PenOrder = PEN_ORDERS[0]
    pen_width: float | None = None
    dry_frame: DryFrame = DRY_FRAMES[0]
    registration_marks: bool = False
    text: PlotText = PLOT_TEXTS[0]


@dataclass(frozen=True, eq=False)
class PenRun:
    """What one pen draws, in this order; lengths in millimetres.

    `travel` and `lifts` are those of this order, and `travel_before` and `lifts_before` those of the lines as
    the program drew them.
    """

    pen: Pen
    strokes: Strokes
    travel: float
    travel_before: float
    lifts_before: int

    @property
    def lifts(self) -> int:
        """How often the pen is lifted."""
        return len(self.strokes)

    @property
    def drawn(self) -> float:
        """How long a line the pen draws."""
        return float(self.strokes.lengths.sum())


@dataclass(frozen=True)
class Plotted:
    """A whole plot.

    Attributes
    ----------
    placing : Placing
    runs : list of PenRun
        One for each pen that draws, in the order they are used.
    replaced : list of Replaced
        What a tray of pens has not.
    tolerance : float
        Millimetres by which a line may be off.
    wide_lines, fine_lines : int
        Lines wider than their pen, which are filled by several strokes; and those finer than it.
    marks : int
        Marks of the picture that are seen.
    cut_marks, paper_marks, narrow_areas : int
        Marks that would leave the page; those in the paper's own colour, which nobody would see; and pieces
        of areas that are narrower than their pen, but for crumbs.
    small_words : int
        Texts whose letters are so small that outlines of them become blots.
    frame : list of (float, float)
        The places that the lifted pen goes to first, in millimetres; none where it goes round nothing.
    """

    placing: Placing
    runs: list[PenRun]
    replaced: list[Replaced]
    cut_marks: int
    paper_marks: int
    narrow_areas: int
    tolerance: float
    wide_lines: int
    fine_lines: int
    small_words: int
    marks: int
    frame: list[tuple[float, float]]

    @property
    def way_home(self) -> float:
        """Millimetres from the last stroke to where the machine began."""
        return float(np.hypot(*self.runs[-1].strokes.ends[-1])) if self.runs else 0.0


def plot(
    columns: Columns, placing: Placing, wishes: Wishes, letters: Letters, paper: Colour, call: str
) -> Plotted:
    """What pens draw of a trail on a page.

    Raises
    ------
    BadValue
        If there would be more than five million strokes.
    """
    import shapely

    tolerance = wishes.tolerance or _tolerance(columns, placing, wishes)
    inked = Inked.of(columns, placing, letters, paper, tolerance, wishes.text)
    inside, cut_marks = clipped(inked, placing.room)
    lines, areas = inside.lines, inside.areas
    if wishes.hidden_lines == HIDDEN_LINES[0]:
        # Wide lines hide what is beneath as areas do; what lines of the paper's colour cover stays free.
        hides = (inside.lines.widths >= HIDING) | _is_of_paper(inside.lines, paper)
        over = hiding(inside, covered(inside.lines.taken(inside.covers & hides), inside.looks))
        has_own_pens = not wishes.tray and wishes.pen_width is None
        reach = reach_of_caps(lines, inside.looks, has_own_pens)
        lines, areas = seen(lines, over, reach), seen(areas, over)
    lines, areas, paper_marks = _on_paper(lines, areas, paper)
    if wishes.hatch == "none":
        areas = areas.taken(np.zeros(0, np.int64))
    pens, pen_of, replaced = pens_for(
        np.vstack([lines.inks, areas.inks]),
        np.append(lines.widths, np.full(len(areas.widths), np.nan)),
        np.append(shapely.length(lines.shapes), np.zeros(len(areas.shapes))),
        wishes.tray,
        wishes.pen_width,
    )
    widths = np.array([pen.line_width for pen in pens])
    line_pens, area_pens = pen_of[: len(lines.shapes)], pen_of[len(lines.shapes) :]
    seen_lines = _Penned(lines, line_pens, widths[line_pens])
    seen_areas = _Penned(areas, area_pens, widths[area_pens])
    angles = [wishes.hatch_angle if pen.hatch_angle is None else pen.hatch_angle for pen in pens]
    drawn, filled, narrow = _strokes_of(
        seen_lines, seen_areas, inside.looks, wishes, np.array(angles)[area_pens], tolerance, call
    )
    ranks = _ranks(pens, seen_lines, seen_areas, wishes.pen_order)
    crosses = _registration_marks(placing) if wishes.registration_marks else Strokes.together([])
    runs = _runs(pens, drawn, filled, ranks, wishes.stroke_order, tolerance, crosses)
    return Plotted(
        placing,
        runs,
        replaced,
        cut_marks,
        paper_marks,
        narrow,
        tolerance,
        wide_lines=int(np.count_nonzero(is_wide(lines, seen_lines.widths))),
        small_words=0 if wishes.text == "stroke" else _small_words(seen_lines, inside.words),
        fine_lines=int(np.count_nonzero(lines.widths * WIDER < seen_lines.widths)),
        # An area that draws its own border is one mark with it.
        marks=len(lines.positions) + int((~np.isin(areas.positions, lines.positions)).sum()),
        frame=_frame(wishes.dry_frame, placing, [run.strokes.after(len(crosses)) for run in runs]),
    )


def _registration_marks(placing: Placing) -> Strokes:
    """A cross in each corner of the page, at which pens that are changed can be set."""
    inset = min(MARK_INSET, placing.width / 4, placing.height / 4)
    arm = min(MARK_ARM, inset / 2)
    points = []
    right, top = placing.width - inset, placing.height - inset
    for x, y in ((inset, inset), (inset, top), (right, top), (right, inset)):
        points += [(x - arm, y), (x + arm, y), (x, y - arm), (x, y + arm)]
    return Strokes.of_lines(np.array(points), np.full(len(points) // 2, 2))


def _frame(kind: DryFrame, placing: Placing, strokes: list[Strokes]) -> list[tuple[float, float]]:
    """The corners of what the lifted pen goes around, the first one twice."""
    if kind == "none" or not strokes:
        return []
    low, high = np.zeros(2), np.array([placing.width, placing.height])
    if kind == "drawing":
        points = np.vstack([some.flat(FINE)[0] for some in strokes])
        low, high = points.min(axis=0), points.max(axis=0)
    (left, bottom), (right, top) = low.tolist(), high.tolist()
    return [(left, bottom), (right, bottom), (right, top), (left, top), (left, bottom)]


def _tolerance(columns: Columns, placing: Placing, wishes: Wishes) -> float:
    widths = [pen.line_width for pen in wishes.tray] or [
        style.line_width * placing.scale for style in columns.styles
    ]
    return max(PRECISE * max(min(widths, default=0.0), FINEST), FINE)


def _on_paper(lines: Layer, areas: Layer, paper: Colour) -> tuple[Layer, Layer, int]:
    """Without what has the very colour of the paper, and how many marks that was."""
    left, gone = [], [np.empty(0, np.int64)]
    for layer in (lines, areas):
        same = _is_of_paper(layer, paper)
        gone.append(layer.positions[same])
        left.append(layer.taken(~same))
    return left[0], left[1], len(np.unique(np.concatenate(gone)))


def _is_of_paper(layer: Layer, paper: Colour) -> Bools:
    """Which shapes have the very colour of the paper."""
    ground = np.array(paper._rgb if paper.opacity else (255, 255, 255))
    same: Bools = (np.rint(layer.inks) == np.rint(ground)).all(axis=1)
    return same


class _Penned(NamedTuple):
    """Shapes, and the pen of each with its width."""

    layer: Layer
    pens: Ints
    widths: Floats

    def taken(self, rows: Ints) -> _Penned:
        return _Penned(self.layer.taken(rows), self.pens[rows], self.widths[rows])


def _strokes_of(
    lines: _Penned,
    areas: _Penned,
    looks: list[Look],
    wishes: Wishes,
    angles: Floats,
    tolerance: float,
    call: str,
) -> tuple[_Lot, _Lot, int]:
    """What draws lines and what fills areas and wide lines, and how many areas are too narrow for that."""
    is_filled = is_wide(lines.layer, lines.widths)
    thin, wide = lines.taken(np.flatnonzero(~is_filled)), lines.taken(np.flatnonzero(is_filled))
    hatching = _hatching(areas, _borders(areas, lines), wishes, angles, call)
    bands = covered(wide.layer, looks)
    between = gaps(wide.layer.widths, wide.widths)
    along = hatched(bands.shapes, wide.widths, "concentric", between, 0.0, call)
    refuse_many(len(thin.pens) + len(hatching.counts) + len(along.counts), call)
    filled = Strokes.of_lines(hatching.points, hatching.counts)
    if wishes.hatch == "concentric":  # the others have no point too many
        filled = fitted(filled, tolerance / 2)
    rings = fitted(Strokes.of_lines(along.points, along.counts), tolerance / 2)
    drawn = _Lot(_of_shapes(thin.layer.shapes, tolerance), thin.pens, thin.layer.positions)
    fill = _Lot(
        Strokes.together([filled, rings]),
        np.append(areas.pens[hatching.rows], wide.pens[along.rows]),
        np.append(areas.layer.positions[hatching.rows], bands.positions[along.rows]),
    )
    return drawn, fill, _narrow(areas, hatching)


def _borders(areas: _Penned, lines: _Penned) -> Floats:
    """How wide the line is that each area's border is drawn with; 0 where none is."""
    at, line_at = areas.layer.positions, lines.layer.positions
    of_mark = np.zeros(int(max(at.max(initial=-1), line_at.max(initial=-1))) + 1)
    np.maximum.at(of_mark, line_at, np.maximum(lines.widths, lines.layer.widths))
    return of_mark[at]


def _hatching(areas: _Penned, borders: Floats, wishes: Wishes, angles: Floats, call: str) -> Hatching:
    gap = wishes.hatch_spacing
    gaps = areas.widths if gap is None else np.full(len(areas.widths), gap)
    parts = []
    for angle in np.unique(angles).tolist():
        rows = np.flatnonzero(angles == angle)
        # Hatching ends beneath the middle of the inner half of a border's line: no gap, and no wet border.
        lines = hatched(
            areas.layer.shapes[rows],
            areas.widths[rows],
            wishes.hatch,
            gaps[rows],
            angle,
            call,
            borders[rows] / 4,
        )
        parts.append(lines._replace(rows=rows[lines.rows]))
    if not parts:
        return Hatching(np.empty((0, 2)), np.empty(0, np.int64), np.empty(0, np.int64))
    return Hatching(*(np.concatenate(some) for some in zip(*parts, strict=True)))


def _ranks(pens: list[Pen], lines: _Penned, areas: _Penned, order: PenOrder) -> list[int]:
    """The numbers of the pens, in the order in which they are used.

    What fills an area comes before the lines on it, its own border included; of the others the light ones
    come first, or those that the picture needs first.
    """
    import shapely

    beneath, above = shapely.STRtree(areas.layer.shapes).query(lines.layer.shapes, predicate="intersects")[
        ::-1
    ]
    on_top = lines.layer.positions[above] >= areas.layer.positions[beneath]
    lying = Counter(
        zip(lines.pens[above[on_top]].tolist(), areas.pens[beneath[on_top]].tolist(), strict=True)
    )
    waits, waiting = [0] * len(pens), defaultdict(list)
    for (upper, lower), count in lying.items():
        more = count - lying[lower, upper]
        if more > 0:
            waits[upper] += more
            waiting[lower].append((upper, more))
    used = np.concatenate([areas.layer.positions, lines.layer.positions])
    first = np.full(len(pens), used.max(initial=-1) + 1)
    np.minimum.at(first, np.concatenate([areas.pens, lines.pens]), used)
    is_light_first = order == PEN_ORDERS[0]
    keys = [
        (-_lightness(pen) if is_light_first else 0.0, int(at)) for pen, at in zip(pens, first, strict=True)
    ]
    # Always the one that has least to lie on what is still to come: nothing, if no two lie on each other.
    heap = [(waits[number], keys[number], number) for number in range(len(pens))]
    heapify(heap)
    found: dict[int, None] = {}
    while heap:
        chosen = heappop(heap)[-1]
        if chosen in found:
            continue
        found[chosen] = None
        for upper, more in waiting[chosen]:
            waits[upper] -= more
            heappush(heap, (waits[upper], keys[upper], upper))
    return list(found)


def _lightness(pen: Pen) -> float:
    """How light the ink of a pen is, by the shares of red, green and blue in what the eye sees."""
    red, green, blue = pen.ink._rgb
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def _small_words(lines: _Penned, words: Ints) -> int:
    """How many texts are too small for the pen that draws the outlines of their letters."""
    of_words = np.isin(lines.layer.positions, words)
    is_small = of_words & (lines.layer.widths / LETTER_LINE < SMALL * lines.widths)
    return len(np.unique(lines.layer.positions[is_small]))


def _narrow(areas: _Penned, hatching: Hatching) -> int:
    """How many pieces of areas, larger than a dot of the pen, have no line in them."""
    import shapely

    is_filled = np.zeros(len(areas.pens), bool)
    is_filled[hatching.rows] = True
    return int(np.count_nonzero(~is_filled & (shapely.area(areas.layer.shapes) > areas.widths**2)))


def _of_shapes(shapes: Shapes, tolerance: float) -> Strokes:
    import shapely

    points, numbers = shapely.get_coordinates(shapes, return_index=True)
    counts = np.bincount(numbers, minlength=len(shapes)).astype(np.int64)
    return fitted(Strokes.of_lines(points, counts), tolerance / 2)


class _Lot(NamedTuple):
    """Strokes, the pen of each, and its place in the painted order."""

    strokes: Strokes
    pens: Ints
    positions: Ints

    def of(self, pen: int) -> tuple[Strokes, Ints]:
        mine = np.flatnonzero(self.pens == pen)
        return self.strokes.taken(mine), self.positions[mine]


def _runs(
    pens: list[Pen],
    drawn: _Lot,
    filled: _Lot,
    ranks: list[int],
    order: str,
    tolerance: float,
    crosses: Strokes,
) -> list[PenRun]:
    """What each pen draws, in the order of their ranks, crosses first."""
    here: tuple[float, float] = HOME
    runs = []
    for number in ranks:
        hatches, hatch_at = filled.of(number)
        lines, line_at = drawn.of(number)
        if not len(hatches) + len(lines):
            continue
        before = _as_painted(hatches, lines, hatch_at, line_at)
        # What fills areas never lies on itself.
        lines, rows = drawn_once(lines)
        once = _as_painted(hatches, lines, hatch_at, line_at[rows])
        strokes = _in_order(once, order, tolerance, here).repeated(pens[number].passes)
        strokes = Strokes.together([crosses, strokes])
        runs.append(
            PenRun(
                pens[number],
                strokes,
                travel(strokes.starts, strokes.ends, here),
                travel(before.starts, before.ends, here),
                len(before),
            )
        )
        x, y = strokes.ends[-1].tolist()
        here = x, y
    return runs


def _as_painted(hatches: Strokes, lines: Strokes, hatch_at: Ints, line_at: Ints) -> Strokes:
    """All strokes of a pen in the painted order; what fills an area comes before its border."""
    order = np.argsort(np.append(hatch_at, line_at), kind="stable")
    return Strokes.together([hatches, lines]).taken(order)


def _in_order(strokes: Strokes, kind: str, tolerance: float, home: tuple[float, float]) -> Strokes:
    """Strokes joined, and in an order with little travel if that is wanted."""
    if kind == "as-drawn":
        gap = np.hypot(*(strokes.starts[1:] - strokes.ends[:-1]).T)
        return strokes.merged(np.append(False, gap <= tolerance))
    strokes = joined(strokes, tolerance).sealed(tolerance)
    closed = strokes.is_closed(tolerance)
    if closed.any():  # at first they are where their middle is, then where they are entered
        order, backwards = ordered(*_ends(strokes, closed, _middles(strokes)), home, is_final=False)
        closed = closed[order]
        strokes = entered(strokes.taken(order, backwards), closed, home)
    order, backwards = ordered(*_ends(strokes, closed, strokes.starts), home)
    return entered(strokes.taken(order, backwards), closed[order], home)


def _ends(strokes: Strokes, closed: Bools, places: Floats) -> tuple[Floats, Floats]:
    """Where strokes begin and end; closed ones do both in one place."""
    return (
        np.where(closed[:, None], places, strokes.starts),
        np.where(closed[:, None], places, strokes.ends),
    )


def _middles(strokes: Strokes) -> Floats:
    firsts = strokes.firsts[:-1]
    low = np.minimum.reduceat(strokes.points, firsts)
    middles: Floats = (low + np.maximum.reduceat(strokes.points, firsts)) / 2
    return middles
