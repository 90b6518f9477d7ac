"""A coral, grown by recursion: each arm forks into two or three smaller ones."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=560, height=480, paper="#0b2a3c")
def coral(nib, depth: Annotated[int, Span(2, 7)] = 6, spread: Annotated[float, Span(10, 40)] = 26):
    """Arms that fork, the tips lighter than the stem."""
    nib.travel_to(0, -220)
    nib.turn_to(90)
    arm(nib, 88, spread, ramp("#ffd9c0", "#b0304a", depth + 1))


def arm(nib, length, spread, colours):
    """An arm, and smaller ones at its end; the last colour is its own."""
    if not colours:
        return
    nib.ink = colours[-1]
    nib.line_width = 2 * len(colours)
    with nib.returning():
        nib.forward(length)
        for turn in (-spread, 0.2 * spread, spread):
            with nib.returning():
                nib.left(turn + nib.dice.number(-6, 6))
                arm(nib, length * nib.dice.number(0.66, 0.8), spread, colours[:-1])
