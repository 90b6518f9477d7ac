"""Figures that a program draws again and again: the calls of one function, or what one line of it draws.

for one in series(columns, origins):
    one.places, one.lengths, one.turns, one.looks

A figure is what is drawn in one call, a shape, or the line between two travels.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.contours import AXES
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns
from ovlo.core.trail.curves import step_lengths
from ovlo.core.trail.origins import Origins
from ovlo.core.values.arrays import Bools, Complexes, Floats, Ints

FEWEST, MOST = 5, 2000
"""Figures in a series: fewer keep no law, more are a texture."""

MOST_DRAWN = 200_000
"""Steps of a picture that is looked through."""

SAMPLES = np.array([0.0, 1 / 3, 2 / 3, 1.0])
"""Of each step, the shares at which its points stand for it."""


@dataclass(frozen=True, eq=False)
class Series:
    """Figures in the order they were drawn, one row each.

    Attributes
    ----------
    steps : list of int array
        The drawn steps of each figure.
    places : complex array
        The middle of each figure's box.
    sizes : float array of shape (n, 2)
        The width and the height of each box.
    lengths : float array
        How long the lines of each are.
    turns : float array
        Degrees by which each is turned, against the first whose shape it has; 0 where a turn is not seen.
    shapes : int array
        Equal for figures that are alike but for place, size and turn.
    looks : int array
        Equal for figures of the same inks and fills.
    pens : float array
        The line width with which each begins.
    """

    steps: list[Ints]
    places: Complexes
    sizes: Floats
    lengths: Floats
    turns: Floats
    shapes: Ints
    looks: Ints
    pens: Floats

    def __len__(self) -> int:
        return len(self.steps)


class Figures(NamedTuple):
    """All shapes and lines between travels: the place in the program of each, and as in a series the rest."""

    lines: Ints
    steps: list[Ints]
    places: Complexes
    sizes: Floats
    lengths: Floats
    looks: Ints


def series(columns: Columns, origins: Origins, stamped: Ints) -> Iterator[Series]:
    """The series of a picture: those of calls first, then those of lines in what is called less often.

    `stamped` says from which step up to which each stamp is, shape (n, 2).
    """
    if (maker := _maker(columns, origins, stamped)) is not None:
        yield from maker.of_calls()
        yield from maker.of_lines()


def figures(columns: Columns, origins: Origins, stamped: Ints) -> Figures | None:
    """All figures of a picture, if they are not too many."""
    maker = _maker(columns, origins, stamped)
    return None if maker is None else maker.figures()


def _maker(columns: Columns, origins: Origins, stamped: Ints) -> _Maker | None:
    drawn = np.flatnonzero(np.repeat(columns.is_traced, columns.stops - columns.runs["start"]))
    if not FEWEST <= len(drawn) <= MOST_DRAWN or not len(origins.entry_calls):
        return None
    return _Maker(columns, drawn, origins, stamped)


class _Maker:
    """Gathers figures of drawn steps; `entries` are those steps' entries of functions."""

    def __init__(self, columns: Columns, drawn: Ints, origins: Origins, stamped: Ints) -> None:
        self._columns, self._drawn, self._origins = columns, drawn, origins
        self._entries = origins.step_entries[drawn].astype(np.int64)
        self._points = _sampled(columns, drawn)
        self._low, self._high = _boxes(columns, drawn)
        self._lengths = step_lengths(columns)[drawn]
        styles, areas = columns.of_steps("style")[drawn], columns.of_steps("area")[drawn]
        self._lines = origins.steps[drawn].astype(np.int64)
        stamp = np.full(len(columns), -1)
        for number, (first, stop) in enumerate(stamped.tolist()):
            stamp[first:stop] = number
        begins = (
            (np.diff(self._lines, prepend=-2) != 0)
            | (np.diff(columns.of_steps("contour")[drawn], prepend=-1) != 0)
            | (np.diff(self._entries, prepend=-2) != 0)
        )
        # A stamp is one figure, whatever it consists of.
        self._begins: Bools = (begins & (stamp[drawn] < 0)) | (np.diff(stamp[drawn], prepend=-2) != 0)
        self._pens = np.array([style.line_width for style in columns.styles] or [0.0])[styles]
        self._look = _numbers_of_looks(columns, styles.astype(np.int64), areas.astype(np.int64))

    def of_calls(self) -> Iterator[Series]:
        """For each function that one call of another calls often: what each of its calls draws."""
        calls = self._origins.entry_calls.astype(np.int64)
        parents = self._origins.entry_parents.astype(np.int64)
        counts = np.bincount(calls)
        depths = self._origins.depths()
        for call in np.flatnonzero((counts >= FEWEST) & (counts <= MOST)).tolist():
            figures = self._origins.nearest_among(calls == call, depths)[self._entries]
            chosen = np.flatnonzero((figures >= 0) & (self._entries >= 0))
            yield from self._split(chosen, figures[chosen], parents[figures[chosen]])

    def of_lines(self) -> Iterator[Series]:
        """For each line of the program: the shapes or lines that it draws in one call."""
        begins: Ints = np.cumsum(self._begins)
        places, counts = np.unique(self._lines[self._lines >= 0], return_counts=True)
        # A recursion has thousands of places, a call each.
        for place in places[counts >= FEWEST].tolist():
            chosen = np.flatnonzero(self._lines == place)
            yield from self._split(chosen, begins[chosen], self._entries[chosen])

    def figures(self) -> Figures | None:
        """What each line of the program drew between two travels."""
        bounds = np.flatnonzero(self._begins)
        if len(bounds) > MOST:
            return None
        parts = np.split(np.arange(len(self._drawn)), bounds[1:])
        steps = [self._drawn[rows] for rows in parts]
        return Figures(self._lines[bounds], steps, *self._measured(parts))

    def _measured(self, parts: list[Ints]) -> tuple[Complexes, Floats, Floats, Ints]:
        """The middles and the sizes of the boxes, the lengths and the looks of some figures."""
        low = np.array([self._low[rows].min(axis=0) for rows in parts])
        high = np.array([self._high[rows].max(axis=0) for rows in parts])
        lengths = np.array([self._lengths[rows].sum() for rows in parts])
        looks = np.array([hash(tuple(dict.fromkeys(self._look[rows].tolist()))) for rows in parts])
        return (low + high) / 2 @ AXES, high - low, lengths, looks

    def _split(self, chosen: Ints, figures: Ints, groups: Ints) -> Iterator[Series]:
        """Series of the chosen steps: figures by their numbers, those of one group together."""
        order = np.lexsort((chosen, figures, groups))
        chosen, figures, groups = chosen[order], figures[order], groups[order]
        ends = np.append(np.flatnonzero(np.diff(groups)) + 1, len(groups))
        begins = np.append(0, ends[:-1])
        long = ends - begins >= FEWEST  # a recursion has thousands of groups that are shorter
        for begin, end in zip(begins[long].tolist(), ends[long].tolist(), strict=True):
            rows = np.arange(begin, end)
            bounds = np.flatnonzero(np.diff(figures[rows], prepend=-1))
            if FEWEST <= len(bounds) <= MOST:
                yield self._made([chosen[part] for part in np.split(rows, bounds[1:])])

    def _made(self, figures: list[Ints]) -> Series:
        places, sizes, lengths, looks = self._measured(figures)
        shapes, turns = _shapes([self._points[rows].ravel() for rows in figures])
        steps = [self._drawn[rows] for rows in figures]
        pens = self._pens[[rows[0] for rows in figures]]
        return Series(steps, places, sizes, lengths, turns, shapes, looks, pens)


def _sampled(columns: Columns, steps: Ints) -> Complexes:
    """Points of each step, shape (n, len(SAMPLES))."""
    starts, ends = columns.starts[steps] @ AXES, columns.points[steps] @ AXES
    found: Complexes = starts[:, None] + SAMPLES * (ends - starts)[:, None]
    curved = np.flatnonzero(columns.is_curved[steps])
    if len(curved):
        arcs = columns.arcs_of(steps[curved])
        first, last = columns.starts[steps[curved]], columns.points[steps[curved]]
        for number, share in enumerate(SAMPLES[1:-1].tolist(), 1):
            found[curved, number] = curves.points_at(arcs, first, last, np.full(len(arcs), share)) @ AXES
    return found


def _boxes(columns: Columns, steps: Ints) -> tuple[Floats, Floats]:
    """The lower left and upper right corners of each step, each of shape (n, 2)."""
    starts, ends = columns.starts[steps], columns.points[steps]
    low, high = np.minimum(starts, ends), np.maximum(starts, ends)
    curved = np.flatnonzero(columns.is_curved[steps])
    if len(curved):
        arcs = columns.arcs_of(steps[curved])
        low[curved], high[curved] = curves.boxes(arcs, starts[curved], ends[curved])
    return low, high


def _numbers_of_looks(columns: Columns, styles: Ints, areas: Ints) -> Ints:
    """A number for the ink and the fill of each step, the same for equal ones."""
    known: dict[object, int] = {}
    lines = np.array([known.setdefault(style.ink, len(known)) for style in columns.styles] or [0])
    rows = columns.areas[["red", "green", "blue", "opacity"]].tolist()
    fills = np.array([*(known.setdefault(row, len(known)) for row in rows), -1])
    found: Ints = lines[styles] * (len(known) + 2) + fills[areas] + 1
    return found


MOST_SHAPES = 20
"""Of a series; with more the others are not compared."""

ALIKE = 1e-5
"""Of a figure's size, by which points of figures differ that have one shape."""


def _shapes(points: list[Complexes]) -> tuple[Ints, Floats]:
    """Numbers of shapes, the same for similar ones, and the turns against the first of the same shape."""
    shapes, turns = np.empty(len(points), np.int64), np.zeros(len(points))
    firsts: list[tuple[Complexes, bool]] = []
    for row, some in enumerate(points):
        if len(firsts) > MOST_SHAPES:  # each has a shape of its own
            shapes[row] = -row - 1
            continue
        centred = some - some.mean()
        size = np.sqrt((np.abs(centred) ** 2).mean())
        normal = centred / size if size > 0 else centred
        for number, (first, is_round) in enumerate(firsts):
            if len(first) != len(normal):
                continue
            # The turn that brings one nearest to the other (Procrustes).
            way = (normal * first.conj()).sum()
            unit = way / abs(way) if abs(way) > 1e-12 else 1
            if np.abs(normal - first * unit).max() < ALIKE:
                shapes[row], turns[row] = number, 0.0 if is_round else np.degrees(np.angle(unit))
                break
        else:
            shapes[row] = len(firsts)
            is_round = bool(len(normal) > 3 and np.ptp(np.abs(normal - normal[:-1].mean())) < 0.01)
            firsts.append((normal, is_round))
    return shapes, turns
