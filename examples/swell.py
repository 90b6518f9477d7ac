"""The swell of the open sea: waves behind waves, each a row of arcs."""

from typing import Annotated

from ovlo import Span, drawing, ramp


@drawing(width=640, height=420, paper="#cfe8ef")
def swell(nib, rows: Annotated[int, Span(3, 14)] = 9, steepness: Annotated[float, Span(30, 80)] = 58):
    """From the horizon forward the waves are larger and darker."""
    for row, colour in enumerate(ramp("#8fc3d4", "#12395c", rows)):
        size = 14 + 46 * (row + 1) / rows
        y = 110 - 310 * ((row + 0.5) / rows) ** 1.3
        with nib.area(colour, outline=False):
            nib.travel_to(-330 - size * (row % 2), y)
            while nib.position[0] < 330:
                nib.turn_to(-steepness)
                nib.arc_left(size, 2 * steepness)
            nib.line_to(330 + 2 * size, -215)
            nib.line_to(-330 - 2 * size, -215)
            nib.line_to_start()
