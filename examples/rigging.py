"""Moiré of rigging: the ropes of two masts, seen through one another."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=480, paper="ivory")
def rigging(nib, ropes: Annotated[int, Span(10, 90)] = 60, apart: Annotated[float, Span(20, 220)] = 90):
    """Two fans of straight lines, whose crossings make curves."""
    nib.line_width = 0.7
    for x, ink in ((-apart / 2, "navy"), (apart / 2, "firebrick")):
        nib.ink = ink
        for i in range(ropes):
            nib.travel_to(x, 215)
            nib.line_to(-300 + 600 * i / (ropes - 1), -220)
