"""A knot tied with one rope: it crosses itself many times, always over, under, over, under."""

from math import cos, pi, sin
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=420, height=420, unit="mm", paper="#efe6dd")
def endless_knot(
    nib,
    loops: Annotated[int, Span(3, 12)] = 7,
    rounds: Annotated[int, Span(2, 5)] = 3,
    rope: Annotated[float, Span(4, 16)] = 9.5,
):
    """The rope goes round while it swings in and out."""
    pieces, length = 2 * loops * rounds, 24
    count = pieces * length

    def at(i):
        t = 2 * pi * i / count
        radius = 118 + 62 * cos(loops * t)
        return radius * cos(rounds * t), radius * sin(rounds * t), sin(loops * t)

    order = sorted(range(pieces), key=lambda piece: at(piece * length + length / 2)[2])
    for piece in order:
        points = [at(piece * length + i)[:2] for i in range(-1, length + 2)]
        for ink, width in (("#efe6dd", rope + 5), ("#3d2b1f", rope + 1.4), ("#c89b5a", rope - 1)):
            nib.ink, nib.line_width = ink, width
            nib.line_cap = "butt" if width > rope else "round"
            nib.travel_to(points[0])
            nib.polyline(points[1:])
        nib.ink, nib.line_width = "#7a5230", 0.6
        for i in range(0, length, 2):
            nib.travel_to(at(piece * length + i)[:2])
            nib.aim_at(at(piece * length + i + 2)[:2])
            nib.right(55)
            nib.travel(-0.42 * rope)
            nib.arc_left(1.9 * rope, 26)


if __name__ == "__main__":
    endless_knot.show()
