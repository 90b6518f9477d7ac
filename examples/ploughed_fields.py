"""The fields behind the dunes, ploughed without lifting the plough: a line that fills its square."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=480, height=480, paper="#efe3c2")
def ploughed_fields(nib, depth: Annotated[int, Span(1, 6)] = 5):
    """Four smaller fields in each field, joined to one furrow."""
    side = 440 / (2**depth - 1)
    nib.ink = "sienna"
    nib.line_width = min(8, side / 2)
    nib.travel_to(-220, -220)
    furrow(nib, side, depth, 90)


def furrow(nib, side, depth, turn):
    """A field whose furrow begins and ends at one edge."""
    if depth == 0:
        return
    nib.left(turn)
    furrow(nib, side, depth - 1, -turn)
    nib.forward(side)
    nib.right(turn)
    furrow(nib, side, depth - 1, turn)
    nib.forward(side)
    furrow(nib, side, depth - 1, turn)
    nib.right(turn)
    nib.forward(side)
    furrow(nib, side, depth - 1, -turn)
    nib.left(turn)
