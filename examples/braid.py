"""A braid of three ropes, each going over one and under the next."""

from math import cos, pi, sin
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=240, paper="#f2ead8")
def braid(nib, plaits: Annotated[int, Span(1, 8)] = 4, width: Annotated[float, Span(20, 80)] = 55):
    """Pieces of the ropes in the order of their depth, each with a dark edge."""
    ropes = ["firebrick", "goldenrod", "steelblue"]
    count = 48 * plaits
    nib.line_cap = "butt"
    pieces = []
    for i in range(count):
        for k, ink in enumerate(ropes):
            t = 2 * pi * (plaits * i / count + k / 3)
            pieces.append((sin(2 * t), i, t, ink))
    for _, i, t, ink in sorted(pieces):
        ends = [
            (-290 + 580 * (i + j) / count, width * cos(t + 2 * pi * plaits * j / count)) for j in (-0.4, 1.4)
        ]
        for nib.ink, nib.line_width in (("#3a2c1c", 22), (ink, 17)):
            nib.travel_to(ends[0])
            nib.line_to(ends[1])
