"""The same harbour in a storm: rain, a dark sea, and one boat that is late."""

from typing import Annotated

from ovlo import Span, blend, drawing, ramp


@drawing(width=640, height=420, paper="#5b6673")
def storm(nib, rain: Annotated[int, Span(0, 400)] = 220, wind: Annotated[float, Span(-40, 40)] = 24):
    """Sky, waves and boat, and the rain over all of them."""
    dice = nib.dice
    for i, colour in enumerate(ramp("#2a323c", "#7d8894", 12)):
        nib.travel_to(0, 195 - 22 * i)
        nib.rectangle(640, 23, fill=colour, outline=False)
    for row in range(6):
        colour = blend("#3d5666", "#14242f", row / 5)
        if row == 3:
            boat(nib)
        wave(nib, -40 - 30 * row, 40 + 6 * row, dice.number(0, 40), colour)
    nib.ink, nib.line_width = "rgb(220 230 240 / 45%)", 1
    nib.turn_to(270 - wind)
    for x, y in dice.scattered(rain) if rain else ():
        nib.travel_to(0.9 * x, 0.85 * y)
        nib.forward(18)


def wave(nib, y, size, shift, colour):
    """A row of crests over the whole width, and the water below."""
    nib.turn_to(0)
    with nib.area(colour, outline=False):
        nib.travel_to(-380 + shift, y)
        for _ in range(int(800 / size)):
            nib.turn_to(-50)
            nib.arc_left(0.65 * size, 100)
        nib.line_to(420, -215)
        nib.line_to(-380, -215)
        nib.line_to_start()


def boat(nib):
    """A hull that leans, with a torn sail."""
    nib.travel_to(60, -70)
    nib.turn_to(14)
    with nib.returning(), nib.area("#3b2a20"):
        nib.travel(-50)
        nib.forward(110)
        nib.right(130)
        nib.forward(45)
        nib.line_by(-55, -12)
        nib.line_to_start()
    with nib.returning(), nib.area("#d9d2c3"):
        nib.left(90)
        nib.forward(90)
        nib.right(150)
        nib.forward(70)
        nib.line_to_start()
