"""The lines of a trail as chords, cut where a stretch of it begins and ends: what a film adds to a frame.

    chords = Chords(columns, tolerance)
    chords.between(1000, 1040)    # as `painted` gives it of that stretch alone, ten times as fast

All lines are worked out once; a stretch is a slice of their vertices.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ovlo.core.paint.order import Mark, Painting, painted, with_dots
from ovlo.core.paint.outlines import CLOSE, LINE, MOVE, Outline
from ovlo.core.trail.columns import ARC, FILL_RULES, Columns, Text


class Chords:
    """The lines of a trail, of which some steps may be asked for."""

    def __init__(self, columns: Columns, tolerance: float) -> None:
        self._styles, self._tolerance = columns.styles, tolerance
        painting = painted(columns).flattened(tolerance)
        self._lines, self._no_areas = painting.strokes, _cut(painting.borders, 0, 0)[0]
        self._dash_offsets = {
            mark.number: mark.dash_offset
            for mark in painting.marks
            if isinstance(mark, Mark) and mark.dash_offset
        }

    def between(self, first: int, stop: int) -> Painting:
        """The lines of the steps from `first` up to `stop`; areas and texts among them are left out."""
        return self._painting(*self._stretch(first, stop))

    def beginning(self, step: int, share: float) -> Painting | None:
        """A share of one step's line; None where it is curved."""
        line, path = self._stretch(step, step + 1)
        if len(line.vertices) > 2:
            return None
        start = line.vertices[:1]
        return self._painting(replace(line, vertices=start + share * (line.vertices - start)), path)

    def _stretch(self, first: int, stop: int) -> tuple[Outline, int]:
        return _cut(self._lines, *np.searchsorted(self._lines.vertex_steps, (first, stop)).tolist())

    def _painting(self, lines: Outline, path: int) -> Painting:
        """Lines as marks; `path` is the number that the first of them has among all."""
        styles = [self._styles[key] for key in lines.keys.tolist()]
        marks: list[Mark | Text] = [
            Mark(number, None, FILL_RULES[0], style, self._dash_offsets.get(path + number, 0.0))
            for number, style in enumerate(styles)
        ]
        return Painting(with_dots(lines, self._tolerance), self._no_areas, marks)


def _cut(lines: Outline, a: int, b: int) -> tuple[Outline, int]:
    """The vertices from `a` up to `b` of lines without arcs, as their own paths; the first one's number."""
    goes_on = a < b and lines.codes[a] != MOVE
    a -= int(goes_on)
    codes = lines.codes[a:b].copy()
    codes[:1] = MOVE
    moves = np.flatnonzero(codes == MOVE)
    if goes_on:
        # The way back to where a piece began earlier is an ordinary line.
        piece = codes[: int(moves[1]) if len(moves) > 1 else b - a]
        piece[piece == CLOSE] = LINE
    path = int(np.searchsorted(lines.firsts, a, "right")) - 1
    inside = lines.firsts[(lines.firsts > a) & (lines.firsts < b)]
    firsts = np.array(sorted({a, *inside.tolist(), b}))
    steps = lines.vertex_steps[a:b]
    found = Outline(
        lines.vertices[a:b],
        codes,
        firsts - a,
        lines.keys[path : path + len(firsts) - 1],
        steps[firsts[:-1] - a],
        steps[moves],
        np.empty(0, ARC),
        steps,
    )
    return found, path
