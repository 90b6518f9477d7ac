"""Bunting along the pier: flags on an arc, their colours a ramp."""

from typing import Annotated

from ovlo import Colour, Span, drawing, ramp


@drawing(width=800, height=320, paper="aliceblue")
def bunting(
    nib,
    flags: Annotated[int, Span(1, 40)] = 15,
    first: Colour = "crimson",
    last: Colour = "gold",
    sag: Annotated[float, Span(20, 110)] = 70,
):
    """A rope that sags, with a flag at equal distances."""
    nib.travel_to(-340, 115)
    nib.turn_to(-sag / 2)
    radius = 340 / from_sag(sag)
    step = sag / (2 * flags)
    nib.ink = "dimgray"
    for colour in ramp(first, last, flags):
        nib.arc_left(radius, step)
        with nib.returning():
            flag(nib, min(radius * step * 0.0175 * 0.9, 32), colour)
        nib.arc_left(radius, step)


def from_sag(sag):
    """The sine of half the angle by which the rope turns."""
    from math import radians, sin

    return sin(radians(sag / 2))


def flag(nib, width, colour):
    """A pennant that hangs from the rope, as wide as twice `width`."""
    with nib.area(colour):
        nib.back(width)
        nib.right(70)
        nib.forward(width * 2.92)
        nib.left(140)
        nib.forward(width * 2.92)
        nib.line_to_start()
