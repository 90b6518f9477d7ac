"""A field of kites, scattered by dice: every seed is another day."""

from typing import Annotated

from ovlo import Span, blend, drawing


@drawing(width=960, height=600, paper="skyblue")
def field_of_kites(
    nib,
    count: Annotated[int, Span(1, 80)] = 24,
    largest: Annotated[float, Span(20, 80)] = 46,
):
    """Kites of every size, shape and colour, the small ones far away."""
    dice = nib.dice
    for i in range(count):
        size = largest * (0.3 + 0.7 * (i + 1) / count)
        nib.travel_to(dice.point(margin=2.75 * largest))
        nib.turn_to(dice.number(60, 120))
        kite(nib, size, dice.integer(3, 7), dice.colour("vivid"), dice.integer(2, 4))


def kite(nib, size, sides, sail, bows):
    """A polygon with its corner ahead, a paler middle, and a tail that comes out behind."""
    nib.ink = blend(sail, "black", 0.45)
    nib.line_width = size / 20
    with nib.returning():
        nib.left(180)
        nib.forward(size / 2)
        for _ in range(bows):
            nib.arc_left(size / 4, 80)
            nib.arc_right(size / 4, 80)
            nib.circle(size / 10, fill="gold")
    nib.polygon(sides, radius=size, fill=sail)
    nib.polygon(sides, radius=size / 2, fill=blend(sail, "white", 0.5))
