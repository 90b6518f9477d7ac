"""Measures of a trail: how long, how large, and what lies beyond the sheet.

    drawn_length(sheet._columns)

How large a text is depends on its font, which is not known here: it is handed in as a function from a text
to the corners of its box.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ovlo.core.paint.order import Mark, painted
from ovlo.core.paint.outlines import borders, strokes
from ovlo.core.trail import curves
from ovlo.core.trail.columns import Columns, PenState, Text
from ovlo.core.values.arrays import Bools, Box, Bytes, Floats, Ints

TextBox = Callable[[Text], tuple[Floats, Floats]]
Letters = Callable[[Text], tuple[Floats, Bytes]]
"""What gives the letters of a text as a path, which knows fonts."""

CLOSED = 1e-9
"""A gap below this share of the drawn length is rounding, not a mistake."""


def drawn_length(columns: Columns) -> float:
    """The length of all drawn lines together, in sheet units."""
    return float(curves.step_lengths(columns)[columns.is_drawn].sum())


def widest_line(columns: Columns) -> float:
    """The width of the widest line that is drawn, in sheet units."""
    drawn = np.flatnonzero(np.bincount(columns.runs["style"][columns.runs["pen"] == PenState.DRAW]))
    return max((columns.styles[number].line_width for number in drawn), default=0.0)


@dataclass(frozen=True, eq=False)
class MarkBoxes:
    """The boxes of all marks: strokes, areas and texts; the width of lines is left out.

    Attributes
    ----------
    low, high : float arrays of shape (m, 2)
        Lower left and upper right corners: of the strokes, then the areas, then the texts.
    steps : int array of shape (m,)
        The first step of each; of a text the one it lies beneath.
    is_bare : bool array of shape (m,)
        Whether it is an area without an outline.
    """

    low: Floats
    high: Floats
    steps: Ints
    is_bare: Bools

    @classmethod
    def of(cls, columns: Columns, text_box: TextBox) -> MarkBoxes:
        """The boxes of a trail's marks."""
        lines, areas = strokes(columns), borders(columns)
        # An area and its own outline are one mark.
        marks = painted(columns).marks
        alone = np.array(
            sorted(mark.number for mark in marks if isinstance(mark, Mark) and mark.style is None), np.int64
        )
        low_areas, high_areas = areas.path_boxes()
        found = [
            lines.boxes(),
            (low_areas[alone], high_areas[alone]),
            *(text_box(text) for text in columns.texts),
        ]
        low, high = (np.vstack([np.reshape(corner[i], (-1, 2)) for corner in found]) for i in range(2))
        texts = np.array([text.step for text in columns.texts], np.int64)
        steps = np.concatenate([lines.piece_steps, areas.steps[alone], texts])
        is_bare = np.repeat([False, True, False], [len(lines.piece_steps), len(alone), len(texts)])
        return cls(low, high, steps, is_bare)

    def chosen(self, which: Bools) -> MarkBoxes:
        """Those of some marks."""
        return MarkBoxes(self.low[which], self.high[which], self.steps[which], self.is_bare[which])

    @property
    def whole(self) -> Box | None:
        """The box of everything: left, bottom, right, top; None when nothing is marked."""
        if not len(self.low):
            return None
        (left, bottom), (right, top) = self.low.min(axis=0), self.high.max(axis=0)
        return float(left), float(bottom), float(right), float(top)

    def beyond(self, width: float, height: float) -> Beyond:
        """What lies beyond a sheet of that size."""
        half = np.array([width, height]) / 2
        over = np.concatenate([-half - self.low, self.high - half], axis=1)
        out = over > CLOSED * max(width, height)
        farthest = np.where(out, over, 0.0).max(axis=0, initial=0.0)
        edges = ("left", "bottom", "right", "top")
        return Beyond(
            is_out=np.asarray(out.any(axis=1)),
            distances={edge: far for edge, far in zip(edges, farthest.tolist(), strict=True) if far > 0},
        )


@dataclass(frozen=True, eq=False)
class Beyond:
    """Which marks leave the sheet, and how far beyond which edge."""

    is_out: Bools
    distances: dict[str, float]

    @property
    def count(self) -> int:
        """How many marks leave the sheet."""
        return int(self.is_out.sum())

    @property
    def total(self) -> int:
        """How many marks there are."""
        return len(self.is_out)
