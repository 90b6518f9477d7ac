"""A row of kites, each with one side more than the one before."""

from ovlo import drawing


def kite(nib, sides, side):
    """A polygon on a string, its lowest corner where the nib stands."""
    with nib.returning():
        nib.turn_to(90 - 180 / sides * (sides - 2) / 2)
        for _ in nib.full_turn(sides):
            nib.forward(side)
    with nib.returning():
        nib.turn_to(-90)
        for _ in range(12):
            nib.forward(9)
            nib.left(4)


@drawing(width=800, height=400, paper="lightcyan")
def row_of_kites(nib, fewest=3, most=8, around=330):
    """Kites from a triangle to an octagon, all with the same length of edge around."""
    colours = ["firebrick", "darkorange", "goldenrod", "seagreen", "steelblue", "indigo"]
    gap = 125
    nib.line_width = 4
    nib.travel_to(-gap * (most - fewest) / 2, -10)
    for sides in range(fewest, most + 1):
        nib.ink = colours[sides % len(colours)]
        kite(nib, sides, around / sides)
        nib.travel_by(gap, 0)
