"""A wind spinner: a polygon inside a full turn."""

from math import radians, sin
from typing import Annotated

from ovlo import Span, drawing, shift_hue


def polygon(nib, sides, side):
    """Walk a polygon and end where it began."""
    for _ in nib.full_turn(sides):
        nib.forward(side)


@drawing(width=480, height=480, paper="ivory")
def wind_spinner(
    nib,
    blades: Annotated[int, Span(2, 36)] = 12,
    sides: Annotated[int, Span(3, 12)] = 5,
    side: Annotated[float, Span(10, 140)] = 120,
):
    """A rosette of polygons, each blade in the next colour of the hue circle."""
    nib.line_width = 1.5
    side = min(side, 230 * sin(radians(180 / sides)))  # no farther than the edge of the sheet
    for i in nib.full_turn(blades):
        with nib.area(shift_hue("#ff6347b0", 360 * i / blades)):
            polygon(nib, sides, side)
