"""The harbour in the morning: a sun that rises, fog in bands, and boats at anchor."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=640, height=420, paper="#fbe7d3")
def morning(nib, boats: Annotated[int, Span(0, 9)] = 5, fog: Annotated[int, Span(0, 8)] = 5):
    """Sky, sun, hills, fog, water and boats."""
    dice = nib.dice
    for i, colour in enumerate(ramp("#f7b79b", "#fdf0dc", 14)):
        nib.travel_to(0, 200 - 18 * i)
        nib.rectangle(640, 19, fill=colour, outline=False)
    nib.travel_to(90, 10)
    nib.circle(55, fill="#fff6d8", outline=False)
    for x, radius, colour in ((-230, 210, "#a3a7bf"), (200, 260, "#8b90ad")):
        nib.travel_to(x, -10 - radius * 0.75)
        nib.circle(radius, fill=colour, outline=False)
    nib.travel_to(0, -125)
    nib.rectangle(640, 170, fill="#9db7c4", outline=False)
    for k in range(fog):
        nib.travel_to(dice.number(-200, 200), -30 + 16 * k)
        nib.ellipse(dice.number(200, 380), 16, fill="rgb(255 250 245 / 45%)", outline=False)
    for i in range(boats):
        nib.travel_to(-250 + 500 * (i + 0.5) / boats, dice.number(-170, -70))
        boat(nib, dice.number(12, 20))


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
