"""Lines and areas as paths: where each begins, goes on and closes, for every format alike.

    outline = strokes(columns)
    outline.vertices[outline.firsts[0] : outline.firsts[1]]    # the first path

Consecutive steps of one style become one path, whatever jumps lie between them, and each area is one. All
paths stand in one array of vertices, so that a renderer may treat ten thousand small ones in a single NumPy
pass.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail import curves
from ovlo.core.trail.columns import ARC, Columns, PenState
from ovlo.core.trail.curves import step_lengths
from ovlo.core.values.arrays import Bools, Bytes, Floats, Ints

MOVE, LINE, QUADRATIC, CUBIC, CLOSE = 1, 2, 3, 4, 79
"""What leads to a vertex. The numbers are Matplotlib's, so that its paths need no translation.

Those of curves, for control points and ends, are met in letters and in what is written; an outline has its
arcs apart.
"""


FINE = 8
"""The length of the chords is off by a share of the square of this less."""


@dataclass(frozen=True, eq=False)
class Outline:
    """k paths in one array of v vertices.

    Attributes
    ----------
    vertices : float array of shape (v, 2)
    codes : uint8 array of shape (v,)
        MOVE, LINE (straight or an arc), or CLOSE (the vertex is the one the line goes back to).
    firsts : int array of shape (k + 1,)
        The first vertex of each path; the last entry is v.
    keys : int array of shape (k,)
        What each path is of: a row of the columns' styles, or of their areas.
    steps : int array of shape (k,)
        The first step of each path.
    piece_steps : int array of shape (p,)
        The first step of each piece between moves.
    arcs : structured array
        Arcs that lead to vertices; `step` is a vertex here.
    vertex_steps : int array of shape (v,)
        The step that leads to each vertex; of one at which a piece begins, the step that begins there.
    """

    vertices: Floats
    codes: Bytes
    firsts: Ints
    keys: Ints
    steps: Ints
    piece_steps: Ints
    arcs: NDArray[np.void]
    vertex_steps: Ints

    def __len__(self) -> int:
        return len(self.keys)

    def path(self, number: int) -> tuple[Floats, Bytes]:
        """The vertices and codes of one path."""
        first, stop = self.firsts[number : number + 2].tolist()
        return self.vertices[first:stop], self.codes[first:stop]

    def flattened(self, tolerance: float, fine: Sequence[int] = ()) -> Outline:
        """The same with arcs as chords, nowhere farther off than the tolerance in sheet units.

        Those of paths with the numbers in `fine` are cut into FINE times as many.
        """
        at = self.arcs["step"]
        starts, ends = self.vertices[at - 1], self.vertices[at]
        counts = curves.chord_counts(self.arcs, starts, ends, tolerance)
        if len(fine) and len(at):
            counts = np.where(
                np.isin(np.searchsorted(self.firsts, at, "right") - 1, fine), FINE * counts, counts
            )
        return self.subdivided(counts)

    def subdivided(self, counts: Ints) -> Outline:
        """The same with arcs cut into so many pieces, each ending in a vertex of its own."""
        if not len(self.arcs):
            return self
        at = self.arcs["step"]
        repeats = np.ones(len(self.vertices), np.int64)
        repeats[at] = counts
        vertices = np.repeat(self.vertices, repeats, axis=0)
        codes = np.repeat(self.codes, repeats)
        # All pieces of an arc but the last, whose end is given.
        inner = np.repeat(np.arange(len(at)), counts - 1)
        ends = np.cumsum(repeats)
        places = ranges(ends[at] - counts, counts - 1)
        number = places - (ends[at] - counts)[inner] + 1
        vertices[places] = curves.points_at(
            self.arcs[inner], self.vertices[at - 1][inner], self.vertices[at][inner], number / counts[inner]
        )
        firsts = np.append(0, ends)[self.firsts]
        steps = np.repeat(self.vertex_steps, repeats)
        return replace(
            self, vertices=vertices, codes=codes, firsts=firsts, arcs=np.empty(0, ARC), vertex_steps=steps
        )

    def boxes(self) -> tuple[Floats, Floats]:
        """The lower left and upper right corners of each piece between moves, each of shape (p, 2)."""
        return self._boxes_from(self.moves)

    def path_boxes(self) -> tuple[Floats, Floats]:
        """The lower left and upper right corners of each whole path, each of shape (k, 2)."""
        return self._boxes_from(self.firsts[:-1])

    def _boxes_from(self, begins: Ints) -> tuple[Floats, Floats]:
        """The corners of what begins at some vertices, and ends where the next begins."""
        if not len(begins):
            return np.empty((0, 2)), np.empty((0, 2))
        low, high = self.vertices, self.vertices
        if len(self.arcs):
            at = self.arcs["step"]
            low, high = low.copy(), high.copy()
            low[at], high[at] = curves.boxes(self.arcs, self.vertices[at - 1], self.vertices[at])
        return np.minimum.reduceat(low, begins), np.maximum.reduceat(high, begins)

    @cached_property
    def moves(self) -> Ints:
        """The vertices at which pieces begin."""
        return np.flatnonzero(self.codes == MOVE)


def strokes(columns: Columns) -> Outline:
    """The drawn lines of a trail, in the order they were drawn; `keys` are styles."""
    return columns.once(_strokes)


def borders(columns: Columns) -> Outline:
    """The borders of a trail's areas, in the order the areas opened; `keys` are areas.

    A contour that was interrupted goes on, and every contour is closed by whoever fills it.
    """
    return columns.once(_borders)


def _strokes(columns: Columns) -> Outline:
    runs, stops = columns.runs, columns.stops
    drawn = (runs["pen"] == PenState.DRAW) & (stops > runs["start"])
    runs, stops = runs[drawn], stops[drawn]
    # What is painted between two runs keeps them apart.
    layers = np.searchsorted(columns.events, runs["start"], "right")
    goes_on = _goes_on(runs, stops) & (np.diff(layers, prepend=-1) == 0)
    # A contour may have begun in another path, in another style; then its closing line is an ordinary one.
    pieces = np.cumsum(~goes_on)
    _, first_runs, contours = np.unique(runs["contour"], return_index=True, return_inverse=True)
    closes = pieces[first_runs[contours]] == pieces
    changes = (np.diff(runs["style"], prepend=-1) != 0) | (np.diff(layers, prepend=-1) != 0)
    is_dashed = np.array([bool(style.line_dash) for style in columns.styles] or [False])
    if is_dashed.any() and dash_offsets(columns).any():
        # Dashes that go on from another path begin elsewhere than those of their neighbours.
        changes |= is_dashed[runs["style"]] & ~goes_on
    return _assembled(columns, runs, stops, goes_on, changes, runs["style"], closes)


def dash_offsets(columns: Columns) -> Floats:
    """How far into its dashes each run begins, in sheet units, shape (m,).

    A contour that another nib, or a shape, interrupted goes on with its dashes where they were.
    """
    return columns.once(_dash_offsets)


def _dash_offsets(columns: Columns) -> Floats:
    runs, stops = columns.runs, columns.stops
    offsets = np.zeros(len(runs))
    is_dashed = np.array([bool(style.line_dash) for style in columns.styles] or [False])
    drawn = (runs["pen"] == PenState.DRAW) & (stops > runs["start"])
    dashed = np.flatnonzero(drawn & is_dashed[runs["style"]]) if is_dashed.any() else np.empty(0, np.int64)
    if len(dashed) < 2:
        return offsets
    dashed = dashed[np.lexsort((runs["start"][dashed], runs["contour"][dashed]))]
    reached = np.append(0.0, np.cumsum(step_lengths(columns)))
    lengths = reached[stops[dashed]] - reached[runs["start"][dashed]]
    before = np.cumsum(lengths) - lengths
    # Styles may be listed more than once (groups.py).
    first_of = {style: number for number, style in reversed([*enumerate(columns.styles)])}
    styles = np.array([first_of[style] for style in columns.styles])[runs["style"][dashed]]
    begins = (np.diff(runs["contour"][dashed], prepend=-1) != 0) | (np.diff(styles, prepend=-1) != 0)
    firsts = np.maximum.accumulate(np.where(begins, np.arange(len(dashed)), 0))
    offsets[dashed] = before - before[firsts]
    return offsets


def _borders(columns: Columns) -> Outline:
    stops = columns.stops
    inside = (columns.runs["area"] >= 0) & columns.is_traced & (stops > columns.runs["start"])
    runs, stops = columns.runs[inside], stops[inside]
    order = np.lexsort((runs["start"], runs["contour"], runs["area"]))
    runs, stops = runs[order], stops[order]
    changes = np.diff(runs["area"], prepend=-1) != 0
    goes_on = ~changes & (np.diff(runs["contour"], prepend=-1) == 0)
    return _assembled(columns, runs, stops, goes_on, changes, runs["area"], np.ones(len(runs), bool))


def _assembled(
    columns: Columns,
    runs: NDArray[np.void],
    stops: Ints,
    goes_on: Bools,
    changes: Bools,
    keys: Ints,
    closes: Bools,
) -> Outline:
    """Paths of runs in their order.

    `goes_on` says which runs continue the one before without a move, `changes` which begin another path,
    `closes` in which a closing step is one.
    """
    starts = runs["start"].astype(np.int64)
    counts = stops - starts
    offsets = np.cumsum(counts) - counts
    steps = ranges(starts, counts)

    is_closing = np.zeros(len(columns), bool)
    is_closing[columns.closings["step"]] = True
    closings = np.flatnonzero(is_closing[steps] & np.repeat(closes, counts))
    # NumPy's functions of sets load its masked arrays, which takes longer than a small picture.
    is_begin = np.zeros(len(steps) + 1, bool)
    is_begin[offsets[~goes_on]] = is_begin[closings + 1] = True
    begins = np.flatnonzero(is_begin[:-1])

    # Every step gives one vertex, every beginning one more, before the step that begins.
    moves = begins + np.arange(len(begins))
    piece_steps, arcs = steps[begins], _arcs(columns, steps, begins)
    vertex_steps = np.insert(steps, begins, piece_steps)
    del steps  # of millions, one array less counts
    vertices = columns.ends_of(vertex_steps)
    vertices[moves] = columns.starts_of(piece_steps)
    codes = np.full(len(vertices), LINE, np.uint8)
    codes[moves] = MOVE
    codes[closings + np.searchsorted(begins, closings, "right")] = CLOSE

    begin_runs = np.searchsorted(offsets, begins, "right") - 1
    opens = changes[begin_runs] & (begins == offsets[begin_runs])
    outline = Outline(
        vertices,
        codes,
        firsts=np.append(moves[opens], len(vertices)),
        keys=keys[begin_runs[opens]].astype(np.int64),
        steps=piece_steps[opens],
        piece_steps=piece_steps,
        arcs=arcs,
        vertex_steps=vertex_steps,
    )
    return _with_closed_arcs(outline)


def _with_closed_arcs(outline: Outline) -> Outline:
    """Arcs that close their piece end where it began, and a vertex of its own closes it."""
    at = outline.arcs["step"]
    at = at[outline.codes[at] == CLOSE]
    if not len(at):
        return outline
    outline.codes[at] = LINE
    arcs = outline.arcs.copy()
    arcs["step"] += np.searchsorted(at, arcs["step"])
    return replace(
        outline,
        vertices=np.insert(outline.vertices, at + 1, outline.vertices[at], axis=0),
        codes=np.insert(outline.codes, at + 1, CLOSE),
        firsts=outline.firsts + np.searchsorted(at, outline.firsts),
        arcs=arcs,
        vertex_steps=np.insert(outline.vertex_steps, at + 1, outline.vertex_steps[at]),
    )


def _arcs(columns: Columns, steps: Ints, begins: Ints) -> NDArray[np.void]:
    """The arcs among some steps, `step` being the vertex each leads to."""
    if not len(columns.arcs):
        return columns.arcs
    arc_of = np.full(len(columns), -1)
    arc_of[columns.arcs["step"]] = np.arange(len(columns.arcs))
    places = np.flatnonzero(arc_of[steps] >= 0)
    arcs: NDArray[np.void] = columns.arcs[arc_of[steps[places]]]
    arcs["step"] = places + np.searchsorted(begins, places, "right")
    return arcs


def _goes_on(runs: NDArray[np.void], stops: Ints) -> Bools:
    """Whether each run only continues the one before it, in the same style."""
    goes_on = np.zeros(len(runs), bool)
    goes_on[1:] = (
        (runs["contour"][1:] == runs["contour"][:-1])
        & (runs["style"][1:] == runs["style"][:-1])
        & (runs["start"][1:] == stops[:-1])
    )
    return goes_on


def ranges(starts: Ints, counts: Ints) -> Ints:
    """The numbers from each start, so many of each, in a row."""
    offsets = np.cumsum(counts) - counts
    numbers = np.arange(int(counts.sum()))
    numbers += np.repeat(starts - offsets, counts)
    return numbers
