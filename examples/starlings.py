"""Starlings at dusk over the reeds: one swarm that folds over itself, every bird a stroke or two."""

from math import cos, pi, sin
from typing import Annotated

from ovlo import Span, blend, drawing


def bird(nib, size):
    """Two wings, swept back from where the nib stands."""
    for side in (1, -1):
        with nib.returning():
            nib.left(side * 118)
            arc = nib.arc_right if side > 0 else nib.arc_left
            arc(size, 62)


@drawing(width=420, height=297, unit="mm", paper="#f2d9b8")
def starlings(
    nib,
    birds: Annotated[int, Span(200, 3000)] = 1700,
    fold: Annotated[float, Span(0.2, 1)] = 0.62,
):
    """The swarm follows a ribbon; the nearer to its middle, the denser and darker."""
    for _ in range(birds):
        t = 2 * pi * nib.dice.number(0, 1)
        aside = sum(nib.dice.number(-1, 1) for _ in range(3)) / 3
        spread = 16 + 20 * (1 + sin(t)) / 2
        x = 118 * sin(t) + spread * aside * cos(2 * t)
        y = 42 + 46 * fold * sin(2 * t + 0.6) + spread * aside
        nib.travel_to(x, y)
        nib.turn_to(30 + 50 * cos(t) + nib.dice.number(-20, 20))
        nib.ink = blend("#2b2233", "#f2d9b8", min(0.75, 1.3 * abs(aside)))
        nib.line_width = 0.25 + 0.35 * (1 - abs(aside))
        bird(nib, 1.1 + 1.6 * (1 + sin(t)) / 2)
    nib.ink = "#2b2233"
    for _ in range(180):
        nib.travel_to(nib.dice.number(-182, 182), -146)
        nib.turn_to(90 + nib.dice.number(-9, 9))
        nib.line_width = nib.dice.number(0.3, 0.9)
        arc = nib.dice.pick([nib.arc_left, nib.arc_right])
        arc(200, nib.dice.number(8, 21))


if __name__ == "__main__":
    starlings.show()
