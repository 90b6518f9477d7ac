"""A poster of stars: every way to join so many points, in one stroke or in several."""

from typing import Annotated

from ovlo import Span, drawing, shift_hue


@drawing(width=640, height=420, paper="#101a3a")
def star_polygons(nib, first: Annotated[int, Span(5, 12)] = 8, rows: Annotated[int, Span(1, 4)] = 4):
    """A row for each number of points, a column for each way to skip some."""
    columns = (first + rows - 2) // 2
    cell = min(560 / columns, 390 / rows)
    for row in range(rows):
        points = first + row
        for every in range(2, (points + 1) // 2):
            nib.travel_to(cell * (every - 2 - (columns - 2) / 2), cell * ((rows - 1) / 2 - row))
            nib.ink = shift_hue("gold", 30 * (every - 2) + 60 * row)
            nib.star(points, 0.42 * cell, every, turn=90)
