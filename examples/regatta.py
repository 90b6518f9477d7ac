"""A regatta from above: every boat tacks up the wind and leaves its wake behind."""

from typing import Annotated

from ovlo import Span, drawing


def hull(nib, fill):
    """A boat of 22 mm, its stern on the nib, with its sail set to one side."""
    nib.left(90)
    nib.travel(3.8)
    nib.right(78)
    with nib.area(fill):
        for turn in (122, 102):
            nib.arc_right(32, 40)
            nib.right(turn)
        nib.line_to_start()


def wake(nib, length, ripples):
    """Two sides that open astern, and ripples between them that fade."""
    for side in (1, -1):
        with nib.returning():
            nib.turn_to(nib.heading + 180 + 9 * side)
            nib.travel(1)
            for i in range(ripples):
                nib.line_width = 1.1 * (1 - i / ripples) + 0.12
                with nib.returning():
                    nib.right(90 * side - 40 * side)
                    (nib.arc_left if side > 0 else nib.arc_right)(4 + 0.9 * i, 70)
                nib.travel(length / ripples)


@drawing(width=420, height=297, unit="mm", paper="#14505c")
def regatta(nib, boats: Annotated[int, Span(5, 40)] = 22, tack: Annotated[float, Span(30, 60)] = 44):
    """Every boat points as high as it can, on one tack or the other."""
    fills = ["#fdf6e3", "#e76f51", "#f4a261", "#e9c46a", "#8ecae6"]
    spots = nib.dice.scattered(boats, margin=66)
    for number, (x, y) in enumerate(spots):
        nib.travel_to(x, y)
        nib.turn_to(90 + nib.dice.pick([tack, -tack]) + nib.dice.number(-5, 5))
        nib.ink = "#9fd3d6"
        wake(nib, nib.dice.number(42, 64), 15)
        nib.ink, nib.line_width = "#0b2f36", 0.6
        with nib.returning():
            hull(nib, fills[number % 5])


if __name__ == "__main__":
    regatta.show()
