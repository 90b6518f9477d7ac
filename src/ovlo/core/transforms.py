"""Turned, scaled and moved: arithmetic on a trail's arrays.

transformed(columns, turn=30, scale=2, move=(10, 0))
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ovlo.core.columns import Columns, Style
from ovlo.core.degrees import direction, normal


def transformed(
    columns: Columns,
    turn: float = 0.0,
    scale: float = 1.0,
    move: tuple[float, float] = (0.0, 0.0),
) -> Columns:
    """Scaled and turned about the origin, then moved; line widths, dashes and letters are scaled too.

    A point (x, y) becomes scale·(x·cos - y·sin, x·sin + y·cos) + move.
    """
    cosine, sine = (scale * part for part in direction(normal(turn)))
    dx, dy = move

    def placed(rows: np.ndarray, x: str, y: str, is_point: bool = True) -> None:
        before = rows[x].copy()
        rows[x] = cosine * before - sine * rows[y] + (dx if is_point else 0.0)
        rows[y] = sine * before + cosine * rows[y] + (dy if is_point else 0.0)

    steps, runs, arcs = columns.steps.copy(), columns.runs.copy(), columns.arcs.copy()
    placed(steps, "x", "y")
    placed(runs, "x", "y")
    placed(arcs, "ux", "uy", is_point=False)
    placed(arcs, "vx", "vy", is_point=False)
    steps["heading"] = (steps["heading"] + turn) % 360.0
    texts = tuple(
        text._replace(
            x=cosine * text.x - sine * text.y + dx,
            y=sine * text.x + cosine * text.y + dy,
            heading=normal(text.heading + turn),
            size=scale * text.size,
        )
        for text in columns.texts
    )
    styles = tuple(scaled(style, scale) for style in columns.styles)
    return replace(columns, steps=steps, runs=runs, arcs=arcs, texts=texts, styles=styles)


def scaled(style: Style, scale: float) -> Style:
    """A style with its lengths scaled."""
    return style._replace(
        line_width=scale * style.line_width, dash=tuple(scale * length for length in style.dash)
    )
