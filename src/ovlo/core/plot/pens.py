"""Which pen draws what: one for each ink, or the nearest of those that are at hand.

pens, pen_of, replaced = pens_for(inks, widths, lengths, tray)
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
    """A pen: what it is called, its ink, and how wide a line it draws, in millimetres.

    `passes` is how many times it goes over each stroke, and `hatch_angle` the direction of its hatch lines in
    degrees; None for that of the whole plot.
    """

    name: str
    ink: Colour
    line_width: float
    passes: int = 1
    hatch_angle: float | None = None

    @property
    def label(self) -> str:
        """What a file says of it: its name, ink and width."""
        look = f"{self.ink.hex} {self.line_width:g} mm"
        return self.name if self.ink.hex in self.name else f"{self.name}, {look}"

    @property
    def look(self) -> tuple[Colour, float]:
        """Its ink and its width."""
        return self.ink, self.line_width


class Replaced(NamedTuple):
    """An ink and a width that a picture asks for, and the pen at hand that is nearest."""

    ink: Colour
    line_width: float
    pen: Pen
    unlike: float


def pens_for(
    inks: Floats, widths: Floats, lengths: Floats, tray: tuple[Pen, ...], pen_width: float | None = None
) -> tuple[list[Pen], Ints, list[Replaced]]:
    """Pens for some shapes: one for each ink, or the nearest of those at hand.

    Parameters
    ----------
    inks : float array of shape (n, 3)
        As they look on the paper.
    widths : float array of shape (n,)
        In millimetres; nan for areas without a line.
    lengths : float array of shape (n,)
        In millimetres; 0 for areas. A pen is as wide as the most of what its ink draws.
    tray : tuple of Pen
        The pens at hand; empty for any.
    pen_width : float, optional
        Of every pen, without a tray.

    Returns
    -------
    pens, pen_of, replaced
        `pen_of` is the number of each shape's pen, shape (n,).
    """
    if not len(inks):
        return [], np.empty(0, np.int64), []
    codes = np.rint(inks).astype(np.int64) @ np.array([1 << 16, 1 << 8, 1])
    kinds, first, kind_of = np.unique(codes, return_index=True, return_inverse=True)
    by_use = np.argsort(first, kind="stable")
    place = np.empty(len(kinds), np.int64)
    place[by_use] = np.arange(len(kinds))
    kind_of = place[kind_of.ravel()]
    usual = _most_used(kind_of, widths, lengths, len(kinds))
    wanted = [
        (Colour(code >> 16, code >> 8 & 255, code & 255), width)
        for code, width in zip(kinds[by_use].tolist(), usual.tolist(), strict=True)
    ]
    if not tray:
        wide = [(ink, width if pen_width is None else pen_width) for ink, width in wanted]
        return [Pen(f"{ink.hex} {width:g} mm", ink, width) for ink, width in wide], kind_of, []
    replaced, numbers = [], []
    for ink, width in wanted:
        apart = [round(difference(ink, pen.ink), 6) for pen in tray]
        number = min(range(len(tray)), key=lambda i: (apart[i], abs(tray[i].line_width - width)))
        numbers.append(number)
        replaced.append(Replaced(ink, width, tray[number], apart[number]))
    return list(tray), np.array(numbers)[kind_of], replaced


def _most_used(kind_of: Ints, widths: Floats, lengths: Floats, count: int) -> Floats:
    """The width in which each ink draws the longest lines; the usual one where it draws none."""
    found = np.full(count, round(USUAL, WIDTH_PLACES))
    drawn = np.flatnonzero(~np.isnan(widths))
    rounded = np.maximum(np.round(widths[drawn], WIDTH_PLACES), FINEST)
    pairs, pair_of = np.unique(np.column_stack([kind_of[drawn], rounded]), axis=0, return_inverse=True)
    totals = np.bincount(pair_of.ravel(), lengths[drawn], minlength=len(pairs))
    for row in np.argsort(totals, kind="stable").tolist():  # the longest last
        found[int(pairs[row, 0])] = pairs[row, 1]
    return found
