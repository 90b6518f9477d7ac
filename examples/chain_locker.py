"""The anchor chain, stowed: links seen from the side and from the edge, wound from the wall inwards."""

from math import degrees, pi
from typing import Annotated

from ovlo import Span, drawing


def link(nib, length, is_flat):
    """A link, its middle on the nib, along the heading."""
    for ink, width in (("#14181f", 0.34 * length), ("#7f8ea3", 0.2 * length), ("#dfe6ee", 0.04 * length)):
        nib.ink, nib.line_width = ink, width
        with nib.returning():
            if is_flat:
                nib.travel(-0.34 * length)
                nib.right(90)
                nib.travel(0.26 * length)
                nib.left(90)
                for _ in range(2):
                    nib.forward(0.68 * length)
                    nib.arc_left(0.26 * length, 180)
            else:
                nib.travel(-0.46 * length)
                nib.forward(0.92 * length)


@drawing(width=420, height=420, unit="mm", paper="#e9e4da")
def chain_locker(nib, length: Annotated[float, Span(9, 30)] = 16, gap: Annotated[float, Span(12, 40)] = 24):
    """Each link is half a link farther along a spiral with equal turns."""
    places, angle = [], 360 * 176 / gap
    while (radius := gap * angle / 360) > 0.9 * length:
        places.append((radius, angle))
        angle -= degrees(0.62 * length / radius)
    for is_flat in (True, False):
        for number, (radius, angle) in enumerate(places):
            if (number % 2 == 0) == is_flat:
                nib.travel_to(0, 0)
                nib.turn_to(angle)
                nib.travel(radius)
                nib.left(90 - degrees(gap / (2 * pi * radius)))
                link(nib, length, is_flat)


if __name__ == "__main__":
    chain_locker.show()
