"""A sign for the harbour gate: letters along an arc, over two anchors."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=360, paper="#fdf6e3")
def welcome(nib, radius: Annotated[float, Span(200, 330)] = 240, size: Annotated[float, Span(24, 44)] = 34):
    """Words that follow a circle, each letter turned as it stands there."""
    words = "WELCOME TO KITE DAY"
    step = 46 * size / radius
    nib.ink = "navy"
    for i, letter in enumerate(words):
        angle = step * ((len(words) - 1) / 2 - i)
        nib.travel_to(0, 90 - radius)
        nib.turn_to(90 + angle)
        nib.travel(radius)
        nib.right(90)
        nib.text(letter, size=size, weight="bold", align="middle")
    for x in (-60, 60):
        nib.travel_to(x, 10)
        nib.turn_to(0)
        anchor(nib)


def anchor(nib):
    """A ring, a shank, a stock and two arms."""
    nib.line_width = 6
    nib.circle(9)
    with nib.returning():
        nib.travel_by(-22, -22)
        nib.forward(44)
    with nib.returning():
        nib.travel_by(0, -9)
        nib.line_by(0, -100)
        nib.travel_by(-45, 32)
        nib.turn_to(300)
        nib.arc_left(52, 120)
