"""What a plotter draws of a picture, pen by pen.

plotted = plot(columns, placing, wishes, glyphs, paper)
plotted.runs[0].strokes

From the painted order of the marks: what is seen of them, areas filled by lines, a pen for each ink, lines
drawn once and joined, an order with little travel.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import NamedTuple, get_args

import numpy as np

from ovlo.core.paint.measures import Letters
from ovlo.core.plot.arcs import fitted
from ovlo.core.plot.clipping import clipped
from ovlo.core.plot.entering import entered
from ovlo.core.plot.hatching import HATCHES, Hatching, hatched, refuse_many
from ovlo.core.plot.hidden_lines import hiding, seen
from ovlo.core.plot.inked import Inked, Layer, Shapes
from ovlo.core.plot.linking import joined
from ovlo.core.plot.once import drawn_once
from ovlo.core.plot.pens import FINEST, Pen, Replaced, pens_for
from ovlo.core.plot.placing import Placing
from ovlo.core.plot.routing import ordered, travel
from ovlo.core.plot.strokes import Strokes
from ovlo.core.trail.columns import Columns
from ovlo.core.values.arrays import Bools, Floats, Ints
from ovlo.core.values.choices import Hatch, HiddenLines, StrokeOrder
from ovlo.core.values.colour import Colour

HIDDEN_LINES = get_args(HiddenLines)
STROKE_ORDERS = get_args(StrokeOrder)

PRECISE = 0.1
"""The tolerance, as a share of the finest pen's width."""

FINE = 0.01
"""Millimetres; no machine is more precise."""

HOME = (0.0, 0.0)


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
        The pens at hand; empty for one for each ink and width.
    tolerance : float or None
        How far a line may be off; None for a tenth of the finest pen's width.
    stroke_order : one of STROKE_ORDERS
    """

    hidden_lines: HiddenLines = HIDDEN_LINES[0]
    hatch: Hatch = HATCHES[0]
    hatch_spacing: float | None = None
    hatch_angle: float = 45.0
    tray: tuple[Pen, ...] = ()
    tolerance: float | None = None
    stroke_order: StrokeOrder = STROKE_ORDERS[0]


@dataclass(frozen=True, eq=False)
class Run:
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
    runs : list of Run
        One for each pen that draws, in the order they are used.
    replaced : list of Replaced
        What a tray of pens has not.
    tolerance : float
        Millimetres by which a line may be off.
    cut_marks, paper_marks, narrow_areas : int
        Marks that would leave the page; those in the paper's own colour, which nobody would see; and pieces
        of areas that are narrower than their pen, but for crumbs.
    """

    placing: Placing
    runs: list[Run]
    replaced: list[Replaced] = field(default_factory=list)
    cut_marks: int = 0
    paper_marks: int = 0
    narrow_areas: int = 0
    tolerance: float = FINE


def plot(
    columns: Columns, placing: Placing, wishes: Wishes, letters: Letters, paper: Colour, call: str
) -> Plotted:
    """What pens draw of a trail on a page.

    Raises
    ------
    BadValue
        If there would be more than five million strokes.
    """
    tolerance = wishes.tolerance or _tolerance(columns, placing, wishes)
    inked = Inked.of(columns, placing, letters, paper, tolerance)
    inside, cut_marks = clipped(inked, placing.room)
    lines, areas = inside.lines, inside.areas
    if wishes.hidden_lines == HIDDEN_LINES[0]:
        over = hiding(inside)
        lines, areas = seen(lines, over), seen(areas, over)
    lines, areas, paper_marks = _on_paper(lines, areas, paper)
    if wishes.hatch == "none":
        areas = areas.taken(np.zeros(0, np.int64))
    pens, pen_of, replaced = pens_for(
        np.vstack([lines.inks, areas.inks]), np.append(lines.widths, areas.widths), wishes.tray
    )
    widths = np.array([pen.line_width for pen in pens])
    line_pens, area_pens = pen_of[: len(lines.shapes)], pen_of[len(lines.shapes) :]
    hatching = _hatching(areas, widths[area_pens], wishes, call)
    refuse_many(len(lines.shapes) + len(hatching.counts), call)
    drawn = _of_shapes(lines.shapes, tolerance)
    filled = Strokes.of_lines(hatching.points, hatching.counts)
    if wishes.hatch == "concentric":  # the others have no point too many
        filled = fitted(filled, tolerance / 2)
    runs = _runs(
        pens,
        _Lot(drawn, line_pens, lines.positions),
        _Lot(filled, area_pens[hatching.rows], areas.positions[hatching.rows]),
        wishes.stroke_order,
        tolerance,
    )
    narrow = _narrow(areas, widths[area_pens], hatching)
    return Plotted(placing, runs, replaced, cut_marks, paper_marks, narrow, tolerance)


def _tolerance(columns: Columns, placing: Placing, wishes: Wishes) -> float:
    widths = [pen.line_width for pen in wishes.tray] or [
        style.line_width * placing.scale for style in columns.styles
    ]
    return max(PRECISE * max(min(widths, default=0.0), FINEST), FINE)


def _on_paper(lines: Layer, areas: Layer, paper: Colour) -> tuple[Layer, Layer, int]:
    """Without what has the very colour of the paper, and how many marks that was."""
    ground = np.array(paper._rgb if paper.opacity else (255, 255, 255))
    left, gone = [], [np.empty(0, np.int64)]
    for layer in (lines, areas):
        same = (np.rint(layer.inks) == np.rint(ground)).all(axis=1)
        gone.append(layer.positions[same])
        left.append(layer.taken(~same))
    return left[0], left[1], len(np.unique(np.concatenate(gone)))


def _hatching(areas: Layer, widths: Floats, wishes: Wishes, call: str) -> Hatching:
    gaps = widths if wishes.hatch_spacing is None else np.full(len(widths), wishes.hatch_spacing)
    return hatched(areas.shapes, widths, wishes.hatch, gaps, wishes.hatch_angle, call)


def _narrow(areas: Layer, widths: Floats, hatching: Hatching) -> int:
    """How many pieces of areas, larger than a dot of the pen, have no line in them."""
    import shapely

    is_filled = np.zeros(len(areas.shapes), bool)
    is_filled[hatching.rows] = True
    return int(np.count_nonzero(~is_filled & (shapely.area(areas.shapes) > widths**2)))


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


def _runs(pens: list[Pen], drawn: _Lot, filled: _Lot, order: str, tolerance: float) -> list[Run]:
    """What each pen draws, in the order in which the picture first needs them."""
    used = np.concatenate([filled.pens, drawn.pens])
    positions = np.concatenate([filled.positions, drawn.positions])
    first = np.full(len(pens), len(positions) and positions.max() + 1)
    np.minimum.at(first, used, positions)
    here: tuple[float, float] = HOME
    runs = []
    for number in np.argsort(first, kind="stable").tolist():
        hatches, hatch_at = filled.of(number)
        lines, line_at = drawn.of(number)
        if not len(hatches) + len(lines):
            continue
        before = _as_painted(hatches, lines, hatch_at, line_at)
        # What fills areas never lies on itself.
        lines, rows = drawn_once(lines)
        once = _as_painted(hatches, lines, hatch_at, line_at[rows])
        strokes = _in_order(once, order, tolerance, here)
        runs.append(
            Run(
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
