"""Which pen draws what: one for each ink and width, or the nearest of those that are at hand.

pens, pen_of = pens_for(inks, widths, tray)
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ovlo.core.values.arrays import Floats, Ints
from ovlo.core.values.colour import Colour, difference
from ovlo.core.values.units import LINE_WIDTH, PIXELS_PER_UNIT

WIDTH_PLACES = 2
"""Decimals of a millimetre by which pens are told apart."""

USUAL = LINE_WIDTH / PIXELS_PER_UNIT["mm"]
"""Millimetres of the pen that fills areas of whose ink there are no lines."""

FINEST = 0.05
"""Millimetres; no pen is finer."""


class Pen(NamedTuple):
    """A pen: what it is called, its ink, and how wide a line it draws, in millimetres."""

    name: str
    ink: Colour
    line_width: float


class Replaced(NamedTuple):
    """An ink and a width that a picture asks for, and the pen at hand that is nearest."""

    ink: Colour
    line_width: float
    pen: Pen
    unlike: float


def pens_for(inks: Floats, widths: Floats, tray: tuple[Pen, ...]) -> tuple[list[Pen], Ints, list[Replaced]]:
    """Pens for some shapes.

    Parameters
    ----------
    inks : float array of shape (n, 3)
        As they look on the paper.
    widths : float array of shape (n,)
        In millimetres; nan for areas without a line, which take the finest pen of their ink.
    tray : tuple of Pen
        The pens at hand; empty for any.

    Returns
    -------
    pens, pen_of, replaced
        `pen_of` is the number of each shape's pen, shape (n,).
    """
    if not len(inks):
        return [], np.empty(0, np.int64), []
    colours = np.rint(inks).astype(np.int64)
    asked = np.maximum(np.round(_known(colours, widths), WIDTH_PLACES), FINEST)
    kinds, first, kind_of = np.unique(
        np.column_stack([colours, np.rint(asked * 1000).astype(np.int64)]),
        axis=0,
        return_index=True,
        return_inverse=True,
    )
    by_use = np.argsort(first, kind="stable")
    place = np.empty(len(kinds), np.int64)
    place[by_use] = np.arange(len(kinds))
    wanted = [(Colour(*map(float, row[:3])), row[3] / 1000) for row in kinds[by_use].tolist()]
    kind_of = place[kind_of.ravel()]
    if not tray:
        return [Pen(f"{ink.hex} {width:g} mm", ink, width) for ink, width in wanted], kind_of, []
    replaced, numbers = [], []
    for ink, width in wanted:
        apart = [round(difference(ink, pen.ink), 6) for pen in tray]
        number = min(range(len(tray)), key=lambda i: (apart[i], abs(tray[i].line_width - width)))
        numbers.append(number)
        replaced.append(Replaced(ink, width, tray[number], apart[number]))
    return list(tray), np.array(numbers)[kind_of], replaced


def _known(colours: Ints, widths: Floats) -> Floats:
    """Widths where areas, which have none, get that of the finest line of their ink, or the usual one."""
    known = ~np.isnan(widths)
    codes = colours @ np.array([1 << 16, 1 << 8, 1])
    inks, ink_of = np.unique(codes, return_inverse=True)
    least = np.full(len(inks), np.inf)
    np.minimum.at(least, ink_of[known], widths[known])
    least[np.isinf(least)] = USUAL
    filled: Floats = np.where(known, widths, least[ink_of])
    return filled
