"""One polygon, to be varied: `ovlo vary polygon.py --values sides=3..8`."""

from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=480, paper="aliceblue")
def polygon(nib, sides: Annotated[int, Span(3, 8)] = 4, side: float = 90):
    """A regular polygon."""
    for _ in nib.full_turn(sides):
        nib.forward(side)
