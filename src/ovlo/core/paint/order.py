"""In which order the marks of a trail are painted: the same for every format.

    for mark in painted(columns): ...

A mark is a path to be filled, drawn or both, or a text. An area whose border is just the path drawn next
becomes one mark with it, painted and drawn at once.
"""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.outlines import MOVE, Outline, borders, dash_offsets, ranges, strokes
from ovlo.core.trail.columns import FILL_RULES, Columns, Style, Text
from ovlo.core.values.arrays import Ints
from ovlo.core.values.choices import FillRule
from ovlo.core.values.colour import CHANNELS, Colour


class Mark(NamedTuple):
    """One path: `number` counts in the strokes if there is a style, else in the borders.

    Its dashes, if it has any, begin as if the line were so much longer before.
    """

    number: int
    fill: Colour | None
    fill_rule: FillRule
    style: Style | None
    dash_offset: float = 0.0


class Painting(NamedTuple):
    """The paths of a trail and the order they are painted in."""

    strokes: Outline
    borders: Outline
    marks: list[Mark | Text]

    def outline_of(self, mark: Mark) -> Outline:
        """The outline a mark's number counts in."""
        return self.borders if mark.style is None else self.strokes

    def flattened(self, tolerance: float) -> Painting:
        """The same for rasterisers: arcs as chords, and dots as lines.

        A line of no length shows its caps (SVG 2, 13.5.4). Rasterisers leave it out, so here it gets a
        length that nobody sees.
        """
        # Dashes are laid along chords, whose lengths add up to less than those of their arcs.
        dashed = [
            mark.number
            for mark in self.marks
            if isinstance(mark, Mark) and mark.style and mark.style.line_dash
        ]
        lines, areas = self.strokes.flattened(tolerance, dashed), self.borders.flattened(tolerance)
        return self._replace(strokes=with_dots(lines, tolerance), borders=areas)


def with_dots(lines: Outline, tolerance: float) -> Outline:
    """The same with a length for lines that have none; see `Painting.flattened`."""
    low, high = lines.boxes()
    is_dot = (low == high).all(axis=1)
    if not is_dot.any():
        return lines
    vertices = lines.vertices.copy()
    # The last vertex alone: a piece that came back would have a join.
    ends = np.append(lines.moves[1:], len(vertices))[is_dot] - 1
    vertices[ends, 0] += tolerance / 50
    return replace(lines, vertices=vertices)


def painted(columns: Columns) -> Painting:
    """All marks of a trail, the lowest first."""
    return columns.once(_painted)


def _painted(columns: Columns) -> Painting:
    lines, areas = strokes(columns), borders(columns)
    twins = _twins(columns, areas, lines)
    is_alone = np.ones(len(lines), bool)
    is_alone[twins[twins >= 0]] = False
    alone = np.flatnonzero(is_alone)
    rows = columns.areas[areas.keys]
    texts = columns.texts

    styles = [columns.styles[key] for key in lines.keys.tolist()]
    names, offsets = (*CHANNELS, "fill_rule"), _dash_offsets_of(columns, lines)
    marks: list[Mark | Text] = [
        Mark(
            number if twin < 0 else twin,
            Colour(red, green, blue, opacity),
            FILL_RULES[rule],
            None if twin < 0 else styles[twin],
            0.0 if twin < 0 else offsets[twin],
        )
        for number, (twin, red, green, blue, opacity, rule) in enumerate(
            zip(twins.tolist(), *(rows[name].tolist() for name in names), strict=True)
        )
    ]
    marks += texts
    marks += [Mark(number, None, FILL_RULES[0], styles[number], offsets[number]) for number in alone.tolist()]
    order = paint_order(columns, areas.keys, lines.steps[alone])
    return Painting(lines, areas, [marks[i] for i in order.tolist()])


def _dash_offsets_of(columns: Columns, lines: Outline) -> list[float]:
    """How far into its dashes each path of strokes begins."""
    offsets = dash_offsets(columns)
    if not offsets.any():
        return [0.0] * len(lines)
    found: list[float] = offsets[np.searchsorted(columns.runs["start"], lines.steps, "right") - 1].tolist()
    return found


def paint_order(columns: Columns, areas: Ints, line_steps: Ints) -> Ints:
    """Numbers of areas (rows of the columns), texts and lines, counted in this order, the lowest mark first.

    At one step, areas and texts lie beneath the line that begins there, in the order they came.
    """
    rows, texts = columns.areas[areas], columns.texts
    steps = np.concatenate([rows["step"], [text.step for text in texts], line_steps])
    last = np.full(len(line_steps), len(columns.areas) + len(texts))
    orders = np.concatenate([rows["order"], [text.order for text in texts], last])
    return np.lexsort((orders, steps))


def _twins(columns: Columns, areas: Outline, lines: Outline) -> Ints:
    """For each border, the path of strokes that follows it and is the same path, or -1."""
    twins = np.full(len(areas), -1)
    if not len(areas) or not len(lines):
        return twins
    candidates = np.minimum(np.searchsorted(lines.steps, areas.steps), len(lines) - 1)
    sizes = np.diff(areas.firsts)
    is_twin = (
        (lines.steps[candidates] == areas.steps)
        & (np.diff(lines.firsts)[candidates] == sizes)
        # Nothing is painted between the two.
        & (np.searchsorted(columns.events, areas.steps, "right") == columns.areas["order"][areas.keys] + 1)
    )
    found = np.flatnonzero(is_twin)
    if len(found):
        mine = ranges(areas.firsts[:-1][found], sizes[found])
        other = ranges(lines.firsts[:-1][candidates[found]], sizes[found])
        same = (areas.vertices[mine] == lines.vertices[other]).all(axis=1) & (
            (areas.codes[mine] == MOVE) == (lines.codes[other] == MOVE)
        )
        offsets = np.cumsum(sizes[found]) - sizes[found]
        found = found[np.logical_and.reduceat(same, offsets)]
        twins[found] = candidates[found]
    return twins
