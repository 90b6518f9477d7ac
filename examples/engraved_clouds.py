"""Clouds as an engraver cuts them: lines that lie closer where it is darker."""

from math import sqrt
from typing import Annotated

from ovlo import Span, drawing


@drawing(width=640, height=360, paper="#f4efe2")
def engraved_clouds(nib, clouds: Annotated[int, Span(1, 6)] = 4, gap: Annotated[float, Span(3, 9)] = 4):
    """Each cloud is a heap of discs, hatched from its foot up."""
    dice = nib.dice
    nib.ink = "#2d3a4a"
    for i in range(clouds):
        x, y = -230 + 460 * (i + 0.5) / clouds, dice.number(-70, 70)
        discs = [(x + dice.number(-55, 55), y + dice.number(0, 30), dice.number(25, 45)) for _ in range(6)]
        hatched(nib, discs, y - 12, gap)


def hatched(nib, discs, foot, gap):
    """Level lines through all discs, wider apart towards the top."""
    y = foot
    while y < foot + 120:
        nib.line_width = max(0.4, 1.8 - (y - foot) / 70)
        across = [(x, sqrt(r * r - (y - cy) ** 2)) for x, cy, r in discs if abs(y - cy) < r]
        if across:
            nib.travel_to(min(x - half for x, half in across), y)
            nib.line_to(max(x + half for x, half in across), y)
        y += gap * (1 + (y - foot) / 80)
