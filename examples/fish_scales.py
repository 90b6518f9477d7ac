"""The scales of a carp that somebody caught: rows of arcs, each row over the one behind."""

from typing import Annotated

from ovlo import Span, blend, drawing


@drawing(width=640, height=420, paper="#20414f")
def fish_scales(nib, size: Annotated[float, Span(16, 48)] = 28, bands: Annotated[int, Span(1, 5)] = 3):
    """Scales from the top down, in colours that change from row to row."""
    rows, columns = int((400 - size) / size * 2) + 1, int((310 - size / 2) / size)
    nib.line_width = 1
    for row in range(rows):
        colour = blend("#7fd1c7", "#2a5d8f", row / rows)
        for column in range(-columns, columns + 1 - row % 2):
            x = size * (column + (row % 2) / 2)
            scale(nib, x, 200 - size / 2 - row * size / 2, size / 2, bands, colour)


def scale(nib, x, y, radius, bands, colour):
    """One scale: a disc with rings in it."""
    for band in range(bands):
        nib.travel_to(x, y)
        nib.ink = blend(colour, "black", 0.35)
        nib.circle(radius * (1 - band / bands), fill=blend(colour, "white", 0.6 * band / bands))
