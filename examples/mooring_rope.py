"""A rope of three strands, laid over one another."""

from math import pi, sin
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=240, paper="#24485c")
def mooring_rope(nib, twists: Annotated[int, Span(2, 12)] = 6, width: Annotated[float, Span(20, 70)] = 44):
    """Short pieces of the strands, those behind first."""
    strands = ["#d9b36c", "#c79a4b", "#e8cf98"]
    count = 60 * twists
    nib.line_cap = "butt"
    for i in range(count):
        x, turned = -290 + 580 * i / count, 2 * pi * twists * i / count
        pieces = [(turned + 2 * pi * k / 3, ink) for k, ink in enumerate(strands)]
        for angle, ink in sorted(pieces, key=lambda piece: sin(piece[0] + pi / 2)):
            nib.travel_to(x, width * sin(angle))
            nib.ink, nib.line_width = ink, width * 0.75
            nib.line_to(x + 700 / count, width * sin(angle + 2 * pi * twists / count))
