"""Lines that are wider than their pen: the area that each covers, to be filled by strokes along it.

bands = covered(lines.taken(np.flatnonzero(is_wide(lines, pen_widths))), looks)
"""

from __future__ import annotations

from typing import Literal

import numpy as np

from ovlo.core.plot.inked import Layer, Look, Shapes
from ovlo.core.values.arrays import Bools, Floats

WIDER = 1.5
"""Times the width of its pen that a line is wide."""

CAPS: dict[str, Literal["flat", "round", "square"]] = {"butt": "flat", "round": "round", "square": "square"}
JOINS: dict[str, Literal["mitre", "round", "bevel"]] = {"miter": "mitre", "round": "round", "bevel": "bevel"}
MITRE_LIMIT = 10.0
"""As in every other format: SVG's own limit is said in each file."""


def is_wide(lines: Layer, pen_widths: Floats) -> Bools:
    """Which lines are wider than their pens draw."""
    wide: Bools = lines.widths > WIDER * pen_widths
    return wide


def gaps(widths: Floats, pen_widths: Floats) -> Floats:
    """From one stroke along each line to the next, so that they are spread evenly and leave nothing between.

    Strokes go along both sides, so there are an even number of them across.
    """
    pairs = np.ceil(widths / (2 * pen_widths) - 1e-9)
    spread: Floats = (widths - pen_widths) / (2 * pairs - 1)
    return spread


def covered(lines: Layer, looks: list[Look]) -> Layer:
    """The areas that lines cover, with their caps and joins."""
    import shapely

    if not len(lines.shapes):
        return lines
    shapes: Shapes = lines.shapes.copy()
    kinds = np.array([looks[position] for position in lines.positions.tolist()])
    for cap, join in {tuple(kind) for kind in kinds.tolist()}:
        these = np.flatnonzero((kinds == (cap, join)).all(axis=1))
        # One that comes back to its start has no caps there.
        shapes[these] = shapely.buffer(
            shapes[these],
            lines.widths[these] / 2,
            quad_segs=16,
            cap_style=CAPS[cap],
            join_style=JOINS[join],
            mitre_limit=MITRE_LIMIT,
        )
    return lines.reshaped(shapes, np.arange(len(shapes)))
