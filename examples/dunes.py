"""The dunes in the evening: ridges of sand, each with its ripples."""

from math import sin
from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=640, height=420, paper="#f6c89f")
def dunes(nib, ridges: Annotated[int, Span(2, 9)] = 6, ripples: Annotated[int, Span(0, 12)] = 7):
    """Ridge before ridge, the near ones darker."""
    for row, colour in enumerate(ramp("#eebb80", "#8a5a3c", ridges)):
        y, phase = 60 - 230 * row / ridges, 1.7 * row
        with nib.area(colour, outline=False):
            nib.travel_to(-320, -210)
            for x in range(-320, 321, 8):
                nib.line_to(x, y + ridge(x, phase))
            nib.line_to(320, -210)
            nib.line_to_start()
        nib.ink, nib.line_width = "rgb(90 50 20 / 25%)", 1
        for k in range(1, ripples + 1):
            nib.travel_to(-300 + 40 * k, max(-208, y - 7 * k + ridge(-300 + 40 * k, phase)))
            for x in range(-300 + 40 * k, 301 - 40 * k, 8):
                nib.line_to(x, max(-208, y - 7 * k + ridge(x, phase)))


def ridge(x, phase):
    """How high the sand lies, for two winds."""
    return 26 * sin(x / 95 + phase) + 9 * sin(x / 31 + 2 * phase)
