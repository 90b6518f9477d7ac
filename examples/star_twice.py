"""One star kite drawn twice: by walking and turning, and by coordinates; they stand 18° apart."""

from math import radians, sin
from typing import Annotated

from ovlo import Span, drawing, from_polar


@drawing(width=480, height=480, paper="aliceblue")
def walked(nib, points: Annotated[int, Span(5, 15, 2)] = 5, radius: Annotated[float, Span(40, 200)] = 180):
    """Out to a corner, then straight to the second next, and a turn, again and again."""
    nib.ink = "crimson"
    nib.travel_to(from_polar(radius, 72))
    nib.turn_to(72 + 90 + 360 / points)
    side = 2 * radius * sin(radians(360 / points))
    for _ in nib.full_turn(points, rounds=2):
        nib.forward(side)


@drawing(width=480, height=480, paper="aliceblue")
def by_corners(
    nib, points: Annotated[int, Span(5, 15, 2)] = 5, radius: Annotated[float, Span(40, 200)] = 180
):
    """From corner to corner, the first one straight up."""
    nib.ink = "crimson"
    corners = [from_polar(radius, 90 + 360 * i / points) for i in range(points)]
    nib.travel_to(corners[0])
    for i in range(1, points):
        nib.line_to(corners[2 * i % points])
    nib.line_to_start()
