"""Drawn lines as paths: where each begins, goes on and closes, for every format alike.

    outline = outline_of(columns)
    outline.vertices[outline.firsts[0] : outline.firsts[1]]    # the first path

Consecutive steps of one style become one path, whatever jumps lie between them. All paths stand in one
array of vertices, so that a renderer may treat ten thousand small ones in a single NumPy pass.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ovlo.core.columns import Columns, Pen

MOVE, LINE, CLOSE = 1, 2, 79
"""What leads to a vertex. The numbers are Matplotlib's, so that its paths need no translation."""


@dataclass(frozen=True)
class Outline:
    """Paths of k styles in one vertex array.

    Attributes
    ----------
    vertices : float array of shape (v, 2)
    codes : uint8 array of shape (v,)
        MOVE, LINE, or CLOSE (the vertex is the one the line goes back to).
    firsts : int array of shape (k + 1,)
        The first vertex of each path; the last entry is v.
    styles : int array of shape (k,)
        A row of the columns' styles.
    """

    vertices: NDArray[np.float64]
    codes: NDArray[np.uint8]
    firsts: NDArray[np.int64]
    styles: NDArray[np.int64]


def outline_of(columns: Columns) -> Outline:
    """The drawn lines of a trail, in the order they were drawn."""
    runs, stops = columns.runs, columns.stops
    drawn = (runs["pen"] == Pen.DRAW) & (stops > runs["start"])
    runs, stops = runs[drawn], stops[drawn]
    starts = runs["start"]
    # Below, a drawn step is known by its place among the drawn steps; `offsets` is that of each run.
    offsets = np.cumsum(stops - starts) - (stops - starts)

    closing_runs = np.searchsorted(starts, columns.closings, "right") - 1
    closings = columns.closings - starts[closing_runs] + offsets[closing_runs]
    goes_on = _goes_on(runs, stops)
    # A contour may have begun in another path, in another style; then the closing line is an ordinary one.
    pieces = np.cumsum(~goes_on)
    _, first_runs, contours = np.unique(runs["contour"], return_index=True, return_inverse=True)
    closings = closings[(pieces[first_runs[contours]] == pieces)[closing_runs]]
    begins = np.union1d(offsets[~goes_on], closings + 1)
    count = int((stops - starts).sum())
    begins = begins[begins < count]

    # Every drawn step gives one vertex, every beginning one more, before the step that begins.
    moves = begins + np.arange(len(begins))
    vertices = np.empty((count + len(begins), 2))
    codes = np.full(len(vertices), LINE, np.uint8)
    codes[moves] = MOVE
    vertices[codes == LINE] = columns.points[columns.is_drawn]
    begin_runs = np.searchsorted(offsets, begins, "right") - 1
    vertices[moves] = columns.starts[begins - offsets[begin_runs] + starts[begin_runs]]

    codes[closings + np.searchsorted(begins, closings, "right")] = CLOSE

    styles = runs["style"][begin_runs].astype(np.int64)
    changes = np.flatnonzero(np.diff(styles, prepend=-1))
    return Outline(vertices, codes, firsts=np.append(moves[changes], len(vertices)), styles=styles[changes])


def _goes_on(runs: NDArray[np.void], stops: NDArray[np.int64]) -> NDArray[np.bool_]:
    """Whether each run only continues the one before it, in the same style."""
    goes_on = np.zeros(len(runs), bool)
    goes_on[1:] = (
        (runs["contour"][1:] == runs["contour"][:-1])
        & (runs["style"][1:] == runs["style"][:-1])
        & (runs["start"][1:] == stops[:-1])
    )
    return goes_on
