"""Turned, scaled, mirrored and moved: arithmetic on a trail's arrays.

transformed(columns, Similarity(scale=2, turn=30, x=10))
"""

from __future__ import annotations

from dataclasses import replace
from math import atan2, degrees, inf
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from ovlo.core.trail.columns import Columns, Style, Text
from ovlo.core.values import arguments
from ovlo.core.values.arrays import Complexes, Floats
from ovlo.core.values.choices import TextAlign
from ovlo.core.values.degrees import direction, normal
from ovlo.core.values.pose import Pose


class Similarity(NamedTuple):
    """Mirrored in the x axis or not, then scaled and turned about the origin, then moved.

    As complex numbers, a point z becomes f·z + m, or f·conj(z) + m when it is mirrored, with
    f = scale·(cos turn + i·sin turn) and m = x + i·y.
    """

    scale: float = 1.0
    turn: float = 0.0
    x: float = 0.0
    y: float = 0.0
    is_mirrored: bool = False

    @property
    def factor(self) -> complex:
        """Scale and turn as one complex number."""
        return self.scale * complex(*direction(normal(self.turn)))

    def points(self, z: Complexes) -> Complexes:
        """Where points, as complex numbers, are afterwards."""
        moved: Complexes = self.factor * (z.conj() if self.is_mirrored else z)
        return moved + complex(self.x, self.y)

    @property
    def inverse(self) -> Similarity:
        """What undoes it: (w - m)/f, or conj((w - m)/f) = conj(1/f)·conj(w) - conj(m/f)."""
        factor = 1 / self.factor
        back = -factor * complex(self.x, self.y)
        if self.is_mirrored:
            factor, back = factor.conjugate(), back.conjugate()
        turn = degrees(atan2(factor.imag, factor.real))
        return Similarity(1 / self.scale, turn, back.real, back.imag, self.is_mirrored)

    def is_near(self, other: Similarity, tolerance: float) -> bool:
        """Whether it is the same as another, to some distance at the origin and an eye's turn."""
        return (
            self.is_mirrored == other.is_mirrored
            and abs(self.factor - other.factor) < 1e-9
            and abs(complex(self.x - other.x, self.y - other.y)) <= tolerance
        )

    def heading(self, heading: float) -> float:
        """Where a heading points afterwards."""
        return normal(self.turn - heading if self.is_mirrored else self.turn + heading)

    def pose(self, pose: Pose) -> Pose:
        """Where a pose is afterwards."""
        z = complex(pose.x, -pose.y if self.is_mirrored else pose.y)
        moved = self.factor * z + complex(self.x, self.y)
        return Pose(moved.real, moved.imag, self.heading(pose.heading))


def check_reach(columns: Columns, scale: float, x: float, y: float, call: str) -> None:
    """Refuse to scale and move a trail so far, or so large, that nobody could see it."""
    reach = scale * columns.once(_reach)
    arguments.within_reach(abs(x) + reach, abs(y) + reach, call)


def _reach(columns: Columns) -> float:
    """The largest length there is in a trail: of its places, curves, words, widths and dashes."""
    found = [0.0]
    for rows, names in ((columns.steps, "x y"), (columns.runs, "x y"), (columns.arcs, "ux uy vx vy")):
        found += [float(np.abs(rows[name]).max(initial=0)) for name in names.split()]
    found += [max(abs(text.x), abs(text.y), text.size) for text in columns.texts]
    found += [max(style.line_width, *style.line_dash, 0.0) for style in columns.styles]
    return max(found, key=lambda length: length if length == length else inf)


def transformed(columns: Columns, by: Similarity, keep_line_width: bool = False) -> Columns:
    """Everything a trail holds, elsewhere; letters and, unless they are to be kept, line widths scale too."""
    sense = -1.0 if by.is_mirrored else 1.0
    factor = by.factor

    steps, runs, arcs = columns.steps.copy(), columns.runs.copy(), columns.arcs.copy()
    move = complex(by.x, by.y)
    place(steps, "x", "y", factor, move, sense)
    place(runs, "x", "y", factor, move, sense)
    place(arcs, "ux", "uy", factor, 0, sense)
    place(arcs, "vx", "vy", factor, 0, sense)
    steps["heading"] = headings_in_range(by.turn + sense * steps["heading"])
    return replace(
        columns,
        steps=steps,
        runs=runs,
        arcs=arcs,
        texts=tuple(moved_text(text, by) for text in columns.texts),
        styles=columns.styles if keep_line_width else tuple(scaled(s, by.scale) for s in columns.styles),
    )


def place(
    rows: NDArray[np.void],
    x: str,
    y: str,
    factor: complex | Complexes,
    move: complex | Complexes,
    sense: float = 1.0,
) -> None:
    """Put the points in two columns elsewhere; `sense` is -1 to mirror them first."""
    points = factor * (rows[x] + 1j * sense * rows[y]) + move
    rows[x], rows[y] = points.real, points.imag


def headings_in_range(headings: Floats) -> Floats:
    """Headings in [0, 360)."""
    reduced = headings - np.floor(headings * (1 / 360)) * 360.0
    reduced[reduced >= 360.0] = 0.0
    return reduced


def scaled(style: Style, scale: float) -> Style:
    """A style with its lengths scaled."""
    return style._replace(
        line_width=scale * style.line_width, line_dash=tuple(scale * length for length in style.line_dash)
    )


def moved_text(text: Text, by: Similarity) -> Text:
    """A text elsewhere; its letters are turned and scaled, but never mirrored nor turned upside down."""
    x, y, heading = by.pose(Pose(text.x, text.y, text.heading))
    align = text.align
    if by.is_mirrored and 90 < (heading - text.heading) % 360 < 270:
        # Where a line is mirrored to run the other way, its words run on from their other end.
        heading, align = normal(heading + 180), OTHER_END[align]
    return text._replace(x=x, y=y, heading=heading, align=align, size=by.scale * text.size)


OTHER_END: dict[TextAlign, TextAlign] = {"start": "end", "middle": "middle", "end": "start"}
