"""The harbour in the morning: a sun that rises, fog in bands, and boats at anchor."""

from math import radians, sin
from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=640, height=420, paper="#fbe7d3")
def morning(nib, boats: Annotated[int, Span(0, 9)] = 5, fog: Annotated[int, Span(0, 8)] = 5):
    """Sky, sun, hills, fog, water and boats."""
    dice = nib.dice
    for i, colour in enumerate(ramp("#f7b79b", "#fdf0dc", 14)):
        nib.travel_to(0, 200 - 18 * i)
        nib.rectangle(640, 19, fill=colour, outline=False)
    nib.travel_to(-30, 40)
    nib.circle(55, fill="#fff6d8", outline=False)
    hill(nib, -320, 20, 100, "#a3a7bf")
    hill(nib, -60, 320, 120, "#8b90ad")
    nib.travel_to(0, -125)
    nib.rectangle(640, 170, fill="#9db7c4", outline=False)
    for k in range(fog):
        nib.travel_to(dice.number(-120, 120), -30 + 16 * k)
        nib.ellipse(dice.number(200, 380), 16, fill="rgb(255 250 245 / 45%)", outline=False)
    for i in range(boats):
        nib.travel_to(-250 + 500 * (i + 0.5) / boats, dice.number(-160, -70))
        boat(nib, dice.number(12, 20))


def hill(nib, left, right, sweep, colour):
    """An arc above the water, from its right end to its left one."""
    nib.travel_to(right, -40)
    nib.turn_to(180 - sweep / 2)
    with nib.area(colour, outline=False):
        nib.arc_left((right - left) / (2 * sin(radians(sweep / 2))), sweep)
    nib.turn_to(0)


def boat(nib, size):
    """A hull, a bare mast, and both again in the water, paler."""
    nib.line_width = 2
    for up, colour in ((-1, "rgb(60 50 60 / 25%)"), (1, "#3c323c")):
        nib.ink = colour
        with nib.returning(), nib.area(colour):
            nib.travel_by(-size, 0)
            nib.line_by(2 * size, 0)
            nib.line_by(-size / 2, -up * size / 2)
            nib.line_by(-size, 0)
            nib.line_to_start()
        with nib.returning():
            nib.line_by(0, up * 2.4 * size)
