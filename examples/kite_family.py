"""One kite, many kinds: the number of sides, the size and the tail are parameters."""

from typing import Annotated

from ovlo import Colour, Span, drawing


@drawing(width=400, height=480, paper="aliceblue")
def kite(
    nib,
    sides: Annotated[int, Span(3, 12)] = 4,
    size: Annotated[float, Span(20, 120)] = 70,
    tail: Annotated[int, Span(0, 8)] = 5,
    sail: Colour = "tomato",
):
    """A kite of any number of sides, on a tail with bows."""
    nib.line_width = 3
    nib.travel_to(0, 225 - size)
    nib.turn_to(90)
    nib.polygon(sides, radius=size, turn=180, fill=sail)
    nib.travel(-size)
    nib.turn_to(270)
    nib.line_width = 2
    for i in range(tail):
        out, back = (nib.arc_left, nib.arc_right) if i % 2 == 0 else (nib.arc_right, nib.arc_left)
        out(17, 50)
        bow(nib, 10 - i / 2)
        back(17, 50)


def bow(nib, size):
    """Two triangles that meet where the nib stands."""
    for side in (90, -90):
        with nib.returning(), nib.area("gold"):
            nib.left(side - 30)
            nib.forward(size)
            nib.left(120)
            nib.forward(size)
            nib.line_to_start()
